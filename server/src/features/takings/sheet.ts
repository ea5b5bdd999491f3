import { addDays } from "@fiscalon/core/calendar/date";
import { groupBy } from "@fiscalon/core/groupBy";
import type { TakingsDay, TakingsSheet } from "@fiscalon/contract/takings";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { takingsCodes } from "./takingsRule.ts";

/** What documents of the sheet were made from; one a day. */
export function sheetKey(date: string): string {
  return `takings:${date}`;
}

interface TakenRow {
  date: string;
  code: string;
  gross: number;
  document: number;
  ofSheet: number;
}

/** The takings of some days: what the sheet holds by code, and what other documents do. */
export async function takingsSheet(
  work: Work,
  setup: ClientSetup,
  { from, to }: { from: string; to: string },
): Promise<TakingsSheet> {
  const codes = takingsCodes(work, setup);
  const { client, plain } = setup;
  const taken = await work.rows<TakenRow>(
    `SELECT d.date, f.code, sum(f.net + f.tax) AS gross, d.id AS document, coalesce(d.source_key, '') LIKE 'takings:%' AS ofSheet
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.client_id = $1 AND f.live = 1 AND f.tax_point BETWEEN $2 AND $3
       AND f.code IN (SELECT value FROM json_each($4)) GROUP BY d.id, f.code ORDER BY d.date, d.id`,
    [client.id, from, to, JSON.stringify(codes.map(({ code }) => code))],
  );
  const sealed = await work.rows<{ from: string; to: string }>(
    `SELECT period_from AS "from", period_end AS "to" FROM returns
     WHERE client_id = $1 AND state IN ('sealed', 'filed', 'settled') AND period_from <= $3 AND period_end >= $2`,
    [client.id, from, to],
  );
  const last = await work.row<{ account: string }>(
    `SELECT coalesce(paid_from, '') AS account FROM documents WHERE client_id = $1 AND source_key LIKE 'takings:%' AND state = 'posted'
     ORDER BY date DESC LIMIT 1`,
    [client.id],
  );
  const byDay = groupBy(taken, ({ date }) => date);
  const days: TakingsDay[] = [];
  for (let date = from; date <= to; date = addDays(date, 1)) {
    const rows = byDay.get(date) ?? [];
    const [own, others] = [rows.filter((row) => row.ofSheet === 1), rows.filter((row) => row.ofSheet === 0)];
    days.push({
      date,
      amounts: Object.fromEntries(own.map(({ code, gross }) => [code, gross])),
      others: others.reduce((sum, { gross }) => sum + gross, 0),
      document: own[0]?.document ?? null,
      sealed: sealed.find((period) => period.from <= date && date <= period.to)?.to ?? null,
    });
  }
  return { digits: plain.digits, codes, account: last?.account ?? "", days };
}
