import { FiscalError } from "@fiscalon/core/errors";

/** Lists of the book file whose rows others refer to. */
export type PointedList = "documents" | "payments" | "taxPayments" | "imports";

/** On the way out: by list, the row of each id. Rows of tax payments go by the id of their entry. */
export type RowsOf = Readonly<Record<PointedList, ReadonlyMap<number, number>>>;

/** On the way in: by list, the id of each row once it is in the database. */
export type PlacedRows = Record<PointedList, number[]>;

/** A pointer (RFC 6901) to the row an id has in the file; null where it is not in it. */
export function pointerTo(rows: RowsOf, list: PointedList, id: number | null): string | null {
  const row = id === null ? undefined : rows[list].get(id);
  return row === undefined ? null : `/${list}/${row}`;
}

/**
 * The list and the id a pointer of the file leads to.
 * @throws FiscalError `book/unknown-row` where the file has no such row
 */
export function placedAt(
  placed: PlacedRows,
  pointer: string,
  field: string,
): { list: PointedList; id: number } {
  const [, list = "", row = ""] = pointer.split("/");
  const id = placed[list as PointedList]?.[Number(row)];
  if (id !== undefined) return { list: list as PointedList, id };
  throw new FiscalError(
    "book/unknown-row",
    `The file has no row ${pointer}. Rows are counted from 0.`,
    field,
  );
}

/** Rows by id, in the order of a list. */
export function rowNumbers(ids: readonly number[]): Map<number, number> {
  return new Map(ids.map((id, row) => [id, row]));
}

/**
 * The row that a name of the file stands for; none where nothing is named.
 * @throws FiscalError `book/unknown-id` where the file has no such name
 */
export function refOf(
  ids: ReadonlyMap<string, number>,
  ref: string | null | undefined,
  field: string,
): number | null {
  if (ref === null || ref === undefined) return null;
  const id = ids.get(ref);
  if (id !== undefined) return id;
  throw new FiscalError("book/unknown-id", `The file has no "${ref}" to refer to.`, field);
}
