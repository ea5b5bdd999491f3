import type { Component, RateSpec, TaxCode } from "../../model/taxCode.ts";
import { headOf } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

type Head = Omit<CodeRow, "schedule">;
const code = (head: Head, ...components: Component[]): TaxCode => ({ ...headOf("au", head), components });

function component(levy: "GST" | "WET" | "LCT", rate: RateSpec, more: Partial<Component>): Component {
  return { levy, rate, partOfLaterBases: false, charged: "charged", recoverable: "100", boxes: {}, ...more };
}

const percent = (schedule: string): RateSpec => ({ kind: "percent", schedule: `au.${schedule}` });
const formula = (text: string, base?: string): RateSpec => ({
  kind: "formula",
  formula: text,
  ...(base === undefined ? {} : { base }),
});
const NONE: RateSpec = { kind: "none" };
const TYPED: RateSpec = { kind: "typed" };

/** A credit note of an earlier period is a decreasing adjustment (GSTA Div 19), G1 stays as it was. */
const SALE: Component["boxes"] = { sale: "G1 +g, 1A +t", saleCredit: "1B -t, G18 -11t" };
const purchase = (box: "G10" | "G11", rest: string): Component["boxes"] => ({
  purchase: `${box} +g, 1B +r${rest}`,
  purchaseCredit: "1A -r, G7 -11r",
});

const gst = (more: Partial<Component> = {}) => component("GST", percent("GST"), { boxes: SALE, ...more });
const none = (boxes: Component["boxes"]) => component("GST", NONE, { boxes });
const zero = (boxes: Component["boxes"]) => component("GST", percent("ZERO"), { boxes });
const wet = (rate: RateSpec, more: Partial<Component> = {}) =>
  component("WET", rate, {
    partOfLaterBases: true,
    boxes: { sale: "G1 +t, 1C +t", saleCredit: "1D -t" },
    ...more,
  });
const lct = (threshold: string) =>
  component(
    "LCT",
    formula(
      `max(0, net + prior - {au.${threshold}}) * 10 / 11 * {au.LCTRATE} / 100`,
      `max(0, net + prior - {au.${threshold}}) * 10 / 11`,
    ),
    { boxes: { sale: "1E +t", saleCredit: "1F -t" } },
  );

const ORDER = "WETA and GSTA s 9-75: wine tax is on the price without GST, GST on the price with wine tax.";
const CAR_ORDER = "LCTA s 5-15: GST is on the price without luxury car tax, which is on the price with GST.";

