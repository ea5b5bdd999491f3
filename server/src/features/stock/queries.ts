import { found, valueAt } from "@fiscalon/core/at";
import { askedOf, kindOff, missingFields, PIECE_FIELDS } from "@fiscalon/core/model/stockBook";
import type { PieceField, StockBookRule } from "@fiscalon/core/model/stockBook";
import { taxInside } from "@fiscalon/core/schemes/stockBook";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import type { PiecePage, PieceRow, PieceState, PieceView, UnlistedLine } from "@fiscalon/contract/stockBook";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import {
  loadPieces,
  nextPieceNo,
  pieceWithNo,
  SALE_LINE,
  SALES,
  stockRule,
} from "../../books/stock/pieces.ts";
import type { StoredPiece } from "../../books/stock/pieces.ts";
import { inKinds } from "../../db/kindSql.ts";
import { kindOf } from "@fiscalon/core/model/documentKinds";

/** What pieces can be ordered by. */
export const PIECE_ORDER: SortColumns = {
  no: "p.no",
  name: "p.name COLLATE NOCASE",
  boughtOn: "p.bought_on",
  price: "p.price",
  soldOn: "d.date",
  sold: "l.gross",
  tax: "tax",
};

export interface PieceFilter extends ListOrder {
  search: string;
  state: PieceState;
  /** Sold between these days, or in stock on any of them. */
  from: string;
  to: string;
  offset: number;
  limit: number;
}

/** The rule of the client, refused where no jurisdiction of it knows a stock book. */
export function requireRule(work: Work, setup: ClientSetup): { rule: StockBookRule; pack: string } {
  const own = stockRule(work, setup);
  if (!own) throw notFound("A stock book for this jurisdiction");
  return own;
}

/** When a field of a piece is missing. */
const MISSING: Readonly<Record<PieceField, string>> = {
  name: "p.name = ''",
  identifier: "p.identifier = ''",
  boughtOn: "p.bought_on IS NULL",
  price: "p.price IS NULL",
  purchaseNumber: "p.purchase_number = ''",
  seller: "p.seller = ''",
  sellerAddress: "p.seller_address = ''",
};

/** When something of a piece is missing, in SQL. */
function isMissing({ asked, kinds }: StockBookRule): string {
  const marked = kinds.filter((kind) => kind.marked).map(({ id }) => `'${id.replaceAll("'", "''")}'`);
  const any = asked.map((field) => MISSING[field]);
  return `(${[...any, `(p.identifier = '' AND p.kind IN (${marked.join(", ")}))`].join(" OR ")})`;
}

const GONE = "p.ended IS NOT NULL OR p.part_of IS NOT NULL";

function stateSql(rule: StockBookRule): Record<Exclude<PieceState, "">, string> {
  return {
    "in-stock": `NOT (${GONE}) AND s.piece IS NULL`,
    sold: "s.piece IS NOT NULL",
    off: "p.off_reason IS NOT NULL",
    "to-mend": `p.off_reason IS NULL AND NOT (${GONE}) AND p.is_set = 0 AND ${isMissing(rule)}`,
    ended: `(${GONE})`,
  };
}

const SOLD_WITH = `LEFT JOIN lines l ON l.id = s.line LEFT JOIN documents d ON d.id = l.document_id
  LEFT JOIN contacts c ON c.id = d.contact_id`;
/** All pieces with their sales. */
const FROM = `FROM pieces p LEFT JOIN (${SALES}) s ON s.piece = (p.no || '') ${SOLD_WITH}`;
/** The same for a few of them: the sale of each is looked up. */
const ONE_BY_ONE = `FROM (SELECT p.*, ${SALE_LINE} AS sale FROM pieces p) p
  LEFT JOIN (SELECT id AS line, id AS piece FROM lines) s ON s.line = p.sale ${SOLD_WITH}`;
