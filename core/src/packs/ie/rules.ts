import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES,
  { id: "second-reduced", name: "Second reduced" },
  { id: "hospitality", name: "Restaurants, catering, hairdressing" },
  { id: "accommodation", name: "Accommodation, cinemas, attractions" },
  { id: "energy", name: "Gas and electricity" },
  { id: "livestock", name: "Livestock" },
];

const PLACE = "VATCA 2010 s.34";
const RATES = "VATCA 2010 s.46";

// prettier-ignore
export const rules = rulesOf("ie", [
  ["sale", "standard", "any", "any", "home", "any", "S23", "Supplied in Ireland: standard rate.", RATES],
  ["sale", "reduced", "any", "any", "home", "any", "R13", "Supplied in Ireland: 13.5 %.", RATES],
  ["sale", "second-reduced", "any", "any", "home", "any", "R9", "Supplied in Ireland: 9 %.", RATES],
  ["sale", "hospitality", "any", "any", "any", "any", "H", "Supplied where it is enjoyed: the hospitality rate of the day.", RATES],
  ["sale", "accommodation", "any", "any", "any", "any", "AC", "Supplied where the property is: the accommodation rate of the day.", RATES],
  ["sale", "energy", "any", "any", "home", "any", "EN", "Gas and electricity.", RATES],
  ["sale", "livestock", "any", "any", "home", "any", "L48", "Livestock.", RATES],
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "VATCA 2010 Sch 2"],
  ["sale", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "VATCA 2010 Sch 1"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "OS", "Outside the scope.", "VATCA 2010 s.3"],
  ["sale", "standard", "goods", "any", "union", "registered", "EUG", "Goods to a registered buyer in another member state.", PLACE],
  ["sale", "standard", "goods", "any", "GB-NIR", "registered", "EUG", "Goods to a registered buyer in Northern Ireland.", PLACE],
  ["sale", "standard", "goods", "any", "abroad", "any", "XG", "Goods leave the EU: export.", "VATCA 2010 Sch 2"],
  ["sale", "standard", "goods", "any", "union", "unregistered", "S23", "Goods to a consumer in the EU, below the distance selling threshold.", PLACE],
  ["sale", "standard", "services", "any", "union", "registered", "EUSV", "Services to a business in another member state.", PLACE],
  ["sale", "standard", "services", "any", "outside-union", "any", "XS", "Services to a business outside the EU are supplied there.", PLACE],
  ["sale", "standard", "services", "any", "union", "unregistered", "S23", "Services to a consumer are supplied from here.", PLACE],
  ["purchase", "standard", "any", "any", "home", "registered", "S23", "Bought from a registered supplier here.", RATES],
  ["purchase", "reduced", "any", "any", "home", "registered", "R13", "Bought from a registered supplier here.", RATES],
  ["purchase", "hospitality", "any", "any", "home", "any", "BL", "Food and accommodation are not deductible.", "VATCA 2010 s.60"],
  ["purchase", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", "VATCA 2010 Sch 2"],
  ["purchase", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "VATCA 2010 Sch 1"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "OS", "The supplier is not registered: there is no tax.", "VATCA 2010 s.59"],
  ["purchase", "standard", "goods", "any", "union", "any", "EUA", "Goods from another member state: an acquisition.", "VATCA 2010 s.9"],
  ["purchase", "standard", "goods", "any", "GB-NIR", "any", "EUA", "Goods from Northern Ireland: an acquisition.", "VATCA 2010 s.9"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "PA", "Goods imported: postponed accounting.", "VATCA 2010 s.53A"],
  ["purchase", "standard", "services", "any", "union", "any", "EUP", "Services from a business in the EU.", "VATCA 2010 s.12"],
  ["purchase", "standard", "services", "any", "abroad", "any", "RCN", "Services from outside the EU.", "VATCA 2010 s.12"],
]);
