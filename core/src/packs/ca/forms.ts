import type { BoxDefinition, ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, typedIn, WHOLE_NEAREST } from "../shared/formBoxes.ts";

const SALES = { holds: "value", rounding: WHOLE_NEAREST } as const;
const VALUE = { holds: "value" } as const;
const SOURCE = "RC4022, return form text; from memory";

const federalLines: BoxDefinition[] = [
  sum("101", "Sales and other revenue", {
    ...SALES,
    words: "Taxable, zero-rated and exempt revenue without GST/HST and provincial tax, in whole dollars.",
  }),
  sum("90", "Taxable sales, including zero-rated in Canada", { ...SALES, short: "Of which taxable" }),
  sum("91", "Exempt supplies, zero-rated exports and other revenue", {
    ...SALES,
    short: "Of which exempt and exported",
  }),
  sum("103", "GST/HST collected or that became collectible"),
  sum("104", "Adjustments to be added to the net tax", { short: "Adjustments added" }),
  computed("105", "Total GST/HST and adjustments for the period", "[103] + [104]"),
  sum("106", "Input tax credits for the period", {
    words: "Tax paid or payable on what was bought for commercial activities.",
  }),
  sum("107", "Adjustments to be deducted from the net tax", { short: "Adjustments deducted" }),
  computed("108", "Total ITCs and adjustments", "[106] + [107]"),
  computed("109", "Net tax", "[105] - [108]"),
  typedIn("110", "Instalments and other annual filer payments"),
  typedIn("111", "Rebates"),
  computed("112", "Total other credits", "[110] + [111]"),
];

/** The GST/HST return, GST34. */
export const gst34: ReturnForm = {
  id: "ca-gst34",
  name: "GST/HST return",
  levies: ["GST", "HST"],
  turnover: ["101"],
  from: "2018-01-01",
  to: null,
  boxes: [
    ...federalLines,
    computed("113A", "Balance", "[109] - [112]"),
    sum("205", "GST/HST due on the acquisition of taxable real property", {
      short: "Due on real property bought",
    }),
    sum("405", "Other GST/HST to be self-assessed"),
    computed("113B", "Total of 205 and 405", "[205] + [405]"),
    computed("113C", "Balance", "[113A] + [113B]"),
    computed("114", "Refund claimed", "max(-[113C], 0)"),
    computed("115", "Payment enclosed", "max([113C], 0)"),
  ],
  // Instalments are payments: what is owed is reckoned before them.
  net: { output: "[105] + [113B]", input: "[108] + [111]", due: "[113C] + [110]", shown: "113C" },
  source: SOURCE,
};

const quebecLines = (totals: boolean): BoxDefinition[] => [
  sum("Q203", "QST collected or that became collectible"),
  sum("Q204", "Adjustments added"),
  computed("Q205", "Total QST and adjustments", "[Q203] + [Q204]"),
  sum("Q206", "Input tax refunds"),
  sum("Q207", "Adjustments deducted"),
  computed("Q208", "Total refunds and adjustments", "[Q206] + [Q207]"),
  computed("Q209", "Net QST", "[Q205] - [Q208]"),
  typedIn("Q210", "QST instalments"),
  typedIn("Q211", "QST rebates"),
  computed("Q212", "Total other QST credits", "[Q210] + [Q211]"),
  computed("Q213", "Balance of QST", "[Q209] - [Q212]"),
  ...(totals
    ? [
        computed("114", "Refund", "max(-([113] + [Q213]), 0)"),
        computed("115", "Remittance", "max([113] + [Q213], 0)"),
        sum("S405", "GST self-assessed, filed on a form of its own"),
        sum("S405Q", "QST self-assessed, filed on a form of its own"),
      ]
    : []),
];

/** The combined GST/HST-QST return, FPZ-500. */
export const combined: ReturnForm = {
  id: "ca-fpz500",
  name: "GST/HST-QST return",
  levies: ["GST", "HST", "QST"],
  turnover: ["101"],
  from: "2018-01-01",
  to: null,
  boxes: [...federalLines, computed("113", "Balance of GST/HST", "[109] - [112]"), ...quebecLines(true)],
  // What is self-assessed goes on other forms of Revenu Québec, and is owed to it beside this return.
  net: {
    output: "[105] + [Q205] + [S405] + [S405Q]",
    input: "[108] + [111] + [Q208] + [Q211]",
    due: "[113] + [110] + [Q213] + [Q210] + [S405] + [S405Q]",
    shown: "115",
    repaid: "114",
  },
  source: "Revenu Québec, FPZ-500; from memory",
};

