import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { checkChain } from "../../base/checkChain.ts";
import { lawOf } from "../../base/law.ts";
import { Work } from "../../base/work.ts";
import { BOOKS_MIGRATIONS } from "../../db/books/firstBooks.ts";
import { Database } from "../../db/database.ts";
import { damageOf } from "../../db/integrity.ts";
import { BOOKS_FILE } from "../../practice/clientFolder.ts";
import { Practice } from "../../practice/practice.ts";

/** What the file of a practice, or of a client, is found to be. */
interface FileProof {
  /** `ok`, or what the database itself finds wrong. */
  integrity: string;
  /** Last entry of the chain of the audit trail; null where it is broken. */
  auditTrail: string | null;
  changes: number;
}

/** What a client's folder holds, in figures that two copies of it must share. */
export interface ClientProof extends FileProof {
  id: number;
  name: string;
  files: number;
  documents: number;
  debits: number;
  tax: number;
  returns: number;
}

/** What a data folder holds, in figures that two copies of it must share. */
export interface Proof extends FileProof {
  clients: ClientProof[];
}

/** Opens a data folder and adds it up: every file, every audit trail, sums of postings and tax by client, papers. */
export async function proofOf(dataDir: string): Promise<Proof> {
  const practice = await Practice.open(dataDir, "Nobody");
  try {
    const clients: ClientProof[] = [];
    for (const { id, name } of await practice.clients())
      clients.push(await practice.inPassing(id, (work) => clientProof(work, id, name)));
    return { ...(await fileProof(await practice.begin(), practice.db)), clients };
  } finally {
    await practice.close();
  }
}

/** Opens the folder of one client, wherever it is, and adds it up. */
export async function proofOfClient(folder: string, id: number, name: string): Promise<ClientProof> {
  const db = await Database.open(join(folder, BOOKS_FILE), { migrations: BOOKS_MIGRATIONS });
  try {
    const at = new Date().toISOString();
    return await clientProof(
      new Work({ db, folder, law: lawOf([], []), zone: "UTC", person: 1, at }),
      id,
      name,
    );
  } finally {
    await db.close();
  }
}

async function clientProof(work: Work, id: number, name: string): Promise<ClientProof> {
  const papers = join(work.folder, "files");
  const sums = await work.one<Pick<ClientProof, "documents" | "debits" | "tax" | "returns">>(
    `SELECT (SELECT count(*) FROM documents) AS documents,
       (SELECT coalesce(sum(amount), 0) FROM postings WHERE live = 1 AND amount > 0) AS debits,
       (SELECT coalesce(sum(tax), 0) FROM facts WHERE live = 1) AS tax,
       (SELECT coalesce(sum(net), 0) FROM returns) AS returns`,
  );
  const files = existsSync(papers) ? readdirSync(papers).length : 0;
  return { id, name, files, ...sums, ...(await fileProof(work, work.database)) };
}

async function fileProof(work: Work, db: Database): Promise<FileProof> {
  const { entries, broken, last } = await checkChain(work);
  return {
    integrity: (await damageOf(db)) ?? "ok",
    auditTrail: broken === null ? last : null,
    changes: entries,
  };
}
