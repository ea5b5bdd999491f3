import { FiscalError } from "@fiscalon/core/errors";
import { schedulesOfCode } from "@fiscalon/core/jurisdictions/doubtsInUse";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { rateDifferences } from "@fiscalon/core/tax/rateDifferences";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../loadSetup.ts";
import { documentIds, ON_NO_SEALED_RETURN } from "./loadDocuments.ts";

/** The day whose rate a document `d` bears. */
const RATE_DAY = "coalesce(d.original_date, d.tax_point, d.date)";

/**
 * The ids of the posted documents of a client, none of whose facts is sealed, that would bear another rate if a schedule
 * had these rows.
 * @throws FiscalError `tax/no-rate` where one of them would have no rate any more
 */
export async function documentsTouched(
  work: Work,
  clientId: number,
  ref: string,
  rows: readonly RateRow[],
): Promise<number[]> {
  const { plain } = await loadSetup(work, clientId);
  const codes = plain.codes.flatMap(expandCode).filter((code) => schedulesOfCode(code).includes(ref));
  const stretches = rateDifferences(plain.schedules[ref] ?? [], rows);
  if (codes.length === 0 || stretches.length === 0) return [];
  const bearing = `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM json_each($3) t WHERE ${RATE_DAY} BETWEEN t.value ->> 'from' AND t.value ->> 'to')
     AND EXISTS (SELECT 1 FROM facts x WHERE x.document_id = d.id AND x.live = 1
       AND x.code IN (SELECT value FROM json_each($2)))
     AND ${ON_NO_SEALED_RETURN}`;
  const bind = (days: object[]) => [
    clientId,
    JSON.stringify(codes.map(({ code }) => code)),
    JSON.stringify(days),
  ];
  const without = stretches.filter(({ becomes }) => becomes === null);
  const bare = await work.row<{ number: string; on: string }>(
    `SELECT d.number, ${RATE_DAY} AS "on" FROM documents d WHERE ${bearing} ORDER BY d.id LIMIT 1`,
    bind(without),
  );
  if (bare)
    throw new FiscalError(
      "tax/no-rate",
      `${bare.number} of ${bare.on} would have no rate any more. Give that day a rate.`,
      "rows",
    );
  return documentIds(work, bearing, bind(stretches));
}
