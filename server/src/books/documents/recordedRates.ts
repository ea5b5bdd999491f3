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
  const rows = await work.rows<RecordedFact>(
    `SELECT f.document_id AS document, f.line, f.levy, f.code, f.rate, f.rates, coalesce(${DAY_OF_LINE}, ${DAY_OF_DOCUMENT}) AS "on"
     FROM json_each($1) one CROSS JOIN facts f ON f.document_id = one.value JOIN documents d ON d.id = f.document_id
       JOIN lines l ON l.document_id = d.id AND l.no = f.line
     WHERE f.release_of IS NULL AND (f.rate IS NOT NULL OR f.rates IS NOT NULL) ORDER BY f.id`,
    [JSON.stringify(ids)],
  );
  const newest = new Map(rows.map((row) => [`${row.document} ${row.line} ${row.levy}`, row]));
  const byDocument = groupBy([...newest.values()], ({ document }) => document);
  return new Map(
    [...byDocument].flatMap(([id, facts]) => {
      const left = ratesLeft(effect, facts.flatMap(ratesOf));
      return left.length === 0 ? [] : [[id, left]];
    }),
  );
}

interface RecordedFact extends Omit<RecordedRate, "rate" | "schedule"> {
  document: number;
  line: number;
  rate: string | null;
  /** JSON, by schedule. */
  rates: string | null;
}

function ratesOf({ code, levy, on, rate, rates }: RecordedFact): RecordedRate[] {
  const beside = Object.entries(JSON.parse(rates ?? "{}") as Record<string, string>);
  return [
    ...(rate === null ? [] : [{ code, levy, on, rate }]),
    ...beside.map(([schedule, own]) => ({ code, levy, on, rate: own, schedule })),
  ];
}
