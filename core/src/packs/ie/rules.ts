import { CLASSES, rulesOf } from "../shared/rules.ts";
import type { RuleRow } from "../shared/rules.ts";

export const classes = [
  ...CLASSES,
  { id: "second-reduced", name: "Second reduced" },
  { id: "hospitality", name: "Restaurants, catering, hairdressing" },
  { id: "accommodation", name: "Accommodation, cinemas, attractions" },
  { id: "energy", name: "Gas and electricity" },
  { id: "livestock", name: "Livestock" },
  { id: "listed", name: "Advice, advertising, licences, data and other listed services" },
];

const PLACE = "VATCA 2010 s.34";
const RATES = "VATCA 2010 s.46";
const SCH2 = "VATCA 2010 Sch 2";
const UNREGISTERED = "The supplier is not registered: there is no tax.";

/** A class of goods and services with its codes: at home, acquired from the Union, services from it, from elsewhere, imported. */
type Rated = [
  taxClass: string,
  home: string,
  acquired: string,
  union: string,
  abroad: string,
  imported: string,
];

// prettier-ignore
const RATED: Rated[] = [
  ["standard", "S23", "EUA", "EUP", "RCN", "PA"],
  ["reduced", "R13", "EUA13", "EUP13", "RCN13", "PA13"],
  ["second-reduced", "R9", "EUA9", "EUP9", "RCN9", "PA9"],
];

// prettier-ignore
const sold = ([taxClass, home]: Rated): RuleRow[] => [
  ["sale", taxClass, "any", "any", "home", "any", home, "Supplied in Ireland.", RATES],
  ["sale", taxClass, "goods", "any", "union", "registered", "EUG", "Goods to a registered buyer in another member state.", PLACE],
  ["sale", taxClass, "goods", "any", "union", "unregistered", home, "Goods to a consumer in the EU, below the distance selling threshold.", PLACE],
  ["sale", taxClass, "goods", "any", "GB-NIR", "registered", "EUG", "Goods to a registered buyer in Northern Ireland.", PLACE],
  ["sale", taxClass, "goods", "any", "GB-NIR", "unregistered", home, "Goods to a consumer in Northern Ireland, below the distance selling threshold.", PLACE],
  ["sale", taxClass, "goods", "any", "abroad", "any", "XG", "Goods leave the EU: export.", SCH2],
  ["sale", taxClass, "services", "any", "union", "registered", "EUSV", "Services to a business in another member state.", PLACE],
  ["sale", taxClass, "services", "any", "outside-union", "registered", "XS", "Services to a business outside the EU are supplied there.", PLACE],
  ["sale", taxClass, "services", "any", "abroad", "unregistered", home, "General services to a consumer are supplied from here, wherever the consumer is.", PLACE],
];

// prettier-ignore
const bought = ([taxClass, home, acquired, union, abroad, imported]: Rated): RuleRow[] => [
  ["purchase", taxClass, "any", "any", "home", "registered", home, "Bought from a registered supplier here.", RATES],
  ["purchase", taxClass, "any", "any", "home", "unregistered", "NR", UNREGISTERED, "VATCA 2010 s.59"],
  ["purchase", taxClass, "goods", "any", "union", "registered", acquired, "Goods from another member state: an acquisition.", "VATCA 2010 s.9"],
  ["purchase", taxClass, "goods", "any", "union", "unregistered", "NR", "The seller in the EU is not registered: no acquisition.", "VATCA 2010 s.9"],
  ["purchase", taxClass, "goods", "any", "GB-NIR", "registered", acquired, "Goods from Northern Ireland: an acquisition.", "VATCA 2010 s.9"],
  ["purchase", taxClass, "goods", "any", "GB-NIR", "unregistered", "NR", "The seller in Northern Ireland is not registered: no acquisition.", "VATCA 2010 s.9"],
  ["purchase", taxClass, "goods", "any", "abroad", "any", imported, "Goods imported: postponed accounting.", "VATCA 2010 s.53A"],
  ["purchase", taxClass, "services", "any", "union", "any", union, "Services from a business in the EU.", "VATCA 2010 s.12"],
  ["purchase", taxClass, "services", "any", "abroad", "any", abroad, "Services from outside the EU.", "VATCA 2010 s.12"],
];

