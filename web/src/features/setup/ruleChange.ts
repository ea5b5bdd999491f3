import type { SupplyRule } from "@fiscalon/core/model/supplyRule";

/** What a person does to one rule: as it was when it was opened (null: new), and as it shall be (null: taken out). */
export interface RuleChange {
  was: SupplyRule | null;
  shallBe: SupplyRule | null;
}

/** Rules with a change made to them, whichever others they are by now. */
export function withChange(rules: readonly SupplyRule[], { was, shallBe }: RuleChange): SupplyRule[] {
  const { id } = was ?? { id: null };
  const others = rules.filter((rule) => rule.id !== id);
  if (shallBe === null) return others;
  return rules.some((rule) => rule.id === id)
    ? rules.map((rule) => (rule.id === id ? shallBe : rule))
    : [...others, shallBe];
}
