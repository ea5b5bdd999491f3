import type { Frequency } from "../../calendar/filingPeriods.ts";
import type { BoxDefinition, ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, taxed, typedIn } from "../shared/formBoxes.ts";
import { line, table } from "../shared/formTables.ts";
import { BODIES, STATES } from "./jurisdictions.ts";

const VALUE = { holds: "value" } as const;

interface Allowance {
  frequencies?: readonly Frequency[];
  from?: string;
  to?: string;
  formula: string;
  words: string;
}

const ILLINOIS = "35 ILCS 120/3";
const capped = (frequency: Frequency, months: number): Allowance => ({
  frequencies: [frequency],
  from: "2025-01-01",
  formula: `min([G7] * 1.75 / 100, ${1000 * months})`,
  words: `1.75 % of the tax, at most 1,000.00 a month (${ILLINOIS}, as amended 2024).`,
});
const pennsylvania = (frequency: Frequency, most: number): Allowance => ({
  frequencies: [frequency],
  formula: `min([G7] * 1 / 100, ${most})`,
  words: `1 % of the tax, at most ${most}.00 (Tax Reform Code § 227).`,
});

/** What is kept for filing and paying in time, by state, rhythm and day; nothing where no row fits. */
const ALLOWANCES: Readonly<Record<string, readonly Allowance[]>> = {
  TX: [{ formula: "[G7] * 0.5 / 100", words: "0.5 % of the tax (Tax Code § 151.423)." }],
  FL: [
    {
      formula: "min(min([G7], 1200) * 2.5 / 100, 30)",
      words: "2.5 % of the first 1,200.00, at most 30.00, filed electronically (Fla. Stat. § 212.12).",
    },
  ],
  NY: [
    {
      frequencies: ["quarterly"],
      formula: "min([G7] * 5 / 100, 200)",
      words: "5 % of the tax, at most 200.00, for quarterly filers only (Tax Law § 1137(f)).",
    },
  ],
  IL: [
    { to: "2024-12-31", formula: "[G7] * 1.75 / 100", words: `1.75 % of the tax (${ILLINOIS}).` },
    capped("monthly", 1),
    capped("quarterly", 3),
    capped("annual", 12),
  ],
  PA: [pennsylvania("monthly", 25), pennsylvania("quarterly", 75), pennsylvania("six-monthly", 150)],
  GA: [
    {
      formula: "min([G7], 3000) * 3 / 100 + max([G7] - 3000, 0) * 0.5 / 100",
      words: "3 % of the first 3,000.00 of the tax and 0.5 % of the rest (O.C.G.A. § 48-8-50).",
    },
  ],
};

/** The generic return of a state: base and tax of each body that levies there. */
function stateForm(state: string, allowance: Allowance | undefined, more: Partial<ReturnForm>): ReturnForm {
  const bodies = BODIES.filter((body) => body.state === state);
  const boxes: BoxDefinition[] = [
    sum("G1", "Gross sales, without tax", VALUE),
    sum("G2a", "Sales for resale", VALUE),
    sum("G2b", "Sales to exempt buyers", VALUE),
    sum("G2c", "Exempt products and services", VALUE),
    sum("G2d", "Delivered out of state", VALUE),
    sum("G2e", "Sales tax holiday", VALUE),
    sum("G2f", "Through a marketplace", VALUE),
    computed("G3", "Taxable sales", "[G1] - [G2a] - [G2b] - [G2c] - [G2d] - [G2e] - [G2f]", VALUE),
    sum("G4", "Purchases subject to use tax", VALUE),
    ...bodies.map(({ id, name }) => sum(`G5.${id}`, `Base of ${name}`, VALUE)),
    ...bodies.map(({ id, name }) => taxed(`G6.${id}`, `Tax of ${name}`, `G5.${id}`, `us.${id}`)),
    computed("G7", "Total tax", bodies.map(({ id }) => `[G6.${id}]`).join(" + ")),
    typedIn("G8", "Tax collected in excess and not refunded"),
    typedIn("G9L", "Allowance lost, filed or paid late"),
    computed("G9", "Allowance for timely filing", allowance ? `max(0, ${allowance.formula} - [G9L])` : "0", {
      words: allowance?.words ?? "None.",
    }),
    typedIn("G10", "Credits and prepayments"),
    computed("G11", "Amount due", "[G7] + [G8] - [G9] - [G10]"),
  ];
  return {
    id: `us-${state.toLowerCase()}`,
    name: `Sales and use tax return, ${bodies[0]?.name ?? state}`,
    levies: [`SALES:${state}`],
    turnover: ["G1"],
    from: "2018-01-01",
    to: null,
    boxes,
    tables: [
      table("Sales", "", [
        line("", "Gross sales, without tax", "G1"),
        line("", "Sales for resale", "G2a"),
        line("", "Sales to exempt buyers", "G2b"),
        line("", "Exempt products and services", "G2c"),
        line("", "Delivered out of state", "G2d"),
        line("", "Sales tax holiday", "G2e"),
        line("", "Through a marketplace", "G2f"),
        line("", "Taxable sales", "G3", "sum"),
        line("", "Purchases subject to use tax", "G4"),
      ]),
      table("Tax by jurisdiction", "Base | Tax", [
        ...bodies.map(({ id, name }) => line("", name, `G5.${id} G6.${id}`)),
        line("", "Total tax", "- G7", "sum"),
      ]),
      table("Amount due", "", [
        line("", "Tax collected in excess and not refunded", "G8"),
        line("", "Allowance lost, filed or paid late", "G9L"),
        line("", "Allowance for timely filing", "G9"),
        line("", "Credits and prepayments", "G10"),
        line("", "Amount due", "G11", "result"),
      ]),
    ],
    net: { output: "[G7] + [G8]", input: "[G9] + [G10]", due: "[G11]", shown: "G11", allowance: "[G9]" },
    source: "generic return; the state's own form is filled from it",
    ...more,
  };
}

/** Forms with what may be kept come before the plain one; who lost it files the plain one. */
export const forms: ReturnForm[] = STATES.flatMap((state) => [
  ...(ALLOWANCES[state] ?? []).map((allowance) =>
    stateForm(state, allowance, {
      ...(allowance.frequencies ? { frequencies: allowance.frequencies } : {}),
      ...(allowance.from ? { from: allowance.from } : {}),
      ...(allowance.to ? { to: allowance.to } : {}),
    }),
  ),
  stateForm(state, undefined, {}),
  stateForm(state, undefined, { option: ["allowance", "lost"] }),
]);
