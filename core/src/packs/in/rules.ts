import type { SupplyRule } from "../../model/supplyRule.ts";
import { CLASSES, rulesOf } from "../shared/rules.ts";
import { SLABS } from "./rates.ts";

/** The class of an item is its slab; which item is in which slab is the business's own table. */
export const classes = [
  ...SLABS.map(({ value, percent }) => ({ id: `gst-${value}`, name: `GST ${percent} %` })),
  { id: "standard", name: "Standard, 18 %" },
  { id: "nil", name: "Nil rated" },
  ...CLASSES.filter(({ id }) => id === "exempt" || id === "out-of-scope"),
  { id: "non-gst", name: "Petrol, liquor and other non-GST goods" },
  { id: "transport", name: "Goods transport by road, reverse charge" },
];

const PLACE = "IGST s.7, 8, 10, 12";

function bySlab(taxClass: string, slab: string): SupplyRule[] {
  // prettier-ignore
  return rulesOf(`in-${taxClass}`, [
    ["sale", taxClass, "any", "any", "home", "any", `S${slab}`, "Supplied in India: central and state tax inside the state, integrated tax across states.", PLACE],
    ["sale", taxClass, "any", "any", "home", "sez", `SZW${slab}`, "To a special economic zone, with integrated tax.", "IGST s.16"],
    ["sale", taxClass, "any", "any", "abroad", "any", "EXL", "Export under a letter of undertaking.", "IGST s.16(3)"],
    ["purchase", taxClass, "any", "any", "home", "registered", `P${slab}`, "Bought from a registered supplier.", "CGST s.16"],
    ["purchase", taxClass, "any", "any", "home", "sez", `P${slab}`, "From a special economic zone into the country, integrated tax on the bill or the bill of entry.", "IGST s.7(5)"],
    ["purchase", taxClass, "any", "any", "home", "uin", "PU", "A body with a UIN makes no taxable supply.", "CGST s.25(9)"],
    ["purchase", taxClass, "any", "any", "home", "unregistered", "PU", "The supplier is not registered.", "CGST s.9(4)"],
    ["purchase", taxClass, "any", "any", "home", "composition", "PE", "From a composition supplier: no tax on the bill.", "CGST s.10"],
    ["purchase", taxClass, "goods", "any", "abroad", "any", `IG${slab}`, "Goods imported: integrated tax on the bill of entry.", "IGST s.5(1)"],
    ["purchase", taxClass, "services", "any", "abroad", "any", `RI${slab}`, "Services from abroad: reverse charge.", "IGST s.5(3)"],
  ]);
}

// prettier-ignore
const others = rulesOf("in", [
  ["sale", "nil", "any", "any", "any", "any", "NIL", "Nil rated.", "tariff"],
  ["sale", "exempt", "any", "any", "any", "any", "EX", "Exempt by notification.", "CGST s.11"],
  ["sale", "non-gst", "any", "any", "any", "any", "NG", "Outside GST.", "CGST s.9(2)"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "OS", "Neither goods nor services.", "CGST Sch. III"],
  ["sale", "transport", "services", "any", "home", "registered", "SRC5", "Road transport to a registered person: the recipient pays.", "N 13/2017-CTR"],
  ["sale", "transport", "services", "any", "home", "sez", "SZW18", "To a special economic zone, with integrated tax.", "IGST s.16"],
  ["sale", "transport", "services", "any", "home", "any", "EX", "Road transport to a person who is not registered is exempt.", "N 12/2017-CTR no. 21A"],
  ["sale", "transport", "services", "any", "abroad", "any", "EXL", "Export under a letter of undertaking.", "IGST s.16(3)"],
  ["purchase", "transport", "services", "any", "abroad", "any", "RI5", "Services from abroad: reverse charge.", "IGST s.5(3)"],
  ["sale", "transport", "goods", "any", "any", "any", "", "Goods transport is a service: choose goods or services anew, or another class.", "N 13/2017-CTR"],
  ["purchase", "transport", "goods", "any", "any", "any", "", "Goods transport is a service: choose goods or services anew, or another class.", "N 13/2017-CTR"],
  ["purchase", "nil", "any", "any", "any", "any", "PE", "Nil rated.", "tariff"],
  ["purchase", "exempt", "any", "any", "any", "any", "PE", "Exempt.", "CGST s.11"],
  ["purchase", "non-gst", "any", "any", "any", "any", "PG", "Outside GST.", "CGST s.9(2)"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "OS", "Neither goods nor services.", "CGST Sch. III"],
  ["purchase", "transport", "services", "any", "home", "any", "R5", "Road transport: the recipient pays the tax.", "N 13/2017-CTR"],
]);

export const rules: SupplyRule[] = [
  ...others,
  ...bySlab("standard", "18"),
  ...SLABS.flatMap(({ value }) => bySlab(`gst-${value}`, value)),
];
