import { FiscalError } from "@fiscalon/core/errors";
import { textHandlers, unescaped } from "./book.ts";
import type { Book } from "./book.ts";
import type { Part } from "./archive.ts";
import { elements } from "./elements.ts";
import type { Attributes, Handlers } from "./elements.ts";
import { shownNumber } from "./numberFormat.ts";

const MOST_ROWS = 400_000;
const MOST_COLUMNS = 200;
/** Columns a sheet can have at all. */
const COLUMNS = 16_384;

/** A row up to the last cell with anything in it, and where it stands, from 1. */
interface Row {
  number: number;
  cells: string[];
}

/**
 * The rows of a sheet as text, as they come, each where it stands: rows that are left out are empty ones, and empty ones
 * at the end are left out.
 * @throws FiscalError `imports/too-large`; what cannot be read throws as it comes
 * Source: ECMA-376 part 1, 18.3.1.4 (cells), 18.3.1.73 (rows), 18.18.11 (types of cells), from memory
 */
export function* sheetRows(part: Part, book: Book): Generator<string[]> {
  let [last, given] = [0, 0];
  for (const { number, cells } of elements<Row>(part, (found) => rowHandlers(book, found))) {
    if (!(number > last)) throw new Error("Rows are not in their order.");
    last = number;
    if (cells.length === 0) continue;
    if (number > MOST_ROWS || cells.length > MOST_COLUMNS) throw tooMany(number, cells.length);
    for (given += 1; given < number; given += 1) yield [];
    yield cells;
  }
}

function tooMany(row: number, columns: number): FiscalError {
  return new FiscalError(
    "imports/too-large",
    `Row ${row} of the sheet has ${columns} columns; ${MOST_ROWS} rows of ${MOST_COLUMNS} columns can be read. Split it.`,
    "file",
  );
}

/** Cells and rows without a reference follow the one before. */
function rowHandlers(book: Book, found: (row: Row) => void): Handlers {
  let row: Row = { number: 0, cells: [] };
  let next = 0;
  let cell: Attributes = {};
  let value = "";
  let isValue = false;
  const inline = textHandlers((text) => {
    value = text;
  });
  const opened: Readonly<Record<string, (attributes: Attributes) => void>> = {
    row: ({ r }) => {
      row = { number: r === undefined ? row.number + 1 : Number(r), cells: [] };
      next = 0;
    },
    c: (attributes) => {
      [cell, value] = [attributes, ""];
    },
    v: () => {
      isValue = true;
    },
  };
  const closed: Readonly<Record<string, () => void>> = {
    v: () => {
      isValue = false;
    },
    c: () => {
      next = columnOf(cell["r"]) ?? next;
      const text = cellText(cell, value, book);
      if (text !== "") place(row.cells, next, text);
      next += 1;
    },
    row: () => {
      found(row);
    },
  };
  return {
    open: (name, attributes) => (opened[name] ?? ((one) => inline.open(name, one)))(attributes),
    text: (piece) => {
      if (isValue) value += piece;
      else inline.text?.(piece);
    },
    close: (name) => (closed[name] ?? (() => inline.close?.(name)))(),
  };
}

function place(cells: string[], at: number, text: string): void {
  while (cells.length < at) cells.push("");
  cells[at] = text;
}

const LETTERS = 26;
const BEFORE_A = 64;

/** The column of a reference as B12, from 0. */
function columnOf(reference: string | undefined): number | null {
  if (reference === undefined) return null;
  let column = 0;
  for (let at = 0; at < reference.length; at += 1) {
    const letter = reference.charCodeAt(at) - BEFORE_A;
    if (letter < 1 || letter > LETTERS) break;
    column = column * LETTERS + letter;
  }
  if (column < 1 || column > COLUMNS) throw new Error("A cell has no column.");
  return column - 1;
}

function cellText({ t, s }: Attributes, value: string, { texts, shown, from1904 }: Book): string {
  switch (t ?? "n") {
    case "n":
      return shownNumber(value.trim(), shown[Number(s ?? 0)] ?? null, from1904);
    case "s": {
      const text = value === "" ? "" : texts[Number(value)];
      if (text === undefined) throw new Error("A cell has a text that is not there.");
      return text;
    }
    case "str":
      return unescaped(value).trim();
    case "b":
      return value === "" ? "" : String(value === "1");
    case "d":
      return value.slice(0, "YYYY-MM-DD".length);
    case "e":
      return "";
    default:
      return value;
  }
}
