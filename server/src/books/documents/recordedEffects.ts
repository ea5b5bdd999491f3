import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { addSurroundings } from "./addSurroundings.ts";
import type { StoredDocument } from "./loadDocuments.ts";
import { recordedRates } from "./recordedRates.ts";

/** A posted document with the rates it was counted with, and what these come to. */
export interface RecordedEffect {
  document: StoredDocument;
  effect: DocumentEffect;
}

/** What posted documents were counted as, also where a rate of theirs was corrected after their return was sealed. */
export async function recordedEffects(
  work: Work,
  setup: ClientSetup,
  documents: readonly StoredDocument[],
): Promise<RecordedEffect[]> {
  await addSurroundings(work, setup, documents);
  const rates = await recordedRates(
    work,
    setup,
    documents.map(({ id }) => id),
  );
  return documents.map((stored) => {
    const own = rates.get(stored.id);
    const document = own ? { ...stored, input: { ...stored.input, recordedRates: own } } : stored;
    return { document, effect: documentEffect(document.input, setup.effect) };
  });
}
