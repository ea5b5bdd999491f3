/**
 * The levy Monsoon Looms bore before GST, as a jurisdiction of the practice's own: two rates and a form cut down to what
 * the demonstration needs. Karnataka VAT Act 2003; rates and days from memory.
 */
export const KARNATAKA_VAT = {
  format: "fiscalon-jurisdiction",
  version: 1,
  id: "in-ka-vat",
  country: "IN",
  name: "Karnataka VAT (to June 2017)",
  currency: "INR",
  authority: "Commercial Taxes Department",
  numberName: "TIN",
  numberHint: "eleven digits that begin with 29",
  numberPattern: "^29\\d{9}$",
  levies: [{ levy: "VAT", name: "Karnataka value added tax", deducted: true }],
  defaultLevies: ["VAT"],
  schedules: {
    "ka.LOW": [{ from: "2012-08-01", to: "2017-06-30", rate: "5.5", source: "from memory" }],
    "ka.HIGH": [{ from: "2012-08-01", to: "2017-06-30", rate: "14.5", source: "from memory" }],
  },
  codes: [
    taxed("KV5.5", "Karnataka VAT 5.5 %", "ka.LOW", "1 +n, 4 +t"),
    taxed("KV14.5", "Karnataka VAT 14.5 %", "ka.HIGH", "2 +n, 5 +t"),
    {
      code: "KVEX",
      name: "Karnataka VAT, exempt (First Schedule)",
      direction: "both",
      supply: "goods",
      treatment: "exempt",
      from: "2005-04-01",
      to: "2017-06-30",
      note: "Hand-woven cloth",
      source: "Karnataka VAT Act 2003, First Schedule, from memory",
      components: [
        {
          levy: "VAT",
          rate: { kind: "none" },
          partOfLaterBases: false,
          charged: "declared-only",
          recoverable: "100",
          boxes: { sale: "3 +n" },
        },
      ],
    },
  ],
  accounts: [
    account("2290", "Output tax, Karnataka VAT", "liability", "output-tax"),
    account("2291", "Karnataka VAT due to the department", "liability", "due-to-authority"),
    account("1290", "Input tax, Karnataka VAT", "asset", "input-tax"),
    account("7990", "Karnataka VAT rounding", "expense", "rounding"),
    account("7991", "Karnataka VAT adjustments", "expense", "adjustment"),
    account("7992", "Interest and penalties, Karnataka VAT", "expense", "charges"),
  ],
  classes: [
    { id: "kv-low", name: "Karnataka VAT, lower rate" },
    { id: "kv-high", name: "Karnataka VAT, higher rate" },
  ],
  rules: [],
  forms: [
    {
      id: "vat-100",
      name: "VAT 100, in short",
      levies: ["VAT"],
      from: "2005-04-01",
      to: "2017-06-30",
      boxes: [
        box("1", "Turnover at 5.5 %", "value"),
        box("2", "Turnover at 14.5 %", "value"),
        box("3", "Exempt turnover", "value"),
        box("4", "Output tax at 5.5 %", "tax"),
        box("5", "Output tax at 14.5 %", "tax"),
        box("6", "Input tax", "tax"),
        { ...box("7", "Net tax", "tax"), kind: "formula", formula: "[4] + [5] - [6]" },
      ],
      net: { output: "[4] + [5]", input: "[6]", due: "[7]", shown: "7" },
      source: "cut down for the demonstration",
    },
  ],
  rhythms: [{ id: "quarterly", name: "Quarterly", frequency: "quarterly", anchor: "2017-03-31" }],
  roundings: [
    {
      id: "line",
      name: "Each line to the nearest paisa",
      rounding: { level: "line", mode: "half-up" },
      source: "",
    },
  ],
  bases: ["accrual"],
  due: [{ months: 1, day: 20, shift: "none", source: "Karnataka VAT Act 2003 s.35, from memory" }],
  holidays: { country: "IN" },
};

function taxed(code: string, name: string, schedule: string, sale: string) {
  return {
    code,
    name,
    direction: "both",
    supply: "goods",
    treatment: "standard",
    from: "2005-04-01",
    to: "2017-06-30",
    note: "",
    source: "Karnataka VAT Act 2003 s.4, from memory",
    components: [
      {
        levy: "VAT",
        rate: { kind: "percent", schedule },
        partOfLaterBases: false,
        charged: "charged",
        recoverable: "100",
        boxes: { sale, purchase: "6 +r" },
      },
    ],
  };
}

function account(code: string, name: string, type: string, role: string) {
  return { code, name, type, role, levy: "VAT", topic: null, usualCode: null };
}

function box(id: string, title: string, holds: "value" | "tax") {
  return {
    id,
    title,
    short: title,
    holds,
    rounding: { mode: "half-up", step: 1 },
    words: "",
    kind: "sum",
  };
}
