import type { TaxCode } from "../../model/taxCode.ts";
import { codesOfLevy } from "../shared/codeRows.ts";

const END = "2017-06-30";

// prettier-ignore
/** State VAT at two rates and central sales tax across a border, for books to the end of June 2017. */
export const oldCodes: TaxCode[] = [
  ...codesOfLevy("in", "SVAT", [
    { code: "VL", name: "State VAT, lower rate", direction: "both", treatment: "reduced", schedule: "VATLOW", to: END, sale: "V1 +n, V4 +t", purchase: "V6 +n, V8 +r", source: "state VAT Acts" },
    { code: "VH", name: "State VAT, higher rate", direction: "both", treatment: "standard", schedule: "VATHIGH", to: END, sale: "V2 +n, V5 +t", purchase: "V7 +n, V8 +r", source: "state VAT Acts" },
    { code: "VE", name: "Exempt from state VAT", direction: "both", treatment: "exempt", to: END, sale: "V3 +n", source: "state VAT Acts" },
  ]),
  ...codesOfLevy("in", "CST", [
    { code: "CST", name: "Central sales tax with Form C", direction: "both", treatment: "standard", supply: "goods", schedule: "CST", recoverable: "0", to: END, sale: "C1 +n, C2 +t", note: "Paid on a purchase it is cost, never credit.", source: "Central Sales Tax Act" },
  ]),
];
