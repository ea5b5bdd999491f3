import { movementsUnder } from "@fiscalon/core/schemes/movementsUnder";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import type { DraftEffect } from "../../app/scope.ts";

/** What a document being typed adds to the position of its period. */
export function draftEffectOf(effect: DocumentEffect, setup: EffectSetup): DraftEffect {
  return { movements: movementsUnder(effect.facts, setup), saved: "draft kept, not posted" };
}
