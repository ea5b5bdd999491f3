import { FiscalError } from "@fiscalon/core/errors";
import type { Work, Writing } from "../base/work.ts";
import { notFound } from "../base/errors.ts";
import { keepFile } from "../base/files.ts";
import { releaseByPaper } from "./credit/releaseCredit.ts";
import type { AttachmentView } from "@fiscalon/contract/views";

const MOST_BYTES = 20 * 1024 * 1024;

/** What a file is, by its first bytes; its name may say anything. */
export function typeOf(content: Buffer): string {
  const head = content.subarray(0, 8).toString("latin1");
  if (head.startsWith("%PDF-")) return "application/pdf";
  if (head.startsWith("\u0089PNG\r\n\u001a\n")) return "image/png";
  if (head.startsWith("\u00ff\u00d8\u00ff")) return "image/jpeg";
  if (
    content
      .subarray(0, 200)
      .toString("utf8")
      .replace(/^\uFEFF/, "")
      .trimStart()
      .startsWith("<?xml")
  )
    return "application/xml";
  throw new FiscalError(
    "attachments/type",
    "Only PDF, PNG, JPEG and XML can stand beside a document. Save it as one of these.",
    "file",
  );
}

/** Puts a paper beside a document; the same content is kept once, whatever it is called. */
export async function attach(
  work: Work,
  clientId: number,
  documentId: number,
  file: { name: string; content: Buffer },
): Promise<void> {
  if (file.content.length > MOST_BYTES) {
    throw new FiscalError(
      "attachments/too-large",
      "Papers of up to 20 MB can be kept. Scan it smaller.",
      "file",
    );
  }
  const type = typeOf(file.content);
  const hash = keepFile(work.folder, file.content);
  await work.write((work) =>
    insertAttachment(work, clientId, documentId, {
      hash,
      name: file.name.slice(0, 200),
      type,
      bytes: file.content.length,
    }),
  );
}

export async function insertAttachment(
  work: Writing,
  clientId: number,
  documentId: number,
  { hash, name, type, bytes }: { hash: string; name: string; type: string; bytes: number },
): Promise<void> {
  const document = await work.row(
    "SELECT id FROM documents WHERE id = $1 AND client_id = $2 AND state = 'posted'",
    [documentId, clientId],
  );
  if (!document) throw notFound("This document");
  const { createdAt, createdBy } = work.made;
  await work.run(
    `INSERT INTO attachments (client_id, document_id, file_hash, name, type, bytes, created_at, created_by)
     SELECT $1, $2, $3, $4, $5, $6, $7, $8 WHERE NOT EXISTS
       (SELECT 1 FROM attachments WHERE document_id = $2 AND file_hash = $3 AND removed_at IS NULL)`,
    [clientId, documentId, hash, name, type, bytes, createdAt, createdBy],
  );
  await releaseByPaper(work, clientId, documentId, name);
  await work.record({
    action: "attach",
    entity: "document",
    id: documentId,
    after: { name, type, hash },
  });
}

/** The papers beside a document of the client. */
export async function attachmentsOf(
  work: Work,
  clientId: number,
  documentId: number,
): Promise<AttachmentView[]> {
  const known = await work.row("SELECT 1 FROM documents WHERE id = $1 AND client_id = $2", [
    documentId,
    clientId,
  ]);
  if (!known) throw notFound("This document");
  return work.rows(
    `SELECT a.id, a.name, a.type, a.bytes, a.created_at AS at, p.name AS "by" FROM attachments a
       JOIN people p ON p.id = a.created_by WHERE a.client_id = $1 AND a.document_id = $2 AND a.removed_at IS NULL ORDER BY a.id`,
    [clientId, documentId],
  );
}

/** Takes a paper away from its document; what it was stays in the audit trail, and the file on disk. */
export async function detach(work: Work, clientId: number, attachmentId: number): Promise<void> {
  await work.write(async (work) => {
    const row = await work.row<{ document: number; name: string; hash: string }>(
      `SELECT document_id AS document, name, file_hash AS hash FROM attachments
       WHERE id = $1 AND client_id = $2 AND removed_at IS NULL`,
      [attachmentId, clientId],
    );
    if (!row) throw notFound("This paper");
    await work.run("UPDATE attachments SET removed_at = $2 WHERE id = $1", [attachmentId, work.at]);
    await work.record({
      action: "detach",
      entity: "document",
      id: row.document,
      before: { name: row.name, hash: row.hash },
    });
  });
}

/** The papers of a document go over to its corrected version. */
export async function moveAttachments(work: Writing, from: number, to: number): Promise<void> {
  await work.run("UPDATE attachments SET document_id = $2 WHERE document_id = $1", [from, to]);
}
