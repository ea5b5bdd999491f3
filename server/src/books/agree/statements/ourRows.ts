import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { CUSTOMS } from "@fiscalon/core/formats/statements/furnished";
import { numberKey } from "@fiscalon/core/incoming/numberKey";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { movesOwed, TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import type { TaxPaymentKind } from "@fiscalon/core/model/taxPaymentKinds";
import type { StatementKind } from "@fiscalon/core/model/statement";
import type { MatchRow } from "@fiscalon/core/agree/matching/matchRow";
import type { StatementBasis } from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";

/** A document of the books as it is matched. */
export interface OurRow extends MatchRow {
  document: number;
  /** Where it opens inside the client. */
  link: string;
  /** Its tax waits to be deducted ("waiting"), or is since a day. */
  held: string | null;
  /** Why the other side cannot tell of it; empty where it can. */
  ineligible: string;
}

interface FactRow {
  document: number;
  line: number;
  levy: string;
  treatment: string;
  rate: string | null;
  net: number;
  tax: number;
  awaits: string | null;
  released: string | null;
}

interface DocumentRow {
  id: number;
  kind: DocumentKind;
  number: string;
  date: string;
  gross: number;
  party: string;
  taxNumber: string;
  contact: number | null;
}

/** What of our books is laid beside a list: documents of its side and party whose date lies between two days. */
export interface OurScope {
  kind: StatementKind;
  contact: number | null;
  basis: StatementBasis;
  from: string;
  to: string;
}

/** Our documents under a registration, oldest first, with what they come to on the side of the list. */
export async function ourRows(work: Work, r: RegistrationRecord, scope: OurScope): Promise<OurRow[]> {
  const { kind, contact, from, to } = scope;
  if (kind.of === "authority") return withKeys(await authorityRows(work, r, scope));
  const kinds = (Object.keys(DOCUMENT_KINDS) as DocumentKind[]).filter(
    (one) => DOCUMENT_KINDS[one].direction === kind.direction,
  );
  const bind = [r.clientId, from, to, JSON.stringify(kinds), contact];
  const WHICH = `d.client_id = $1 AND d.state = 'posted' AND d.date BETWEEN $2 AND $3
    AND d.kind IN (SELECT value FROM json_each($4)) AND ($5 IS NULL OR d.contact_id = $5)`;
  const documents = await work.rows<DocumentRow>(
    `SELECT d.id, d.kind, d.number, d.date, d.gross, coalesce(c.name, '') AS party,
       coalesce(c.tax_number, '') AS taxNumber, d.contact_id AS contact
     FROM documents d LEFT JOIN contacts c ON c.id = d.contact_id WHERE ${WHICH} ORDER BY d.date, d.id`,
    bind,
  );
  const facts = await work.rows<FactRow>(
    `SELECT f.document_id AS document, f.line, f.levy, f.treatment, f.rate, f.net, f.tax, f.awaits, k.released_on AS released
     FROM documents d JOIN facts f ON f.document_id = d.id AND f.live = 1 AND f.release_of IS NULL
       AND f.registration_id = $6 AND f.direction = $7
       LEFT JOIN credit_releases k ON k.document_id = d.id AND f.awaits IS NOT NULL
     WHERE ${WHICH} ORDER BY f.id`,
    [...bind, r.id, kind.direction],
  );
  const sums = sumsOf(facts, kind);
  const rows = documents.flatMap((document) => {
    const sum = sums.get(document.id);
    const row = sum || scope.basis === "gross" ? ourRow(document, sum ?? NO_TAX, scope) : null;
    return row ? [row] : [];
  });
  return withKeys(rows);
}

interface Sums {
  value: number;
  tax: number;
  taxes: Record<string, number>;
  rates: Set<string>;
  imported: boolean;
  held: string | null;
}

const NO_TAX: Sums = { value: 0, tax: 0, taxes: {}, rates: new Set(), imported: false, held: null };

/** By document: the value of each line once, however many levies it bears, and the tax by levy. */
function sumsOf(facts: readonly FactRow[], { sameHead = {} }: StatementKind): Map<number, Sums> {
  const sums = new Map<number, Sums>();
  let [document, line] = [0, -1];
  for (const fact of facts) {
    const sum = sums.get(fact.document) ?? { ...NO_TAX, taxes: {}, rates: new Set<string>() };
    sums.set(fact.document, sum);
    if (fact.document !== document || fact.line !== line) sum.value += fact.net;
    [document, line] = [fact.document, fact.line];
    const levy = sameHead[fact.levy] ?? fact.levy;
    sum.tax += fact.tax;
    if (fact.tax !== 0) sum.taxes[levy] = (sum.taxes[levy] ?? NOTHING) + fact.tax;
    if (fact.rate !== null) sum.rates.add(fact.rate);
    if (fact.treatment === "import") sum.imported = true;
    if (fact.awaits !== null) sum.held = fact.released ?? "waiting";
  }
  return sums;
}

/** No tax of a levy yet. */
const NOTHING = 0;

function ourRow(document: DocumentRow, sum: Sums, { kind, basis }: OurScope): OurRow | null {
  const { id, number, date, party } = document;
  const atBorder = kind.customs === true && sum.imported;
  if (kind.of === "border" && (!sum.imported || sum.tax === 0)) return null;
  const taxNumber = atBorder || kind.of === "border" ? CUSTOMS : document.taxNumber;
  const untold = kind.of === "all" && taxNumber === "";
  if (untold && sum.tax === 0) return null;
  const partyNumber = numberKey(taxNumber);
  const { sign } = DOCUMENT_KINDS[document.kind];
  const amounts: Record<StatementBasis, [number, number]> = {
    net: [sum.value, sum.tax],
    gross: [document.gross * sign, 0],
    tax: [0, sum.tax],
  };
  const [value, tax] = amounts[basis];
  return {
    key: "",
    document: id,
    link: `books/documents/${id}`,
    // A list of one party is about nobody else: who it is need not be told.
    partyNumber: kind.of === "party" ? ONE_PARTY : partyNumber,
    partyKin: kind.kin ? partyNumber.slice(kind.kin[0], kind.kin[1] + 1) : "",
    partyName: atBorder ? "Customs" : party,
    number,
    date,
    value,
    tax,
    taxes: basis === "gross" ? {} : sum.taxes,
    rate: rateOf(sum),
    place: "",
    held: sum.held,
    ineligible: untold ? "the other side has no registration" : "",
  };
}

/** Stands for the one party of a list that is about nobody else. */
export const ONE_PARTY = "PARTY";

/** The rate of all levies of the one rate a document has, as the list tells it: added up. */
function rateOf({ rates, taxes, value, tax }: Sums): string {
  const levies = Object.keys(taxes).length;
  if (levies === 0 || value === 0 || rates.size !== 1) return "";
  const [rate = "0"] = rates;
  const whole = Number(rate) * levies;
  return Math.abs((value * whole) / 100 - tax) <= Math.max(100, Math.abs(value) / 1000) ? String(whole) : "";
}

/** What was declared to the authority and moved between it and the business: what is owed positive. */
async function authorityRows(work: Work, r: RegistrationRecord, { from, to }: OurScope): Promise<OurRow[]> {
  const returns = await work.rows<{ id: number; end: string; net: number }>(
    `SELECT id, period_end AS end, net FROM returns
     WHERE registration_id = $1 AND state IN ('filed', 'settled') AND net <> 0 AND period_end BETWEEN $2 AND $3`,
    [r.id, from, to],
  );
  const payments = await work.rows<{
    id: number;
    end: string;
    date: string;
    kind: TaxPaymentKind;
    amount: number;
    reference: string;
  }>(
    `SELECT id, period_end AS end, date, kind, amount, reference FROM tax_payments
     WHERE registration_id = $1 AND date BETWEEN $2 AND $3`,
    [r.id, from, to],
  );
  const row = (id: number, end: string, date: string, number: string, value: number): OurRow => ({
    key: "",
    document: id,
    link: `settle?period=${end}`,
    partyNumber: ONE_PARTY,
    partyKin: "",
    partyName: `Period to ${displayDate(end)}`,
    number,
    date,
    value,
    tax: 0,
    taxes: {},
    rate: "",
    place: "",
    held: null,
    ineligible: "",
  });
  return [
    ...returns.map(({ id, end, net }) => row(id, end, end, `Return ${end}`, net)),
    ...payments.map(({ id, end, date, reference, ...moved }) =>
      row(id, end, date, reference || TAX_PAYMENT_KINDS[moved.kind].name, movesOwed(moved)),
    ),
  ].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.document - b.document));
}

/** Keys that stay the same as long as a document reads the same. */
export function withKeys<Row extends MatchRow>(rows: readonly Row[]): Row[] {
  const seen = new Map<string, number>();
  return rows.map((row) => {
    const base = [row.partyNumber || row.partyName, row.number, row.date, row.value, row.tax].join("|");
    const times = (seen.get(base) ?? 0) + 1;
    seen.set(base, times);
    return { ...row, key: times === 1 ? base : `${base}|${times}` };
  });
}
