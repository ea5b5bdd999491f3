import type { Component, TaxCode } from "../../model/taxCode.ts";
import { headOf } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

/** The same code with another share of the value-added tax (never of a provincial sales tax). */
const VARIANTS: NonNullable<TaxCode["variants"]> = [
  { suffix: "M", name: "meals and entertainment, half", recoverable: "50" },
  { suffix: "L", name: "long-haul driver meals", recoverable: "80" },
  { suffix: "N", name: "blocked", recoverable: "0" },
  { suffix: "C", name: "capital property", recoverable: "100" },
  {
    suffix: "P",
    name: "commercial share of the line",
    recoverable: "100",
    inputs: ["recoverable"],
    // ETA 141, 169(1): nearly all is all, nearly nothing is nothing.
    wholeShare: { from: 90, noneUpTo: 10 },
  },
  {
    suffix: "V",
    name: "passenger vehicle, up to the cap",
    recoverable: "100",
    cap: { schedule: "ca.VEHICLE", of: "net" },
  },
  {
    suffix: "Z",
    name: "zero-emission passenger vehicle, up to its cap",
    recoverable: "100",
    cap: { schedule: "ca.ZEV", of: "net" },
  },
];

type Levy = "GST" | "HST" | "QST" | "BCPST" | "SKPST" | "MBRST";

function component(levy: Levy, schedule: string | null, more: Partial<Component>): Component {
  return {
    levy,
    rate:
      schedule === null
        ? { kind: "none" }
        : schedule === "typed"
          ? { kind: "typed" }
          : { kind: "percent", schedule: `ca.${schedule}` },
    partOfLaterBases: false,
    charged: "charged",
    recoverable: "100",
    boxes: {},
    ...more,
  };
}

/** Pattern F: credit notes have boxes of their own (ETA 232(3), 225(1)). */
const federal = (levy: "GST" | "HST", schedule: string): Component =>
  component(levy, schedule, {
    boxes: {
      sale: "101 +n, 90 +n, 103 +t",
      saleCredit: "101 +n, 90 +n, 107 -t",
      purchase: "106 +r",
      purchaseCredit: "104 -r",
    },
  });

/** Pattern Q. */
const quebec = component("QST", "QST", {
  boxes: { sale: "Q203 +t", saleCredit: "Q207 -t", purchase: "Q206 +r", purchaseCredit: "Q204 -r" },
});

/** Patterns B, S and M: a provincial sales tax is charged once, to the end user, and is never deducted. */
const PROVINCIAL = {
  BC: component("BCPST", "BCPST", { recoverable: "0", boxes: { sale: "BC.A +n, BC.B +t" } }),
  SK: component("SKPST", "SKPST", { recoverable: "0", boxes: { sale: "SK.1 +n, SK.2 +t" } }),
  MB: component("MBRST", "MBRST", { recoverable: "0", boxes: { sale: "MB.1 +n, MB.2 +t" } }),
};

/** Own use of what was bought without the tax. */
const OWN_USE = {
  BC: component("BCPST", "BCPST", {
    charged: "self-assessed",
    recoverable: "0",
    boxes: { purchase: "BC.E +t" },
  }),
  SK: component("SKPST", "SKPST", {
    charged: "self-assessed",
    recoverable: "0",
    boxes: { purchase: "SK.3 +n, SK.4 +t" },
  }),
  MB: component("MBRST", "MBRST", {
    charged: "self-assessed",
    recoverable: "0",
    boxes: { purchase: "MB.3 +t" },
  }),
};

/** Total sales of the provincial returns also count supplies made there without that tax. */
const soldThere = (levy: Levy, region: string, box: string): Component =>
  component(levy, null, {
    when: { there: region, direction: "sale", abroad: "no" },
    onlyRegistered: true,
    boxes: { sale: `${box} +n` },
  });
const SOLD_THERE = [
  soldThere("BCPST", "BC", "BC.A"),
  soldThere("SKPST", "SK", "SK.1"),
  soldThere("MBRST", "MB", "MB.1"),
];

/** Net only, with no tax of the federation. */
const netOnly = (split: "90" | "91", schedule: string | null = null): Component =>
  component("GST", schedule, { boxes: { sale: `101 +n, ${split} +n` } });

const selfAssessed = (levy: "GST" | "HST", schedule: string, box: string): Component =>
  component(levy, schedule, { charged: "self-assessed", boxes: { purchase: `${box} +t, 106 +r` } });

type Head = Omit<CodeRow, "schedule">;
const code = (head: Head, components: readonly Component[]): TaxCode => ({
  ...headOf("ca", head),
  components,
});

const HST_PROVINCES = [
  ["ON", "Ontario"],
  ["NB", "New Brunswick"],
  ["NL", "Newfoundland and Labrador"],
  ["PE", "Prince Edward Island"],
  ["NS", "Nova Scotia"],
] as const;
const HST_RULE = "ETA 165(2), Sch. VIII";

