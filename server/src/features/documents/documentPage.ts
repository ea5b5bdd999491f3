import type { DocumentPage, DocumentRow, DocumentSum } from "@fiscalon/contract/views";
import type { Work } from "../../base/work.ts";
import { signOf } from "../../db/kindSql.ts";
import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";

export interface DocumentFilter extends ListOrder {
  search: string;
  kind: string;
  code: string;
  /** Reported in this period, or dated in it while not on any return. */
  from: string;
  to: string;
  registration: number;
  state: string;
  offset: number;
  limit: number;
  /** The rows of a page are there before all that match are counted. */
  part: "rows" | "sums" | "both";
}

/** What documents can be ordered by; figures with the sign they are shown with. */
export const DOCUMENT_ORDER: SortColumns = {
  date: "d.date",
  kind: "d.kind",
  number: "d.number COLLATE NOCASE",
  party: "c.name COLLATE NOCASE",
  net: `${signOf("d.kind")} * d.net`,
  tax: `${signOf("d.kind")} * d.tax`,
  gross: `${signOf("d.kind")} * d.gross`,
};

const SEALED = `('sealed', 'filed', 'settled')`;

/** One page of documents, newest first unless asked otherwise, with the totals of all that match by side. Credit notes count negative. */
export async function documentPage(
  work: Work,
  clientId: number,
  filter: DocumentFilter,
): Promise<DocumentPage> {
  const matching = conditions(clientId, filter);
  const [kinds, rows] = await Promise.all([
    filter.part === "rows"
      ? null
      : work.remembered("documents", matching, (work) => sumsByKind(work, filter, matching)),
    filter.part === "sums" ? [] : rowsOf(work, filter, matching),
  ]);
  return {
    total: kinds && kinds.reduce((sum, { count }) => sum + count, 0),
    sums: kinds && sumsBySide(kinds),
    rows,
  };
}

/** So many of the newest documents are looked through before those that fit a search are looked up. */
const LOOKED_THROUGH = 5_000;

/**
 * The rows of a page. What many documents fit is found among the newest of them; only what is rarer, or wanted in
 * another order, is looked up by number, note and party first.
 */
async function rowsOf(
  work: Work,
  filter: DocumentFilter,
  { where, bind, newest }: Matching,
): Promise<DocumentRow[]> {
  const sign = signOf("d.kind");
  const named = filter.sort === "party" ? "LEFT JOIN contacts c ON c.id = d.contact_id" : "";
  const order = listOrder(DOCUMENT_ORDER, filter, "d.date DESC, d.id DESC");
  const page = (matching: string) =>
    work.rows<Omit<DocumentRow, "late" | "locked"> & { late: number; locked: number }>(
      `WITH page AS (
         SELECT d.* FROM documents d ${named} WHERE ${matching}
         ORDER BY ${order} LIMIT $${bind.length + 1} OFFSET $${bind.length + 2})
       SELECT d.id, d.kind, d.number, d.date, coalesce(d.tax_point, d.date) AS taxPoint, coalesce(c.name, '') AS party,
         ${sign} * d.net AS net, ${sign} * d.tax AS tax, ${sign} * d.gross AS gross, d.state,
         (SELECT group_concat(code, ' ') FROM (SELECT DISTINCT l.code FROM lines l WHERE l.document_id = d.id)) AS codes,
         EXISTS (SELECT 1 FROM facts f WHERE f.document_id = d.id AND f.live = 1 AND f.late = 1) AS late,
         EXISTS (SELECT 1 FROM facts f JOIN returns r ON r.registration_id = f.registration_id
           AND r.period_end = f.period_end AND r.state IN ${SEALED} WHERE f.document_id = d.id AND f.live = 1) AS locked
       FROM page d LEFT JOIN contacts c ON c.id = d.contact_id ORDER BY ${order}`,
      [...bind, filter.limit, filter.offset],
    );
  let rows = newest === null || filter.sort !== undefined ? [] : await page(newest);
  if (rows.length < filter.limit) rows = await page(where);
  return rows.map((row) => ({
    ...row,
    codes: row.codes ?? "",
    late: row.late === 1,
    locked: row.locked === 1,
  }));
}

interface KindSum {
  kind: DocumentKind;
  count: number;
  net: number;
  gross: number;
}

/** What matches, counted and summed by kind; of documents asked for by a code, what of them bears it. */
async function sumsByKind(
  work: Work,
  { search, kind, code, to }: DocumentFilter,
  { where, bearing, bind }: Matching,
): Promise<KindSum[]> {
  if (search !== "" && kind === "" && code === "" && to === "") return sumsOfFound(work, bind);
  if (bearing === null)
    return work.rows<KindSum>(
      `SELECT d.kind, count(*) AS count, sum(d.net) AS net, sum(d.gross) AS gross FROM documents d WHERE ${where}
       GROUP BY d.kind`,
      bind,
    );
  // Of a period its documents are fewer, else the lines with the code.
  const both =
    to === ""
      ? "lines l CROSS JOIN documents d ON d.id = l.document_id"
      : "documents d CROSS JOIN lines l ON l.document_id = d.id";
  return work.rows<KindSum>(
    `SELECT d.kind, count(DISTINCT d.id) AS count, sum(l.net) AS net, sum(l.gross) AS gross FROM ${both}
     WHERE ${bearing} GROUP BY d.kind`,
    bind,
  );
}

