import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES.filter(({ id }) => id !== "reduced"),
  { id: "land", name: "Land" },
  { id: "long-stay", name: "Long stay in a commercial dwelling" },
  { id: "second-hand", name: "Second-hand goods" },
];

// prettier-ignore
export const rules = rulesOf("nz", [
  ["sale", "standard", "any", "any", "home", "any", "S15", "Supplied in New Zealand.", "GSTA s 8"],
  ["sale", "standard", "any", "any", "abroad", "any", "SZ", "Exported, or used abroad: zero-rated.", "GSTA s 11, 11A"],
  ["sale", "zero", "any", "any", "any", "any", "SZ", "Zero-rated.", "GSTA s 11"],
  ["sale", "land", "any", "any", "home", "registered", "SL", "Land to a registered buyer for taxable use.", "GSTA s 11(1)(mb)"],
  ["sale", "land", "any", "any", "home", "unregistered", "S15", "Land to a buyer who is not registered.", "GSTA s 8"],
  ["sale", "long-stay", "any", "any", "any", "any", "S9", "More than four weeks in a commercial dwelling.", "GSTA s 10(6)"],
  ["sale", "exempt", "any", "any", "any", "any", "SE", "Exempt.", "GSTA s 14"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "SO", "Out of scope.", "GSTA s 6"],
  ["purchase", "standard", "any", "any", "home", "registered", "P15", "Bought from a registered supplier.", "GSTA s 20"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "P0", "The supplier is not registered: no GST.", "GSTA s 20"],
  ["purchase", "second-hand", "goods", "any", "home", "unregistered", "P2", "Used goods from a person not registered: a credit as far as paid.", "GSTA s 3A"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "IG", "Goods from abroad: the tax comes with the customs entry.", "GSTA s 12"],
  ["purchase", "standard", "services", "any", "abroad", "any", "P0", "Services from abroad for taxable use: nothing to declare.", "GSTA s 8(4B)"],
  ["purchase", "zero", "any", "any", "any", "any", "P0", "Zero-rated.", "GSTA s 11"],
  ["purchase", "exempt", "any", "any", "any", "any", "P0", "Exempt.", "GSTA s 14"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "P0", "Out of scope.", "GSTA s 6"],
  ["sale", "land", "any", "any", "abroad", "any", "SO", "Land abroad is supplied there.", "GSTA s 8"],
  ["sale", "second-hand", "any", "any", "home", "any", "S15", "Used goods sold: taxed on the whole price.", "GSTA s 8"],
  ["sale", "second-hand", "any", "any", "abroad", "any", "SZ", "Exported: zero-rated. A credit claimed on the purchase is taken back in box 9.", "GSTA s 11, s 20"],
  ["purchase", "land", "any", "any", "home", "registered", "P0", "Land between registered persons is zero-rated; for partly other use LB.", "GSTA s 11(1)(mb), s 20(3J)"],
  ["purchase", "land", "any", "any", "home", "unregistered", "P2", "Land from a person not registered: a credit as far as paid.", "GSTA s 3A"],
  ["purchase", "land", "any", "any", "abroad", "any", "P0", "Land abroad: no New Zealand tax.", "GSTA s 8"],
  ["purchase", "long-stay", "any", "any", "home", "registered", "P9", "Long stay in a commercial dwelling: tax on 60 % of the value.", "GSTA s 10(6)"],
  ["purchase", "long-stay", "any", "any", "home", "unregistered", "P0", "The supplier is not registered: no GST.", "GSTA s 20"],
  ["purchase", "long-stay", "any", "any", "abroad", "any", "P0", "Used abroad: no New Zealand tax.", "GSTA s 8"],
  ["purchase", "second-hand", "any", "any", "home", "registered", "P15", "Bought from a registered supplier.", "GSTA s 20"],
  ["purchase", "second-hand", "services", "any", "home", "unregistered", "P0", "The supplier is not registered: no GST.", "GSTA s 20"],
  ["purchase", "second-hand", "goods", "any", "abroad", "any", "IG", "Goods from abroad: the tax comes with the customs entry.", "GSTA s 12"],
  ["purchase", "second-hand", "services", "any", "abroad", "any", "P0", "Services from abroad for taxable use: nothing to declare.", "GSTA s 8(4B)"],
]);
