import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { DocumentInput } from "@fiscalon/core/model/document";

/** A document ready to be posted. `sourceRows`: by line, the row of the imported file. */
export interface NewDocument {
  input: DocumentInput & { number: string };
  contact: number | null;
  place: number | null;
  corrects?: string | null | undefined;
  note?: string | undefined;
  supersedes?: number;
  importId?: number | null;
  sourceKey?: string | null;
  sourceRows?: readonly number[];
  /** Already worked out with the same set-up; otherwise it is worked out here. */
  effect?: DocumentEffect;
}
