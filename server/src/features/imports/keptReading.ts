import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { RegisterDocument } from "@fiscalon/core/incoming/registerReading";
import type { ImportReport } from "@fiscalon/contract/imports";
import type { Work } from "../../base/work.ts";
import type { Incoming } from "./incoming.ts";
import type { Parties } from "./parties.ts";

/** A document that is not in the books yet; `effect` is there once it could be worked out. */
export interface FreshDocument {
  document: RegisterDocument;
  key: string;
  effect?: DocumentEffect;
}

/** What a file brings to the books as they are. */
export interface Reading {
  fresh: FreshDocument[];
  incoming: Incoming;
  parties: Parties;
  report: ImportReport;
  /** Rows that cannot be read, with what is wrong; null where there are none. */
  rejected: string | null;
}

/** How long what a dry run found is worth its memory. */
const KEPT_MS = 5 * 60_000;

let kept: { version: string; reading: Reading } | null = null;
let forget: NodeJS.Timeout | undefined;

/**
 * What a reading depends on: the file, how it is read, and the last change of the practice. Whatever is done to set-up
 * or books is noted in the audit trail, so the same last change means the same books.
 */
export async function versionOf(work: Work, importId: number): Promise<string> {
  const row = await work.row<object>(
    `SELECT file_hash, encoding, shape, settings, (SELECT max(id) FROM changes) AS change FROM imports WHERE id = $1`,
    [importId],
  );
  return JSON.stringify([work.folder, importId, row]);
}

/** Keeps a reading of this process for the posting that usually follows it. */
export function keepReading(version: string, reading: Reading): void {
  kept = { version, reading };
  clearTimeout(forget);
  forget = setTimeout(() => (kept = null), KEPT_MS).unref();
}

/** The reading of this version, handed out once; null where another must be made. */
export function keptReading(version: string): Reading | null {
  const reading = kept?.version === version ? kept.reading : null;
  kept = null;
  return reading;
}
