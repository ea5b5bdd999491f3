type Row = "new" | "old";

/** Which rows are kept, how, and under which name. */
interface Kept {
  table: string;
  /** Of the first trigger; the others are called after it. */
  name: string;
  /** What a row is summed by, and what of it is summed. */
  columns: string;
  /** Which rows count at all; all of them where nothing is said. */
  when?: (row: Row) => string;
}

/**
 * Triggers that keep a sum of the rows of a table, in the transaction of what it sums.
 * @param add SQL that adds the row `new`, or takes the row `old` off again
 */
export function keptBy(
  { table, name, columns, when }: Kept,
  add: (row: Row, sign: "+" | "-") => string,
): string[] {
  const added = add("new", "+");
  const takenOff = add("old", "-");
  const changed = `AFTER UPDATE OF ${columns} ON ${table}`;
  return [
    trigger(name, `AFTER INSERT ON ${table}`, added, when?.("new")),
    ...(when
      ? [
          trigger(`${name}_off`, changed, takenOff, when("old")),
          trigger(`${name}_anew`, changed, added, when("new")),
        ]
      : [trigger(`${name}_anew`, changed, `${takenOff}\n    ${added}`)]),
    trigger(`${name}_no_more`, `AFTER DELETE ON ${table}`, takenOff, when?.("old")),
  ];
}

/** One trigger; each of its statements ends with a semicolon. */
export function trigger(name: string, on: string, statements: string, when?: string): string {
  return `CREATE TRIGGER ${name} ${on}${when === undefined ? "" : ` WHEN ${when}`} BEGIN
    ${statements}
  END`;
}
