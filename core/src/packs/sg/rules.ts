import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES.filter(({ id }) => id !== "reduced"),
  { id: "prescribed", name: "Phones, memory cards, off-the-shelf software above S$10,000" },
];

// prettier-ignore
export const rules = rulesOf("sg", [
  ["sale", "standard", "any", "any", "home", "any", "S", "Supplied in Singapore.", "GSTA s 8"],
  ["sale", "standard", "any", "any", "abroad", "any", "Z", "Exported goods, or an international service.", "GSTA s 21"],
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "GSTA s 21"],
  ["sale", "exempt", "any", "any", "any", "any", "EN33", "Exempt.", "Fourth Schedule"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "O", "Out of scope.", "GSTA s 8"],
  ["sale", "prescribed", "goods", "any", "home", "registered", "CA", "Prescribed goods to a registered buyer: customer accounting.", "GSTA s 38A; from memory"],
  ["sale", "prescribed", "goods", "any", "home", "unregistered", "S", "Prescribed goods to a buyer who is not registered.", "GSTA s 8"],
  ["purchase", "standard", "any", "any", "home", "registered", "P", "Bought from a registered supplier.", "GSTA s 19"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "NR", "The supplier is not registered.", "GSTA s 19"],
  ["purchase", "prescribed", "goods", "any", "home", "registered", "CB", "Prescribed goods: the buyer accounts for the tax.", "GSTA s 38A; from memory"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "PI", "Goods from abroad by permit, GST paid.", "GSTA s 8(4)"],
  ["purchase", "standard", "services", "any", "abroad", "any", "OP", "Services from abroad to a business with full credit: nothing to declare.", "GSTA s 14"],
  ["purchase", "zero", "any", "any", "any", "any", "PZ", "Zero-rated.", "GSTA s 21"],
  ["purchase", "exempt", "any", "any", "any", "any", "EP", "Exempt.", "Fourth Schedule"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "OP", "Out of scope.", "GSTA s 8"],
  ["sale", "prescribed", "any", "any", "home", "any", "S", "Supplied in Singapore.", "GSTA s 8"],
  ["sale", "prescribed", "any", "any", "abroad", "any", "Z", "Exported goods, or an international service.", "GSTA s 21"],
  ["purchase", "prescribed", "services", "any", "home", "registered", "P", "Bought from a registered supplier.", "GSTA s 19"],
  ["purchase", "prescribed", "any", "any", "home", "unregistered", "NR", "The supplier is not registered.", "GSTA s 19"],
  ["purchase", "prescribed", "goods", "any", "abroad", "any", "PI", "Goods from abroad by permit, GST paid.", "GSTA s 8(4)"],
  ["purchase", "prescribed", "services", "any", "abroad", "any", "OP", "Services from abroad to a business with full credit: nothing to declare.", "GSTA s 14"],
]);
