import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = CLASSES.filter(({ id }) => id !== "reduced");

// prettier-ignore
export const rules = rulesOf("ph", [
  ["sale", "standard", "any", "any", "home", "any", "V12", "Sold or supplied in the Philippines.", "NIRC s. 106, 108"],
  ["sale", "standard", "goods", "any", "abroad", "any", "VZ", "Exported: zero-rated.", "NIRC s. 106(A)(2)"],
  ["sale", "standard", "services", "any", "abroad", "any", "VZ", "Services to a client abroad, paid in foreign currency: zero-rated.", "NIRC s. 108(B)(2)"],
  ["sale", "zero", "any", "any", "any", "any", "VZ", "Zero-rated.", "NIRC s. 106(A)(2), 108(B)"],
  ["sale", "exempt", "any", "any", "any", "any", "VX", "Exempt.", "NIRC s. 109"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "VO", "Out of scope.", "NIRC s. 105"],
  ["purchase", "standard", "any", "any", "home", "registered", "D12", "Bought from a registered supplier.", "NIRC s. 110(A)"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "DN", "The supplier is not registered: no input tax.", "NIRC s. 116"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "IG", "Goods from abroad: the tax comes with the entry.", "NIRC s. 107"],
  ["purchase", "standard", "services", "any", "abroad", "any", "NR12", "Services of a non-resident: the buyer withholds the tax.", "NIRC s. 108, 114(C)"],
  ["purchase", "zero", "any", "any", "any", "any", "DN", "Zero-rated: no input tax.", "NIRC s. 106"],
  ["purchase", "exempt", "any", "any", "any", "any", "DN", "Exempt: no input tax.", "NIRC s. 109"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "DO", "Out of scope.", "NIRC s. 105"],
]);
