import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES.filter(({ id }) => id !== "reduced"),
  { id: "capital", name: "Capital goods" },
  { id: "lodging", name: "Lodging up to 28 days" },
  { id: "long-lodging", name: "Lodging over 28 days" },
  { id: "second-hand", name: "Second-hand goods" },
];

// prettier-ignore
export const rules = rulesOf("za", [
  ["sale", "standard", "any", "any", "home", "any", "S15", "Supplied in South Africa.", "Act s. 7"],
  ["sale", "capital", "any", "any", "home", "any", "S15K", "Capital goods sold.", "Act s. 7"],
  ["sale", "lodging", "any", "any", "any", "any", "AS", "Lodging up to 28 days.", "Act s. 7"],
  ["sale", "long-lodging", "any", "any", "any", "any", "AL", "Lodging over 28 days: tax on 60 %.", "Act s. 10(10)"],
  ["sale", "standard", "goods", "any", "abroad", "any", "ZX", "Goods consigned abroad: export.", "Act s. 11(1)"],
  ["sale", "standard", "services", "any", "abroad", "any", "ZS", "Services to a non-resident abroad.", "Act s. 11(2)"],
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "Act s. 11"],
  ["sale", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "Act s. 12"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "EX", "No supply: counted in field 3.", "Act s. 12"],
  ["purchase", "standard", "any", "any", "home", "registered", "P15", "Bought from a vendor.", "Act s. 16"],
  ["purchase", "capital", "any", "any", "home", "registered", "P15K", "Capital goods from a vendor.", "Act s. 16"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "PN", "The supplier is no vendor.", "Act s. 16"],
  ["purchase", "second-hand", "goods", "any", "home", "unregistered", "SH", "Second-hand goods from a non-vendor: notional input tax.", "Act s. 16"],
  ["purchase", "standard", "services", "any", "abroad", "any", "PN", "Services from abroad for taxable use: nothing to declare.", "Act s. 14"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "PN", "Goods from abroad: the tax comes with the customs notice.", "Act s. 13"],
  ["purchase", "zero", "any", "any", "any", "any", "PZ", "Zero-rated.", "Act s. 11"],
  ["purchase", "exempt", "any", "any", "any", "any", "PX", "Exempt.", "Act s. 12"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "PN", "No supply.", "Act s. 16"],
]);
