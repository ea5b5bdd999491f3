import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES,
  { id: "hospitality", name: "Hospitality and accommodation" },
  { id: "listed", name: "Digital services, and advice, licences, data to consumers" },
];

const NOTICE = "VAT Notice 700";
const SERVICES = "VAT Notice 741A";

// prettier-ignore
export const rules = rulesOf("gb", [
  ["sale", "standard", "any", "any", "home", "any", "S20", "Supplied in the United Kingdom: standard rate.", NOTICE],
  ["sale", "reduced", "any", "any", "home", "any", "R5", "Supplied in the United Kingdom: reduced rate.", NOTICE],
  ["sale", "hospitality", "any", "any", "any", "any", "H", "Supplied where it is enjoyed: the hospitality rate of the day.", "VATA 1994 Sch 7A"],
  ["sale", "zero", "any", "any", "any", "any", "Z", "Zero-rated wherever the customer is.", "VATA 1994 Sch 8"],
  ["sale", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "VATA 1994 Sch 9"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "OS", "Outside the scope.", "VATA 1994 s.4"],
  ["sale", "standard", "goods", "any", "abroad", "any", "XG", "Goods leave the United Kingdom: export, zero-rated.", "VAT Notice 703"],
  ["sale", "reduced", "goods", "any", "abroad", "any", "XG", "Goods leave the United Kingdom: export, zero-rated.", "VAT Notice 703"],
  ["sale", "standard", "goods", "GB-NIR", "union", "registered", "EUS", "Goods from Northern Ireland to a registered buyer in the EU.", "VAT Notice 725"],
  ["sale", "standard", "services", "any", "abroad", "registered", "OSR", "Services to a business abroad are supplied where it is.", SERVICES],
  ["sale", "standard", "services", "any", "abroad", "unregistered", "S20", "Services to a consumer abroad are supplied from here.", SERVICES],
  ["sale", "reduced", "services", "any", "abroad", "registered", "OSR", "Services to a business abroad are supplied where it is.", SERVICES],
  ["sale", "reduced", "services", "any", "abroad", "unregistered", "R5", "Services to a consumer abroad are supplied from here.", SERVICES],
  ["sale", "standard", "goods", "GB-NIR", "union", "unregistered", "S20", "Goods from Northern Ireland to a consumer in the EU: taxed here below the limit of distance sales; above it the one-stop shop takes them.", "VAT Notice 725"],
  ["sale", "reduced", "goods", "GB-NIR", "union", "registered", "EUS", "Goods from Northern Ireland to a registered buyer in the EU.", "VAT Notice 725"],
  ["sale", "reduced", "goods", "GB-NIR", "union", "unregistered", "R5", "Goods from Northern Ireland to a consumer in the EU: taxed here below the limit of distance sales; above it the one-stop shop takes them.", "VAT Notice 725"],
  ["sale", "listed", "any", "any", "home", "any", "S20", "Supplied in the United Kingdom: standard rate.", NOTICE],
  ["sale", "listed", "any", "any", "abroad", "any", "OSR", "Digital and listed services are supplied where the customer is, also where that is a consumer.", "VATA 1994 Sch 4A para. 16; VAT Notice 741A"],
  ["purchase", "listed", "any", "any", "home", "registered", "S20", "Bought from a registered supplier here.", NOTICE],
  ["purchase", "listed", "any", "any", "home", "unregistered", "NV", "The supplier is not registered: there is no tax to deduct.", "VATA 1994 s.24"],
  ["purchase", "listed", "any", "any", "abroad", "any", "RCS", "Services from abroad: the buyer accounts for the tax.", "VATA 1994 s.8"],
  ["purchase", "hospitality", "any", "any", "home", "registered", "H", "Bought from a registered supplier here: the hospitality rate of the day. Entertaining others than employees is blocked: HBL.", "VATA 1994 Sch 7A"],
  ["purchase", "hospitality", "any", "any", "home", "unregistered", "NV", "The supplier is not registered: there is no tax to deduct.", "VATA 1994 s.24"],
  ["purchase", "hospitality", "any", "any", "abroad", "any", "OS", "Consumed abroad: any foreign tax is cost and is asked back there.", SERVICES],
  ["purchase", "reduced", "any", "any", "home", "unregistered", "NV", "The supplier is not registered: there is no tax to deduct.", "VATA 1994 s.24"],
  ["purchase", "reduced", "goods", "any", "abroad", "any", "PVA5", "Goods imported: postponed accounting, unless the tax was paid at the border.", "VAT Notice 702"],
  ["purchase", "zero", "goods", "any", "abroad", "any", "IMP0", "Zero-rated goods imported: no import VAT.", "VATA 1994 Sch 8"],
  ["purchase", "zero", "services", "any", "abroad", "any", "RCS0", "A service from abroad that is zero-rated here.", "VATA 1994 s.8, Sch 8"],
  ["purchase", "reduced", "goods", "GB-NIR", "union", "registered", "EUA5", "Goods from the EU into Northern Ireland: an acquisition.", "VAT Notice 725"],
  ["purchase", "zero", "goods", "GB-NIR", "union", "registered", "EUA0", "Zero-rated goods from the EU into Northern Ireland: an acquisition.", "VAT Notice 725"],
  ["purchase", "standard", "goods", "GB-NIR", "union", "unregistered", "EUNV", "The EU seller is not registered: neither acquisition nor import.", "VATA 1994 Sch 9ZA"],
  ["purchase", "reduced", "goods", "GB-NIR", "union", "unregistered", "EUNV", "The EU seller is not registered: neither acquisition nor import.", "VATA 1994 Sch 9ZA"],
  ["purchase", "zero", "goods", "GB-NIR", "union", "unregistered", "EUNV", "The EU seller is not registered: neither acquisition nor import.", "VATA 1994 Sch 9ZA"],
  ["purchase", "standard", "any", "any", "home", "registered", "S20", "Bought from a registered supplier here.", NOTICE],
  ["purchase", "reduced", "any", "any", "home", "registered", "R5", "Bought from a registered supplier here.", NOTICE],
  ["purchase", "zero", "any", "any", "home", "any", "Z", "Zero-rated.", "VATA 1994 Sch 8"],
  ["purchase", "exempt", "any", "any", "any", "any", "EX", "Exempt.", "VATA 1994 Sch 9"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "OS", "Outside the scope.", "VATA 1994 s.4"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "NV", "The supplier is not registered: there is no tax to deduct.", "VATA 1994 s.24"],
  ["purchase", "standard", "services", "any", "abroad", "any", "RCS", "Services from abroad: the buyer accounts for the tax.", "VATA 1994 s.8"],
  ["purchase", "reduced", "services", "any", "abroad", "any", "RCS5", "Services from abroad: the buyer accounts for the tax.", "VATA 1994 s.8"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "PVA20", "Goods imported: postponed accounting, unless the tax was paid at the border.", "VAT Notice 702"],
  ["purchase", "standard", "goods", "GB-NIR", "union", "registered", "EUA", "Goods from the EU into Northern Ireland: an acquisition.", "VAT Notice 725"],
]);
