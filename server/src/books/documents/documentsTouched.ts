import { FiscalError } from "@fiscalon/core/errors";
import { schedulesOfCode } from "@fiscalon/core/jurisdictions/doubtsInUse";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { rateDifferences } from "@fiscalon/core/tax/rateDifferences";
import type { RateDifference } from "@fiscalon/core/tax/rateDifferences";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../loadSetup.ts";
import { documentIds, ON_NO_SEALED_RETURN } from "./loadDocuments.ts";

/** The day whose rate a document `d` bears. */
const RATE_DAY = "coalesce(d.original_date, d.tax_point, d.date)";

/** What a schedule is to be for a client. */
interface Becoming {
  clientId: number;
  ref: string;
  rows: readonly RateRow[];
}

/** The documents that bear rates of a schedule on days on which they are to be others. */
interface Bearing {
  /** Of documents `d`, with $1 to $3. */
  where: string;
  bind: (days: readonly object[]) => (string | number)[];
  days: readonly RateDifference[];
}

/**
 * The ids of the posted documents of a client, none of whose facts is sealed, that would bear another rate if a schedule
 * had these rows.
 * @throws FiscalError `tax/no-rate` where one of them would have no rate any more
 */
export async function documentsTouched(work: Work, becoming: Becoming): Promise<number[]> {
  const bearing = await bearingIn(work, becoming);
  if (!bearing) return [];
  const { where, bind, days } = bearing;
  const open = `${where} AND ${ON_NO_SEALED_RETURN}`;
  const bare = await work.row<{ number: string; on: string }>(
    `SELECT d.number, ${RATE_DAY} AS "on" FROM documents d WHERE ${open} ORDER BY d.id LIMIT 1`,
    bind(days.filter(({ becomes }) => becomes === null)),
  );
  if (bare)
    throw new FiscalError(
      "tax/no-rate",
      `${bare.number} of ${bare.on} would have no rate any more. Give that day a rate.`,
      "rows",
    );
  return documentIds(work, open, bind(days));
}

/** How many documents on sealed returns such a change would move if they were open: they stay as they were declared. */
export async function declaredTouched(work: Work, becoming: Becoming): Promise<number> {
  const bearing = await bearingIn(work, becoming);
  if (!bearing) return 0;
  const { where, bind, days } = bearing;
  const { count } = await work.one<{ count: number }>(
    `SELECT count(*) AS count FROM documents d WHERE ${where} AND NOT ${ON_NO_SEALED_RETURN}`,
    bind(days),
  );
  return count;
}

async function bearingIn(work: Work, { clientId, ref, rows }: Becoming): Promise<Bearing | null> {
  const { plain } = await loadSetup(work, clientId);
  const codes = plain.codes.flatMap(expandCode).filter((code) => schedulesOfCode(code).includes(ref));
  const days = rateDifferences(plain.schedules[ref] ?? [], rows);
  if (codes.length === 0 || days.length === 0) return null;
  const names = JSON.stringify(codes.map(({ code }) => code));
  return {
    where: `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM json_each($3) t WHERE ${RATE_DAY} BETWEEN t.value ->> 'from' AND t.value ->> 'to')
      AND EXISTS (SELECT 1 FROM facts x WHERE x.document_id = d.id AND x.live = 1
        AND x.code IN (SELECT value FROM json_each($2)))`,
    bind: (some) => [clientId, names, JSON.stringify(some)],
    days,
  };
}
