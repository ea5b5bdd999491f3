import { existsSync, mkdirSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { signedDigest } from "../../base/digest.ts";
import type { TrailEnd } from "../../base/digest.ts";
import { syncFolder } from "../../base/syncFolder.ts";
import { BOOKS_FILE, folderOfClient, PRACTICE_FILE } from "../../practice/clientFolder.ts";
import { lastEntry } from "../../practice/lastEntry.ts";

/** Writes where the audit trails of a practice and of clients end, signed, into a file of a folder, once. */
export async function writeDigest(
  dataDir: string,
  folder: string,
  name: string,
  clients: readonly number[],
): Promise<void> {
  const file = join(folder, name);
  if (existsSync(file)) return;
  const trails: TrailEnd[] = [];
  for (const client of [null, ...clients]) {
    const books = client === null ? PRACTICE_FILE : join(folderOfClient(client), BOOKS_FILE);
    const last = await lastEntry(join(dataDir, books));
    if (last) trails.push({ client, entry: last.id, hash: last.hash });
  }
  const digest = signedDigest(dataDir, new Date().toISOString(), trails);
  mkdirSync(folder, { recursive: true });
  writeFileSync(`${file}.part`, JSON.stringify(digest, null, 1), { flush: true });
  renameSync(`${file}.part`, file);
  syncFolder(folder);
}
