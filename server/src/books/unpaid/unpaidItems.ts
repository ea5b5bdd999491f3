import { groupBy } from "@fiscalon/core/groupBy";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { isOpenItem } from "@fiscalon/core/model/documentKinds";
import { optionsOn } from "@fiscalon/core/model/registration";
import type { UnpaidRule } from "@fiscalon/core/model/unpaidRule";
import { unpaidProposal } from "@fiscalon/core/returns/unpaid";
import type { UnpaidItem, UnpaidProposal } from "@fiscalon/core/returns/unpaid";
import { schemesOf } from "@fiscalon/core/model/scheme";
import { found, valueAt } from "@fiscalon/core/at";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { inKinds } from "../../db/kindSql.ts";
import { inSpan, levySpans } from "../returns/queries.ts";
import type { LevySpan } from "../returns/queries.ts";

/** A document a rule speaks of, and what it asks for. */
export interface UnpaidDocument extends UnpaidItem {
  id: number;
  number: string;
  kind: string;
  contact: number | null;
  place: number | null;
  party: string;
  currency: string;
  proposal: UnpaidProposal;
}

type Row = Omit<UnpaidDocument, "taxes" | "proposal">;
type TaxRow = { document: number; levy: string; tax: number; reported: string };

/** Nothing older than this many years is looked at. */
const YEARS = 10;

const BILLED = {
  sale: inKinds("d.kind", (one, kind) => isOpenItem(kind) && one.direction === "sale" && one.sign > 0),
  purchase: inKinds(
    "d.kind",
    (one, kind) => isOpenItem(kind) && one.direction === "purchase" && one.sign > 0,
  ),
};

/** The rules about unpaid documents that hold for a registration in a period: those that relieve a levy of it. */
export function unpaidRules({ packs }: Work, r: RegistrationRecord, { to }: FilingPeriod): UnpaidRule[] {
  const pack = packs.byId(r.pack);
  const chosen = optionsOn(pack, r, to);
  const relieves = ({ relief }: UnpaidRule) =>
    pack.codes.some(
      ({ code, components }) => code === relief && components.some(({ levy }) => r.levies.includes(levy)),
    );
  return (pack.unpaid ?? []).filter(
    (rule) => (rule.option === undefined || chosen[rule.option[0]] === rule.option[1]) && relieves(rule),
  );
}

/**
 * What a rule asks for on the return of a period, oldest document first: of documents that a return had and that are not
 * wholly paid on its last day, and of those something was done about before.
 */
export async function unpaidDocuments(
  work: Work,
  r: RegistrationRecord,
  rule: UnpaidRule,
  period: FilingPeriod,
): Promise<UnpaidDocument[]> {
  const done = await doneBefore(work, r, rule, period.to);
  const rows = await billed(work, r, rule, period.to, [...done.keys()]);
  const taxes = groupBy(await taxesOf(work, r, rule, period.to, rows), ({ document }) => document);
  return rows.flatMap((row) => {
    const own = taxes.get(row.id);
    if (!own) return [];
    const item: UnpaidItem = {
      ...row,
      reported: own.map(({ reported }) => reported).sort()[0] ?? row.supply,
      taxes: own.map(({ levy, tax }) => ({
        levy,
        tax,
        done: done.get(keyOf(row))?.get(levy) ?? NOTHING_DONE,
      })),
    };
    const proposal = unpaidProposal(rule, item, period);
    return proposal ? [{ ...row, ...item, proposal }] : [];
  });
}

const NOTHING_DONE = 0;

function keyOf({ number, contact }: Pick<Row, "number" | "contact">): string {
  return JSON.stringify([number, contact]);
}

/** When the time of a rule begins to run at the earliest, of a document `d`: what was reported was supplied before. */
const STARTS: Readonly<Record<UnpaidRule["from"], string>> = {
  due: "coalesce(d.due_date, d.date)",
  "due-or-supply": "coalesce(d.due_date, d.date)",
  supply: "coalesce(d.tax_point, d.date)",
  period: "coalesce(d.tax_point, d.date)",
};
/** Months end on different days: so much later it may have begun and be over all the same. */
const MONTH_ENDS = 3;

/** A day after which no time may have begun to run that is over on a day. */
function latestStart({ after }: UnpaidRule, on: string): string {
  return "months" in after
    ? addDays(addMonths(on, -after.months), MONTH_ENDS)
    : addDays(on, MONTH_ENDS - after.days);
}

