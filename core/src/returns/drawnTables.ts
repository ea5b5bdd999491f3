import type { FormRow, FormTable } from "../model/returnForm.ts";
import { isFamily, partsOfMember } from "./boxFamily.ts";

/** A row of a form with what stands in it; `member`: what the stars of a row that repeats stand for, in order. */
export interface DrawnRow<Box> extends Omit<FormRow, "cells"> {
  /**
   * By column; null where the authority leaves no field, undefined where nothing is told of a member. None where it is a
   * heading.
   */
  cells: (Box | null | undefined)[];
  member: readonly string[];
}

export interface DrawnTable<Box> extends Omit<FormTable, "rows"> {
  rows: DrawnRow<Box>[];
}

/**
 * A form as its authority draws it, with its boxes in their places. A row that repeats stands once for each member, and
 * tables without rows are left out. What the return comes to stands at the end where the form itself does not show it.
 * @param boxes of the return, members of families in the place of these
 * @param shown id of the box that shows what the return comes to
 */
export function drawnTables<Box extends { id: string; title: string }>(
  tables: readonly FormTable[],
  boxes: readonly Box[],
  shown: string | undefined,
): DrawnTable<Box>[] {
  const byId = new Map(boxes.map((box) => [box.id, box]));
  const drawn = tables
    .map((table) => ({ ...table, rows: table.rows.flatMap((row) => drawnRows(row, byId)) }))
    .filter(({ rows }) => rows.length > 0);
  const result = shown === undefined ? undefined : byId.get(shown);
  const stands = drawn.some(({ rows }) => rows.some(({ cells }) => cells.some((box) => box === result)));
  if (!result || stands) return drawn;
  const last: DrawnRow<Box> = {
    number: "",
    title: result.title,
    cells: [result],
    member: [],
    level: "result",
  };
  return [...drawn, { title: "", columns: [""], rows: [last] }];
}

function drawnRows<Box>(row: FormRow, byId: ReadonlyMap<string, Box>): DrawnRow<Box>[] {
  const families = row.cells.filter((id): id is string => id !== null && isFamily(id));
  const members = new Map(
    families.flatMap((family) =>
      [...byId.keys()]
        .map((id) => partsOfMember(family, id))
        .filter(({ length }) => length > 0)
        .map((parts) => [parts.join(" "), parts] as const),
    ),
  );
  if (families.length === 0) members.set("", []);
  return [...members]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, member]) => ({
      ...row,
      member,
      cells: row.cells.map((id) => (id === null ? null : byId.get(named(id, member)))),
    }));
}

function named(family: string, member: readonly string[]): string {
  return member.reduce((id, part) => id.replace("*", part), family);
}

/** What a row says: its title, and whom it is about where it repeats. @param regions names of regions by their code */
export function titleOfRow(
  { title, member }: Pick<DrawnRow<unknown>, "title" | "member">,
  regions: readonly { code: string; name: string }[],
): string {
  const names = member.map((code) => {
    const region = regions.find((one) => one.code === code);
    if (region) return `${code} ${region.name}`;
    return /^[A-Z]{2}$/.test(code) ? (COUNTRIES.of(code) ?? code) : code;
  });
  return [title, names.join(" from ")].filter((one) => one !== "").join(", ");
}

const COUNTRIES = new Intl.DisplayNames(["en-GB"], { type: "region" });
