import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { DraftEffect } from "../../app/scope.ts";

/** What a document being typed adds to the position of its period. */
export function draftEffectOf(effect: DocumentEffect): DraftEffect {
  const sum = (pick: (fact: DocumentEffect["facts"][number]) => number) =>
    effect.facts.reduce((total, fact) => total + pick(fact), 0);
  return {
    output: sum((fact) => (fact.direction === "sale" || fact.charged === "self-assessed" ? fact.tax : 0)),
    input: sum((fact) => fact.recoverable),
    periodEnd: effect.facts[0]?.period?.reported.to ?? null,
    saved: "draft kept, not posted",
  };
}
