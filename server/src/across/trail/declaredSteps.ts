import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import type { Work } from "../../base/work.ts";
import { registrationIn } from "../../books/loadSetup.ts";
import { DECLARED, MOVED, TIMED, timedBy } from "../../books/returns/controlSql.ts";
import type { TaxSide } from "../../books/returns/controlSql.ts";
import { factLines } from "./factLines.ts";
import type { TrailScope } from "./trailScope.ts";

const LISTED = 200;

/** What is declared of a levy for a period, by code and rate, as it stands on the account. */
export async function declaredParts(
  work: Work,
  registrationId: number,
  end: string,
  side: TaxSide,
  levies: string,
): Promise<TrailPart[]> {
  const rows = await work.rows<{
    code: string;
    direction: string;
    rate: string | null;
    credit: number;
    late: number;
    amount: number;
    count: number;
  }>(
    `SELECT code, direction, rate, credit, late, sum(${MOVED[side]}) AS amount, count(*) AS count FROM facts f
     WHERE ${DECLARED} GROUP BY code, direction, rate, credit, late
     HAVING sum(${MOVED[side]}) <> 0 ORDER BY abs(sum(${MOVED[side]})) DESC`,
    [registrationId, end, levies],
  );
  return rows.map(({ code, direction, rate, credit, late, amount, count }) => ({
    ref: ["declared", registrationId, end, side, levies, code, direction, rate ?? "-", credit, late]
      .map((part) => encodeURIComponent(String(part)))
      .join("/"),
    label: `${code}${rate === null ? "" : ` ${rate} %`}${credit === 1 ? ", credit notes" : ""}`,
    detail: `${count} ${count === 1 ? "line" : "lines"}`,
    amount,
  }));
}

/** The documents behind one code and rate of what is declared, largest first. */
export async function declaredStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const [
    rid = "",
    end = "",
    told = "",
    levies = "",
    code = "",
    direction = "",
    rate = "",
    credit = "0",
    late = "0",
  ] = parts;
  const r = registrationIn(setup, rid);
  const side = told === "input" ? "input" : "output";
  const {
    parts: lines,
    total,
    sum,
  } = await factLines(work, {
    amount: MOVED[side],
    where: `${DECLARED} AND f.code = $4 AND f.direction = $5 AND coalesce(f.rate, '-') = $6 AND f.credit = $7 AND f.late = $8`,
    bind: [r.id, end, levies, code, direction, rate, Number(credit), Number(late)],
  });
  const definition = setup.effect.codes.get(code);
  return {
    ref,
    title: `${code}${rate === "-" ? "" : ` ${rate} %`}${credit === "1" ? ", credit notes" : ""}`,
    amount: sum,
    digits: setup.plain.digits,
    words: [
      side === "input" ? "The tax of each line that is deducted." : "The tax of each line that is due.",
      ...(definition?.source ? [`Source: ${definition.source}`] : []),
    ],
    parts: lines,
    arithmetic: [],
    total,
  };
}

/** Documents whose tax is in the ledger in another period than on the return. */
export async function timingParts(
  work: Work,
  registrationId: number,
  view: { from: string; to: string },
  side: TaxSide,
  levies: string,
): Promise<TrailPart[]> {
  const rows = await work.rows<{
    document: number;
    number: string;
    ledger: string;
    reported: string | null;
    amount: number;
    held: number;
  }>(
    `SELECT f.document_id AS document, d.number, d.ledger_date AS ledger, f.period_end AS reported,
       sum(${timedBy(side)}) AS amount, max(f.held) AS held
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE ${TIMED} GROUP BY f.document_id HAVING amount <> 0 ORDER BY d.ledger_date LIMIT ${LISTED}`,
    [registrationId, view.from, view.to, levies],
  );
  return rows.map((row) => ({
    ref: `document/${row.document}`,
    label: `${row.number}: in the ledger on ${displayDate(row.ledger)}`,
    detail:
      row.held === 1
        ? "reported as it is paid"
        : row.reported === null
          ? "on no return"
          : `reported in the period to ${displayDate(row.reported)}`,
    amount: row.amount,
  }));
}