/** QST alone, VDZ-471. */
export const qstOnly: ReturnForm = {
  id: "ca-vdz471",
  name: "QST return",
  levies: ["QST"],
  from: "2018-01-01",
  to: null,
  boxes: quebecLines(false),
  net: { output: "[Q205]", input: "[Q208] + [Q211]", due: "[Q213] + [Q210]", shown: "Q213" },
  source: "Revenu Québec, VDZ-471; from memory",
};

/** BC PST return. The commission is for filing and paying in time; what is lost by being late is typed in. */
export const bcPst: ReturnForm = {
  id: "ca-bc-fin400",
  name: "BC PST return",
  levies: ["BCPST"],
  turnover: ["BC.A"],
  from: "2018-01-01",
  to: null,
  boxes: [
    sum("BC.A", "Total sales and leases", VALUE),
    sum("BC.B", "PST collectable on sales and leases"),
    typedIn("BC.L", "Commission lost, filed or paid late"),
    computed(
      "BC.C",
      "Commission",
      "max(0, ([BC.B] <= 0 ? 0 : [BC.B] <= 22 ? [BC.B] : [BC.B] <= 333.33 ? 22 : min(198, [BC.B] * 6.6 / 100)) - [BC.L])",
      { words: "Up to 22.00 all of the tax, up to 333.33 it is 22.00, above 6.6 % and at most 198.00." },
    ),
    computed("BC.D", "Net PST on sales", "[BC.B] - [BC.C]"),
    sum("BC.E", "PST payable on purchases and leases for own use"),
    typedIn("BC.F", "Adjustments and deductions"),
    computed("BC.G", "Amount due", "[BC.D] + [BC.E] - [BC.F]"),
  ],
  net: {
    output: "[BC.B] + [BC.E]",
    input: "[BC.C] + [BC.F]",
    due: "[BC.G]",
    shown: "BC.G",
    allowance: "[BC.C]",
  },
  source: "BC Ministry of Finance, FIN 400; letters of the lines from memory",
};

export const skPst: ReturnForm = {
  id: "ca-sk-pst",
  name: "Saskatchewan PST return",
  levies: ["SKPST"],
  turnover: ["SK.1"],
  from: "2018-01-01",
  to: null,
  boxes: [
    sum("SK.1", "Total sales", VALUE),
    sum("SK.2", "PST collected"),
    sum("SK.3", "Cost of taxable goods and services for own use", VALUE),
    sum("SK.4", "PST on own use"),
    typedIn("SK.5", "Credits and adjustments"),
    computed("SK.6", "Amount due", "[SK.2] + [SK.4] - [SK.5]"),
  ],
  net: { output: "[SK.2] + [SK.4]", input: "[SK.5]", due: "[SK.6]", shown: "SK.6" },
  source: "Saskatchewan Finance, PST return; from memory",
};

export const mbRst: ReturnForm = {
  id: "ca-mb-rst",
  name: "Manitoba RST return",
  levies: ["MBRST"],
  turnover: ["MB.1"],
  from: "2018-01-01",
  to: null,
  boxes: [
    sum("MB.1", "Total sales", VALUE),
    sum("MB.2", "RST collected"),
    sum("MB.3", "RST on purchases and own use"),
    typedIn("MB.4", "Adjustments and deductions"),
    computed("MB.5", "RST before commission", "[MB.2] + [MB.3] - [MB.4]"),
    typedIn("MB.L", "Commission lost, filed or paid late"),
    computed(
      "MB.6",
      "Commission",
      "max(0, ([MB.2] <= 0 || [MB.2] > 3000 ? 0 : [MB.2] <= 3 ? [MB.2] : [MB.2] <= 20 ? 3 : min([MB.2], 200) * 15 / 100 + max([MB.2] - 200, 0) / 100) - [MB.L])",
      {
        words:
          "Up to 3.00 all of the tax, up to 20.00 it is 3.00, then 15 % of the first 200.00 and 1 % of the rest; nothing above 3,000.00.",
      },
    ),
    computed("MB.7", "Amount due", "[MB.5] - [MB.6]"),
  ],
  net: {
    output: "[MB.2] + [MB.3]",
    input: "[MB.4] + [MB.6]",
    due: "[MB.7]",
    shown: "MB.7",
    allowance: "[MB.6]",
  },
  source: "Manitoba Finance, RST return; from memory",
};

/** The return of who lost the commission for longer than one period: filed or paid late, or not to be had. */
export function withoutCommission(form: ReturnForm, box: string): ReturnForm {
  return {
    ...form,
    option: ["allowance", "lost"],
    boxes: form.boxes.map((one) =>
      one.id === box && one.kind === "formula"
        ? { ...one, formula: "0", words: "None: filed or paid late." }
        : one,
    ),
  };
}
