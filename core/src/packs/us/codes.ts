import type { Component, TaxCode } from "../../model/taxCode.ts";
import { headOf } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";
import { BODIES, REDUCED, STATES } from "./jurisdictions.ts";
import type { TaxBody } from "./jurisdictions.ts";

const code = (head: Omit<CodeRow, "schedule">, components: readonly Component[]): TaxCode => ({
  ...headOf("us", head),
  components,
});

/** The taxes of the place a supply is sourced to; all on the net, none on another. */
function stack(extra: string, side: "sale" | "purchase", more: Partial<Component> = {}): Component[] {
  return BODIES.map((body): Component => ({
    levy: `SALES:${body.id}`,
    rate: { kind: "percent", schedule: `us.${body.id}` },
    ...(body.base === undefined ? {} : { base: body.base }),
    partOfLaterBases: false,
    charged: "charged",
    recoverable: "0",
    when: { stack: body.locations, ...(body.goodsOnly ? { supply: ["goods", ""] } : {}) },
    boxes: { [side]: tagsOf(body, extra) },
    ...more,
  }));
}

/** The state's own tax carries the value into G1 or G4, so that it is counted once. */
function tagsOf({ id, state }: TaxBody, extra: string): string {
  const box = `G5.${id} +b`;
  return id === state ? `${extra} +n, ${box}` : box;
}

/** A sale without tax, counted by the state it is made to, or from. */
const untaxed = (box: string, key: "state" | "homeState" = "state"): Component[] =>
  STATES.map((state): Component => ({
    levy: `SALES:${state}`,
    rate: { kind: "none" },
    partOfLaterBases: false,
    charged: "charged",
    recoverable: "0",
    when: { [key]: state },
    boxes: { sale: `G1 +n, ${box} +n` },
  }));

/** The state's own tax at its reduced rate, and local taxes where they come on top; the part over a limit has none. */
function reduced(): Component[] {
  const ordinary = stack("G1", "sale");
  return REDUCED.flatMap(({ state, schedule, local }) => {
    const bodies = BODIES.filter((body) => body.state === state);
    return bodies.flatMap((body) => {
      const component = ordinary.find(({ levy }) => levy === `SALES:${body.id}`);
      if (!component || body.goodsOnly) return [];
      if (body.id === state)
        return [{ ...component, rate: { kind: "percent" as const, schedule: `us.${schedule}` } }];
      return local ? [component] : [];
    });
  });
}

const STATE_LEVIES = new Set(STATES.map((state) => `SALES:${state}`));

const nothing: Component[] = [
  {
    levy: "SALES:TX",
    rate: { kind: "none" },
    partOfLaterBases: false,
    charged: "charged",
    recoverable: "0",
    onlyRegistered: true,
    boxes: {},
  },
];
const SSUTA = "SSUTA; state sales tax acts";

// prettier-ignore
export const codes: TaxCode[] = [
  code({ code: "ST", name: "Taxable", direction: "sale", treatment: "standard", source: SSUTA }, stack("G1", "sale")),
  code({ code: "RS", name: "For resale, certificate on file", direction: "sale", treatment: "exempt", source: "SSUTA § 317" }, untaxed("G2a")),
  code({ code: "XB", name: "Exempt buyer, certificate on file", direction: "sale", treatment: "exempt", source: "SSUTA § 317" }, untaxed("G2b")),
  code({ code: "XP", name: "Exempt product or service", direction: "sale", treatment: "exempt", source: SSUTA }, untaxed("G2c")),
  code({ code: "SL", name: "Exempt from the state, local taxes only", direction: "sale", treatment: "reduced", note: "Groceries in Georgia, clothing in some counties of New York.", source: SSUTA }, [...untaxed("G2c"), ...stack("G1", "sale").filter(({ levy }) => !STATE_LEVIES.has(levy))]),
  code({ code: "SR", name: "Reduced rate of the state", direction: "sale", treatment: "reduced", supply: "goods", note: "Food in Tennessee; food and medicine in Illinois.", source: "35 ILCS 120/2-10; Tenn. Code § 67-6-228" }, reduced()),
  code({ code: "XI", name: "Delivered out of state, no obligation there", direction: "sale", treatment: "export", source: "Wayfair, 2018" }, untaxed("G2d", "homeState")),
  code({ code: "XH", name: "Sales tax holiday", direction: "sale", treatment: "exempt", source: "SSUTA § 322" }, untaxed("G2e")),
  code({ code: "XM", name: "Through a marketplace that collects", direction: "sale", treatment: "exempt", source: "marketplace facilitator acts" }, untaxed("G2f")),
  code({ code: "XO", name: "Not a sale", direction: "sale", treatment: "out-of-scope", source: SSUTA }, nothing),
  code({ code: "BDW", name: "Bad debt on taxed sales", direction: "sale", treatment: "adjustment", note: "Entered negative, or as a credit note.", source: "SSUTA § 320" }, stack("G1", "sale")),
  code({ code: "PT", name: "Tax charged by the vendor", direction: "purchase", treatment: "blocked", note: "Enter the gross: the tax is cost.", source: SSUTA }, nothing),
  code({ code: "PR", name: "For resale, certificate given", direction: "purchase", treatment: "out-of-scope", source: "SSUTA § 317" }, nothing),
  code({ code: "UT", name: "Use tax: vendor charged none, own use", direction: "purchase", treatment: "reverse-charge", source: SSUTA }, stack("G4", "purchase", { charged: "self-assessed" })),
  code({ code: "UTD", name: "Use tax, with credit for tax of another state", direction: "purchase", treatment: "reverse-charge", note: "The tax paid elsewhere is typed in G10.", source: SSUTA }, stack("G4", "purchase", { charged: "self-assessed" })),
];
