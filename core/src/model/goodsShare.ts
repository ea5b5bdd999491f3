/**
 * A contract for goods and a service together at one price: where the goods cost more than a share of it, all of it bears
 * the rate of the goods. The cost stands in the attribute `goodsCost` of the line.
 * - `over`: the share, as a fraction. `services`: the codes of services it is about, the first the usual one.
 * - `goods`: the code of the goods.
 */
export interface GoodsShareRule {
  over: { of: number; parts: number };
  services: readonly string[];
  goods: string;
  says: string;
  source: string;
}
