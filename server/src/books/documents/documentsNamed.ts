import type { Work } from "../../base/work.ts";

/** A document as a list of touched ones names it; gross in minor units of the client's currency. */
export interface NamedDocument {
  id: number;
  number: string;
  date: string;
  gross: number;
}

/** Documents by id, oldest first. */
export function documentsNamed(work: Work, ids: readonly number[]): Promise<NamedDocument[]> {
  return work.rows(
    `SELECT id, number, date, gross FROM documents WHERE id IN (SELECT value FROM json_each($1)) ORDER BY id`,
    [JSON.stringify(ids)],
  );
}