/** Tax on the sale: what the line is more than its value. */
const TAX = "(l.gross - l.net)";
const SEARCH = `($2 = '%%' OR p.name LIKE $2 OR p.identifier LIKE $2 OR p.seller LIKE $2
  OR CAST(p.no AS TEXT) = $3 OR c.name LIKE $2)`;
const IN_DAYS = `($4 = '' OR s.piece IS NULL OR d.date BETWEEN $4 AND $5)`;

type Row = StoredPiece & {
  soldOn: string | null;
  sold: number | null;
  tax: number | null;
  code: string | null;
  buyer: string | null;
};

const ROW = `p.id, p.no, p.name, p.identifier, p.kind, p.bought_on AS boughtOn, p.price,
  p.purchase_number AS purchaseNumber, p.seller, p.seller_address AS sellerAddress, p.off_reason AS offReason,
  p.is_set AS isSet, p.ended, d.date AS soldOn, l.gross AS sold, l.code, ${TAX} AS tax,
  c.name AS buyer, (SELECT x.no FROM pieces x WHERE x.id = p.part_of) AS partOf`;

/** One page of the stock book, with what its states count and what the ledger holds. */
export async function piecePage(work: Work, setup: ClientSetup, filter: PieceFilter): Promise<PiecePage> {
  const { rule } = requireRule(work, setup);
  const client = setup.client.id;
  const states = stateSql(rule);
  const wanted = filter.state === "" ? "1" : states[filter.state];
  const where = `WHERE p.client_id = $1 AND ${SEARCH} AND ${IN_DAYS} AND (${wanted})`;
  const bind = [
    client,
    `%${filter.search}%`,
    String(Number(filter.search) || filter.search),
    filter.from,
    filter.to,
  ];
  const { total, sums, counts, cost } = await sumsOf(
    work,
    rule,
    [...bind, JSON.stringify(rule.sales)],
    wanted,
  );
  const rows = await work.rows<Row>(
    `SELECT ${ROW} ${fromFor(filter)} ${where}
     ORDER BY ${listOrder(PIECE_ORDER, filter, "p.no DESC")} LIMIT $6 OFFSET $7`,
    [...bind, filter.limit, filter.offset],
  );
  return {
    total,
    rows: rows.map((row) => pieceRow(rule, row)),
    counts,
    sums,
    stock: await stockOf(work, setup, counts.inStock, cost),
    kinds: [...rule.kinds],
    toTakeIn: await unlistedCount(work, setup, rule),
    nextNo: await nextPieceNo(work, client),
    paper: rule.paper,
    says: rule.says,
    source: rule.source,
  };
}

/** Pieces with their sales: looked up one by one where the first that fit are soon found. */
function fromFor({ sort, state, search, from }: PieceFilter): string {
  const few = (sort === undefined || sort === "no") && state === "" && search === "" && from === "";
  return few ? ONE_BY_ONE : FROM;
}

function pieceRow(rule: StockBookRule, row: Row): PieceRow {
  const { no, name, identifier, kind, boughtOn, price, seller, offReason, partOf } = row;
  const sold = row.soldOn !== null;
  const onMargin = sold && row.code !== null && rule.sales.includes(row.code);
  return {
    no,
    name,
    identifier,
    kind,
    boughtOn,
    price,
    seller,
    state: partOf !== null ? "part" : (row.ended ?? (sold ? "sold" : "in-stock")),
    offReason,
    missing:
      offReason !== null || row.isSet === 1
        ? []
        : missingFields(rule, row).map((field) => PIECE_FIELDS[field]),
    isSet: row.isSet === 1,
    partOf,
    soldOn: row.soldOn,
    sold: row.sold,
    margin: onMargin && row.sold !== null && price !== null ? row.sold - price : null,
    tax: row.tax ?? (sold ? 0 : null),
    buyer: row.buyer ?? "",
  };
}

