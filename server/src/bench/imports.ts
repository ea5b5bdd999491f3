import { join } from "node:path";
import Papa from "papaparse";
import { QueryTypes } from "sequelize";
import type sqlite3 from "sqlite3";
import { BOOKS_MIGRATIONS } from "../db/books/firstBooks.ts";
import { Database } from "../db/database.ts";
import { checkImport, postImport } from "../features/imports/runImport.ts";
import { receiveFile } from "../features/imports/service.ts";
import { UNWATCHED } from "../base/progress.ts";
import type { BenchRow, Times } from "./report.ts";
import { benchBooks } from "./benchBooks.ts";
import { inMs, perSecond, spreadOf, timesOf } from "./report.ts";

const ROWS = 100_000;
const TABLES = ["contacts", "documents", "lines", "entries", "postings", "facts"];

/** So often it is imported, each time into books of its own. */
const RUNS = 3;

/**
 * A register imported end to end (received, dry run, posted), beside what cannot be avoided: the CSV parser over the same
 * text, and the same rows put into the same tables with the same indexes, by a prepared insert a row, and by plain SQL
 * that copies them inside the database.
 */
export async function importBench(dataDir: string): Promise<BenchRow[]> {
  const text = register();
  const parsing = await timesOf(RUNS, () => Papa.parse<string[]>(text, { delimiter: "," }));
  const runs = [];
  for (let run = 0; run < RUNS; run += 1) runs.push(await imported(join(dataDir, `run-${run}`), text));
  const checking = spreadOf(runs.map(({ checking }) => checking));
  const posting = spreadOf(runs.map(({ posting }) => posting));
  const both = spreadOf(runs.map(({ checking, posting }) => checking + posting));
  const copying = spreadOf(runs.map(({ copying }) => parsing.median + copying));
  const inserting = spreadOf(runs.map(({ inserting }) => parsing.median + inserting));
  const row = (what: string, times: Times, reference: string, least: Times): BenchRow => ({
    what,
    ours: `${perSecond(ROWS, times.median)} (${inMs(times)})`,
    reference: `${reference} ${perSecond(ROWS, least.median)} (${inMs(least)})`,
    ratio: times.median / least.median,
  });
  const copied = "parser and rows copied inside the database";
  return [
    row("rows of a 100,000-row register checked in a dry run", checking, copied, copying),
    row("rows posted from it", posting, copied, copying),
    row("rows imported end to end, checked and posted", both, copied, copying),
    row("the same", both, "parser and a prepared insert a row", inserting),
  ];
}

async function imported(
  dataDir: string,
  text: string,
): Promise<{ checking: number; posting: number; copying: number; inserting: number }> {
  const { work, clientId, end } = await benchBooks(dataDir, "Bench");
  const importId = await receiveFile(work, clientId, {
    direction: "sale",
    name: "bench.csv",
    bytes: Buffer.from(text),
  });
  const start = performance.now();
  await checkImport(work, clientId, importId, UNWATCHED);
  const checked = performance.now();
  await postImport(work, clientId, importId, UNWATCHED);
  const posted = performance.now();
  const { file } = work.database;
  await end();
  return {
    checking: checked - start,
    posting: posted - checked,
    copying: await intoPlain(join(dataDir, "copied.sqlite"), file, copyRows),
    inserting: await intoPlain(join(dataDir, "inserted.sqlite"), file, insertRows),
  };
}

/** Puts the rows the import wrote once more into an empty database, and gives how long that took. */
async function intoPlain(
  path: string,
  file: string,
  put: (plain: Database, columns: ReadonlyMap<string, string>) => Promise<number>,
): Promise<number> {
  const plain = await Database.open(path, { migrations: BOOKS_MIGRATIONS });
  const source = file.replaceAll("'", "''");
  await plain.sequelize.query(`ATTACH '${source}' AS source`);
  const columns = new Map<string, string>();
  for (const table of TABLES) {
    const rows = await plain.rows<{ name: string }>(`SELECT name FROM pragma_table_info('${table}')`);
    columns.set(table, rows.map(({ name }) => name).join(", "));
  }
  for (const table of ["people", "clients", "accounts", "registrations", "imports"])
    await plain.sequelize.query(`INSERT INTO main.${table} SELECT * FROM source.${table}`);
  const time = await put(plain, columns);
  await plain.close();
  return time;
}

/** One statement a table: the rows never leave the database. */
async function copyRows({ sequelize }: Database, columns: ReadonlyMap<string, string>): Promise<number> {
  const start = performance.now();
  for (const [table, names] of columns)
    await sequelize.query(`INSERT INTO main.${table} (${names}) SELECT ${names} FROM source.${table}`);
  return performance.now() - start;
}

/** Rows that wait for the driver at once. */
const ON_THE_WAY = 1000;

/** A prepared statement a table, run row by row in one transaction, as a program writes what it worked out. */
async function insertRows(plain: Database, columns: ReadonlyMap<string, string>): Promise<number> {
  let time = 0;
  await plain.write(async (tx) => {
    const { connection } = tx as typeof tx & { connection: sqlite3.Database };
    for (const [table, names] of columns) {
      const rows = await plain.sequelize.query<object>(`SELECT ${names} FROM source.${table}`, {
        type: QueryTypes.SELECT,
      });
      const places = names.replace(/\w+/g, "?");
      const start = performance.now();
      const statement = connection.prepare(`INSERT INTO ${table} (${names}) VALUES (${places})`);
      for (const [index, row] of rows.entries()) {
        const values = Object.values(row) as unknown[];
        if (index % ON_THE_WAY !== 0) statement.run(values);
        else await new Promise((done) => statement.run(values, done));
      }
      await new Promise<void>((done) => statement.finalize(() => done()));
      time += performance.now() - start;
    }
  });
  return time;
}

function register(): string {
  const lines = ["Invoice No,Date,Customer,Details,Net,VAT,Gross"];
  for (let n = 0; n < ROWS; n += 1) {
    const net = 1000 + ((n * 7919) % 90_000);
    const tax = Math.floor((net * 20 + 50) / 100);
    const money = (pence: number) => (pence / 100).toFixed(2);
    const day = String(1 + (n % 28)).padStart(2, "0");
    lines.push(
      `B${n},${day}/05/2026,Customer ${n % 400},Goods,${money(net)},${money(tax)},${money(net + tax)}`,
    );
  }
  return lines.join("\n");
}
