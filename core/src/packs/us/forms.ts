import type { BoxDefinition, ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, typedIn } from "../shared/formBoxes.ts";
import { BODIES, STATES } from "./jurisdictions.ts";

const VALUE = { holds: "value" } as const;

/** What is kept for filing and paying in time, before what is lost by being late. */
const ALLOWANCE: Readonly<Record<string, { formula: string; words: string }>> = {
  TX: { formula: "[G7] * 0.5 / 100", words: "0.5 % of the tax (Tax Code § 151.423)." },
  FL: {
    formula: "min(min([G7], 1200) * 2.5 / 100, 30)",
    words: "2.5 % of the first 1,200.00, at most 30.00 (Fla. Stat. § 212.12).",
  },
  NY: {
    formula: "min([G7] * 5 / 100, 200)",
    words: "5 % of the tax, at most 200.00 a quarter (Tax Law § 1137(f)).",
  },
};

/** The generic return of a state: base and tax of each body that levies there. */
function stateForm(state: string): ReturnForm {
  const bodies = BODIES.filter((body) => body.state === state);
  const allowance = ALLOWANCE[state];
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
    ...bodies.map(({ id, name }) => computed(`G6.${id}`, `Tax of ${name}`, `[G5.${id}] * {us.${id}} / 100`)),
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
    from: "2018-01-01",
    to: null,
    boxes,
    net: { output: "[G7] + [G8]", input: "[G9] + [G10]", due: "[G11]", shown: "G11", allowance: "[G9]" },
    source: "generic return; the state's own form is filled from it",
  };
}

export const forms: ReturnForm[] = STATES.map(stateForm);
