import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = [
  ...CLASSES.filter(({ id }) => id !== "reduced"),
  { id: "wine", name: "Wine, cider, mead" },
  { id: "capital", name: "Capital asset" },
];

const EXPORT = "GSTA s 38-185 and 38-190";

// prettier-ignore
export const rules = rulesOf("au", [
  ["sale", "standard", "any", "any", "home", "any", "S10", "Supplied in Australia.", "GSTA s 9-5"],
  ["sale", "capital", "any", "any", "home", "any", "SC", "A capital asset sold in Australia.", "GSTA s 9-5"],
  ["sale", "zero", "any", "any", "any", "any", "SF", "GST-free.", "GSTA Div 38"],
  ["sale", "exempt", "any", "any", "any", "any", "SI", "Input taxed.", "GSTA Div 40"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "SO", "Out of scope.", "GSTA s 9-5"],
  ["sale", "standard", "goods", "any", "abroad", "any", "SX", "Goods leave within 60 days: export, GST-free.", EXPORT],
  ["sale", "standard", "services", "any", "abroad", "any", "SF", "Services to a non-resident abroad: GST-free.", EXPORT],
  ["sale", "wine", "any", "any", "home", "registered", "WW", "Wine to a business that did not quote: wine tax, then GST.", "WETA Div 5"],
  ["sale", "wine", "any", "any", "home", "quoted", "WQ", "The buyer quoted its ABN: GST only.", "WETA Div 13"],
  ["sale", "wine", "any", "any", "home", "unregistered", "WR", "Wine to a consumer: wine tax on half the retail price.", "WETA s 9-35"],
  ["sale", "wine", "any", "any", "abroad", "any", "WX", "Wine exported.", "WETA s 7-10"],
  ["purchase", "standard", "any", "any", "home", "registered", "P10", "Bought from a registered supplier.", "GSTA Div 11"],
  ["purchase", "capital", "any", "any", "home", "registered", "C10", "A capital asset from a registered supplier.", "GSTA Div 11"],
  ["purchase", "wine", "any", "any", "home", "registered", "P10", "Bought from a registered supplier.", "GSTA Div 11"],
  ["purchase", "standard", "any", "any", "home", "unregistered", "PF", "The supplier charges no GST.", "GSTA s 9-5"],
  ["purchase", "standard", "services", "any", "abroad", "any", "PF", "Services from abroad to a business with full credit: nothing to report but the price.", "GSTA Div 84"],
  ["purchase", "standard", "goods", "any", "abroad", "any", "IG", "Goods from abroad: the tax comes with the import declaration.", "GSTA Div 13"],
  ["purchase", "zero", "any", "any", "any", "any", "PF", "GST-free.", "GSTA Div 38"],
  ["purchase", "exempt", "any", "any", "any", "any", "PF", "Input taxed to the supplier: no GST in the price.", "GSTA Div 40"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "PO", "Out of scope.", "GSTA s 9-5"],
  ["sale", "capital", "goods", "any", "abroad", "any", "SX", "Goods leave within 60 days: export, GST-free.", EXPORT],
  ["sale", "capital", "services", "any", "abroad", "any", "SF", "Services to a non-resident abroad: GST-free.", EXPORT],
  ["purchase", "standard", "any", "any", "home", "any", "P10", "A supplier in business: GST is on the bill.", "GSTA Div 11"],
  ["purchase", "capital", "any", "any", "home", "any", "C10", "A capital asset from a supplier in business.", "GSTA Div 11"],
  ["purchase", "capital", "any", "any", "home", "unregistered", "CF", "The supplier charges no GST.", "GSTA s 9-5"],
  ["purchase", "capital", "goods", "any", "abroad", "any", "IG", "Goods from abroad: the tax comes with the import declaration.", "GSTA Div 13"],
  ["purchase", "capital", "services", "any", "abroad", "any", "CF", "From abroad to a business with full credit: nothing to report but the price.", "GSTA Div 84"],
  ["purchase", "wine", "any", "any", "home", "any", "P10", "A supplier in business: GST is on the bill.", "GSTA Div 11"],
  ["purchase", "wine", "any", "any", "home", "unregistered", "PF", "The supplier charges no GST.", "GSTA s 9-5"],
  ["purchase", "wine", "any", "any", "abroad", "any", "IG", "Wine from abroad: the taxes come with the import declaration.", "GSTA Div 13, WETA Div 5"],
]);
