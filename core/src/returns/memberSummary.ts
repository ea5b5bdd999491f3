import type { BoxResult, ContributionIn } from "./evaluateReturn.ts";

/** A row of a return by member of consumption: a supply at a rate, a correction of a period, or what a member comes to. */
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
  /** End of the period a correction belongs to; empty where nobody said. */
  period: string;
  /** The box the row stands in. */
  box: string;
}

/** Tax of earlier periods that is corrected for a member; minor units. */
export interface MemberCorrection {
  member: string;
  period: string;
  tax: number;
}

const TAX = "t";
const BALANCE = "due";
const CORRECTION = "C";

/**
 * The rows of a return by member of consumption, from its boxes: the tax of each kind of supply, member it comes from and
 * rate; corrections by the period they correct, what was typed without a period last; each member's balance.
 * @param isReduced whether a code is for a reduced rate
 * @returns member by member, its balance last; amounts in minor units
 * @source VATD art. 369g; Impl. Reg. (EU) 2020/194, annex III
 */
export function memberSummary(
  boxes: readonly BoxResult[],
  corrections: readonly MemberCorrection[],
  isReduced: (code: string) => boolean,
): MemberRow[] {
  const rows = boxes.flatMap((result): MemberRow[] => {
    const [member = "", kind = "", ...rest] = result.box.split(".");
    const row = {
      member,
      supply: "",
      from: "",
      reduced: false,
      rate: "",
      taxable: 0,
      period: "",
      box: result.box,
    };
    if (kind === BALANCE) return [{ ...row, kind: "balance", tax: result.amount }];
    if (kind === CORRECTION) {
      const known = corrections.filter((one) => one.member === member);
      const typed = result.amount - known.reduce((sum, { tax }) => sum + tax, 0);
      return [...known, ...(typed === 0 ? [] : [{ period: "", tax: typed }])].map(({ period, tax }) => ({
        ...row,
        kind: "correction",
        period,
        tax,
      }));
    }
    if (rest.at(-1) !== TAX) return [];
    const base = boxes.find(({ box }) => box === result.box.slice(0, -TAX.length - 1));
    const reduced = new Set(
      base?.contributions.flatMap((part) =>
        part.kind === "facts" && isReduced(part.code) ? [part.rate] : [],
      ),
    );
    return result.contributions.filter(isTaxed).map((part) => ({
      ...row,
      kind: "supply",
      supply: kind,
      from: rest.length > 1 ? (rest[0] ?? "") : "",
      reduced: reduced.has(part.rate),
      rate: part.rate,
      taxable: part.base,
      tax: part.amount,
    }));
  });
  return rows.sort((a, b) => order(a).localeCompare(order(b)));
}

type Taxed = Extract<ContributionIn<number>, { kind: "taxed" }>;

function isTaxed(part: ContributionIn<number>): part is Taxed {
  return part.kind === "taxed";
}

const KINDS: readonly MemberRow["kind"][] = ["supply", "correction", "balance"];

function order({ member, kind, supply, from, reduced, rate, period }: MemberRow): string {
  const last = period === "" ? "~" : period;
  return [member, KINDS.indexOf(kind), supply, from, Number(reduced), rate.padStart(8), last].join(" ");
}
