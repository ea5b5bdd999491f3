import { boxMovements } from "../facts/boxMovements.ts";
import type { BoxMovement } from "../facts/boxMovements.ts";
import type { AssignedFact, EffectSetup } from "../facts/effect.ts";
import { boxTags } from "../model/boxTags.ts";
import { schemeOn } from "../model/scheme.ts";
import { assetPurchase, isDeductedAsset, ratesOn, setAside } from "./turnoverRate.ts";

/**
 * The boxes a document moves, as the scheme of its period has it: turnover with tax and its rate in place of the tax that
 * is charged, nothing of what is not deducted. Tests of the whole period, such as limited cost, are made on the return.
 */
export function movementsUnder(facts: readonly AssignedFact[], setup: EffectSetup): BoxMovement[] {
  return boxMovements(facts.map((fact) => ({ ...fact, tags: tagsUnder(fact, facts, setup) })));
}

function tagsUnder(
  fact: AssignedFact,
  document: readonly AssignedFact[],
  { registrations, packs, schedules }: EffectSetup,
): string {
  const r = registrations.find(({ id }) => id === fact.registration);
  const schemes = r?.schemes ?? [];
  const inForce = schemeOn(schemes, fact.taxPoint);
  if (!r || !inForce) return fact.tags;
  const definition = packs.byId(r.pack).schemes?.find(({ id }) => id === inForce.scheme);
  if (definition?.levy !== fact.levy || definition.rule.kind !== "turnover-rate") return fact.tags;
  const { rule } = definition;
  const { tax, turnover, input, purchases } = rule.boxes;
  const way = setAside(rule, fact);
  if (way === "nothing") return fact.tags;
  if (way === "deduction") return without(fact.tags, [input, purchases]);
  if (fact.direction === "purchase")
    return isDeductedAsset(rule, fact.code, assetPurchase(rule, document))
      ? `${input} +r, ${purchases} +n`
      : "";
  const { rate } = ratesOn(rule, { schemes, registered: r.from, schedules }, fact.taxPoint, false);
  return `${turnover} +g, ${tax} +${rate}/100g`;
}

/** Tags without those of some boxes. */
export function without(tags: string, boxes: readonly string[]): string {
  if (tags === "") return "";
  const kept = boxTags(tags).map(({ box }) => !boxes.includes(box));
  return tags
    .split(",")
    .filter((_, index) => kept[index])
    .join(",")
    .trim();
}
