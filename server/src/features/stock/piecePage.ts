import { valueAt } from "@fiscalon/core/at";
import type { PieceField, StockBookRule } from "@fiscalon/core/model/stockBook";
import type { PiecePage, PieceState } from "@fiscalon/contract/stockBook";
import type { Work } from "../../base/work.ts";
import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { nextPieceNo } from "../../books/stock/pieces.ts";
import { requireRule } from "../../books/stock/requireRule.ts";
import { FROM, ONE_BY_ONE, pieceRow, ROW, TAX } from "./pieceRow.ts";
import type { Row } from "./pieceRow.ts";
import { unlistedCount } from "./unlisted.ts";

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

const SEARCH = `($2 = '%%' OR p.name LIKE $2 OR p.identifier LIKE $2 OR p.seller LIKE $2
  OR CAST(p.no AS TEXT) = $3 OR c.name LIKE $2)`;
const IN_DAYS = `($4 = '' OR s.piece IS NULL OR d.date BETWEEN $4 AND $5)`;

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
