import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import { memberSummary } from "@fiscalon/core/returns/memberSummary";
import type { MemberCorrection, MemberRow } from "@fiscalon/core/returns/memberSummary";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { boxesNow } from "../../books/returns/evaluation.ts";
import { periodRule } from "../../books/returns/periodRule.ts";
import { money, plain } from "./registerColumns.ts";
import type { RegisterTable } from "./registerColumns.ts";

/** What a box of the return by member holds, in words. */
const SUPPLIES = new Map([
  ["S", "Services"],
  ["E", "Services of an establishment"],
  ["G", "Goods"],
  ["D", "Goods from another member"],
  ["C", "Correction"],
]);

/** The facts of a return $1 to $2 that stand among its corrections. */
const CORRECTED = `facts f JOIN documents d ON d.id = f.document_id
  WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.tags LIKE '__.C +t'`;

/** The return of a period by member of consumption: supplies at each rate, corrections by period, balances. */
export async function byMember(
  work: Work,
  { effect }: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<RegisterTable> {
  const { boxes } = await boxesNow(work, r, end);
  const isReduced = (code: string) => effect.codes.get(code)?.treatment === "reduced";
  const rows = memberSummary(boxes, await correctionsOf(work, r, end), isReduced);
  return {
    columns: [
      ...["Member", "What", "From", "Type of rate", "Rate", "Period"].map(plain),
      money("Taxable"),
      money("Tax"),
    ],
    rows: rows.map((row) => [
      row.member,
      wordsFor(row),
      row.from,
      row.kind === "supply" ? (row.reduced ? "reduced" : "standard") : "",
      row.rate,
      row.period,
      row.kind === "supply" ? row.taxable : "",
      row.tax,
    ]),
    opens: rows.map(({ box }) => `box/${r.id}/${end}/${box}`),
    total: rows.length,
    missing: null,
  };
}

function wordsFor({ kind, supply }: MemberRow): string {
  if (kind === "supply") return SUPPLIES.get(supply) ?? supply;
  return kind === "correction" ? "Correction" : "Balance";
}

/** Corrections by the period of the document a credit note corrects, or by their own. */
async function correctionsOf(work: Work, r: RegistrationRecord, end: string): Promise<MemberCorrection[]> {
  const rows = await work.rows<{ member: string; own: string; corrected: string | null; tax: number }>(
    `SELECT member, own, corrected, sum(tax) AS tax FROM (
       SELECT substr(f.tags, 1, 2) AS member, f.own_end AS own, f.tax, CASE WHEN f.credit = 1 THEN
         (SELECT coalesce(o.tax_point, o.date) FROM documents o
          WHERE o.client_id = d.client_id AND o.number = d.corrects AND o.state = 'posted' LIMIT 1) END AS corrected
       FROM ${CORRECTED}) GROUP BY member, own, corrected`,
    [r.id, end],
  );
  const sums = new Map<string, MemberCorrection>();
  for (const { member, own, corrected, tax } of rows) {
    const period = (corrected === null ? undefined : filingPeriodOn(periodRule(r), corrected)?.to) ?? own;
    const key = `${member} ${period}`;
    sums.set(key, { member, period, tax: tax + (sums.get(key)?.tax ?? 0) });
  }
  return [...sums.values()];
}

/** Each supply of a period by itself, with what the records of it must hold. */
export async function recordOfSupplies(
  work: Work,
  r: RegistrationRecord,
  end: string,
  limit: number,
): Promise<RegisterTable> {
  const rows = await work.rows<{
    document: number;
    day: string;
    number: string;
    tags: string;
    rate: string | null;
    currency: string;
    corrects: string | null;
    net: number;
    tax: number;
    total: number;
  }>(
    `SELECT f.document_id AS document, f.tax_point AS day, d.number, f.tags, f.rate, d.currency, d.corrects, f.net, f.tax,
       count(*) OVER () AS total
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.direction = 'sale'
     ORDER BY f.tax_point, f.document_id, f.line, f.id LIMIT $3`,
    [r.id, end, limit],
  );
  return {
    columns: [
      ...["Date", "Document", "Member", "What", "Rate", "Currency", "Corrects"].map(plain),
      money("Taxable"),
      money("Tax"),
    ],
    rows: rows.map(({ day, number, tags, rate, currency, corrects, net, tax }) => {
      const [member = "", supply = ""] = tags.split(/[. ]/);
      const words = SUPPLIES.get(supply) ?? supply;
      return [day, number, member, words, rate ?? "", currency, corrects ?? "", net, tax];
    }),
    opens: rows.map(({ document }) => `document/${document}`),
    total: rows[0]?.total ?? 0,
    missing: null,
  };
}