/** How many pieces fit and what they come to, and how many of the whole book are in each state: looked at once. */
async function sumsOf(
  work: Work,
  rule: StockBookRule,
  bind: unknown[],
  wanted: string,
): Promise<Pick<PiecePage, "total" | "sums" | "counts"> & { cost: number }> {
  const states = stateSql(rule);
  const sum = (sql: string, what = "1") => `coalesce(sum(CASE WHEN ${sql} THEN ${what} ELSE 0 END), 0)`;
  const { total, cost, inStock, allSold, off, toMend, ended, all, ...sums } = await work.one<
    PiecePage["sums"] & Omit<PiecePage["counts"], "sold"> & { total: number; cost: number; allSold: number }
  >(
    // The limit keeps each of the questions asked once a piece.
    `SELECT ${sum("fits")} AS total, ${sum("fits AND onMargin")} AS sold, ${sum("fits AND onMargin", "price")} AS bought,
       ${sum("fits AND onMargin", "gross")} AS price, ${sum("fits AND onMargin", "gross - price")} AS margin,
       ${sum("fits AND onMargin", "tax")} AS tax, ${sum("inStock")} AS inStock, ${sum("inStock", "coalesce(price, 0)")} AS cost,
       ${sum("isSold")} AS allSold, ${sum("isOff")} AS off, ${sum("toMend")} AS toMend, ${sum("isEnded")} AS ended,
       count(*) AS "all"
     FROM (SELECT p.price, l.gross, ${TAX} AS tax, ${SEARCH} AND ${IN_DAYS} AND (${wanted}) AS fits,
       l.code IN (SELECT value FROM json_each($6)) AS onMargin, ${states["in-stock"]} AS inStock,
       ${states.sold} AS isSold, ${states.off} AS isOff, (${states["to-mend"]}) AS toMend, ${states.ended} AS isEnded
       ${FROM} WHERE p.client_id = $1 LIMIT -1)`,
    bind,
  );
  return { total, cost, sums, counts: { inStock, sold: allSold, off, toMend, ended, all } };
}

/** What is not sold beside the account that should hold it. */
async function stockOf(
  work: Work,
  setup: ClientSetup,
  pieces: number,
  cost: number,
): Promise<PiecePage["stock"]> {
  const account = setup.plain.accounts.find(({ role }) => role === "stock")?.code ?? null;
  if (account === null) return { pieces, cost, account, balance: null };
  const { balance } = await work.one<{ balance: number }>(
    `SELECT coalesce(sum(o.amount), 0) AS balance FROM postings o
     WHERE o.client_id = $1 AND o.live = 1 AND o.account_id = $2`,
    [setup.client.id, valueAt(setup.accountIds, account)],
  );
  return { pieces, cost, account, balance };
}

const UNLISTED = `d.client_id = $1 AND d.state = 'posted' AND d.opening = 0
  AND ${inKinds("d.kind", (_, kind) => kindOf(kind).direction === "purchase" && kindOf(kind).sign > 0)}
  AND l.code IN (SELECT value FROM json_each($2)) AND l.net > 0
  AND NOT EXISTS (SELECT 1 FROM pieces p WHERE p.document_id = d.id AND p.line = l.no)`;

async function unlistedCount(work: Work, { client }: ClientSetup, rule: StockBookRule): Promise<number> {
  const { count } = await work.one<{ count: number }>(
    `SELECT count(*) AS count FROM documents d JOIN lines l ON l.document_id = d.id WHERE ${UNLISTED}`,
    [client.id, JSON.stringify(rule.purchases)],
  );
  return count;
}

/** Purchase lines with the code of the scheme that no piece comes from. */
export async function unlistedLines(work: Work, setup: ClientSetup): Promise<UnlistedLine[]> {
  const { rule } = requireRule(work, setup);
  return work.rows<UnlistedLine>(
    `SELECT d.id AS document, l.no AS line, d.number, d.date, coalesce(c.name, '') AS party, l.text, l.net
     FROM documents d JOIN lines l ON l.document_id = d.id LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE ${UNLISTED}
     ORDER BY d.date, d.id, l.no LIMIT 1000`,
    [setup.client.id, JSON.stringify(rule.purchases)],
  );
}