/** The same of a search alone: documents of a party are summed from their index, those found otherwise added. */
async function sumsOfFound(work: Work, bind: unknown[]): Promise<KindSum[]> {
  return work.rows<KindSum>(
    `WITH parties AS MATERIALIZED (SELECT id FROM contacts WHERE client_id = $1 AND name LIKE $3),
       found AS (
         SELECT kind, net, gross FROM parties CROSS JOIN documents d INDEXED BY documents_by_party_day
           ON d.contact_id = parties.id WHERE d.state = $2
         UNION ALL
         SELECT d.kind, d.net, d.gross FROM (${OTHERWISE_FOUND("$3")}) one CROSS JOIN documents d ON d.id = one.id
         WHERE d.state = $2 AND (d.contact_id IS NULL OR d.contact_id NOT IN (SELECT id FROM parties)))
     SELECT kind, count(*) AS count, sum(net) AS net, sum(gross) AS gross FROM found GROUP BY kind`,
    bind,
  );
}

/** By number or note. */
const OTHERWISE_FOUND = (like: string) => `
  SELECT id FROM documents INDEXED BY documents_by_number WHERE client_id = $1 AND number LIKE ${like}
  UNION SELECT id FROM documents INDEXED BY documents_noted WHERE client_id = $1 AND note <> '' AND note LIKE ${like}`;

/** Sales and purchases apart: together they are no figure of anything. */
function sumsBySide(kinds: readonly KindSum[]): DocumentSum[] {
  return (["sale", "purchase"] as const).flatMap((side) => {
    const ofSide = kinds.filter(({ kind }) => kindOf(kind).direction === side);
    const sum = (of: (row: (typeof ofSide)[number]) => number) =>
      ofSide.reduce((total, row) => total + kindOf(row.kind).sign * of(row), 0);
    if (ofSide.length === 0) return [];
    const documents = ofSide.reduce((total, row) => total + row.count, 0);
    const tax = sum((row) => row.gross - row.net);
    return [{ side, count: documents, net: sum((row) => row.net), tax, gross: sum((row) => row.gross) }];
  });
}

/** What a document `d` must be, and, where a code is asked for, what a document with one of its lines `l` must be. */
interface Matching {
  where: string;
  bearing: string | null;
  /** The same as `where`, of the newest documents only, written so that they are walked by date; null without a search. */
  newest: string | null;
  bind: unknown[];
}

function conditions(clientId: number, filter: DocumentFilter): Matching {
  const bind: unknown[] = [clientId, filter.state];
  const bound = (value: unknown) => `$${bind.push(value)}`;
  const all = ["d.client_id = $1", "d.state = $2"];
  const like = filter.search === "" ? null : bound(`%${filter.search}%`);
  if (filter.kind !== "") all.push(`d.kind = ${bound(filter.kind)}`);
  if (filter.to !== "") {
    const [from, to, registration] = [bound(filter.from), bound(filter.to), bound(filter.registration)];
    all.push(
      `d.id IN (SELECT id FROM documents WHERE client_id = $1 AND state = $2 AND date BETWEEN ${from} AND ${to}
         UNION SELECT id FROM documents WHERE client_id = $1 AND state = $2 AND ledger_date BETWEEN ${from} AND ${to}
         UNION SELECT document_id FROM facts WHERE registration_id = ${registration} AND period_end = ${to} AND live = 1)`,
    );
  }
  // Three indexes are walked instead of all documents.
  const found = like === null ? [] : [`d.id IN (${foundBy(like)})`];
  const among =
    like === null
      ? []
      : [
          `d.id IN (SELECT id FROM documents WHERE client_id = $1 AND state = $2 ORDER BY date DESC, id DESC LIMIT ${LOOKED_THROUGH})`,
          `(d.number LIKE ${like} OR d.note LIKE ${like} OR d.contact_id IN (${partiesBy(like)}))`,
        ];
  const bearing = filter.code === "" ? null : `l.code = ${bound(filter.code)}`;
  const withCode =
    bearing === null ? [] : [`EXISTS (SELECT 1 FROM lines l WHERE l.document_id = d.id AND ${bearing})`];
  const joined = (parts: readonly string[]) => parts.join(" AND ");
  return {
    where: joined([...all, ...found, ...withCode]),
    bearing: bearing === null ? null : joined([...all, ...found, bearing]),
    newest: like === null ? null : joined([...all, ...among, ...withCode]),
    bind,
  };
}

const partiesBy = (like: string) => `SELECT id FROM contacts WHERE client_id = $1 AND name LIKE ${like}`;

/** By number, note or party. */
const foundBy = (like: string) => `${OTHERWISE_FOUND(like)}
  UNION SELECT x.id FROM contacts c CROSS JOIN documents x ON x.contact_id = c.id WHERE c.client_id = $1 AND c.name LIKE ${like}`;