const harmonized = HST_PROVINCES.flatMap(([id, name]): TaxCode[] => [
  code(
    {
      code: `H${id}`,
      name: `HST ${name}`,
      direction: "both",
      treatment: "standard",
      variants: VARIANTS,
      source: HST_RULE,
    },
    [federal("HST", id)],
  ),
  code(
    {
      code: `R${id}`,
      name: `Point-of-sale rebate, ${name}`,
      direction: "both",
      treatment: "reduced",
      note: "Books, children's clothing and the like: the provincial part is given back at the till.",
      source: "Deduction for Provincial Rebate Regulations",
    },
    [federal("HST", "FED")],
  ),
  code(
    {
      code: `S${id}`,
      name: `Imported services, ${name}`,
      direction: "purchase",
      treatment: "reverse-charge",
      inputs: ["recoverable"],
      note: "Only where the business is less than 90 % commercial; the attribute recoverable holds the commercial share.",
      source: "ETA 217 to 218.1",
    },
    [selfAssessed("HST", id, "405")],
  ),
  code(
    {
      code: `D${id}`,
      name: `Provincial part on what is brought into ${name}`,
      direction: "purchase",
      treatment: "reverse-charge",
      source: "ETA 220.05 and 220.08",
    },
    [selfAssessed("HST", `D-${id}`, "405")],
  ),
  code(
    {
      code: `RP${id}`,
      name: `Real property bought, ${name}`,
      direction: "purchase",
      treatment: "reverse-charge",
      source: "ETA 221(2), 228(4)",
    },
    [selfAssessed("HST", id, "205")],
  ),
]);

const PST_PROVINCES = [
  ["BC", "BC PST", "Provincial Sales Tax Act (BC)"],
  ["SK", "SK PST", "The Provincial Sales Tax Act (SK)"],
  ["MB", "MB RST", "The Retail Sales Tax Act (MB)"],
] as const;

const provincial = PST_PROVINCES.flatMap(([id, name, source]): TaxCode[] => [
  code(
    {
      code: `G${id}`,
      name: `GST + ${name}`,
      direction: "both",
      treatment: "standard",
      variants: VARIANTS,
      source,
    },
    [federal("GST", "GST"), PROVINCIAL[id]],
  ),
  code({ code: `P${id}`, name: `${name} only`, direction: "both", treatment: "standard", source }, [
    netOnly("91"),
    PROVINCIAL[id],
  ]),
  code(
    {
      code: `U${id}`,
      name: `Own use: GST charged, ${name} owed`,
      direction: "purchase",
      treatment: "reverse-charge",
      source,
    },
    [federal("GST", "GST"), OWN_USE[id]],
  ),
  code(
    {
      code: `X${id}`,
      name: `Own use: ${name} owed, nothing charged`,
      direction: "purchase",
      treatment: "reverse-charge",
      source,
    },
    [OWN_USE[id]],
  ),
]);

