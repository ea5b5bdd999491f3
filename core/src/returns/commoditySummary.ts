import { at } from "../at.ts";
import { groupBy } from "../groupBy.ts";
import { boxTags } from "../model/boxTags.ts";
import type { ReturnRegister } from "../model/returnRegister.ts";
import { add, exactFromDecimal, exactFromInteger, exactToText, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";

/** What a line of the period did for one levy. Amounts signed, minor units; `rate` in percent. */
export interface SoldFact {
  document: number;
  line: number;
  levy: string;
  rate: string | null;
  net: number;
  tax: number;
  credit: boolean;
  tags: string;
  code: string;
  text: string;
  unit: string;
  quantity: string | null;
}

export interface CommodityRow {
  list: string;
  code: string;
  text: string;
  unit: string;
  quantity: string;
  rate: string;
  value: number;
  /** In the order of the register's levies. */
  taxes: number[];
}

type Commodities = Extract<ReturnRegister, { kind: "commodities" }>;

/**
 * What was sold by statistical code, unit and rate, credit notes taken off. A line counts in the first list one of whose
 * boxes it lands in; the rate is that of all its levies together.
 * @param digits of the code that are told; what is longer is cut
 * @returns in order of list, code and rate; lines without a code stand under the empty one
 */
export function commoditySummary(
  register: Commodities,
  digits: number,
  facts: readonly SoldFact[],
): CommodityRow[] {
  const rows = new Map<string, CommodityRow & { sum: Exact }>();
  for (const own of groupBy(facts, ({ document, line }) => `${document}/${line}`).values()) {
    const [first] = own;
    const list = first && listOf(register, own);
    if (!first || list === undefined) continue;
    const code = first.code.slice(0, digits);
    const unit = code.startsWith(register.services) && code !== "" ? "NA" : first.unit;
    const rate = exactToText(
      own.reduce((sum, fact) => add(sum, exactFromDecimal(fact.rate ?? "0")), exactFromInteger(0)),
      4,
    );
    const key = [list, code, unit, rate].join("\n");
    const row = rows.get(key) ?? {
      list,
      code,
      text: first.text,
      unit,
      quantity: "0",
      rate,
      value: 0,
      taxes: register.levies.map(() => 0),
      sum: exactFromInteger(0),
    };
    row.value += first.net;
    row.sum = add(row.sum, multiply(quantityOf(first), exactFromInteger(first.credit ? -1 : 1)));
    register.levies.forEach(({ levies }, index) => {
      const tax = own.filter(({ levy }) => levies.includes(levy)).reduce((sum, one) => sum + one.tax, 0);
      row.taxes[index] = at(row.taxes, index) + tax;
    });
    rows.set(key, row);
  }
  return [...rows.values()]
    .map(({ sum, ...row }) => ({ ...row, quantity: row.unit === "NA" ? "" : exactToText(sum, 3) }))
    .sort((a, b) => order(a).localeCompare(order(b)));
}

function listOf({ lists }: Commodities, facts: readonly SoldFact[]): string | undefined {
  const boxes = facts.flatMap(({ tags }) => boxTags(tags).map(({ box }) => box));
  return lists.find((list) => list.boxes.some((start) => boxes.some((box) => box.startsWith(start))))?.name;
}

function quantityOf({ quantity }: SoldFact): Exact {
  return quantity === null || quantity === "" ? exactFromInteger(0) : exactFromDecimal(quantity);
}

function order({ list, code, unit, rate }: CommodityRow): string {
  return `${list} ${code.padEnd(8)} ${unit} ${rate.padStart(8)}`;
}
