import { sideOf } from "../../db/kindSql.ts";
import type { Work } from "../../base/work.ts";

/** What every candidate row of a check carries: the line, its document, its party, its account. */
export interface CandidateLine {
  document: number;
  line: number;
  kind: string;
  number: string;
  date: string;
  taxPoint: string;
  party: string;
  partyCountry: string | null;
  partyNumber: string | null;
  partyRegistered: number | null;
  code: string;
  levy: string;
  rate: string | null;
  direction: string;
  charged: string;
  treatment: string;
  tags: string;
  net: number;
  tax: number;
  calculated: number;
  recoverable: number;
  account: string | null;
  accountName: string | null;
  topic: string | null;
  text: string;
  typedTax: string | null;
  attributes: string | null;
  ownEnd: string;
  documentGross: number;
  documentTax: number;
}

/**
 * Facts of a period that meet a condition, with what a check needs to say something about them.
 * @param condition SQL over f (facts), d (documents), c (contacts), l (lines), a (accounts); bound $1 registration,
 *   $2 period end, further ones from `more`
 */
export async function candidateLines(
  work: Work,
  registrationId: number,
  periodEnd: string,
  condition: string,
  more: readonly unknown[] = [],
): Promise<CandidateLine[]> {
  return work.rows<CandidateLine>(
    `SELECT f.document_id AS document, f.line, d.kind, d.number, d.date, f.tax_point AS taxPoint,
       coalesce(c.name, '') AS party, c.country AS partyCountry, c.tax_number AS partyNumber,
       c.registered AS partyRegistered, f.code, f.levy, f.rate, f.direction, f.charged, f.treatment, f.tags, f.net, f.tax, f.calculated, f.recoverable, l.account, a.name AS accountName, a.topic, l.text, l.typed_tax AS typedTax, l.attributes,
       f.own_end AS ownEnd, d.gross AS documentGross, d.tax AS documentTax
     FROM facts f JOIN documents d ON d.id = f.document_id
       JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN accounts a ON a.client_id = f.client_id AND a.code = l.account
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND (${condition})
     ORDER BY d.date, d.id, f.line LIMIT 500`,
    [registrationId, periodEnd, ...more],
  );
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
     FROM documents d JOIN lines l ON l.document_id = d.id LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE d.client_id = $1 AND d.state = 'posted' AND ${sideOf("d.kind")} IS NOT NULL AND l.code IS NULL
       AND coalesce(d.tax_point, d.date) BETWEEN $2 AND $3 ORDER BY d.date, d.id LIMIT 500`,
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
  sameNumber: number;
}

/** Purchases of the period that look like one already entered: same party and number, or party, amount and date. */
export async function twinPurchases(
  work: Work,
  clientId: number,
  registrationId: number,
  periodEnd: string,
): Promise<TwinDocuments[]> {
  return work.rows<TwinDocuments>(
    `WITH mine AS (SELECT DISTINCT document_id AS id FROM facts
       WHERE registration_id = $2 AND period_end = $3 AND live = 1 AND direction = 'purchase'),
     pairs AS (
       SELECT o.id AS first, d.id AS second FROM mine JOIN documents d ON d.id = mine.id
         JOIN documents o ON o.contact_id = d.contact_id AND o.state = 'posted' AND o.number = d.number COLLATE NOCASE
       WHERE o.kind = d.kind AND o.id < d.id AND o.client_id = $1
       UNION
       SELECT o.id, d.id FROM mine JOIN documents d ON d.id = mine.id
         JOIN documents o INDEXED BY documents_by_party_day
           ON o.contact_id = d.contact_id AND o.date = d.date AND o.gross = d.gross
       WHERE o.kind = d.kind AND o.id < d.id AND o.state = 'posted' AND o.client_id = $1)
     SELECT o.id AS first, d.id AS second, d.number, o.number AS otherNumber, c.name AS party, d.date, d.gross,
       (o.number = d.number COLLATE NOCASE) AS sameNumber
     FROM pairs JOIN documents d ON d.id = pairs.second JOIN documents o ON o.id = pairs.first
       JOIN contacts c ON c.id = d.contact_id ORDER BY d.date, d.id, o.id LIMIT 500`,
    [clientId, registrationId, periodEnd],
  );
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
       AND f.treatment <> 'out-of-scope' LIMIT 500`,
    [clientId, from, to],
  );
}

/** Money of a period that settles nothing. */
export async function unallocatedPayments(
  work: Work,
  clientId: number,
  from: string,
  to: string,
  kinds: readonly string[],
): Promise<{ payment: number; number: string; party: string; amount: number }[]> {
  return work.rows(
    `SELECT p.id AS payment, p.number, coalesce(c.name, 'no party') AS party, p.on_account AS amount
     FROM payments p LEFT JOIN contacts c ON c.id = p.contact_id
     WHERE p.client_id = $1 AND p.state = 'posted' AND p.on_account <> 0 AND p.date BETWEEN $2 AND $3
       AND p.kind IN (SELECT value FROM json_each($4)) ORDER BY p.date, p.id LIMIT 200`,
    [clientId, from, to, JSON.stringify(kinds)],
  );
}
