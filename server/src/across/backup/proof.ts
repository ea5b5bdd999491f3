import { checkChain } from "../../base/checkChain.ts";
import { workOn } from "../../base/begin.ts";
import { Database } from "../../db/database.ts";

/** What a data folder holds, in figures that two copies of it must share. */
export interface Proof {
  /** `ok`, or what the database itself finds wrong. */
  integrity: string;
  /** Last entry of the chain of the audit trail; null where it is broken. */
  auditTrail: string | null;
  changes: number;
  files: number;
  clients: { name: string; documents: number; debits: number; tax: number; returns: number }[];
}

/** Opens a data folder and adds it up: sums of postings and tax by client, the chain of the audit trail, files. */
export async function proofOf(dataDir: string, files: number): Promise<Proof> {
  const db = await Database.open(dataDir, "Nobody");
  try {
    const checks = await db.rows<{ quick_check: string }>("PRAGMA quick_check(5)");
    const { entries, broken, last } = await checkChain(await workOn(db, dataDir)());
    const clients = await db.rows<Proof["clients"][number]>(
      `SELECT c.name, (SELECT count(*) FROM documents d WHERE d.client_id = c.id) AS documents,
         (SELECT coalesce(sum(p.amount), 0) FROM postings p WHERE p.client_id = c.id AND p.live = 1 AND p.amount > 0) AS debits,
         (SELECT coalesce(sum(f.tax), 0) FROM facts f WHERE f.client_id = c.id AND f.live = 1) AS tax,
         (SELECT coalesce(sum(r.net), 0) FROM returns r WHERE r.client_id = c.id) AS returns
       FROM clients c ORDER BY c.id`,
    );
    return {
      integrity: checks.map((check) => check.quick_check).join("; "),
      auditTrail: broken === null ? last : null,
      changes: entries,
      files,
      clients,
    };
  } finally {
    await db.close();
  }
}
