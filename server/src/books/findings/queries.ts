import { movesMoney, sideOf } from "../../db/kindSql.ts";
import type { CalendarDate } from "@fiscalon/core/calendar/date";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { WAITING } from "@fiscalon/core/model/basis";
import type { Basis } from "@fiscalon/core/model/basis";
import type { CheckedLine, LineContext } from "@fiscalon/core/findings/checkedLine";
import type { Work } from "../../base/work.ts";
import { AS_ENTERED } from "../returns/queries.ts";

type CheckedRow = Omit<CheckedLine, "partyRegistered" | "typed" | "attributes"> & {
  partyRegistered: number | null;
  typed: number;
  attributes: string | null;
};

/**
 * The facts of a period that some check may speak about, each with its line, document, party and account. Coarser than
 * the checks themselves: these decide.
 * @param strayTags tags of the period that name a box its form does not have
 */
export async function checkedLines(
  work: Work,
  registrationId: number,
  periodEnd: string,
  { pack, numberAbove }: LineContext,
  strayTags: readonly string[],
): Promise<CheckedLine[]> {
  const rows = await work.rows<CheckedRow>(
    `SELECT f.document_id AS document, f.line, d.number, f.tax_point AS taxPoint, coalesce(c.name, '') AS party,
       c.country AS partyCountry, c.tax_number AS partyNumber, c.registered AS partyRegistered, f.code, f.levy, f.rate,
       f.direction, f.charged, f.treatment, f.tags, f.net, f.tax, f.calculated, f.recoverable, a.name AS accountName,
       a.type AS accountType, a.topic, l.attributes, d.gross AS documentGross,
       (coalesce(l.typed_tax, l.typed_total, d.typed_tax, d.typed_total) IS NOT NULL) AS typed
     FROM ${AS_ENTERED.from} CROSS JOIN documents d ON d.id = f.document_id
       CROSS JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN accounts a ON a.client_id = f.client_id AND a.code = l.account
     WHERE ${AS_ENTERED.where} AND f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND (
       f.charged = 'self-assessed' OR f.treatment IN ('import', 'reverse-charge-supplier')
       OR coalesce(l.typed_tax, l.typed_total, d.typed_tax, d.typed_total) IS NOT NULL
       OR (f.net = 0 AND f.tax <> 0) OR f.tags LIKE '%?%' OR (f.tax <> 0 AND f.tags NOT LIKE '%t%' AND f.tags NOT LIKE '%r%')
       OR a.topic IS NOT NULL OR f.code IN (SELECT value FROM json_each($5))
       OR (f.direction = 'purchase' AND (a.type = 'income' OR c.registered = 0 OR c.country <> $3
         OR (f.recoverable <> 0 AND d.gross > $4)))
       OR f.tags IN (SELECT value FROM json_each($6)) OR ($7 = 1 AND l.attributes ->> '$.goodsCost' IS NOT NULL))
     ORDER BY d.date, d.id, f.line`,
    [
      registrationId,
      periodEnd,
      pack.country,
      numberAbove,
      JSON.stringify((pack.checks ?? []).flatMap((check) => (check.kind === "attribute" ? check.codes : []))),
      JSON.stringify(strayTags),
      pack.goodsShare === undefined ? 0 : 1,
    ],
  );
  return rows.map(({ partyRegistered, typed, attributes, ...row }) => ({
    ...row,
    partyRegistered: partyRegistered === null ? null : partyRegistered === 1,
    typed: typed === 1,
    attributes: attributes === null ? {} : (JSON.parse(attributes) as Record<string, string>),
  }));
}

export interface UncodedLine {
  document: number;
  line: number;
  number: string;
  date: string;
  party: string;
  net: number;
}

/** Lines of documents of the period that have no tax code. */
export async function uncodedLines(
  work: Work,
  clientId: number,
  from: string,
  to: string,
): Promise<UncodedLine[]> {
  return work.rows<UncodedLine>(
    `SELECT d.id AS document, l.no AS line, d.number, d.date, coalesce(c.name, '') AS party, l.net
     FROM lines l INDEXED BY lines_of_code CROSS JOIN documents d ON d.id = l.document_id
       LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE l.code IS NULL AND d.client_id = $1 AND d.state = 'posted' AND ${sideOf("d.kind")} IS NOT NULL
       AND coalesce(d.tax_point, d.date) BETWEEN $2 AND $3 ORDER BY d.date, d.id`,
    [clientId, from, to],
  );
}

