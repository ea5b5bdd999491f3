import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { DraftEffect } from "../../app/scope.ts";

/** What a document being typed adds to the position of its period. */
export function draftEffectOf(effect: DocumentEffect): DraftEffect {
  return { movements: boxMovements(effect.facts), saved: "draft kept, not posted" };
}
