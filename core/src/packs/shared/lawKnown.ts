import type { LawKnown } from "../../model/pack.ts";

/** The law of a shipped jurisdiction, as all of them were written; each row: what, why it is in doubt, where to look. */
export function lawKnown(
  leftOut: readonly string[],
  ...rows: readonly [about: string, says: string, where: string][]
): LawKnown {
  return {
    asOf: "2026-11",
    checked:
      "Written from memory of the law and of official publications, read twice; nothing could be looked up.",
    leftOut,
    doubts: rows.map(([about, says, where]) => ({ about, says, where })),
  };
}
