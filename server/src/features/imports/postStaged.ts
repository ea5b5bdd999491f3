import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import type { ImportReport } from "@fiscalon/contract/imports";
import { rmSync } from "node:fs";
import { claimStaging } from "../../base/stagingFile.ts";
import type { Writing } from "../../base/work.ts";
import { DOCUMENT_ROWS, nextIds } from "../../books/documents/documentRows.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { insertAttachment } from "../../books/papers.ts";
import { releaseFacts, turningRegistrations } from "../../books/payments/releaseFacts.ts";
import type { ImportRecord } from "../../db/models.ts";
import type { Progress } from "../../base/progress.ts";
import { addAccounts, addContacts, addItems, fillContacts } from "./masterRecords.ts";
import { importRecord, refusePosted } from "./service.ts";
import { dropStaged, stagingPath, versionOf } from "./stage.ts";
import type { Staged } from "./stage.ts";

/** Rows that are put into the books by one statement: what it would take back is kept in memory until it is through. */
const ROWS = 5_000;

/** What the numbers of staged rows are moved by, so that they follow those in the books. */
type Bases = Record<
  "documents" | "entries" | "lines" | "postings" | "facts" | "contacts" | "accounts",
  number
>;

/** What is staged was worked out from other books, another law or another file; nothing was posted. */
export class Overtaken extends Error {}

/**
 * Puts staged rows into the books, all or none.
 * @throws Overtaken unless the books, the law and the file are what they were when the rows were staged
 */
export async function postStaged(
  work: Writing,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<ImportReport> {
  const record = await importRecord(work, clientId, importId);
  refusePosted(record);
  await attachStaged(work, stagingPath(work, importId));
  const { content } = await work.one<{ content: string }>("SELECT content FROM staged.about");
  const staged = JSON.parse(content) as Staged;
  if (staged.version !== (await versionOf(work, importId))) throw new Overtaken();
  const accounts = await addAccounts(work, clientId, staged.accounts);
  const made = {
    contacts: await addContacts(work, clientId, staged.contacts),
    items: await addItems(work, clientId, staged.items),
  };
  const contacts = await work.lastId("contacts");
  await addContacts(work, clientId, staged.parties);
  await fillContacts(work, staged.filled);
  const next = await nextIds(work);
  const bases = {
    documents: next.document - 1,
    entries: next.entry - 1,
    lines: next.line - 1,
    postings: next.posting - 1,
    facts: next.fact - 1,
    contacts,
    accounts,
  };
  await copyRows(work, bases, progress);
  await releaseWaiting(work, clientId, bases.documents);
  await keepPaper(work, clientId, record, bases.documents);
  const report = { ...staged.report, made };
  await work.models.imports.update(
    { report, state: "posted", documents: report.fresh },
    { where: { id: importId }, ...work.options },
  );
  const documents = await countOf(work, "documents");
  await work.record({ action: "post", entity: "import", id: importId, after: { documents } });
  dropStaged(work);
  return report;
}

/** Once it is open here its second name is not needed: whatever becomes of this process, it does not stay. */
async function attachStaged(work: Writing, path: string): Promise<void> {
  const claimed = claimStaging(path);
  if (claimed === null) throw new Overtaken();
  try {
    await work.run("ATTACH $1 AS staged", [claimed]);
  } finally {
    rmSync(claimed, { force: true });
  }
}

/** Refuses a file of which some cells need mending. */
export function refuseProblems({ problemCount }: ImportReport): void {
  if (problemCount === 0) return;
  throw new FiscalError(
    "imports/problems",
    `${problemCount} ${problemCount === 1 ? "cell needs" : "cells need"} mending before anything is posted. Mend them, or leave those rows out.`,
  );
}

async function copyRows(work: Writing, bases: Bases, progress: Progress): Promise<void> {
  const tables = Object.keys(DOCUMENT_ROWS) as (keyof typeof DOCUMENT_ROWS)[];
  const counts = await Promise.all(tables.map((table) => countOf(work, table)));
  const total = counts.reduce((sum, count) => sum + count, 0);
  let done = 0;
  for (const [index, table] of tables.entries()) {
    const rows = at(counts, index);
    for (let from = 0; from < rows; from += ROWS) {
      progress.step(done + from, total, "posting documents");
      await work.run(copyText(table, bases), [from, from + ROWS, ...stampsOf(table, work)]);
    }
    done += rows;
  }
  progress.step(total, total, "posting documents");
}

async function countOf(work: Writing, table: keyof typeof DOCUMENT_ROWS): Promise<number> {
  return (await work.one<{ count: number }>(`SELECT count(*) AS count FROM staged.${table}`)).count;
}

/** One statement that puts some rows of a table into the books. */
function copyText(table: keyof typeof DOCUMENT_ROWS, bases: Bases): string {
  const columns: readonly string[] = DOCUMENT_ROWS[table];
  const values: Readonly<Record<string, string>> = {
    id: `id + ${bases[table]}`,
    document_id: `document_id + ${bases.documents}`,
    entry_id: `entry_id + ${bases.entries}`,
    contact_id: following("contact_id", bases.contacts),
    account_id: following("account_id", bases.accounts),
    created_at: "$3",
    created_by: "$4",
  };
  return `INSERT INTO main.${table} (${columns.join(", ")})
    SELECT ${columns.map((name) => values[name] ?? name).join(", ")} FROM staged.${table}
    WHERE id > $1 AND id <= $2 ORDER BY id`;
}

/** Who makes a row and when, as far as its table says so. */
function stampsOf(table: keyof typeof DOCUMENT_ROWS, { at, person }: Writing): (string | number)[] {
  const columns: readonly string[] = DOCUMENT_ROWS[table];
  if (!columns.includes("created_at")) return [];
  return columns.includes("created_by") ? [at, person] : [at];
}

/** A number below zero is that of a row made now. */
function following(column: string, base: number): string {
  return `CASE WHEN ${column} < 0 THEN ${base} - ${column} ELSE ${column} END`;
}

/** After a change of basis what waits may be due at once, although no payment comes. */
async function releaseWaiting(work: Writing, clientId: number, base: number): Promise<void> {
  const setup = await loadSetup(work, clientId);
  const all = turningRegistrations(work, setup).length > 0;
  const waiting = await work.rows<{ id: number }>(
    all
      ? `SELECT id + ${base} AS id FROM staged.documents`
      : `SELECT DISTINCT document_id + ${base} AS id FROM staged.facts WHERE held = 1`,
  );
  await releaseFacts(
    work,
    setup,
    waiting.map(({ id }) => id),
  );
}

/** An e-invoice is itself the paper of its document. */
async function keepPaper(
  work: Writing,
  clientId: number,
  { content, fileHash, fileName, bytes }: ImportRecord,
  base: number,
): Promise<void> {
  if (content !== "e-invoice") return;
  const paper = { hash: fileHash, name: fileName, type: "application/xml", bytes };
  const documents = await work.rows<{ id: number }>(`SELECT id + ${base} AS id FROM staged.documents`);
  for (const { id } of documents) await insertAttachment(work, clientId, id, paper);
}
