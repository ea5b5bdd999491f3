import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [...CLASSES, { id: "listed", name: "Listed for the domestic reverse charge" }];

const PLACE = "UStG § 3, § 3a";

// prettier-ignore
export const rules = rulesOf("eu-de", [
  ["sale", "standard", "any", "any", "home", "any", "S19", "Supplied in Germany: standard rate.", PLACE],
  ["sale", "reduced", "any", "any", "home", "any", "S7", "Supplied in Germany: reduced rate.", PLACE],
  ["sale", "zero", "any", "any", "home", "any", "S0", "Zero rate.", "UStG § 12(3)"],
  ["sale", "exempt", "any", "any", "any", "any", "EXM", "Exempt without input credit.", "UStG § 4"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "NSB", "Not taxable in Germany.", PLACE],
  ["sale", "listed", "any", "any", "home", "registered", "RCS", "Listed supply to a business: the buyer owes the tax.", "UStG § 13b"],
  ["sale", "listed", "any", "any", "home", "unregistered", "S19", "Listed supply to a consumer: standard rate.", "UStG § 12"],
  ["sale", "standard", "goods", "any", "union", "registered", "IGL", "Goods to a business with VAT id in another member state.", "UStG § 6a"],
  ["sale", "reduced", "goods", "any", "union", "registered", "IGL", "Goods to a business with VAT id in another member state.", "UStG § 6a"],
  ["sale", "standard", "goods", "any", "union", "unregistered", "S19", "Goods to a consumer in the EU, below the threshold of 10,000 euros.", "UStG § 3c"],
  ["sale", "standard", "services", "any", "union", "registered", "IGS", "Services to a business in another member state.", "UStG § 3a(2)"],
  ["sale", "standard", "services", "any", "union", "unregistered", "S19", "Services to a consumer are supplied from here.", "UStG § 3a(1)"],
  ["sale", "standard", "goods", "any", "outside-union", "any", "EXP", "Goods leave the EU: export.", "UStG § 6"],
  ["sale", "standard", "services", "any", "outside-union", "any", "NSB", "Services to a business outside the EU.", "UStG § 3a"],
  ["purchase", "standard", "any", "any", "home", "registered", "V19", "Bought from a business here.", "UStG § 15"],
  ["purchase", "reduced", "any", "any", "home", "registered", "V7", "Bought from a business here at the reduced rate.", "UStG § 15"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "V0", "No tax on the paper: a small business or a private seller.", "UStG § 19"],
  ["purchase", "listed", "any", "any", "home", "registered", "R84", "Listed supply: the buyer owes the tax.", "UStG § 13b(2)"],
  ["purchase", "standard", "goods", "any", "union", "any", "IGE19", "Goods from another member state: an acquisition.", "UStG § 1a"],
  ["purchase", "reduced", "goods", "any", "union", "any", "IGE7", "Goods from another member state: an acquisition.", "UStG § 1a"],
  ["purchase", "standard", "services", "any", "union", "any", "R46", "Services of a business in another member state.", "UStG § 13b(1)"],
  ["purchase", "standard", "services", "any", "outside-union", "any", "R84", "Services from outside the EU.", "UStG § 13b(2)"],
  ["purchase", "standard", "goods", "any", "outside-union", "any", "V0", "Goods from outside the EU: the tax comes with the customs notice.", "UStG § 15"],
  ["purchase", "exempt", "any", "any", "any", "any", "V0", "Exempt.", "UStG § 4"],
  ["purchase", "zero", "any", "any", "any", "any", "V0", "No tax.", "UStG § 12(3)"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "V0", "Not taxable.", "UStG § 1"],
]);
