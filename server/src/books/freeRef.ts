import type { Work } from "../base/work.ts";

/** The next free id of the book file for a new row. */
export async function freeRef(
  work: Work,
  table: "places" | "registrations" | "contacts" | "items",
  clientId: number,
  prefix: string,
): Promise<string> {
  const rows = await work.rows<{ ref: string }>(
    `SELECT ref FROM ${table} WHERE client_id = $1 AND ref LIKE $2`,
    [clientId, `${prefix}%`],
  );
  const last = Math.max(
    0,
    ...rows.map((row) => Number(row.ref.slice(prefix.length))).filter(Number.isInteger),
  );
  return `${prefix}${last + 1}`;
}
