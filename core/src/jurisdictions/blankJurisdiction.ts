import { PLAIN_CORRECTION } from "../model/correction.ts";
import type { OwnJurisdiction } from "./ownJurisdiction.ts";
import { chart } from "../packs/shared/chart.ts";
import { CENTS, computed, sum } from "../packs/shared/formBoxes.ts";

/** The number of the first output-tax account. */
const FIRST_TAX_ACCOUNT = 2200;

/**
 * The jurisdiction the builder starts with: one levy, named `levy`, of 10 % with a code for what bears it and one for what does not,
 * and a form of four boxes. Everything in it can be changed; it already passes `checkPack`.
 */
export function blankJurisdiction(levy = "TAX"): OwnJurisdiction {
  return {
    id: "own-land",
    country: "XX",
    name: "New jurisdiction",
    currency: "USD",
    authority: "Revenue office",
    numberName: "tax number",
    numberHint: "as the authority wrote it",
    numberPattern: "",
    levies: [{ levy, name: levy, deducted: true }],
    schedules: { "own.STD": [{ from: "2000-01-01", to: null, rate: "10", source: "" }] },
    codes: [taxed(levy), untaxed(levy)],
    accounts: chart({ outOfScope: "N" }, [taxAccounts(levy, 0)]),
    classes: [
      { id: "standard", name: "Bears the tax" },
      { id: "exempt", name: "Bears none" },
    ],
    rules: [],
    forms: [
      {
        id: "own-return",
        name: "Tax return",
        levies: [levy],
        from: "2000-01-01",
        to: null,
        boxes: [
          sum("1", "Sales", { rounding: CENTS, holds: "value" }),
          sum("2", "Tax on sales", { rounding: CENTS }),
          sum("3", "Tax on purchases", { rounding: CENTS }),
          computed("4", "Tax to pay or reclaim", "[2] - [3]", { rounding: CENTS }),
        ],
        net: { output: "[2]", input: "[3]", due: "[4]", shown: "4" },
        source: "",
      },
    ],
    rhythms: [{ id: "quarterly", name: "Quarterly", frequency: "quarterly", anchor: "2026-03-31" }],
    roundings: [
      {
        id: "line",
        name: "Each line to the nearest cent",
        rounding: { level: "line", mode: "half-up" },
        source: "",
      },
    ],
    bases: ["accrual"],
    due: [{ months: 1, day: "end", shift: "next", source: "" }],
    holidays: { country: "XX" },
    correction: PLAIN_CORRECTION,
    creditNotes: "netted",
    declaration: "I declare that the figures in this return are true and complete.",
    notes: [],
    electronic: false,
  };
}

function taxed(levy: string): OwnJurisdiction["codes"][number] {
  return {
    code: "S",
    name: "Bears the tax",
    direction: "both",
    supply: "both",
    treatment: "standard",
    from: null,
    to: null,
    note: "",
    source: "",
    components: [
      {
        levy,
        rate: { kind: "percent", schedule: "own.STD" },
        partOfLaterBases: false,
        charged: "charged",
        recoverable: "100",
        boxes: { sale: "1 +n, 2 +t", purchase: "3 +r" },
      },
    ],
  };
}

function untaxed(levy: string): OwnJurisdiction["codes"][number] {
  return {
    code: "N",
    name: "Bears no tax",
    direction: "both",
    supply: "both",
    treatment: "exempt",
    from: null,
    to: null,
    note: "",
    source: "",
    components: [
      {
        levy,
        rate: { kind: "none" },
        partOfLaterBases: false,
        charged: "declared-only",
        recoverable: "100",
        boxes: { sale: "1 +n" },
      },
    ],
  };
}

/**
 * An own jurisdiction with a further levy: the levy, and the accounts it is posted to.
 * @param levy its name in codes and accounts; must be new
 */
export function withLevy(own: OwnJurisdiction, levy: string, deducted: boolean): OwnJurisdiction {
  const used = new Set(own.accounts.map(({ code }) => code));
  const rows = chart({}, [taxAccounts(levy, own.levies.length, deducted)]).filter((row) => row.levy === levy);
  return {
    ...own,
    levies: [...own.levies, { levy, name: levy, deducted }],
    accounts: [...own.accounts, ...rows.filter(({ code }) => !used.has(code))],
  };
}

function taxAccounts(levy: string, index: number, input = true) {
  return { levy, name: levy, at: FIRST_TAX_ACCOUNT + 10 * index, authority: "the authority", input };
}
