import type { SupplyRule } from "../../model/supplyRule.ts";
import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES.filter(({ id }) => id !== "reduced"),
  { id: "rebate", name: "Point-of-sale rebate goods" },
  { id: "pst-exempt", name: "Taxable, free of provincial sales tax" },
];

const PLACE = "B-103; New Harmonized Value-added Tax System Regulations";
const PST = "provincial sales tax acts";

const HST = [
  ["ON", "Ontario"],
  ["NB", "New Brunswick"],
  ["NL", "Newfoundland and Labrador"],
  ["NS", "Nova Scotia"],
  ["PE", "Prince Edward Island"],
] as const;
const SALES_TAX = [
  ["BC", "British Columbia", "BCPST"],
  ["SK", "Saskatchewan", "SKPST"],
  ["MB", "Manitoba", "MBRST"],
] as const;

// prettier-ignore
const federal = rulesOf("ca", [
  ["sale", "standard", "any", "any", "home", "any", "G5", "Supplied in a place without harmonized tax: GST 5 %.", PLACE],
  ["sale", "pst-exempt", "any", "any", "home", "any", "G5", "Supplied in a place without harmonized tax: GST 5 %.", PLACE],
  ["sale", "rebate", "any", "any", "home", "any", "G5", "GST 5 %.", PLACE],
  ["sale", "standard", "any", "any", "abroad", "any", "ZX", "Supplied to a non-resident and used abroad: zero-rated export.", "ETA Sch. VI Part V"],
  ["sale", "pst-exempt", "any", "any", "abroad", "any", "ZX", "Supplied to a non-resident and used abroad: zero-rated export.", "ETA Sch. VI Part V"],
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "ETA Sch. VI"],
  ["sale", "exempt", "any", "any", "any", "any", "E", "Exempt.", "ETA Sch. V"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "O", "Outside the scope.", "ETA 123(1)"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "NT", "The supplier is not registered: no tax was charged.", "ETA 166"],
  ["purchase", "standard", "any", "any", "home", "registered", "G5", "Bought where GST alone applies.", PLACE],
  ["purchase", "standard", "any", "any", "abroad", "any", "NT", "From abroad: goods bear tax at customs, services none where the business is at least 90 % commercial.", "ETA 217"],
  ["purchase", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "ETA Sch. VI"],
  ["purchase", "exempt", "any", "any", "any", "any", "E", "Exempt.", "ETA Sch. V"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "O", "Outside the scope.", "ETA 123(1)"],
]);

const harmonized = rulesOf(
  "ca-hst",
  HST.flatMap(([id, name]) => [
    ["sale", "standard", "any", "any", `CA-${id}`, "any", `H${id}`, `Supplied in ${name}: its HST.`, PLACE],
    ["sale", "pst-exempt", "any", "any", `CA-${id}`, "any", `H${id}`, `Supplied in ${name}: its HST.`, PLACE],
    [
      "sale",
      "rebate",
      "any",
      "any",
      `CA-${id}`,
      "any",
      `R${id}`,
      `Supplied in ${name}: the provincial part is given back at the till.`,
      "Deduction for Provincial Rebate Regulations",
    ],
    [
      "purchase",
      "standard",
      "any",
      `CA-${id}`,
      "home",
      "registered",
      `H${id}`,
      `Used in ${name}: its HST.`,
      PLACE,
    ],
  ]),
);

const needing = (levy: string, rules: SupplyRule[]): SupplyRule[] =>
  rules.map((rule) => ({ ...rule, needs: levy }));

const quebec = needing(
  "QST",
  rulesOf("ca-qst", [
    [
      "sale",
      "standard",
      "any",
      "any",
      "CA-QC",
      "any",
      "GQ",
      "Supplied in Quebec by a business registered for QST.",
      "AQST s. 16",
    ],
    [
      "sale",
      "pst-exempt",
      "any",
      "any",
      "CA-QC",
      "any",
      "GQ",
      "Supplied in Quebec by a business registered for QST.",
      "AQST s. 16",
    ],
  ]),
);

const provincial = SALES_TAX.flatMap(([id, name, levy]) => [
  ...needing(
    levy,
    rulesOf(`ca-${levy.toLowerCase()}`, [
      [
        "sale",
        "standard",
        "any",
        "any",
        `CA-${id}`,
        "any",
        `G${id}`,
        `Supplied in ${name} to an end user, by a business registered there.`,
        PST,
      ],
      [
        "sale",
        "standard",
        "any",
        "any",
        `CA-${id}`,
        "resale",
        "G5",
        `Supplied in ${name} for resale: the buyer quoted its number.`,
        PST,
      ],
    ]),
  ),
]);

export const rules: SupplyRule[] = [...federal, ...harmonized, ...quebec, ...provincial];
