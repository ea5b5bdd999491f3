import type { TaxCode } from "./taxCode.ts";

/** A figure or number a line carries for its code, beside its amount. */
export interface LineAttribute {
  name: string;
  holds: "amount" | "percent" | "text" | "day";
}

/** What lines can carry, by the name it has in files and in the API. Codes may name further ones as their inputs. */
export const LINE_ATTRIBUTES: Readonly<Record<string, LineAttribute>> = {
  unitPrice: { name: "unit price", holds: "amount" },
  piece: { name: "piece of the stock book", holds: "text" },
  pieceCost: { name: "piece of the stock book it was spent on", holds: "text" },
  collected: { name: "kind of goods whose sale bears collected tax", holds: "text" },
  cost: { name: "purchase price of what is sold", holds: "amount" },
  sellingPrice: { name: "expected selling price with tax", holds: "amount" },
  averagePrice: { name: "average wholesale price of a unit", holds: "amount" },
  customsDuty: { name: "customs duty and charges", holds: "amount" },
  taxableShare: { name: "taxable share of use, percent", holds: "percent" },
  recoverable: { name: "share that is deducted, percent", holds: "percent" },
  privateShare: { name: "private share of use, percent", holds: "percent" },
  hsn: { name: "statistical code", holds: "text" },
  unit: { name: "unit of the quantity", holds: "text" },
  goodsCost: { name: "cost of the goods in it, without tax", holds: "amount" },
  rateOn: { name: "day whose rate it bears", holds: "day" },
  rateReason: { name: "why it bears the rate of that day", holds: "text" },
  relieves: { name: "document whose tax is relieved or repaid", holds: "text" },
  document: { name: "customs entry or tax document", holds: "text" },
  supplier: { name: "tax number of the supplier behind, URP where there is none", holds: "text" },
  quote: { name: "quote of the buyer", holds: "text" },
  dispatch: { name: "member the goods are sent from, by its two letters", holds: "text" },
  establishment: { name: "member of the establishment that supplies, by its two letters", holds: "text" },
  certificate: { name: "certificate of import tax", holds: "text" },
};

/** The name of an attribute for people. */
export function attributeName(id: string): string {
  return LINE_ATTRIBUTES[id]?.name ?? id;
}

const byCodes = new WeakMap<ReadonlyMap<string, TaxCode>, ReadonlySet<string>>();

/** Every attribute the codes of a client can read, and those all lines can carry. */
export function knownAttributes(
  codes: ReadonlyMap<string, TaxCode>,
  further: readonly string[],
): ReadonlySet<string> {
  const known =
    byCodes.get(codes) ??
    new Set([
      ...Object.keys(LINE_ATTRIBUTES),
      ...[...codes.values()].flatMap((code) => [...(code.inputs ?? []), ...conditionsOf(code)]),
    ]);
  byCodes.set(codes, known);
  return further.length === 0 ? known : new Set([...known, ...further]);
}

function conditionsOf({ components }: TaxCode): string[] {
  return components
    .flatMap(({ when }) => Object.keys(when ?? {}))
    .filter((key) => key.startsWith("@"))
    .map((key) => key.slice(1));
}