// prettier-ignore
export const codes: TaxCode[] = [
  code({ code: "S10", name: "Standard", direction: "sale", treatment: "standard", source: "GSTA s 9-70" }, gst()),
  code({ code: "SC", name: "Capital asset sold", direction: "sale", treatment: "standard", source: "GSTA s 9-70" }, gst()),
  code({ code: "S2", name: "Second-hand goods sold, credited on resale", direction: "sale", treatment: "standard", supply: "goods", inputs: ["cost"], note: "The line's attribute `cost` holds what was paid for it.", source: "GSTA Div 66" }, gst()),
  code({ code: "S2L", name: "Part of a second-hand lot sold", direction: "sale", treatment: "standard", supply: "goods", source: "GSTA Subdiv 66-B" }, gst()),
  code({ code: "ST", name: "Takings of a food retailer, split by percentage", direction: "sale", treatment: "standard", note: "The amount is with tax; the return works the tax out under a simplified method.", source: "GSTA Div 123" }, none({ sale: "G1 +n" })),
  code({ code: "SX", name: "Export, GST-free", direction: "sale", treatment: "export", source: "GSTA s 38-185" }, zero({ sale: "G1 +n, G2 +n" })),
  code({ code: "SF", name: "Other GST-free", direction: "sale", treatment: "zero", source: "GSTA Div 38" }, zero({ sale: "G1 +n, G3 +n" })),
  code({ code: "SI", name: "Input taxed", direction: "sale", treatment: "exempt", note: "Interest, residential rent.", source: "GSTA Div 40" }, none({ sale: "G1 +n, G4 +n" })),
  code({ code: "SO", name: "Out of scope", direction: "sale", treatment: "out-of-scope", source: "GSTA s 9-5" }, none({})),
  code({ code: "S50", name: "Long-stay accommodation, half of the value", direction: "sale", treatment: "reduced", source: "GSTA Div 87" }, gst({ base: { share: "55" }, boxes: { sale: "G1 +g, 1A +t, G4 +n, G4 -10t", saleCredit: "1B -t, G18 -11t" } })),
  code({ code: "SM", name: "Property under the margin scheme", direction: "sale", treatment: "margin", amountIs: "gross", inputs: ["cost"], note: "The line's attribute `cost` holds the acquisition cost or valuation.", source: "GSTA Div 75" }, component("GST", formula("max(0, gross - cost) / 11", "max(0, gross - cost)"), { boxes: { sale: "G1 +b, 1A +t", saleCredit: "1B -t" } })),
  code({ code: "SD", name: "Supply whose GST the buyer bears", direction: "sale", treatment: "reverse-charge-supplier", source: "GSTA Div 83, Div 86" }, component("GST", percent("GST"), { charged: "declared-only" })),
  code({ code: "WW", name: "Wine, wholesale", direction: "sale", treatment: "standard", supply: "goods", order: ORDER, source: "WETA Div 5, Div 9" }, wet(percent("WET")), gst()),
  code({ code: "WWN", name: "Wine, wholesale, without producer rebate", direction: "sale", treatment: "standard", supply: "goods", order: ORDER, note: "Bulk wine, wine without the producer's trade mark, or made from bought source product.", source: "WETA Div 5, Div 9, s 19-5" }, wet(percent("WET")), gst()),
  code({ code: "WR", name: "Wine, retail, half retail price", direction: "sale", treatment: "standard", supply: "goods", order: ORDER, source: "WETA s 9-35" }, wet(percent("WET"), { base: { of: "gross", share: "50" } }), gst()),
  code({ code: "WA", name: "Wine, retail, average wholesale price", direction: "sale", treatment: "standard", supply: "goods", inputs: ["averagePrice"], order: ORDER, note: "The line's attribute `averagePrice` holds the average wholesale price of a unit.", source: "WETA s 9-25" }, wet(formula("quantity * averagePrice * {au.WET} / 100", "quantity * averagePrice")), gst()),
  code({ code: "WQ", name: "Wine, buyer quoted", direction: "sale", treatment: "standard", supply: "goods", source: "WETA Div 13" }, gst()),
  code({ code: "WX", name: "Wine, exported or otherwise GST-free", direction: "sale", treatment: "export", supply: "goods", source: "WETA s 7-10" }, none({ sale: "G1 +n, G2 +n" })),
  code({ code: "WU", name: "Wine, own use, tasting, gift", direction: "both", treatment: "standard", supply: "goods", amountIs: "base", note: "The amount is the notional wholesale value; it is not part of a total.", source: "WETA s 9-45" }, component("WET", percent("WET"), { charged: "self-assessed", recoverable: "0", boxes: { sale: "1C +t", purchase: "1C +t", saleCredit: "1D -t", purchaseCredit: "1D -t" } })),
  code({ code: "WB", name: "Producer rebate or wine tax credit", direction: "purchase", treatment: "adjustment", amountIs: "tax", note: "The amount is the tax.", source: "WETA Div 17, Div 19" }, component("WET", TYPED, { boxes: { purchase: "1D +r" } })),
  code({ code: "LC", name: "Luxury car", direction: "sale", treatment: "standard", supply: "goods", order: CAR_ORDER, source: "LCTA s 5-15" }, gst(), lct("LCT")),
  code({ code: "LCF", name: "Luxury car, fuel-efficient", direction: "sale", treatment: "standard", supply: "goods", order: CAR_ORDER, source: "LCTA s 25-1" }, gst(), lct("LCTF")),
  code({ code: "LQ", name: "Car, buyer quoted", direction: "sale", treatment: "standard", supply: "goods", source: "LCTA Div 9" }, gst()),
  code({ code: "P10", name: "Standard, non-capital", direction: "purchase", treatment: "standard", source: "GSTA Div 11" }, gst({ boxes: purchase("G11", ", G15 +11u") })),
  code({ code: "C10", name: "Capital", direction: "purchase", treatment: "standard", source: "GSTA Div 11" }, gst({ boxes: purchase("G10", ", G15 +11u") })),
  code({ code: "P10Y", name: "Partly private, the private part taken back once a year", direction: "purchase", treatment: "standard", inputs: ["privateShare"], note: "Under annual apportionment; the line tells its private share.", source: "GSTA Div 131" }, gst({ boxes: purchase("G11", ", G15 +11u") })),
  code({ code: "C10Y", name: "Capital, partly private, the private part taken back once a year", direction: "purchase", treatment: "standard", inputs: ["privateShare"], note: "As P10Y.", source: "GSTA Div 131" }, gst({ boxes: purchase("G10", ", G15 +11u") })),
  code({ code: "CL", name: "Car, up to the car limit", direction: "purchase", treatment: "standard", supply: "goods", note: "Credit on an eleventh of the price up to the car limit of the year; the rest of the GST is cost.", source: "GSTA s 69-10" },
    gst({ cap: { schedule: "au.CAR", of: "gross" }, boxes: { purchase: "G10 +11r, 1B +r", purchaseCredit: "1A -r, G7 -11r" } })),
  code({ code: "PT", name: "Stock of a food retailer, split by percentage", direction: "purchase", treatment: "standard", note: "As ST.", source: "GSTA Div 123" }, none({ purchase: "G11 +n" })),
  code({ code: "PF", name: "GST-free, or no GST in the price", direction: "purchase", treatment: "zero", source: "GSTA Div 38" }, none({ purchase: "G11 +n, G14 +n" })),
  code({ code: "CF", name: "Capital, GST-free or no GST in the price", direction: "purchase", treatment: "zero", source: "GSTA Div 38" }, none({ purchase: "G10 +n, G14 +n" })),
  code({ code: "PI", name: "For input-taxed sales", direction: "purchase", treatment: "blocked", source: "GSTA s 11-15" }, gst({ recoverable: "0", boxes: { purchase: "G11 +g, G13 +g" } })),
  code({ code: "CI", name: "Capital, for input-taxed sales", direction: "purchase", treatment: "blocked", source: "GSTA s 11-15" }, gst({ recoverable: "0", boxes: { purchase: "G10 +g, G13 +g" } })),
  code({ code: "PIF", name: "For financial supplies", direction: "purchase", treatment: "blocked", note: "Credited all the same while financial acquisitions are below the threshold.", source: "GSTA s 11-15, Div 189" }, gst({ recoverable: "0", boxes: { purchase: "G11 +g, G13 +g" } })),
  code({ code: "PB", name: "Blocked or private", direction: "purchase", treatment: "blocked", source: "GSTA Div 69" }, gst({ recoverable: "0", boxes: { purchase: "G11 +g, G15 +g" } })),
  code({ code: "R75", name: "Reduced credit acquisition, 75 %", direction: "purchase", treatment: "reduced", source: "GSTA Div 70" }, gst({ recoverable: "75", boxes: purchase("G11", ", G13 +11u") })),
  code({ code: "R55", name: "Reduced credit acquisition, 55 %", direction: "purchase", treatment: "reduced", source: "GSTA Div 70" }, gst({ recoverable: "55", boxes: purchase("G11", ", G13 +11u") })),
  code({ code: "P2", name: "Second-hand goods, up to $300", direction: "purchase", treatment: "margin", supply: "goods", amountIs: "gross", note: "The amount is what was paid; the credit is an eleventh of it.", source: "GSTA Div 66" }, gst({ boxes: { purchase: "G11 +g, 1B +r" } })),
  code({ code: "P2S", name: "Second-hand goods above $300, credited on resale", direction: "purchase", treatment: "margin", supply: "goods", note: "The credit comes when it is sold with S2.", source: "GSTA Div 66" }, none({ purchase: "G11 +n, G14 +n" })),
  code({ code: "P2L", name: "Second-hand lot, to be sold in parts", direction: "purchase", treatment: "margin", supply: "goods", note: "An eleventh goes to the pool, which takes the GST on parts sold with S2L.", source: "GSTA Subdiv 66-B" }, none({ purchase: "G11 +n, G14 +n" })),
  code({ code: "RC", name: "Offshore services and intangibles, partly creditable", direction: "purchase", treatment: "reverse-charge", source: "GSTA Div 84" }, gst({ charged: "self-assessed", boxes: { purchase: "1A +t, G7 +11t, G11 +g, 1B +r, G13 +11u" } })),
  code({ code: "RN", name: "Non-resident's supply, agreed reverse charge", direction: "purchase", treatment: "reverse-charge", source: "GSTA Div 83" }, gst({ charged: "self-assessed", boxes: { purchase: "1A +t, G7 +11t, G11 +g, 1B +r, G13 +11u" } })),
  code({ code: "IM", name: "GST paid on an import declaration", direction: "purchase", treatment: "import", supply: "goods", amountIs: "tax", note: "The amount is the tax.", source: "GSTA Div 13" }, component("GST", TYPED, { boxes: { purchase: "G11 +11t, 1B +r" } })),
  code({ code: "ID", name: "Deferred import GST", direction: "purchase", treatment: "import", supply: "goods", amountIs: "tax", note: "The amount is the tax.", source: "GSTA s 33-15" }, component("GST", TYPED, { charged: "self-assessed", boxes: { purchase: "7A +t, G11 +11t, 1B +r" } })),
  code({ code: "IG", name: "Overseas supplier's invoice for imported goods", direction: "purchase", treatment: "out-of-scope", supply: "goods", source: "GSTA Div 13" }, none({})),
  code({ code: "PN", name: "Supplier quoted no ABN", direction: "purchase", treatment: "out-of-scope", note: "47 % is withheld: type it in W4.", source: "TAA Sch 1 Div 12" }, none({ purchase: "G11 +n, G14 +n" })),
  code({ code: "PO", name: "Out of scope", direction: "purchase", treatment: "out-of-scope", source: "GSTA s 9-5" }, none({})),
  code({ code: "A+", name: "Increasing adjustment", direction: "sale", treatment: "adjustment", amountIs: "tax", note: "The amount is the tax.", source: "GSTA Div 19" }, component("GST", TYPED, { boxes: { sale: "1A +t, G7 +11t" } })),
  code({ code: "W+", name: "Wine tax owed more", direction: "sale", treatment: "adjustment", amountIs: "tax", note: "The amount is the tax: a rebate claimed too much, wine wrongly quoted for.", source: "WETA Div 19" }, component("WET", TYPED, { boxes: { sale: "1C +t" } })),
  code({ code: "L+", name: "Increasing luxury car tax adjustment", direction: "sale", treatment: "adjustment", amountIs: "tax", note: "The amount is the tax: a car bought under a quote is used otherwise.", source: "LCTA s 15-30, 15-35" }, component("LCT", TYPED, { boxes: { sale: "1E +t" } })),
  code({ code: "L-", name: "Decreasing luxury car tax adjustment", direction: "purchase", treatment: "adjustment", amountIs: "tax", note: "The amount is the tax: a car is exported, a quote given afterwards, or a debt is bad.", source: "LCTA s 15-30, 15-35" }, component("LCT", TYPED, { boxes: { purchase: "1F +r" } })),
  code({ code: "A-", name: "Decreasing adjustment", direction: "purchase", treatment: "adjustment", amountIs: "tax", note: "The amount is the tax.", source: "GSTA Div 19" }, component("GST", TYPED, { boxes: { purchase: "1B +r, G18 +11r" } })),
];
