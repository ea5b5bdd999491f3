import { copyFileSync, existsSync, linkSync, mkdirSync } from "node:fs";
import { join } from "node:path";
import { syncFolder } from "../../base/syncFolder.ts";
import type { Database } from "../../db/database.ts";

/** Puts the papers a client's books name into the client's folder: the same files under a second name where that can be. */
export async function linkPapers(books: Database, dataDir: string, folder: string): Promise<void> {
  const named = await books.rows<{ hash: string }>(
    `SELECT file_hash AS hash FROM attachments UNION SELECT file_hash FROM imports
     UNION SELECT rejected_hash FROM imports WHERE rejected_hash IS NOT NULL`,
  );
  if (named.length === 0) return;
  mkdirSync(join(folder, "files"), { recursive: true });
  for (const { hash } of named) {
    const [from, to] = [join(dataDir, "files", hash), join(folder, "files", hash)];
    if (!existsSync(from)) continue;
    try {
      linkSync(from, to);
    } catch {
      copyFileSync(from, to);
    }
  }
  syncFolder(join(folder, "files"));
}