/** A piece with both of its sides, its papers' numbers, and what was spent on it beside. */
export async function pieceView(work: Work, setup: ClientSetup, no: number): Promise<PieceView> {
  const { rule } = requireRule(work, setup);
  const client = setup.client.id;
  const piece = await pieceWithNo(work, client, no);
  const row = found(
    await work.rows<Row>(`SELECT ${ROW} ${ONE_BY_ONE} WHERE p.client_id = $1 AND p.no = $2`, [client, no]),
    () => true,
    `piece ${no}`,
  );
  const shown = pieceRow(rule, row);
  const sale = await work.row<{ document: number; line: number; number: string; code: string }>(
    `SELECT d.id AS document, l.no AS line, d.number, l.code FROM pieces p JOIN lines l ON l.id = ${SALE_LINE}
     JOIN documents d ON d.id = l.document_id WHERE p.client_id = $1 AND p.no = $2`,
    [client, no],
  );
  const bought =
    piece.document === null
      ? null
      : await work.row<{ number: string }>("SELECT number FROM documents WHERE id = $1", [piece.document]);
  const parts = await loadPieces(work, client, "p.part_of = $2 OR p.split_from = $2", [piece.id]);
  const lot = piece.splitFrom === null ? [] : await loadPieces(work, client, "p.id = $2", [piece.splitFrom]);
  const rate = rowInForce(setup.plain.schedules[rule.rate], row.soldOn ?? work.today)?.rate ?? "0";
  const whole = row.sold ?? piece.price ?? 0;
  return {
    ...shown,
    purchaseNumber: piece.purchaseNumber,
    sellerAddress: piece.sellerAddress,
    note: piece.note,
    bought:
      piece.document === null
        ? null
        : { document: piece.document, line: piece.line ?? 1, number: bought?.number ?? "" },
    sale: sale ? { ...sale, onMargin: rule.sales.includes(sale.code) } : null,
    asked: askedOf(rule, piece.kind).length,
    rate,
    consequence:
      shown.missing.length === 0
        ? null
        : { full: taxInside(whole, rate), inside: taxInside(whole - (piece.price ?? 0), rate) },
    parts: parts.map((part) => ({ no: part.no, name: part.name, price: part.price })),
    splitFrom: lot[0]?.no ?? null,
    ended:
      piece.ended === null
        ? null
        : { kind: piece.ended, on: piece.endedOn ?? "", reason: piece.endedReason ?? "" },
    beside: await work.rows(
      `SELECT d.id AS document, l.no AS line, d.number, l.text, l.net, l.gross - l.net AS tax
       FROM lines l CROSS JOIN documents d ON d.id = l.document_id
       WHERE d.client_id = $1 AND d.state = 'posted' AND l.attributes ->> '$.pieceCost' IS NOT NULL
         AND l.attributes ->> '$.pieceCost' = $2 ORDER BY d.date, d.id`,
      [client, String(no)],
    ),
  };
}

/** Why a piece of this kind, bought on this line, is not on the scheme; null where it is. */
export async function whyOff(
  work: Work,
  rule: StockBookRule,
  kind: string,
  bought: { document: number; line: number } | null,
): Promise<string | null> {
  const byKind = kindOff(rule, kind);
  if (byKind !== undefined) return byKind;
  if (!bought) return null;
  const line = await work.row<{ code: string; tax: number }>(
    "SELECT coalesce(code, '') AS code, gross - net AS tax FROM lines WHERE document_id = $1 AND no = $2",
    [bought.document, bought.line],
  );
  return line && (line.tax !== 0 || !rule.purchases.includes(line.code)) ? "tax stands on the bill" : null;
}