// prettier-ignore
export const rules = rulesOf("ie", [
  ...RATED.flatMap(sold),
  ["sale", "hospitality", "any", "any", "any", "any", "H", "Supplied where it is enjoyed: the hospitality rate of the day.", RATES],
  ["sale", "accommodation", "any", "any", "any", "any", "AC", "Supplied where the property is: the accommodation rate of the day.", RATES],
  ["sale", "energy", "any", "any", "home", "any", "EN", "Gas and electricity.", RATES],
  ["sale", "energy", "any", "any", "abroad", "any", "OS", "Gas and electricity are supplied where they are used.", "VATCA 2010 s.31"],
  ["sale", "livestock", "any", "any", "home", "any", "L48", "Livestock.", RATES],
  ["sale", "livestock", "any", "any", "union", "registered", "EUG", "Livestock to a registered buyer in another member state.", PLACE],
  ["sale", "livestock", "any", "any", "union", "unregistered", "L48", "Livestock to a consumer in the EU.", PLACE],
  ["sale", "livestock", "any", "any", "GB-NIR", "registered", "EUG", "Livestock to a registered buyer in Northern Ireland.", PLACE],
  ["sale", "livestock", "any", "any", "abroad", "any", "XG", "Livestock leaves the EU: export.", SCH2],
  ["sale", "listed", "any", "any", "home", "any", "S23", "Supplied in Ireland: standard rate.", RATES],
  ["sale", "listed", "any", "any", "union", "registered", "EUSV", "Services to a business in another member state.", PLACE],
  ["sale", "listed", "any", "any", "union", "unregistered", "S23", "Services to a consumer in the EU are supplied from here.", PLACE],
  ["sale", "listed", "any", "any", "outside-union", "registered", "XS", "Services to a business outside the EU are supplied there.", PLACE],
  ["sale", "listed", "any", "any", "outside-union", "unregistered", "XCON", "Listed services to a consumer outside the EU are supplied there.", "VATCA 2010 s.33(5)"],
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", SCH2],
  ["sale", "zero", "goods", "any", "union", "registered", "EUG", "Goods to a registered buyer in another member state.", PLACE],
  ["sale", "zero", "goods", "any", "GB-NIR", "registered", "EUG", "Goods to a registered buyer in Northern Ireland.", PLACE],
  ["sale", "zero", "goods", "any", "outside-union", "any", "XG", "Goods leave the EU: export.", SCH2],
  ["sale", "zero", "services", "any", "union", "registered", "EUSV", "Services to a business in another member state.", PLACE],
  ["sale", "zero", "services", "any", "outside-union", "registered", "XS", "Services to a business outside the EU are supplied there.", PLACE],
  ["sale", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "VATCA 2010 Sch 1"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "OS", "Outside the scope.", "VATCA 2010 s.3"],
  ...RATED.flatMap(bought),
  ["purchase", "listed", "any", "any", "home", "registered", "S23", "Bought from a registered supplier here.", RATES],
  ["purchase", "listed", "any", "any", "home", "unregistered", "NR", UNREGISTERED, "VATCA 2010 s.59"],
  ["purchase", "listed", "any", "any", "union", "any", "EUP", "Services from a business in the EU.", "VATCA 2010 s.12"],
  ["purchase", "listed", "any", "any", "abroad", "any", "RCN", "Services from outside the EU.", "VATCA 2010 s.12"],
  ["purchase", "hospitality", "any", "any", "home", "registered", "BLH", "Food, drink and personal services are not deductible.", "VATCA 2010 s.60"],
  ["purchase", "hospitality", "any", "any", "home", "unregistered", "NR", UNREGISTERED, "VATCA 2010 s.59"],
  ["purchase", "hospitality", "any", "any", "abroad", "any", "OS", "Consumed abroad: any foreign tax is cost.", PLACE],
  ["purchase", "accommodation", "any", "any", "home", "registered", "BLA", "Accommodation is not deductible, but for qualifying conferences.", "VATCA 2010 s.60"],
  ["purchase", "accommodation", "any", "any", "home", "unregistered", "NR", UNREGISTERED, "VATCA 2010 s.59"],
  ["purchase", "accommodation", "any", "any", "abroad", "any", "OS", "Consumed abroad: any foreign tax is cost.", PLACE],
  ["purchase", "energy", "any", "any", "home", "registered", "EN", "Gas and electricity.", RATES],
  ["purchase", "energy", "any", "any", "home", "unregistered", "NR", UNREGISTERED, "VATCA 2010 s.59"],
  ["purchase", "energy", "any", "any", "abroad", "any", "RCEN", "Gas and electricity from abroad are supplied where they are used: the buyer accounts for the tax.", "VATCA 2010 s.31 and s.10"],
  ["purchase", "livestock", "any", "any", "home", "registered", "L48", "Livestock.", RATES],
  ["purchase", "livestock", "any", "any", "home", "unregistered", "NR", `${UNREGISTERED} A flat-rate farmer's addition is FFA.`, "VATCA 2010 s.59"],
  ["purchase", "livestock", "any", "any", "union", "registered", "EUA48", "Livestock from another member state: an acquisition.", "VATCA 2010 s.9"],
  ["purchase", "livestock", "any", "any", "union", "unregistered", "NR", "The seller in the EU is not registered: no acquisition.", "VATCA 2010 s.9"],
  ["purchase", "livestock", "any", "any", "GB-NIR", "registered", "EUA48", "Livestock from Northern Ireland: an acquisition.", "VATCA 2010 s.9"],
  ["purchase", "livestock", "any", "any", "abroad", "any", "PA48", "Livestock imported: postponed accounting.", "VATCA 2010 s.53A"],
  ["purchase", "zero", "any", "any", "any", "any", "Z", "Zero-rated.", SCH2],
  ["purchase", "zero", "goods", "any", "union", "registered", "EUA0", "Zero-rated goods from another member state: an acquisition without tax, in E2.", "VATCA 2010 s.9, Sch 2"],
  ["purchase", "zero", "goods", "any", "GB-NIR", "registered", "EUA0", "Zero-rated goods from Northern Ireland: an acquisition without tax, in E2.", "VATCA 2010 s.9, Sch 2"],
  ["purchase", "zero", "goods", "any", "outside-union", "any", "PA0", "Zero-rated goods imported: only their value is declared.", "VATCA 2010 s.53A, Sch 2"],
  ["purchase", "zero", "services", "any", "union", "any", "EUP0", "A zero-rated service from a business in the EU, in ES2.", "VATCA 2010 s.12"],
  ["purchase", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "VATCA 2010 Sch 1"],
  ["purchase", "exempt", "services", "any", "union", "any", "EUP0", "An exempt service from a business in the EU, in ES2.", "VATCA 2010 s.12"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "OS", "Outside the scope.", "VATCA 2010 s.3"],
]);
