import type { SupplyRule } from "../../model/supplyRule.ts";

/** One line of a table of supply rules. */
export type RuleRow = [
  direction: SupplyRule["direction"],
  taxClass: string,
  supply: SupplyRule["supply"],
  from: string,
  to: string,
  party: string,
  code: string,
  words: string,
  source: string,
];

/** Supply rules from a table; ids are the pack and the place in the table. */
export function rulesOf(pack: string, rows: readonly RuleRow[]): SupplyRule[] {
  return rows.map(([direction, taxClass, supply, from, to, party, code, words, source], index) => ({
    id: `${pack}-${index + 1}`,
    direction,
    taxClass,
    supply,
    from,
    to,
    party,
    validFrom: null,
    validTo: null,
    code,
    words,
    source,
  }));
}

/** The tax classes every jurisdiction has. */
export const CLASSES = [
  { id: "standard", name: "Standard" },
  { id: "reduced", name: "Reduced" },
  { id: "zero", name: "Zero-rated" },
  { id: "exempt", name: "Exempt" },
  { id: "out-of-scope", name: "Outside the scope" },
];
