import type { Work } from "../../../base/work.ts";
import type { Bind } from "../../../db/database.ts";

/**
 * Rows that an account and what it stands for hold apart, as tables of a WITH of which the last one is `apart`: `cause`,
 * `date`, `amount` (what the other side has more), and `ref`, `number`, `party` and `text`. Where there may be very many,
 * `apart` does not have these four, and `named` is what is selected to name the few rows of `page`, with its `total`.
 */
export interface ApartTables {
  tables: string;
  named?: string;
  /** Columns of `apart` that rows of one day are in order by. */
  order?: string;
  bind: readonly (string | number)[];
}

/** A row that is worked out and stands in no table of the database. */
export interface ApartPart {
  cause: string;
  ref: string | null;
  date: string;
  text: string;
  amount: number;
}

/** Such rows, as JSON in a parameter, in the columns of `apart`. */
export const ofParts = (parameter: string) => `SELECT value ->> 'cause' AS cause, value ->> 'ref' AS ref,
  value ->> 'date' AS date, '' AS number, '' AS party, value ->> 'text' AS text, value ->> 'amount' AS amount
  FROM json_each(${parameter})`;

/** Rows of that kind alone. */
export function partsTable(parts: readonly ApartPart[]): ApartTables {
  return { tables: `apart AS (${ofParts("$1")})`, bind: [JSON.stringify(parts)] };
}

/** The sums of the rows by cause. */
export async function apartSums(
  work: Work,
  { tables, bind }: ApartTables,
): Promise<{ cause: string; amount: number; rows: number }[]> {
  return work.rows(
    `WITH ${tables} SELECT cause, sum(amount) AS amount, count(*) AS rows FROM apart WHERE amount <> 0 GROUP BY cause`,
    [...bind] as Bind,
  );
}

const NAMED = "SELECT ref, date, number, party, text, amount, total FROM page";

/** The rows of a cause, oldest first. */
export async function apartOf<Row>(
  work: Work,
  { tables, named = NAMED, order = "ref", bind }: ApartTables,
  cause: string,
  { offset, limit }: { offset: number; limit: number },
): Promise<(Row & { total: number })[]> {
  const next = bind.length + 1;
  const meant = `FROM apart WHERE amount <> 0 AND cause = $${next}`;
  return work.rows(
    `WITH ${tables},
       first AS (SELECT * ${meant} ORDER BY date, ${order} LIMIT $${next + 1} OFFSET $${next + 2}),
       page AS (SELECT *, row_number() OVER (ORDER BY date, ${order}) AS place, (SELECT count(*) ${meant}) AS total
         FROM first)
     ${named} ORDER BY place`,
    [...bind, cause, limit, offset] as Bind,
  );
}
