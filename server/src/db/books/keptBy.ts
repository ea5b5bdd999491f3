type Row = "new" | "old";

/**
 * Triggers that keep a sum of the rows of a table, in the transaction of what it sums.
 * @param name of the first; the others are called after it
 * @param columns what a row is summed by, and what of it is summed
 * @param add SQL that adds the row `new`, or takes the row `old` off again
 */
export function keptBy(
  { table, name, columns }: { table: string; name: string; columns: string },
  add: (row: Row, sign: "+" | "-") => string,
): string[] {
  return [
    `CREATE TRIGGER ${name} AFTER INSERT ON ${table} BEGIN
    ${add("new", "+")}
  END`,
    `CREATE TRIGGER ${name}_anew AFTER UPDATE OF ${columns} ON ${table} BEGIN
    ${add("old", "-")}
    ${add("new", "+")}
  END`,
    `CREATE TRIGGER ${name}_no_more AFTER DELETE ON ${table} BEGIN
    ${add("old", "-")}
  END`,
  ];
}
