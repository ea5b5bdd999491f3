import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { Account } from "@fiscalon/core/model/account";
import type { Party } from "@fiscalon/core/model/party";
import type { ContactRow, ItemRow } from "@fiscalon/core/formats/tables/masterTables";
import type { ImportReport } from "@fiscalon/contract/imports";
import { createHash } from "node:crypto";
import { mkdirSync, readdirSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { stagingFolder, UNFINISHED, writeStaging } from "../../base/stagingFile.ts";
import type { StagedTables } from "../../base/stagingFile.ts";
import type { Work } from "../../base/work.ts";
import { DOCUMENT_ROWS, firstIds } from "../../books/documents/documentRows.ts";
import { writeDocuments } from "../../books/documents/writeDocuments.ts";
import type { Worked } from "../../books/documents/writeDocuments.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import type { Progress } from "../../base/progress.ts";
import type { Incoming } from "./incoming.ts";
import { EffectCount, reportOf } from "./importReport.ts";
import type { Parties } from "./parties.ts";
import { cellsOf, readImport } from "./reading.ts";
import type { Reading } from "./reading.ts";
import { rejectedCsv } from "./rejectedRows.ts";
import { importRecord, refusePosted } from "./service.ts";
import { effectAsTold } from "./toldTax.ts";

/** What a killed process left lies this long at most: whoever is at it writes to it all the time. */
const LEFT_MS = 60 * 60_000;
/** Documents worked out between two tellings how far it is. */
const TELL = 1000;
/** What nobody posted lies this long; then it is staged anew. */
const UNPOSTED_MS = 24 * LEFT_MS;

/** What is staged beside the rows of documents. Contacts and accounts that are to be made have numbers below zero. */
export interface Staged {
  /** What the rows were worked out from; see versionOf. */
  version: string;
  report: ImportReport;
  accounts: Account[];
  contacts: Omit<ContactRow, "row">[];
  items: ItemRow[];
  parties: Omit<ContactRow, "row">[];
  filled: (Omit<ContactRow, "row" | "name"> & { id: number })[];
}

/** The table of one row that says what is staged. */
const ABOUT = ["content"];

/**
 * What staged rows depend on: the file and how it is read, the last change of the books, the law and the day. Whatever
 * is done to set-up or books is noted in the audit trail, so the same last change means the same books.
 */
export async function versionOf(work: Work, importId: number): Promise<string> {
  const row = await work.row<object>(
    `SELECT file_hash, encoding, shape, settings, (SELECT max(id) FROM changes) AS change FROM imports WHERE id = $1`,
    [importId],
  );
  const { jurisdictions, changes } = work.law;
  const law = createHash("sha256")
    .update(JSON.stringify([jurisdictions, changes]))
    .digest("hex");
  return JSON.stringify([importId, row, law, work.today]);
}

/** Where the rows of an import are staged: in the client's folder, beside the books. */
export function stagingPath({ folder }: Work, importId: number): string {
  return join(stagingFolder(folder), `import-${importId}.sqlite`);
}

/** Takes away what is staged: after the books changed, none of it can be posted any more. */
export function dropStaged({ folder }: Work): void {
  dropFiles(folder, (name) => !name.endsWith(UNFINISHED));
}

/**
 * Reads the whole file, works out what posting it would do, and stages the finished rows unless something needs
 * mending. Nothing in the books is locked or changed.
 */
export async function stageImport(
  work: Work,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<{ report: ImportReport; rejected: string | null }> {
  const version = await versionOf(work, importId);
  const record = await importRecord(work, clientId, importId);
  refusePosted(record);
  dropFiles(work.folder, (name, age) => age > (name.endsWith(UNFINISHED) ? LEFT_MS : UNPOSTED_MS));
  const setup = await loadSetup(work, clientId);
  progress.step(0, 0, "reading the file");
  const reading = await readImport(work, setup, record);
  const { incoming, parties } = reading;
  const problemCells = () =>
    cellsOf(work, record, new Set([record.shape.headerRow + 1, ...incoming.problems.map(({ row }) => row)]));
  const tables = await stagedTables(work);
  return writeStaging(stagingPath(work, importId), tables, async (bulk) => {
    const count = new EffectCount();
    await writeDocuments(bulk, worked(reading, setup, count, progress), {
      next: firstIds(),
      setup: withAccounts(setup, incoming.accounts),
      work,
    });
    const cells = incoming.problems.length === 0 ? new Map<number, string[]>() : await problemCells();
    const report = reportOf(reading, count, cells);
    const staged: Staged = { version, report, ...mastersOf(incoming, parties) };
    await bulk.insert("about", ABOUT, [[JSON.stringify(staged)]]);
    const rejected = rejectedCsv(cells, record.shape.headerRow, incoming.problems);
    return { value: { report, rejected }, keep: report.problemCount === 0 };
  });
}

/**
 * The documents of a file with their effects, one by one. What the computation itself refuses (no rate in force, an
 * account without role) is a problem of the row; once there is a problem nothing is staged, only counted.
 */
async function* worked(
  { incoming, fresh, rows }: Reading,
  setup: ClientSetup,
  count: EffectCount,
  progress: Progress,
): AsyncGenerator<Worked> {
  const effects = { ...setup.effect, accounts: [...setup.effect.accounts, ...incoming.accounts] };
  let [done, taken] = [0, 0];
  for await (const batch of fresh()) {
    for (const { document, ready } of batch) {
      if (taken % TELL === 0) progress.step(done, Math.max(done, rows), "working out tax");
      taken += 1;
      done += document.rows.length;
      let effect: DocumentEffect;
      try {
        effect = effectAsTold(document, incoming.told.get(document), effects);
      } catch (error) {
        if (!(error instanceof FiscalError)) throw error;
        const row = at(document.rows, 0);
        incoming.problems.push({ row, column: null, field: null, value: "", message: error.message });
        continue;
      }
      count.take(document.input, effect);
      ready.input = document.input;
      if (incoming.problems.length === 0) yield { document: ready, effect };
    }
  }
}

/** The set-up with accounts that are to be made. */
function withAccounts(setup: ClientSetup, accounts: readonly Account[]): ClientSetup {
  const fresh = accounts.map(({ code }, index) => [code, -1 - index] as const);
  return { ...setup, accountIds: new Map([...setup.accountIds, ...fresh]) };
}

function mastersOf(
  { accounts, contacts, items }: Incoming,
  { fresh, filled }: Parties,
): Omit<Staged, "version" | "report"> {
  const told = ({ country, region, taxNumber }: Party) => ({ country, region, taxNumber });
  return {
    accounts,
    contacts,
    items,
    parties: fresh.map((party) => ({ name: party.name ?? "", ...told(party) })),
    filled: [...filled].map(([id, party]) => ({ id, ...told(party) })),
  };
}

/** The tables of documents with the columns that are written, of the types they have in the books. */
async function stagedTables(work: Work): Promise<StagedTables> {
  const tables = Object.entries<readonly string[]>(DOCUMENT_ROWS).map(async ([table, columns]) => {
    const rows = await work.rows<{ name: string; type: string }>(
      "SELECT name, type FROM pragma_table_info($1)",
      [table],
    );
    return [table, rows.filter(({ name }) => columns.includes(name))] as const;
  });
  return {
    ...Object.fromEntries(await Promise.all(tables)),
    about: ABOUT.map((name) => ({ name, type: "TEXT" })),
  };
}

function dropFiles(folder: string, which: (name: string, ageMs: number) => boolean): void {
  const staging = stagingFolder(folder);
  mkdirSync(staging, { recursive: true });
  for (const name of readdirSync(staging)) {
    const path = join(staging, name);
    const age = Date.now() - (statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0);
    if (which(name, age)) rmSync(path, { force: true });
  }
}
