import { displayDate } from "@fiscalon/core/calendar/displayDate";
import Papa from "papaparse";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { PIECE_FIELDS } from "@fiscalon/core/model/stockBook";
import { pieceBody } from "@fiscalon/contract/stockBook";
import type { PieceBody, PieceRow } from "@fiscalon/contract/stockBook";
import { accountInRole } from "@fiscalon/core/model/account";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import { nextInSeries } from "../../books/series.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { ReportTable } from "../../exports/reportTable.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { insertPiece } from "../../books/stock/insertPiece.ts";
import { nextPieceNo, shownNo } from "../../books/stock/pieces.ts";
import { requireRule } from "../../books/stock/requireRule.ts";
import { piecePage } from "./piecePage.ts";
import type { PieceFilter } from "./piecePage.ts";
import { whyOff } from "./whyOff.ts";

const PAGE = 500;
/** Beyond this a file helps nobody; the search is narrowed. */
const MOST = 50_000;

/** The pieces that fit as a table: both sides, margin and tax. */
export async function bookTable(work: Work, setup: ClientSetup, filter: PieceFilter): Promise<ReportTable> {
  const rows: PieceRow[] = [];
  let page = await piecePage(work, setup, { ...filter, offset: 0, limit: PAGE });
  const { sums, total, source } = page;
  rows.push(...page.rows);
  while (rows.length < Math.min(total, MOST) && page.rows.length > 0) {
    page = await piecePage(work, setup, { ...filter, offset: rows.length, limit: PAGE });
    rows.push(...page.rows);
  }
  const days = filter.to === "" ? "" : `, sold ${displayDate(filter.from)} to ${displayDate(filter.to)}`;
  return {
    title: "Stock book",
    about: `${setup.client.name}${days} (${source})`,
    digits: setup.plain.digits,
    columns: [
      { name: "No.", width: 36 },
      { name: "Description", width: 120 },
      { name: "Mark", width: 60 },
      { name: "Bought", date: true, width: 56 },
      { name: "Seller", width: 80 },
      { name: "Bought for", amount: true },
      { name: "State", width: 54 },
      { name: "Sold", date: true, width: 56 },
      { name: "Buyer", width: 80 },
      { name: "Sold for", amount: true },
      { name: "Margin", amount: true },
      { name: "Tax", amount: true },
    ],
    rows: [
      ...rows.map((row) => ({
        cells: [
          shownNo(row.no),
          row.name,
          row.identifier,
          row.boughtOn ?? "",
          row.seller,
          row.price ?? "",
          row.offReason === null ? row.state : `${row.state}, off the scheme`,
          row.soldOn ?? "",
          row.buyer,
          row.sold ?? "",
          row.margin ?? "",
          row.tax ?? "",
        ],
      })),
      {
        total: true,
        cells: [
          "",
          `${sums.sold} sold on the scheme`,
          "",
          "",
          "",
          sums.bought,
          "",
          "",
          "",
          sums.price,
          sums.margin,
          sums.tax,
        ],
      },
    ],
  };
}

const COLUMNS = Object.keys(PIECE_FIELDS).concat("kind", "offReason", "note");

/**
 * Opening stock from CSV, all or nothing: columns as the fields of a piece are called, `name` and `price` at least. With a
 * day its cost goes to the stock account as an opening balance of that day. Errors name the row of the file.
 */
export async function importPieces(
  work: Work,
  clientId: number,
  text: string,
  on: string | undefined,
): Promise<{ taken: number }> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const { rule } = requireRule(work, setup);
    const rows = readPieces(text, at(rule.kinds, 0).id);
    let no = await nextPieceNo(work, clientId);
    let cost = 0;
    for (const [index, row] of rows.entries()) {
      if (!rule.kinds.some(({ id }) => id === row.kind)) {
        const kinds = rule.kinds.map(({ id }) => id).join(", ");
        throw wrongRow(index, `there is no kind "${row.kind}"; kinds are ${kinds}`);
      }
      const price = row.price === "" ? null : parseAmount(row.price, setup.plain.digits);
      if (price !== null && price < 0) throw wrongRow(index, "the price is below nought");
      const off = row.offReason || (await whyOff(work, rule, row.kind, null));
      cost += price ?? 0;
      await insertPiece(work, clientId, {
        ...row,
        no: no++,
        price,
        offReason: off || null,
        document: null,
        line: null,
      });
    }
    if (on !== undefined && cost !== 0) await bookOpening(work, setup, on, cost);
    await work.record({
      action: "create",
      entity: "piece",
      id: null,
      after: { pieces: rows.length },
    });
    return { taken: rows.length };
  });
}

async function bookOpening(work: Writing, setup: ClientSetup, on: string, cost: number): Promise<void> {
  const amount = formatAmount(cost, setup.plain.digits);
  const text = "Opening stock of the stock book";
  await postDocuments(work, setup, [
    {
      input: {
        kind: "journal",
        number: await nextInSeries(work, setup.client.id, "journal"),
        date: on,
        prices: "exclusive",
        lines: [
          { text, account: accountInRole(setup.plain.accounts, "stock"), amount, code: null },
          { text, account: accountInRole(setup.plain.accounts, "opening"), amount: `-${amount}`, code: null },
        ],
      },
      contact: null,
      place: null,
    },
  ]);
}

function readPieces(text: string, usualKind: string): PieceBody[] {
  const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (head) => fieldNamed(head),
  });
  const [broken] = errors.filter(({ code }) => code !== "UndetectableDelimiter");
  if (broken) throw wrongRow(broken.row ?? 0, broken.message);
  if (data.length === 0 || !("name" in at(data, 0))) {
    const known = COLUMNS.join(", ");
    throw new FiscalError("stock/csv", `The file has no column "name". Columns are ${known}.`, "file");
  }
  return data.map((row, index) => {
    const cells = Object.fromEntries(
      Object.entries(row)
        .filter(([column]) => COLUMNS.includes(column))
        .map(([column, cell]) => [column, cell.replace(/^'(?=[=+\-@\t\r])/, "").trim()]),
    );
    const { price = "", kind = "", ...texts } = cells;
    const checked = pieceBody.validate(
      { ...texts, kind: kind || usualKind, price: price.replaceAll(",", "") },
      { errors: { wrap: { label: false } } },
    );
    if (checked.error) throw wrongRow(index, checked.error.message);
    return checked.value as PieceBody;
  });
}

/** A heading as the field it stands for: by its own name, or as people call it. */
function fieldNamed(head: string): string {
  const key = head
    .trim()
    .toLowerCase()
    .replace(/[^a-z]/g, "");
  const byName = COLUMNS.find((column) => column.toLowerCase() === key);
  const spoken = Object.entries(PIECE_FIELDS).find(([, words]) => words.replace(/[^a-z]/g, "") === key);
  return byName ?? spoken?.[0] ?? head;
}

function wrongRow(index: number, why: string): FiscalError {
  return new FiscalError(
    "stock/csv",
    `Row ${index + 2}: ${why}. Export the book once to see the shape.`,
    `rows[${index}]`,
  );
}
