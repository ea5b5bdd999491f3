import type { RatioCredit } from "../../model/ratioCredit.ts";
import type { SchemeDefinition } from "../../model/scheme.ts";

const conditions: SchemeDefinition["conditions"] = [
  {
    says: "Taxable supplies are 1,000,000 or less in the last fiscal year, and in this one so far.",
    source: "Streamlined Accounting (GST/HST) Regulations s. 20; RC4022",
    limit: { upTo: 1_000_000_00, of: "net" },
  },
  {
    says: "Taxable purchases are 4,000,000 or less in the last fiscal year.",
    source: "Streamlined Accounting (GST/HST) Regulations s. 20; RC4022",
    limit: { upTo: 4_000_000_00, of: "purchases" },
  },
  { says: "No listed financial institution; it stays for a year or more.", source: "RC4022" },
];

const totals = (input: string, drops: readonly string[]): RatioCredit => ({
  kind: "ratio-credit",
  takes: ["standard", "reduced"],
  boxes: { input },
  drops,
});

/** Input tax from totals of bills. */
export const simplified: SchemeDefinition[] = [
  {
    id: "ca-simplified-credits",
    name: "Simplified input tax credits",
    levies: ["GST", "HST"],
    settings: [],
    conditions,
    note: "Input tax is 5/105, 13/113, 14/114 or 15/115 of what bills come to, with tax and provincial sales tax, by rate. Tax at the border, on real property and self-assessed is deducted the ordinary way.",
    source: "Streamlined Accounting (GST/HST) Regulations part IV; RC4022; from memory",
    rule: totals("106", ["106", "104"]),
  },
  {
    id: "ca-simplified-refunds",
    name: "Simplified input tax refunds of the QST",
    levies: ["QST"],
    settings: [],
    conditions,
    note: "The input tax refund is 9.975/109.975 of what bills come to with QST and without GST.",
    source: "AQST 434; Revenu Québec, IN-203; from memory",
    rule: totals("Q206", ["Q206", "Q204"]),
  },
];
