import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { TrailPart } from "@fiscalon/contract/trail";
import type { Work } from "../../base/work.ts";
import type { Bind } from "../../db/database.ts";

const LISTED = 200;

/** The lines behind a figure: the largest of them, how many there are in all, and what all come to. */
export interface FactLines {
  parts: TrailPart[];
  total: number;
  sum: number;
}

/**
 * Lines of documents behind a sum of facts `f`, largest first.
 * @param amount what each fact moves, in SQL
 * @param where which facts, in SQL with its parameters in `bind`
 * @param shown how an amount lands where it is shown, where that differs
 */
export async function factLines(
  work: Work,
  { amount, where, bind }: { amount: string; where: string; bind: Bind },
  shown: (sum: number) => number = (sum) => sum,
): Promise<FactLines> {
  const rows = await work.rows<{
    document: number;
    line: number;
    number: string;
    party: string;
    date: string;
    amount: number;
    all: number;
    total: number;
  }>(
    `SELECT f.document_id AS document, f.line, d.number, coalesce(c.name, '') AS party, min(f.tax_point) AS date,
       sum(${amount}) AS amount, count(*) OVER () AS "all", sum(sum(${amount})) OVER () AS total
     FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE ${where} GROUP BY f.document_id, f.line, f.tax_point
     ORDER BY abs(sum(${amount})) DESC, f.document_id, f.line LIMIT ${LISTED}`,
    bind,
  );
  const [first] = rows;
  return {
    parts: rows.map((row) => ({
      ref: `line/${row.document}/${row.line}`,
      label: `${row.number}${row.party === "" ? "" : ` · ${row.party}`}`,
      detail: displayDate(row.date),
      amount: shown(row.amount),
    })),
    total: first ? first.all : 0,
    sum: first ? shown(first.total) : 0,
  };
}
