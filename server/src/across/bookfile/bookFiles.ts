import { at as element } from "@fiscalon/core/at";
import { createHash } from "node:crypto";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookImport, BookPaper } from "@fiscalon/contract/bookFeeds";
import type { Work, Writing } from "../../base/work.ts";
import type { ImportRecord } from "../../db/models.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import { insertAttachment, typeOf } from "../../books/papers.ts";
import { keepFile, readKeptFile } from "../../base/files.ts";
import type { PlacedRows } from "./pointers.ts";

/** More than this makes a text no program takes. */
const MOST_BYTES = 140 * 1024 * 1024;

/** Papers beside documents that count, by document. */
export async function papersByDocument(work: Work, clientId: number): Promise<Map<number, BookPaper[]>> {
  const rows = await work.rows<{ document: number; name: string; file: string }>(
    `SELECT document_id AS document, name, file_hash AS file FROM attachments
     WHERE client_id = $1 AND removed_at IS NULL ORDER BY id`,
    [clientId],
  );
  const papers = groupBy(rows, (row) => row.document);
  return new Map([...papers].map(([id, own]) => [id, own.map(({ name, file }) => ({ name, file }))]));
}

/** Imports that are in the books. */
export async function importsOfBook(
  work: Work,
  clientId: number,
): Promise<{ ids: number[]; imports: BookImport[] }> {
  const found = await work.models.imports.findAll({
    where: { clientId, state: "posted" },
    order: ["id"],
    ...work.options,
  });
  const rows = found.map((row) => row.get({ plain: true }) as ImportRecord & { id: number });
  return {
    ids: rows.map(({ id }) => id),
    imports: rows.map((row) => ({
      content: row.content,
      direction: row.direction,
      name: row.fileName,
      file: row.fileHash,
      encoding: row.encoding,
      shape: row.shape,
      settings: row.settings,
      report: row.report === null ? null : withoutIds(row.report),
    })),
  };
}

/** What an import made is told by ids of the database, which mean nothing elsewhere. */
function withoutIds({ made: _ids, ...report }: NonNullable<ImportRecord["report"]>) {
  return report;
}

/**
 * The contents the file refers to, each once.
 * @throws FiscalError `book/too-large` where they are more than a book file can hold
 */
export function contentsOf(folder: string, hashes: readonly string[]): Record<string, string> {
  let bytes = 0;
  const contents: [string, string][] = [];
  for (const hash of [...new Set(hashes)].sort()) {
    const content = readKeptFile(folder, hash);
    bytes += content.length;
    if (bytes > MOST_BYTES) {
      throw new FiscalError(
        "book/too-large",
        "Papers and imported files are more than a book file can hold (140 MB). Save it without papers.",
      );
    }
    contents.push([hash, content.toString("base64")]);
  }
  return Object.fromEntries(contents);
}

/** Keeps the contents of the file on disk; their names must be true. Those of a book that is refused stay unused. */
export function keepContents(folder: string, { files = {} }: BookFile): Map<string, Buffer> {
  const contents = new Map<string, Buffer>();
  for (const [hash, base64] of Object.entries(files)) {
    const content = Buffer.from(base64, "base64");
    if (createHash("sha256").update(content).digest("hex") !== hash) {
      throw new FiscalError(
        "book/file-differs",
        "This content does not have the SHA-256 it is filed under; the book file was changed or cut.",
        `files.${hash}`,
      );
    }
    contents.set(hash, content);
  }
  for (const content of contents.values()) keepFile(folder, content);
  return contents;
}

function contentOf(contents: ReadonlyMap<string, Buffer>, hash: string, field: string): Buffer {
  const content = contents.get(hash);
  if (content) return content;
  throw new FiscalError("book/unknown-file", "The content of this file is not under files.", field);
}

/** Puts the papers of a book file beside their documents. */
export async function addPapers(
  work: Writing,
  clientId: number,
  book: BookFile,
  contents: ReadonlyMap<string, Buffer>,
  placed: PlacedRows,
): Promise<void> {
  for (const [index, { papers = [] }] of (book.documents ?? []).entries()) {
    for (const [at, { name, file }] of papers.entries()) {
      const field = `documents[${index}].papers[${at}].file`;
      const content = contentOf(contents, file, field);
      const type = withinField(`documents[${index}].papers[${at}]`, () => typeOf(content));
      await insertAttachment(work, clientId, element(placed.documents, index), {
        hash: file,
        name,
        type,
        bytes: content.length,
      });
    }
  }
}

/** The imports of a book file, before their documents. Returns their ids by row. */
export async function addImports(
  work: Writing,
  clientId: number,
  book: BookFile,
  contents: ReadonlyMap<string, Buffer>,
): Promise<number[]> {
  const ids: number[] = [];
  for (const [index, { name, file, ...one }] of (book.imports ?? []).entries()) {
    const documents = (book.documents ?? []).filter(({ origin }) => origin?.import === `/imports/${index}`);
    const row = await work.models.imports.create(
      {
        clientId,
        ...one,
        fileName: name,
        fileHash: file,
        bytes: contentOf(contents, file, `imports[${index}].file`).length,
        state: "posted",
        documents: documents.length,
        rejectedHash: null,
        ...work.made,
      },
      work.options,
    );
    ids.push(row.id);
  }
  return ids;
}
