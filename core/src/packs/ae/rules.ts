import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES.filter(({ id }) => id !== "reduced"),
  { id: "listed", name: "Metals, devices, scrap under the domestic reverse charge" },
];

// prettier-ignore
export const rules = rulesOf("ae", [
  ["sale", "standard", "any", "any", "home", "any", "S5", "Supplied in the United Arab Emirates.", "Law art. 3"],
  ["sale", "standard", "goods", "any", "abroad", "any", "ZX", "Goods leave within 90 days: export.", "ER art. 30"],
  ["sale", "standard", "services", "any", "abroad", "any", "ZS", "Services to a recipient abroad.", "ER art. 31"],
  ["sale", "listed", "goods", "any", "home", "registered", "RS", "Listed goods to a registered buyer for resale or manufacture: the buyer accounts.", "Law art. 48"],
  ["sale", "listed", "goods", "any", "home", "unregistered", "S5", "Listed goods to a buyer who is not registered.", "Law art. 3"],
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "Law art. 45"],
  ["sale", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "Law art. 46"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "OS", "Out of scope.", "Law art. 4"],
  ["purchase", "standard", "any", "any", "home", "registered", "P5", "Bought from a registered supplier.", "Law art. 54"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "PO", "The supplier is not registered: no VAT.", "Law art. 54"],
  ["purchase", "listed", "goods", "any", "home", "registered", "RD", "Listed goods for resale or manufacture: the buyer accounts.", "Law art. 48"],
  ["purchase", "standard", "services", "any", "abroad", "any", "RC", "Services from abroad: reverse charge.", "Law art. 48"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "IM", "Goods imported under the own number.", "Law art. 48"],
  ["purchase", "zero", "any", "any", "any", "any", "PZ", "Zero-rated.", "Law art. 45"],
  ["purchase", "exempt", "any", "any", "any", "any", "PX", "Exempt.", "Law art. 46"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "PO", "Out of scope.", "Law art. 4"],
  ["sale", "listed", "services", "any", "home", "any", "S5", "Supplied in the United Arab Emirates.", "Law art. 3"],
  ["sale", "listed", "goods", "any", "abroad", "any", "ZX", "Goods leave within 90 days: export.", "ER art. 30"],
  ["sale", "listed", "services", "any", "abroad", "any", "ZS", "Services to a recipient abroad.", "ER art. 31"],
  ["purchase", "listed", "services", "any", "home", "registered", "P5", "Bought from a registered supplier.", "Law art. 54"],
  ["purchase", "listed", "any", "any", "home", "unregistered", "PO", "The supplier is not registered: no VAT.", "Law art. 54"],
  ["purchase", "listed", "goods", "any", "abroad", "any", "IM", "Goods imported under the own number.", "Law art. 48"],
  ["purchase", "listed", "services", "any", "abroad", "any", "RC", "Services from abroad: reverse charge.", "Law art. 48"],
]);
