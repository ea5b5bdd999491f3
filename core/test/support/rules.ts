import type { SupplyRule } from "@fiscalon/core/model/supplyRule";

/** A rule that asks for nothing but a standard sale; what it is to ask for is put in its place. */
export function ruleOf(id: string, part: Partial<SupplyRule> = {}): SupplyRule {
  return {
    id,
    direction: "sale",
    taxClass: "standard",
    supply: "any",
    from: "any",
    to: "any",
    party: "any",
    validFrom: null,
    validTo: null,
    code: "S20",
    words: id,
    source: "invented for the test",
    ...part,
  };
}
