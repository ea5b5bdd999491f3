import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { ApartGroup, BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";

export interface Span {
  from: string;
  to: string;
}

/** The facts of a side on the returns of the days. */
const onReturns = (of: BridgeOf) => `facts WHERE registration_id = $4 AND live = 1 AND held = 0
      AND direction = '${BRIDGES[of].direction}' AND period_end BETWEEN $2 AND $3`;
/** A line that bears several levies has its value once, with the first tax point it has. */
export const valueOnce = (of: BridgeOf) => `(SELECT document_id, line, net, late, point, min(levy) FROM (
      SELECT document_id, line, levy, sum(net) AS net, max(late) AS late, min(tax_point) AS point FROM ${onReturns(of)}
      GROUP BY document_id, line, levy) GROUP BY document_id, line)`;

/** What an account of a side holds: income in credit, costs in debit. */
export function amountOn(of: BridgeOf, amount = "p.amount"): string {
  return BRIDGES[of].accounts === "income" ? `-${amount}` : amount;
}

/**
 * Lines and entries of client $1 whose income, or cost, in the days $2 to $3 is not the value that returns of registration
 * $4 of these days hold: `ledger` the one, `base` the other, positive as the side is, with what tells why.
 */
const apart = (oneLevy: boolean, of: BridgeOf) => `
  "values" AS (
    SELECT e.document_id AS document, p.line, CASE WHEN p.line IS NULL THEN p.entry_id END AS entry, e.kind,
      p.account_id AS account, ${amountOn(of)} AS ledger, 0 AS base, 0 AS late, 0 AS here, 1 AS posted
    FROM accounts a CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $2 AND $3
      JOIN entries e ON e.id = p.entry_id
    WHERE a.client_id = $1 AND a.type = '${BRIDGES[of].accounts}'
    UNION ALL
    SELECT document_id, line, NULL, 'document', NULL, 0, net, late, 1, 0 FROM ${oneLevy ? onReturns(of) : valueOnce(of)}),
  unequal AS MATERIALIZED (
    SELECT document, line, entry, max(kind) AS kind, max(account) AS account, sum(ledger) AS ledger, sum(base) AS base,
      max(late) AS late, max(here) AS here, CASE WHEN max(posted) = 1 THEN 'in' ELSE 'outside' END AS dated
    FROM "values" GROUP BY document, line, entry HAVING sum(ledger) <> sum(base)),
  apart AS (
    SELECT u.*, CASE WHEN u.line IS NULL THEN 'entry/' || u.entry ELSE 'document/' || u.document || '/' || u.line END AS key,
      coalesce(u.account, (SELECT p.account_id FROM entries e JOIN postings p ON p.entry_id = e.id
        WHERE e.document_id = u.document AND e.live = 1 AND p.line = u.line AND p.levy IS NULL LIMIT 1)) AS onto
    FROM unequal u),
  told AS (
    SELECT x.*, d.kind AS documentKind, d.number, d.date AS day, d.contact_id AS contact, a.code AS accountCode,
      a.type AS accountType, a.role, coalesce(l.code, '') <> '' AS coded, l.text AS lineText, n.cause AS named, n.reason,
      CASE WHEN x.here = 1 THEN 'here' WHEN x.line IS NULL THEN 'none' ELSE coalesce((
        SELECT CASE WHEN count(*) = 0 THEN 'none' WHEN max(f.registration_id IS $4) = 0 THEN 'elsewhere'
          WHEN max(f.registration_id IS $4 AND (f.held = 1 OR f.period_end IS NULL)) = 1 THEN 'held'
          WHEN max(CASE WHEN f.registration_id IS $4 THEN f.period_end END) > $3 THEN 'later' ELSE 'earlier' END
        FROM facts f WHERE f.document_id = x.document AND f.line = x.line AND f.live = 1), 'none') END AS fact
    FROM apart x LEFT JOIN documents d ON d.id = x.document LEFT JOIN accounts a ON a.id = x.onto
      LEFT JOIN lines l ON l.document_id = x.document AND l.no = x.line
      LEFT JOIN named_causes n ON n.registration_id = $4 AND n.kind = '${of}' AND n.key = x.key)`;

/** Everything of a row that its cause follows from, as one text. */
const TRAITS = `json_array(kind, documentKind, accountType, role, coded, fact, dated, late, named)`;

type Traits = [
  entry: string,
  document: DocumentKind | null,
  account: ApartGroup["account"],
  role: string | null,
  coded: number,
  fact: ApartGroup["fact"],
  dated: ApartGroup["dated"],
  late: number,
  named: string | null,
];

/** A group of rows with the text that finds them again. */
export type TraitGroup = ApartGroup & { traits: string };

/** What income and the returns hold apart, by everything that tells why. */
export async function apartGroups(
  work: Work,
  r: Pick<RegistrationRecord, "id" | "clientId" | "levies">,
  { from, to }: Span,
  of: BridgeOf = "turnover",
): Promise<TraitGroup[]> {
  const rows = await work.rows<{ traits: string; ledger: number; base: number; rows: number }>(
    `WITH ${apart(r.levies.length === 1, of)} SELECT ${TRAITS} AS traits, sum(ledger) AS ledger, sum(base) AS base, count(*) AS rows
     FROM told GROUP BY 1 ORDER BY 1`,
    [r.clientId, from, to, r.id],
  );
  return rows.map(({ traits, ...sums }) => {
    const [entry, document, account, role, coded, fact, dated, late, named] = JSON.parse(traits) as Traits;
    return {
      ...sums,
      traits,
      entry,
      document,
      account,
      role,
      coded: coded === 1,
      fact,
      dated,
      late: late === 1,
      named,
    };
  });
}

export interface ApartRow {
  key: string;
  document: number | null;
  line: number | null;
  date: string;
  number: string;
  party: string;
  text: string;
  account: string;
  ledger: number;
  base: number;
  reason: string;
  suggestion: string | null;
  total: number;
}

/** The rows of some groups, or with some keys, largest first; `limit` −1 for all. */
export async function apartRows(
  work: Work,
  r: Pick<RegistrationRecord, "id" | "clientId" | "levies">,
  { from, to }: Span,
  wanted: { traits: readonly string[] } | { keys: readonly string[] },
  { offset, limit }: { offset: number; limit: number },
  of: BridgeOf = "turnover",
): Promise<ApartRow[]> {
  return work.rows<ApartRow>(
    `WITH ${apart(r.levies.length === 1, of)}
     SELECT t.key, t.document, t.line, coalesce(t.day, e.date) AS date, coalesce(t.number, '') AS number,
       coalesce(c.name, '') AS party, coalesce(nullif(t.lineText, ''), e.text, '') AS text,
       coalesce(t.accountCode, '') AS account, t.ledger, t.base, coalesce(t.reason, '') AS reason,
       (SELECT n.cause FROM named_causes n WHERE n.registration_id = $4 AND n.kind = '${of}'
          AND n.account = coalesce(t.accountCode, '') AND n.text = coalesce(nullif(t.lineText, ''), e.text, '')
        ORDER BY n.id DESC LIMIT 1) AS suggestion,
       count(*) OVER () AS total
     FROM (SELECT *, ${TRAITS} AS traits FROM told) t LEFT JOIN entries e ON e.id = t.entry LEFT JOIN contacts c ON c.id = t.contact
     WHERE t.${"keys" in wanted ? "key" : "traits"} IN (SELECT value FROM json_each($5))
     ORDER BY abs(t.base - t.ledger) DESC, t.key LIMIT $6 OFFSET $7`,
    [
      r.clientId,
      from,
      to,
      r.id,
      JSON.stringify("keys" in wanted ? wanted.keys : wanted.traits),
      limit,
      offset,
    ],
  );
}
