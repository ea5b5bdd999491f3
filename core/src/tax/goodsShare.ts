import type { GoodsShareRule } from "../model/goodsShare.ts";
import { displayAmount, parseAmount } from "../money/amount.ts";

/** The code a line should have by what the goods in it cost, and the arithmetic as a sentence. */
export interface GoodsShareAnswer {
  code: string;
  text: string;
}

/**
 * What the goods in the price of a service make of its rate.
 * @param line `net` without tax in minor units, `cost` of the goods as decimal text
 * @returns the other code, where the line does not have the one the rule asks for
 * @throws FiscalError `amount/invalid` where the cost is no amount
 */
export function codeByGoods(
  rule: GoodsShareRule,
  { code, net, cost }: { code: string; net: number; cost: string },
  digits: number,
): GoodsShareAnswer | undefined {
  if (code !== rule.goods && !rule.services.includes(code)) return undefined;
  const goods = parseAmount(cost, digits);
  const { of, parts } = rule.over;
  const passes = Math.abs(goods) * parts > Math.abs(net) * of;
  const right = passes ? rule.goods : (rule.services[0] ?? rule.goods);
  if (passes ? code === rule.goods : code !== rule.goods) return undefined;
  const figures = `goods of ${displayAmount(goods, digits)} in a price of ${displayAmount(net, digits)} are ${passes ? "more than" : "no more than"} ${FRACTIONS[`${of}/${parts}`] ?? `${of}/${parts}`} of it`;
  return { code: right, text: `${figures}: ${rule.says} (${rule.source}). That is ${right}.` };
}

const FRACTIONS: Readonly<Record<string, string>> = { "2/3": "two thirds", "1/2": "half", "1/3": "a third" };