// prettier-ignore
const others: TaxCode[] = [
  code({ code: "G5", name: "GST 5 %", direction: "both", treatment: "standard", variants: VARIANTS, source: "ETA 165(1)" }, [federal("GST", "GST"), ...SOLD_THERE]),
  code({ code: "GQ", name: "GST + QST", direction: "both", treatment: "standard", variants: VARIANTS, note: "QST is on the price without GST since 2013.", source: "ETA 165(1), AQST s. 16" }, [federal("GST", "GST"), quebec]),
  code({ code: "GQC", name: "GST + QST, the QST is cost", direction: "purchase", treatment: "standard", variants: VARIANTS, note: "For a business that is not registered for QST.", source: "ETA 165(1), AQST s. 16" }, [federal("GST", "GST"), component("QST", "QST", { recoverable: "0" })]),
  code({ code: "Q", name: "QST only", direction: "both", treatment: "standard", source: "AQST s. 16" }, [netOnly("91"), quebec]),
  code({ code: "Z", name: "Zero-rated in Canada", direction: "both", treatment: "zero", note: "Basic groceries, prescription drugs, medical devices, farm goods.", source: "ETA Sch. VI" }, [netOnly("90", "ZERO"), ...SOLD_THERE]),
  code({ code: "ZX", name: "Zero-rated export of goods or services", direction: "sale", treatment: "export", source: "ETA Sch. VI Part V" }, [netOnly("91", "ZERO")]),
  code({ code: "ZH", name: "Holiday relief", direction: "both", treatment: "zero", from: "2024-12-14", to: "2025-02-15", source: "Tax Break for All Canadians Act" }, [netOnly("90", "ZERO"), ...SOLD_THERE]),
  code({ code: "E", name: "Exempt", direction: "both", treatment: "exempt", source: "ETA Sch. V" }, [netOnly("91"), ...SOLD_THERE]),
  code({ code: "O", name: "Outside the scope", direction: "both", treatment: "out-of-scope", source: "ETA 123(1)" }, [component("GST", null, {})]),
  code({ code: "NT", name: "Bought from a supplier who is not registered", direction: "purchase", treatment: "out-of-scope", source: "ETA 166" }, [component("GST", null, {})]),
  code({ code: "IMG", name: "Import GST on the customs form", direction: "purchase", treatment: "import", supply: "goods", amountIs: "base", note: "The amount is the base on the form: value for duty, duty and excise. It is not part of the document's total.", source: "ETA 212" }, [component("GST", "GST", { boxes: { purchase: "106 +r" } })]),
  code({ code: "TXO", name: "Tax-only line of a broker or courier", direction: "purchase", treatment: "import", amountIs: "tax", note: "The amount is the tax.", source: "ETA 212" }, [component("GST", "typed", { boxes: { purchase: "106 +r" } })]),
  code({ code: "SG", name: "Imported services, GST only", direction: "purchase", treatment: "reverse-charge", inputs: ["recoverable"], note: "Only where the business is less than 90 % commercial; the attribute recoverable holds the commercial share.", source: "ETA 217 to 218.1" }, [selfAssessed("GST", "GST", "405")]),
  code({ code: "SGQ", name: "Imported services, Quebec", direction: "purchase", treatment: "reverse-charge", source: "ETA 217, AQST s. 26" }, [
    component("GST", "GST", { charged: "self-assessed", boxes: { purchase: "S405 +t, 405 +t, 106 +r" } }),
    component("QST", "QST", { charged: "self-assessed", boxes: { purchase: "S405Q +t, Q206 +r" } }),
  ]),
  code({ code: "RPG", name: "Real property bought, GST only", direction: "purchase", treatment: "reverse-charge", source: "ETA 221(2), 228(4)" }, [selfAssessed("GST", "GST", "205")]),
  code({ code: "ALW", name: "Reasonable travel allowance", direction: "purchase", treatment: "standard", note: "Tax-inclusive.", source: "ETA 174" }, [component("GST", "GST", { boxes: { purchase: "106 +r" } })]),
];

const ALLOWED = {
  direction: "purchase",
  treatment: "adjustment",
  amountIs: "gross",
  note: "The amount is the capital cost allowance of the year, the business part of it. On the last return of the year.",
  source: "ETA 202(4)",
} as const;

/** A car of a person or partnership that is used for business in part. */
const allowances: TaxCode[] = [
  code({ code: "CCA5", name: "Allowance on a car, GST 5 %", ...ALLOWED }, [
    component("GST", "GST", { boxes: { purchase: "106 +r" } }),
  ]),
  code({ code: "CCAQ", name: "Allowance on a car, QST", ...ALLOWED, source: "AQST s. 252" }, [
    component("QST", "QST", { boxes: { purchase: "Q206 +r" } }),
  ]),
  ...HST_PROVINCES.map(([id, name]) =>
    code({ code: `CCA${id}`, name: `Allowance on a car, HST ${name}`, ...ALLOWED }, [
      component("HST", id, { boxes: { purchase: "106 +r" } }),
    ]),
  ),
];

const SOLD = {
  direction: "sale",
  treatment: "standard",
  note: "A machine, a vehicle, furniture: no part of the turnover of a scheme.",
  source: "ETA 141.1, 200",
} as const;

/** Capital property that is sold. */
const sold: TaxCode[] = [
  code({ code: "A5", name: "Capital property sold, GST 5 %", ...SOLD }, [
    federal("GST", "GST"),
    ...SOLD_THERE,
  ]),
  code({ code: "AQ", name: "Capital property sold, GST + QST", ...SOLD }, [federal("GST", "GST"), quebec]),
  ...HST_PROVINCES.map(([id, name]) =>
    code({ code: `A${id}`, name: `Capital property sold, HST ${name}`, ...SOLD }, [federal("HST", id)]),
  ),
];

/** The codes of Canada: federal, harmonized by province, Quebec, and the three provinces with a sales tax. */
export const codes: TaxCode[] = [...others, ...harmonized, ...provincial, ...allowances, ...sold];

/** Codes of capital property, bought (within the caps of vehicles) and sold. */
export const capitalCodes: string[] = [
  ...codes.flatMap(({ code: name, variants = [] }) =>
    variants.filter(({ suffix }) => "CVZ".includes(suffix)).map(({ suffix }) => `${name}-${suffix}`),
  ),
  ...sold.map(({ code: name }) => name),
];

/** Codes of real property, whose tax is deducted under every scheme. */
export const realProperty: string[] = codes
  .map(({ code: name }) => name)
  .filter((name) => name.startsWith("RP"));