export interface TwinDocuments {
  first: number;
  second: number;
  number: string;
  otherNumber: string;
  party: string;
  date: string;
  gross: number;
  sameNumber: boolean;
}

/**
 * Purchases of the period that look like one already entered: same party and number, or party, amount and date. Each is
 * told beside the first such one, however many there are.
 */
export async function twinPurchases(
  work: Work,
  clientId: number,
  registrationId: number,
  periodEnd: string,
): Promise<TwinDocuments[]> {
  const rows = await work.rows<Omit<TwinDocuments, "sameNumber"> & { sameNumber: number }>(
    `WITH mine AS MATERIALIZED (SELECT DISTINCT document_id AS id FROM facts INDEXED BY facts_by_client_period
       WHERE client_id = $1 AND registration_id = $2 AND period_end = $3 AND live = 1 AND direction = 'purchase'),
     pairs AS (
       SELECT min(o.id) AS first, mine.id AS second FROM mine CROSS JOIN documents d ON d.id = mine.id
         JOIN documents o ON o.contact_id = d.contact_id AND o.state = 'posted' AND o.number = d.number COLLATE NOCASE
       WHERE o.kind = d.kind AND o.id < d.id AND o.client_id = $1 GROUP BY mine.id
       UNION
       SELECT min(o.id), mine.id FROM mine CROSS JOIN documents d ON d.id = mine.id
         JOIN documents o INDEXED BY documents_by_party_day
           ON o.contact_id = d.contact_id AND o.date = d.date AND o.gross = d.gross
       WHERE o.kind = d.kind AND o.id < d.id AND o.state = 'posted' AND o.client_id = $1
       GROUP BY mine.id)
     SELECT o.id AS first, d.id AS second, d.number, o.number AS otherNumber, c.name AS party, d.date, d.gross,
       (o.number = d.number COLLATE NOCASE) AS sameNumber
     FROM pairs JOIN documents d ON d.id = pairs.second JOIN documents o ON o.id = pairs.first
       JOIN contacts c ON c.id = d.contact_id ORDER BY d.date, d.id, o.id`,
    [clientId, registrationId, periodEnd],
  );
  return rows.map((row) => ({ ...row, sameNumber: row.sameNumber === 1 }));
}

/** What was sold with tax between two days, of some treatments; minor units. */
export async function incomeBetween(
  work: Work,
  registrationId: number,
  from: CalendarDate,
  to: CalendarDate,
  treatments: readonly string[],
): Promise<number> {
  const { income } = await work.one<{ income: number }>(
    `SELECT coalesce(sum(net + tax), 0) AS income FROM facts WHERE registration_id = $1 AND live = 1 AND held = 0
       AND direction = 'sale' AND tax_point BETWEEN $2 AND $3 AND treatment IN (SELECT value FROM json_each($4))`,
    [registrationId, from, to, JSON.stringify(treatments)],
  );
  return income;
}

/** Documents of the period whose taxes no registration covers. */
export async function unregisteredDocuments(
  work: Work,
  clientId: number,
  from: string,
  to: string,
): Promise<{ document: number; number: string; taxPoint: string; levy: string }[]> {
  return work.rows(
    `SELECT DISTINCT f.document_id AS document, d.number, f.tax_point AS taxPoint, f.levy FROM facts f
       JOIN documents d ON d.id = f.document_id
     WHERE f.client_id = $1 AND f.registration_id IS NULL AND f.live = 1 AND f.tax_point BETWEEN $2 AND $3
       AND f.treatment <> 'out-of-scope'`,
    [clientId, from, to],
  );
}

/** Money of a period that settles nothing and so waits to be reported, of the sides that wait on a basis. */
export async function unallocatedPayments(
  work: Work,
  clientId: number,
  { from, to }: FilingPeriod,
  basis: Basis,
): Promise<{ payment: number; number: string; party: string; amount: number }[]> {
  const [side, other] = WAITING[basis];
  const waits = side === undefined || other !== undefined ? "" : `AND ${movesMoney("p", side === "sale")}`;
  return work.rows(
    `SELECT p.id AS payment, p.number, coalesce(c.name, 'no party') AS party, p.on_account AS amount
     FROM payments p LEFT JOIN contacts c ON c.id = p.contact_id
     WHERE p.client_id = $1 AND p.state = 'posted' AND p.on_account <> 0 AND p.date BETWEEN $2 AND $3 ${waits}
     ORDER BY p.date, p.id`,
    [clientId, from, to],
  );
}
