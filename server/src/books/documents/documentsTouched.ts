import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import { schedulesOfCode } from "@fiscalon/core/jurisdictions/doubtsInUse";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { rateDifferences } from "@fiscalon/core/tax/rateDifferences";
import type { RateDifference } from "@fiscalon/core/tax/rateDifferences";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../loadSetup.ts";
import { ON_NO_SEALED_RETURN } from "./loadDocuments.ts";
import { DAY_OF_DOCUMENT, DAY_OF_LINE } from "./rateDays.ts";

/** That a day lies in one of the stretches $3. */
const inDays = (day: string) =>
  `EXISTS (SELECT 1 FROM json_each($3) t WHERE ${day} BETWEEN t.value ->> 'from' AND t.value ->> 'to')`;

/** That a document `d`, or a line of it with a day of its own, bears the rate of one of these days. */
const BEARING = `(${inDays(DAY_OF_DOCUMENT)} OR d.id IN (SELECT l.document_id FROM lines l
  WHERE ${DAY_OF_LINE} IS NOT NULL AND ${inDays(DAY_OF_LINE)}))`;

/** What a schedule is to be for a client. */
interface Becoming {
  clientId: number;
  ref: string;
  rows: readonly RateRow[];
}

/** The posted documents a change of rates is about. */
export interface Touched {
  /** The ids of those none of whose facts is on a sealed return: they would bear another rate. */
  open: number[];
  /** How many are on sealed returns: they stay as they were declared. */
  declared: number;
}

/**
 * The posted documents of a client that would bear another rate if a schedule had these rows.
 * @throws FiscalError `tax/no-rate` where an open one would have no rate any more
 */
export async function documentsTouched(work: Work, { clientId, ref, rows }: Becoming): Promise<Touched> {
  const { plain } = await loadSetup(work, clientId);
  const codes = plain.codes.flatMap(expandCode).filter((code) => schedulesOfCode(code).includes(ref));
  const days = rateDifferences(plain.schedules[ref] ?? [], rows);
  if (codes.length === 0 || days.length === 0) return { open: [], declared: 0 };
  const bearing = `d.client_id = $1 AND d.state = 'posted' AND ${BEARING}
    AND EXISTS (SELECT 1 FROM facts x WHERE x.document_id = d.id AND x.live = 1
      AND x.code IN (SELECT value FROM json_each($2)))`;
  const bind = (some: readonly RateDifference[]) => [
    clientId,
    JSON.stringify(codes.map(({ code }) => code)),
    JSON.stringify(some),
  ];
  const bare = await work.row<{ number: string; on: string }>(
    `SELECT d.number, ${DAY_OF_DOCUMENT} AS "on" FROM documents d WHERE ${bearing} AND ${ON_NO_SEALED_RETURN} ORDER BY d.id LIMIT 1`,
    bind(days.filter(({ becomes }) => becomes === null)),
  );
  if (bare)
    throw new FiscalError(
      "tax/no-rate",
      `${bare.number} of ${displayDate(bare.on)} would have no rate any more. Give that day a rate.`,
      "rows",
    );
  const found = await work.rows<{ id: number; open: number }>(
    `SELECT d.id, ${ON_NO_SEALED_RETURN} AS open FROM documents d WHERE ${bearing} ORDER BY d.id`,
    bind(days),
  );
  const open = found.flatMap((one) => (one.open === 1 ? [one.id] : []));
  return { open, declared: found.length - open.length };
}
