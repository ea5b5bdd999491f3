import { groupBy } from "@fiscalon/core/groupBy";
import type { RecordedRate } from "@fiscalon/core/model/document";
import { ratesLeft } from "@fiscalon/core/tax/recordedRates";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { DAY_OF_DOCUMENT, DAY_OF_LINE } from "./rateDays.ts";

/** The rates documents were counted with last that their schedules do not have any more, by their ids. */
export async function recordedRates(
  work: Work,
  { effect }: ClientSetup,
  ids: readonly number[],
): Promise<ReadonlyMap<number, readonly RecordedRate[]>> {
  const rows = await work.rows<RecordedRate & { document: number; line: number }>(
    `SELECT f.document_id AS document, f.line, f.levy, f.code, f.rate, coalesce(${DAY_OF_LINE}, ${DAY_OF_DOCUMENT}) AS "on"
     FROM json_each($1) one CROSS JOIN facts f ON f.document_id = one.value JOIN documents d ON d.id = f.document_id
       JOIN lines l ON l.document_id = d.id AND l.no = f.line
     WHERE f.release_of IS NULL AND f.rate IS NOT NULL ORDER BY f.id`,
    [JSON.stringify(ids)],
  );
  const newest = new Map(rows.map((row) => [`${row.document} ${row.line} ${row.levy}`, row]));
  const left = [...newest.values()].filter((rate) => ratesLeft(effect, [rate]).length > 0);
  const byDocument = groupBy(left, ({ document }) => document);
  return new Map(
    [...byDocument].map(([id, rates]) => [
      id,
      rates.map(({ code, levy, on, rate }): RecordedRate => ({ code, levy, on, rate })),
    ]),
  );
}
