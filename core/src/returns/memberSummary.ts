import { boxTags } from "../model/boxTags.ts";
import { groupBy } from "../groupBy.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";

/** A fact of a return that is split by member of consumption. Amounts signed, minor units; `rate` in percent. */
export interface MemberFact {
  tags: string;
  rate: string | null;
  reduced: boolean;
  net: number;
  tax: number;
  /** End of the period it belongs to, for corrections. */
  period: string;
}

/** A row of the return: a supply at a rate, a correction of a period, or what a member comes to. */
export interface MemberRow {
  member: string;
  kind: "supply" | "correction" | "balance";
  /** What is supplied, by the letter of its box. */
  supply: string;
  /** The member it comes from, where that is another one. */
  from: string;
  reduced: boolean;
  rate: string;
  taxable: number;
  tax: number;
  period: string;
}

/** The part of a box's id that says it is a correction. */
const CORRECTION = "C";

/**
 * What a return by member of consumption consists of: tax is worked out once for each member, kind of supply, member it
 * comes from and rate, from the sum of the values; corrections stand by the period they correct, with their tax.
 * @returns member by member, its balance last
 * @source VATD art. 369g; Impl. Reg. (EU) 2020/194, annex III
 */
export function memberSummary(facts: readonly MemberFact[]): MemberRow[] {
  const landed = facts.flatMap((fact) => {
    const [first] = boxTags(fact.tags);
    const [member = "", supply = "", from = ""] = first?.box.split(".") ?? [];
    return first === undefined ? [] : [{ ...fact, member, supply, from }];
  });
  const members = [...groupBy(landed, ({ member }) => member)].sort(([a], [b]) => a.localeCompare(b));
  return members.flatMap(([member, own]) => {
    const supplies = groupBy(
      own.filter(({ supply }) => supply !== CORRECTION),
      ({ supply, from, rate, reduced }) => [supply, from, Number(reduced), rate].join(" "),
    );
    const corrections = groupBy(
      own.filter(({ supply }) => supply === CORRECTION),
      ({ period }) => period,
    );
    const blank = { member, supply: "", from: "", reduced: false, rate: "", taxable: 0, period: "" };
    const rows: MemberRow[] = [
      ...[...supplies.values()].flatMap((group): MemberRow[] =>
        group.slice(0, 1).map(({ supply, from, reduced, rate }) => {
          const taxable = group.reduce((sum, { net }) => sum + net, 0);
          const tax = taxOn(taxable, rate ?? "0");
          return { ...blank, kind: "supply", supply, from, reduced, rate: rate ?? "0", taxable, tax };
        }),
      ),
      ...[...corrections].map(([period, group]): MemberRow => {
        return { ...blank, kind: "correction", period, tax: group.reduce((sum, { tax }) => sum + tax, 0) };
      }),
    ].sort((a, b) => order(a).localeCompare(order(b)));
    const balance = rows.reduce((sum, { tax }) => sum + tax, 0);
    return [...rows, { ...blank, kind: "balance", tax: balance }];
  });
}

function taxOn(net: number, rate: string): number {
  const percent = exactFromDecimal(rate);
  return roundExact({ n: percent.n * BigInt(net), d: percent.d * 100n });
}

function order({ kind, supply, from, reduced, rate, period }: MemberRow): string {
  return [kind === "supply" ? 0 : 1, supply, from, Number(reduced), rate.padStart(8), period].join(" ");
}
