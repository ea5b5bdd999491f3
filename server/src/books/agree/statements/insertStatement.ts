import type { MatchRow } from "@fiscalon/core/agree/matching/matchRow";
import type { MatchSettings, StatementBasis } from "@fiscalon/contract/statements";
import type { Writing } from "../../../base/work.ts";

/** A list as it is kept, before it has a number. */
export interface NewStatement {
  client: number;
  registration: number;
  kind: string;
  contact: number | null;
  from: string;
  end: string;
  name: string;
  drawnOn: string | null;
  basis: StatementBasis;
  settings: MatchSettings;
  problems: readonly { row: number; message: string }[];
}

type NewRow = MatchRow & { original: string; ineligible: string; note: string };

const SLICE = 5000;

/** Keeps a list with its rows. */
export async function insertStatement(
  work: Writing,
  one: NewStatement,
  rows: readonly NewRow[],
): Promise<number> {
  const { createdAt, createdBy } = work.made;
  await work.run(
    `INSERT INTO statements (client_id, registration_id, kind, contact_id, period_from, period_end, name, drawn_on, basis,
       settings, problems, created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      one.client,
      one.registration,
      one.kind,
      one.contact,
      one.from,
      one.end,
      one.name.slice(0, 200),
      one.drawnOn,
      one.basis,
      JSON.stringify(one.settings),
      JSON.stringify(one.problems),
      createdAt,
      createdBy,
    ],
  );
  const { id } = await work.one<{ id: number }>("SELECT last_insert_rowid() AS id");
  for (let start = 0; start < rows.length; start += SLICE)
    await work.run(INSERT_ROWS, [id, JSON.stringify(rows.slice(start, start + SLICE).map(cells))]);
  return id;
}

const INSERT_ROWS = `INSERT INTO statement_rows (statement_id, key, party_number, party_name, number, date, value, tax, taxes,
    rate, place, ineligible, note, original)
  SELECT $1, value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5, value ->> 6, value -> 7,
    value ->> 8, value ->> 9, value ->> 10, value ->> 11, value ->> 12 FROM json_each($2)`;

/** What is kept of a row, in the order of the columns. */
const CELLS = [
  "key",
  "partyNumber",
  "partyName",
  "number",
  "date",
  "value",
  "tax",
  "taxes",
  "rate",
  "place",
  "ineligible",
  "note",
  "original",
] as const satisfies readonly (keyof NewRow)[];

function cells(row: NewRow): unknown[] {
  return CELLS.map((name) => row[name]);
}

/** Takes a list out with how its rows stand; decisions stay. */
export async function removeStatement(work: Writing, id: number): Promise<void> {
  for (const table of ["match_lines", "statement_rows"])
    await work.run(`DELETE FROM ${table} WHERE statement_id = $1`, [id]);
  await work.run("DELETE FROM statements WHERE id = $1", [id]);
}
