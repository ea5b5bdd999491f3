import type { SupplyRule } from "../../model/supplyRule.ts";
import { CLASSES, rulesOf } from "../shared/rules.ts";
import type { RuleRow } from "../shared/rules.ts";

export const classes = [
  ...CLASSES.filter(({ id }) => id !== "reduced"),
  { id: "books", name: "Printed and audio books" },
  { id: "children", name: "Children's clothing and footwear" },
  { id: "prepared", name: "Prepared food and drink, 4.00 or less in all" },
  { id: "pst-exempt", name: "Taxable, free of provincial sales tax" },
];

const PLACE = "B-103; New Harmonized Value-added Tax System Regulations";
const PST = "provincial sales tax acts";
const AT_THE_TILL = "Deduction for Provincial Rebate Regulations";
const TAXABLE = ["standard", "books", "children", "prepared", "pst-exempt"] as const;
type Taxable = (typeof TAXABLE)[number];

/** Where the provincial part is given back at the till, by class. */
const REBATED: Partial<Record<Taxable, readonly string[]>> = {
  books: ["ON", "NB", "NL", "NS", "PE"],
  children: ["ON", "NS", "PE"],
  prepared: ["ON"],
};

/** Provinces whose own sales tax is not charged on a class; from memory of their acts. */
const FREE_OF_SALES_TAX: Partial<Record<Taxable, readonly string[]>> = {
  books: ["BC", "SK", "MB"],
  children: ["BC", "MB"],
  "pst-exempt": ["BC", "SK", "MB"],
  prepared: ["BC"],
};

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

const needing = (levy: string, rules: SupplyRule[]): SupplyRule[] =>
  rules.map((rule) => ({ ...rule, needs: levy }));

// prettier-ignore
const federal = rulesOf("ca", [
  ...TAXABLE.flatMap((one): RuleRow[] => [
    ["sale", one, "any", "any", "home", "any", "G5", "Supplied in a place without harmonized tax: GST 5 %.", PLACE],
    ["sale", one, "any", "any", "abroad", "any", "ZX", "Supplied to a non-resident and used abroad: zero-rated export.", "ETA Sch. VI Part V"],
    ["purchase", one, "any", "any", "home", "unregistered", "NT", "The supplier is not registered: no tax was charged.", "ETA 166"],
    ["purchase", one, "any", "any", "home", "any", "G5", "Bought where GST alone applies.", PLACE],
    ["purchase", one, "any", "any", "abroad", "any", "NT", "From abroad: goods bear tax at customs, services none where the business is at least 90 % commercial.", "ETA 217"],
  ]),
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "ETA Sch. VI"],
  ["sale", "exempt", "any", "any", "any", "any", "E", "Exempt.", "ETA Sch. V"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "O", "Outside the scope.", "ETA 123(1)"],
  ["purchase", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "ETA Sch. VI"],
  ["purchase", "exempt", "any", "any", "any", "any", "E", "Exempt.", "ETA Sch. V"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "O", "Outside the scope.", "ETA 123(1)"],
]);

/** A supply in one province: who sells charges its tax, who buys for use there pays it. */
// prettier-ignore
const inProvince = (taxClass: Taxable, id: string, sold: string, bought: string, words: string, source: string): RuleRow[] => [
  ["sale", taxClass, "any", "any", `CA-${id}`, "any", sold, words, source],
  ["purchase", taxClass, "any", `CA-${id}`, "home", "unregistered", "NT", "The supplier is not registered: no tax was charged.", "ETA 166"],
  ["purchase", taxClass, "any", `CA-${id}`, "home", "any", bought, words, source],
];

const harmonized = rulesOf(
  "ca-hst",
  HST.flatMap(([id, name]) =>
    TAXABLE.flatMap((taxClass) =>
      REBATED[taxClass]?.includes(id)
        ? inProvince(
            taxClass,
            id,
            `R${id}`,
            `R${id}`,
            `${name}: the provincial part is given back at the till.`,
            AT_THE_TILL,
          )
        : inProvince(taxClass, id, `H${id}`, `H${id}`, `${name}: its HST.`, PLACE),
    ),
  ),
);

const QST_RULE = "AQST s. 16";
const WITH_QST = TAXABLE.filter((one) => one !== "books");
// prettier-ignore
const quebec = [
  ...needing("QST", rulesOf("ca-qst", WITH_QST.flatMap((one): RuleRow[] => [
    ["sale", one, "any", "any", "CA-QC", "any", "GQ", "Supplied in Quebec by a business registered for QST.", QST_RULE],
    ["purchase", one, "any", "CA-QC", "home", "unregistered", "NT", "The supplier is not registered: no tax was charged.", "ETA 166"],
    ["purchase", one, "any", "CA-QC", "home", "any", "GQ", "Bought in Quebec: GST and QST, both deducted.", QST_RULE],
  ]))),
  ...rulesOf("ca-qc", [
    ...WITH_QST.flatMap((one): RuleRow[] => [
      ["purchase", one, "any", "CA-QC", "home", "unregistered", "NT", "The supplier is not registered: no tax was charged.", "ETA 166"],
      ["purchase", one, "any", "CA-QC", "home", "any", "GQC", "Bought in Quebec by a business not registered for QST: GST is deducted, QST is cost.", QST_RULE],
    ]),
    ["sale", "books", "any", "any", "CA-QC", "any", "G5", "Printed books in Quebec: the QST is given back at the till, GST alone is charged.", "AQST s. 198.3"],
  ]),
];

// prettier-ignore
const provincial = SALES_TAX.flatMap(([id, name, levy]) => {
  const taxed = TAXABLE.filter((one) => !FREE_OF_SALES_TAX[one]?.includes(id));
  return [
    ...needing(levy, rulesOf(`ca-${levy.toLowerCase()}`, taxed.flatMap((one): RuleRow[] => [
      ["sale", one, "any", "any", `CA-${id}`, "any", `G${id}`, `Supplied in ${name} to an end user, by a business registered there.`, PST],
      ["sale", one, "any", "any", `CA-${id}`, "resale", "G5", `Supplied in ${name} for resale: the buyer quoted its number.`, PST],
      ["sale", one, "any", "any", `CA-${id}`, "exempt", "G5", `Supplied in ${name} to an exempt buyer, with a certificate.`, PST],
    ]))),
    ...rulesOf(`ca-${id.toLowerCase()}`, taxed.flatMap((one): RuleRow[] => [
      ["purchase", one, "any", `CA-${id}`, "home", "unregistered", "NT", "The supplier is not registered: no tax was charged.", "ETA 166"],
      ["purchase", one, "any", `CA-${id}`, "home", "any", `G${id}`, `Bought in ${name}: GST is deducted, its sales tax is cost.`, PST],
    ])),
  ];
});

export const rules: SupplyRule[] = [...federal, ...harmonized, ...quebec, ...provincial];
