import { FiscalError } from "@fiscalon/core/errors";
import { openArchive } from "./archive.ts";
import type { Part } from "./archive.ts";
import { openBook } from "./book.ts";
import type { Book } from "./book.ts";
import { sheetRows } from "./sheetRows.ts";
import { unreadable } from "./unreadable.ts";

/** A sheet of a workbook: its rows as text, each let go once it is read, and how many they are, about. */
export interface OpenSheet {
  name: string;
  rows: () => Iterable<string[]>;
  about: number;
}

export function isWorkbook(content: Buffer): boolean {
  return content.subarray(0, 4).toString("latin1") === "PK\u0003\u0004";
}

/**
 * The sheets of a workbook that have anything on them, as people see them: days as YYYY-MM-DD, formulas as their
 * result. They are unpacked and read as they are asked for, under limits: a small file cannot grow without end.
 * @throws FiscalError `imports/workbook`, `imports/too-large`, also while rows are read
 */
export async function openSheets(content: Buffer): Promise<Iterable<OpenSheet>> {
  try {
    return withContent(openBook(await openArchive(content)));
  } catch (error) {
    throw unreadable(error);
  }
}

/**
 * The first sheet with anything on it.
 * @throws FiscalError `formats/empty-file`, and as `openSheets`
 */
export async function openFirstSheet(content: Buffer): Promise<OpenSheet> {
  for (const sheet of await openSheets(content)) return sheet;
  throw new FiscalError("formats/empty-file", "The workbook is empty. Export it again.", "file");
}

function* readable(rows: Iterable<string[]>): Generator<string[]> {
  try {
    yield* rows;
  } catch (error) {
    throw unreadable(error);
  }
}

/** @returns sheets one after the other, without those that are empty */
function* withContent(book: Book): Generator<OpenSheet> {
  for (const { name, part } of book.sheets) {
    const rows = () => readable(sheetRows(part, book));
    const [first] = rows();
    if (first) yield { name, rows, about: aboutRows(part) };
  }
}

/** Bytes of a part its rows are estimated by. */
const SAMPLE = 64 * 1024;

/** By how many rows begin in its first piece. */
function aboutRows({ size, bytes }: Part): number {
  for (const whole of bytes()) {
    const piece = whole.subarray(0, SAMPLE);
    const begun = new TextDecoder().decode(piece).match(/<(?:\w+:)?row\b/g)?.length ?? 0;
    return Math.ceil((size * begun) / piece.length);
  }
  return 0;
}