/** Documents with something unpaid on the day for which the time of the rule may be over, and those named by `also`. */
async function billed(
  work: Work,
  r: RegistrationRecord,
  rule: UnpaidRule,
  to: string,
  also: readonly string[],
): Promise<Row[]> {
  return work.rows<Row>(
    `SELECT * FROM (SELECT d.id, d.number, d.kind, d.date, coalesce(d.tax_point, d.date) AS supply, d.due_date AS due,
         d.contact_id AS contact, d.place_id AS place, coalesce(c.name, '') AS party, d.currency,
         '' AS reported, coalesce(d.foreign_gross, d.gross) AS gross,
         coalesce(d.foreign_gross, d.gross) - coalesce((SELECT sum(a.amount + a.difference) FROM allocations a
           JOIN payments p ON p.id = a.payment_id WHERE a.document_id = d.id AND a.live = 1 AND p.date <= $2), 0) AS unpaid
       FROM (SELECT id FROM documents WHERE client_id = $1 AND open_amount <> 0 AND date <= $2
           UNION SELECT a.document_id FROM payments p JOIN allocations a ON a.payment_id = p.id AND a.live = 1
             WHERE p.client_id = $1 AND p.state = 'posted' AND p.date > $2
           UNION SELECT x.id FROM json_each($3) one CROSS JOIN documents x INDEXED BY documents_by_number
             ON x.client_id = $1 AND x.number = one.value ->> 0) touched
         CROSS JOIN documents d ON d.id = touched.id LEFT JOIN contacts c ON c.id = d.contact_id
       WHERE d.client_id = $1 AND d.state = 'posted' AND ${BILLED[rule.direction]}
         AND d.date BETWEEN date($2, '-${YEARS} years') AND $2 AND d.gross > 0
         AND (${STARTS[rule.from]} <= $4 OR json_array(d.number, d.contact_id) IN (SELECT value FROM json_each($3))))
     WHERE unpaid > 0 OR json_array(number, contact) IN (SELECT value FROM json_each($3)) ORDER BY date, id`,
    [r.clientId, to, JSON.stringify(also), latestStart(rule, to)],
  );
}

/** What of the tax of these documents returns up to a day declared or deducted. */
async function taxesOf(
  work: Work,
  r: RegistrationRecord,
  rule: UnpaidRule,
  to: string,
  documents: readonly Row[],
): Promise<TaxRow[]> {
  const spans = undeductedSpans(work, r, rule);
  const inSpans = (key: string) => inSpan("$5", key, spans.length);
  const figure = rule.direction === "sale" ? "f.tax" : "f.recoverable";
  return work.rows<TaxRow>(
    `SELECT f.document_id AS document, f.levy, sum(${figure}) AS tax, min(f.period_end) AS reported
     FROM json_each($1) one CROSS JOIN facts f INDEXED BY facts_of ON f.document_id = one.value
     WHERE f.registration_id = $2 AND f.live = 1 AND f.held = 0 AND f.release_of IS NULL AND f.charged = 'charged'
       AND f.direction = $3 AND f.treatment <> 'adjustment' AND f.period_end <= $4
       AND (${inSpans("from")} IS NULL OR f.code IN (SELECT value FROM json_each(${inSpans("codes")}))
         AND (SELECT sum(g.net + g.tax) FROM facts g WHERE g.document_id = f.document_id AND g.live = 1
           AND g.code IN (SELECT value FROM json_each(${inSpans("codes")}))) >= ${inSpans("dear")})
     GROUP BY f.document_id, f.levy HAVING sum(${figure}) > 0`,
    [JSON.stringify(documents.map(({ id }) => id)), r.id, rule.direction, to, JSON.stringify(spans)],
  );
}

/** When a scheme let nothing of purchases be deducted but dear assets; sales keep the tax that was charged. */
function undeductedSpans({ packs }: Work, r: RegistrationRecord, { direction }: UnpaidRule): LevySpan[] {
  if (direction === "sale") return [];
  return r.schemes.flatMap(({ scheme, from, to }) => {
    const { rule, levies } = found(schemesOf(packs.byId(r.pack)), ({ id }) => id === scheme, scheme);
    if (rule.kind !== "turnover-rate") return [];
    const { codes, from: dear } = rule.capital ?? { codes: [], from: 0 };
    return levySpans(levies, [{ from, to, codes, dear }]);
  });
}

/** By document and levy, what was relieved or repaid up to a day and not taken back. */
async function doneBefore(
  work: Work,
  r: RegistrationRecord,
  { direction, relief, back }: UnpaidRule,
  to: string,
): Promise<Map<string, Map<string, number>>> {
  const rows = await work.rows<{ number: string; contact: number | null; levy: string; owed: number }>(
    `SELECT l.attributes ->> '$.relieves' AS number, d.contact_id AS contact, f.levy,
       sum(CASE WHEN f.direction = 'sale' THEN f.tax ELSE -f.recoverable END) AS owed
     FROM lines l INDEXED BY lines_relieving CROSS JOIN documents d ON d.id = l.document_id AND d.client_id = $1
         AND d.state = 'posted'
       CROSS JOIN facts f INDEXED BY facts_of ON f.document_id = d.id AND f.line = l.no AND f.live = 1
     WHERE l.attributes ->> '$.relieves' IS NOT NULL AND f.registration_id = $2 AND f.period_end <= $3
       AND f.code IN ($4, $5)
     GROUP BY 1, 2, 3`,
    [r.clientId, r.id, to, relief, back],
  );
  const done = new Map<string, Map<string, number>>();
  for (const row of rows) {
    const key = keyOf(row);
    if (!done.has(key)) done.set(key, new Map());
    valueAt(done, key).set(row.levy, direction === "sale" ? -row.owed : row.owed);
  }
  return done;
}
