import type { SchemeDefinition, SchemeSetting, TurnoverRate } from "../../model/scheme.ts";
import { QST_BOOK, quickRates, SEATS, SELLS } from "./quickRates.ts";

const keyed = (found: (key: string) => boolean): Record<string, string> =>
  Object.fromEntries(
    Object.keys(quickRates)
      .filter(found)
      .map((key) => [key.replace(/^QMQ?-/, "").replace("/credit", ""), `ca.${key}`]),
  );

const sells: SchemeSetting = {
  id: "sells",
  name: "What it sells",
  values: Object.entries(SELLS).map(([value, name]) => ({ value, name })),
};
const used = (name: string): SchemeSetting => ({ id: "used", name, holds: "amount", values: [] });

const conditions: SchemeDefinition["conditions"] = [
  {
    says: "Taxable supplies with tax, zero-rated ones included, are 400,000 or less in a year.",
    source: "Streamlined Accounting (GST/HST) Regulations s. 16; RC4058",
    limit: { upTo: 400_000_00, of: "withTax" },
  },
  {
    says: "No accountant, book-keeper, lawyer, notary, financial consultant, tax preparer or auditor, and no listed financial institution.",
    source: "RC4058",
  },
  { says: "It stays for a year or more.", source: "RC4058" },
];

const ordinary = {
  kind: "turnover-rate",
  replaces: ["standard", "reduced", "zero", "exempt", "blocked", "out-of-scope"],
  undeducted: ["import", "reverse-charge"],
} as const satisfies Partial<TurnoverRate>;

/**
 * The schemes of Canada that put a rate in the place of tax charged less tax paid.
 * @param capital codes of capital property: taxed the ordinary way when sold, deducted when bought
 * @param property codes of real property
 */
export function turnoverSchemes(capital: readonly string[], property: readonly string[]): SchemeDefinition[] {
  const assets = { codes: capital, from: 0 };
  const outside = [...capital, ...property];
  return [
    {
      id: "ca-quick-method",
      name: "Quick method",
      levies: ["GST", "HST"],
      settings: [
        {
          id: "seat",
          name: "Permanent establishment",
          values: Object.entries(SEATS).map(([value, name]) => ({ value, name })),
        },
        sells,
        used("Eligible supplies of this fiscal year before it began in these books"),
      ],
      conditions,
      note: "Customers are charged the ordinary tax; the return holds a rate of supplies with tax, by where they were made, and input tax of capital property only.",
      source: "ETA 227; Streamlined Accounting (GST/HST) Regulations; RC4058; from memory",
      rule: {
        ...ordinary,
        of: "turnover",
        rates: {
          by: ["seat", "sells"],
          bands: true,
          schedules: keyed((key) => key.startsWith("QM-") && !key.endsWith("/credit")),
        },
        credits: keyed((key) => key.startsWith("QM-") && key.endsWith("/credit")),
        takes: ["standard", "reduced"],
        outside,
        capital: assets,
        firstSlice: {
          share: "1",
          upTo: 30_000_00,
          setting: "used",
          yearEnds: "fiscalYear",
          says: "RC4058, 1 % credit",
        },
        boxes: { tax: "103", turnover: ["101", "90"], input: "106", credit: "107" },
        drops: ["101", "90", "103", "104", "106", "107"],
      },
    },
    {
      id: "ca-qst-quick-method",
      name: "Quick method for the QST",
      levies: ["QST"],
      settings: [
        sells,
        used("Eligible supplies with QST of this fiscal year before it began in these books"),
      ],
      conditions: [
        {
          says: "Taxable supplies with tax, zero-rated ones included, are 418,952 or less in a year.",
          source: QST_BOOK,
          limit: { upTo: 418_952_00, of: "withTax" },
        },
        ...conditions.slice(1),
      ],
      note: "Customers are charged the ordinary tax; the return holds a rate of supplies with QST and without GST.",
      source: "AQST 434; Revenu Québec, IN-203; from memory",
      rule: {
        ...ordinary,
        of: "turnover",
        rates: { by: ["sells"], schedules: keyed((key) => key.startsWith("QMQ-")) },
        takes: ["standard", "reduced"],
        outside,
        capital: assets,
        firstSlice: {
          share: "1",
          upTo: 31_421_00,
          setting: "used",
          yearEnds: "fiscalYear",
          says: "IN-203, 1 % credit",
        },
        boxes: { tax: "Q203", turnover: [], input: "Q206", credit: "Q207" },
        drops: ["Q203", "Q204", "Q206", "Q207"],
      },
    },
    {
      id: "ca-charity",
      name: "Net tax of charities",
      byStatus: true,
      levies: ["GST", "HST"],
      settings: [],
      conditions: [
        { says: "A registered charity that has not chosen the ordinary way (GST488).", source: "ETA 225.1" },
      ],
      note: "Of the tax charged 60 % is remitted; input tax is deducted of capital and real property only. Half or more of the rest is rebated on line 111.",
      source: "ETA 225.1, 259; RC4082; from memory",
      rule: {
        ...ordinary,
        of: "tax",
        rates: { by: [], schedules: { "": "ca.CHARITY" } },
        takes: ["standard", "reduced"],
        outside,
        capital: assets,
        boxes: { tax: "103", turnover: [], input: "106" },
        drops: ["103", "104", "106", "107"],
      },
    },
  ];
}
