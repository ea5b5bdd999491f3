import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { AuditCheck } from "@fiscalon/contract/audit";
import { readDigest } from "../../base/digest.ts";
import type { TrailEnd } from "../../base/digest.ts";
import type { Work } from "../../base/work.ts";

/** The digests of a folder, to be compared with the audit trails they are of. */
export function digestsIn(dataDir: string, folder: string) {
  const files = existsSync(folder)
    ? readdirSync(folder)
        .filter((name) => name.endsWith(".json"))
        .sort()
    : [];
  const wrong: AuditCheck["digests"]["wrong"] = [];
  const ends: (TrailEnd & { file: string })[] = [];
  for (const file of files) {
    const digest = readDigest(dataDir, readFileSync(join(folder, file), "utf8"));
    if (typeof digest === "string") wrong.push({ file, client: null, why: `it ${digest}` });
    else for (const end of digest.trails) ends.push({ ...end, file });
  }
  return {
    /** Looks for what was noted of a trail; null is that of the practice. */
    async compare(client: number | null, work: Work): Promise<void> {
      const own = ends.filter((end) => end.client === client);
      if (own.length === 0) return;
      const rows = await work.rows<{ id: number; hash: string }>(
        "SELECT id, hash FROM changes WHERE id IN (SELECT value FROM json_each($1))",
        [JSON.stringify(own.map(({ entry }) => entry))],
      );
      const hashes = new Map(rows.map(({ id, hash }) => [id, hash]));
      for (const { file, entry, hash } of own) {
        const now = hashes.get(entry);
        if (now === hash) continue;
        const what = now === undefined ? "is not there any more" : "says something else";
        wrong.push({
          file,
          client,
          why: `entry ${entry} ${what}: the trail was cut off or written anew, or an older copy was brought back`,
        });
      }
    },
    found: (): AuditCheck["digests"] => ({ read: files.length, wrong }),
  };
}
