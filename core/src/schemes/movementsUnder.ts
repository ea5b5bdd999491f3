import { boxMovements } from "../facts/boxMovements.ts";
import type { BoxMovement } from "../facts/boxMovements.ts";
import type { AssignedFact, EffectSetup } from "../facts/effect.ts";
import { boxTags } from "../model/boxTags.ts";
import { found } from "../at.ts";
import { schemesOf } from "../model/scheme.ts";
import type { RatioCredit } from "../model/ratioCredit.ts";
import type { TurnoverRate } from "../model/scheme.ts";
import { roundExact } from "../money/roundExact.ts";
import { partInside } from "../money/partInside.ts";
import { countsInTotals } from "./ratioCredit.ts";
import { assetPurchase, isDeductedAsset, ratesOn, setAside } from "./turnoverRate.ts";

/**
 * The boxes a document moves, as the scheme of its period has it: turnover with tax and its rate in place of the tax that
 * is charged, nothing of what is not deducted. Tests of the whole period, such as limited cost, are made on the return.
 */
export function movementsUnder(facts: readonly AssignedFact[], setup: EffectSetup): BoxMovement[] {
  return boxMovements(facts.map((fact) => factUnder(fact, facts, setup)));
}

function factUnder(
  fact: AssignedFact,
  document: readonly AssignedFact[],
  { registrations, packs, schedules }: EffectSetup,
): AssignedFact {
  const r = registrations.find(({ id }) => id === fact.registration);
  if (!r) return fact;
  const offered = schemesOf(packs.byId(r.pack));
  const { schemes = [] } = r;
  const on = schemes.filter(({ from, to }) => from <= fact.taxPoint && (to === null || fact.taxPoint <= to));
  for (const inForce of on) {
    const { rule, levies } = found(offered, ({ id }) => id === inForce.scheme, inForce.scheme);
    if (!levies.includes(fact.levy)) continue;
    if (rule.kind === "ratio-credit") return underRatio(rule, fact, document);
    if (rule.kind !== "turnover-rate") continue;
    const around = { schemes: [inForce], registered: r.from, schedules };
    return { ...fact, tags: underRate(rule, fact, document, around) };
  }
  return fact;
}

/** A bill that counts deducts the tax inside its total; the return rounds once for all of a rate. */
function underRatio(rule: RatioCredit, fact: AssignedFact, document: readonly AssignedFact[]): AssignedFact {
  if (!countsInTotals(rule, fact) || fact.rate === null || fact.tax === 0) return fact;
  const costs = document.filter(
    ({ line, levy, charged, recoverable }) =>
      line === fact.line && levy !== fact.levy && charged === "charged" && recoverable === 0,
  );
  const total = costs.reduce((sum, { tax }) => sum + tax, fact.net + fact.tax);
  const share = roundExact({ n: BigInt(total) * BigInt(fact.recoverable), d: BigInt(fact.tax) });
  return { ...fact, recoverable: partInside(share, fact.rate) };
}

function underRate(
  rule: TurnoverRate,
  fact: AssignedFact,
  document: readonly AssignedFact[],
  around: Parameters<typeof ratesOn>[1],
): string {
  const { tax, turnover, input, purchases } = rule.boxes;
  const way = setAside(rule, fact);
  if (way === "nothing") return fact.tags;
  if (way === "deduction") return without(fact.tags, [input, ...(purchases ? [purchases] : [])]);
  const kept = without(fact.tags, rule.drops);
  const and = (...more: string[]) => [kept, ...more].filter((one) => one !== "").join(", ");
  if (fact.direction === "purchase")
    return isDeductedAsset(rule, fact.code, assetPurchase(rule, document))
      ? and(`${input} +r`, ...(purchases ? [`${purchases} +n`] : []))
      : kept;
  const { rate } = ratesOn(rule, around, fact, false);
  const of = rule.of === "tax" ? "t" : "g";
  return and(...turnover.map((box) => `${box} +g`), `${tax} +${rate}/100${of}`);
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
