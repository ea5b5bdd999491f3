import type { ReturnForm } from "../../model/returnForm.ts";

const PENCE = { mode: "half-up", step: 1 } as const;
/** VAT Notice 700/12: leave out the pence. Cut on the total of the box, not by document. */
const WHOLE_POUNDS = { mode: "down", step: 100 } as const;

const OLD_TITLES: Readonly<Record<string, { title: string; short: string; words: string }>> = {
  "2": {
    title: "VAT due in the period on acquisitions from other EC Member States",
    short: "VAT due on acquisitions from the EU",
    words: "Tax on goods acquired from other EU Member States.",
  },
  "8": {
    title:
      "Total value of all supplies of goods and related costs, excluding any VAT, to other EC Member States",
    short: "Goods supplied to the EU",
    words: "Goods sent to registered buyers in other EU Member States.",
  },
  "9": {
    title:
      "Total value of all acquisitions of goods and related costs, excluding any VAT, from other EC Member States",
    short: "Goods acquired from the EU",
    words: "Goods brought in from other EU Member States.",
  },
};

/** The nine boxes (VAT Notice 700/12). */
export const nineBoxes: ReturnForm = {
  id: "gb-vat-9",
  name: "VAT return",
  levies: ["VAT"],
  turnover: ["6"],
  purchases: ["7"],
  from: "2021-01-01",
  to: null,
  boxes: [
    {
      id: "1",
      title: "VAT due in the period on sales and other outputs",
      short: "VAT due on sales and other outputs",
      kind: "sum",
      holds: "tax",
      rounding: PENCE,
      words:
        "Output tax on sales, services from abroad, domestic reverse charge and postponed imports, less credit notes.",
    },
    {
      id: "2",
      title: "VAT due in the period on acquisitions of goods made in Northern Ireland from EU Member States",
      short: "VAT due on acquisitions into Northern Ireland",
      kind: "sum",
      holds: "tax",
      rounding: PENCE,
      words: "Tax on goods acquired from EU Member States into Northern Ireland.",
    },
    {
      id: "3",
      title: "Total VAT due (the sum of boxes 1 and 2)",
      short: "Total VAT due",
      kind: "formula",
      holds: "tax",
      formula: "[1] + [2]",
      rounding: PENCE,
      words: "Box 1 plus box 2.",
    },
    {
      id: "4",
      title:
        "VAT reclaimed in the period on purchases and other inputs (including acquisitions in Northern Ireland from EU Member States)",
      short: "VAT reclaimed on purchases and other inputs",
      kind: "sum",
      holds: "tax",
      rounding: PENCE,
      words: "Recoverable input tax on purchases, services from abroad and imports, less credit notes.",
    },
    {
      id: "5",
      title: "Net VAT to pay to HMRC or reclaim",
      short: "Net VAT",
      kind: "formula",
      holds: "tax",
      formula: "abs([3] - [4])",
      rounding: PENCE,
      words: "The difference between boxes 3 and 4: to pay when box 3 is larger, to reclaim when box 4 is.",
    },
    {
      id: "6",
      title: "Total value of sales and all other outputs excluding any VAT",
      short: "Sales and all other outputs",
      kind: "sum",
      holds: "value",
      rounding: WHOLE_POUNDS,
      words: "All supplies without VAT, zero-rated, exempt and exported ones included.",
    },
    {
      id: "7",
      title: "Total value of purchases and all other inputs excluding any VAT",
      short: "Purchases and all other inputs",
      kind: "sum",
      holds: "value",
      rounding: WHOLE_POUNDS,
      words: "All purchases without VAT, imports and blocked ones included; no wages, loans or rates.",
      doubt: "Supplies from sellers who are not registered are counted.",
    },
    {
      id: "8",
      title:
        "Total value of dispatches of goods and related costs (excluding VAT) from Northern Ireland to EU Member States",
      short: "Goods supplied to the EU from Northern Ireland",
      kind: "sum",
      holds: "value",
      rounding: WHOLE_POUNDS,
      words: "Goods sent from Northern Ireland to registered buyers in EU Member States.",
    },
    {
      id: "9",
      title:
        "Total value of acquisitions of goods and related costs (excluding VAT) made in Northern Ireland from EU Member States",
      short: "Goods acquired from the EU into Northern Ireland",
      kind: "sum",
      holds: "value",
      rounding: WHOLE_POUNDS,
      words: "Goods brought into Northern Ireland from EU Member States.",
    },
  ],
  net: { output: "[3]", input: "[4]", due: "[3] - [4]", shown: "5" },
  rules: [
    { formula: "[3] == [1] + [2]", says: "Box 3 is not the sum of boxes 1 and 2." },
    { formula: "[5] == abs([3] - [4])", says: "Box 5 is not the difference of boxes 3 and 4." },
  ],
  fields: {
    "1": "vatDueSales",
    "2": "vatDueAcquisitions",
    "3": "totalVatDue",
    "4": "vatReclaimedCurrPeriod",
    "5": "netVatDue",
    "6": "totalValueSalesExVAT",
    "7": "totalValuePurchasesExVAT",
    "8": "totalValueGoodsSuppliedExVAT",
    "9": "totalAcquisitionsExVAT",
  },
  source: "VAT Notice 700/12",
};

/** Until the end of 2020 boxes 2, 8 and 9 were for the whole United Kingdom. */
export const nineBoxesBefore2021: ReturnForm = {
  ...nineBoxes,
  from: "2018-01-01",
  to: "2020-12-31",
  boxes: nineBoxes.boxes.map((box) => ({ ...box, ...(OLD_TITLES[box.id] ?? {}) })),
};
