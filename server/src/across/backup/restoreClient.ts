import { existsSync, mkdirSync, renameSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { isDeepStrictEqual } from "node:util";
import { syncFolder } from "../../base/syncFolder.ts";
import { holdFolder } from "../../db/folderLock.ts";
import { folderOfClient } from "../../practice/clientFolder.ts";
import { Practice } from "../../practice/practice.ts";
import { noteOf, takeOut } from "./copyFolder.ts";
import { proofOfClient } from "./proof.ts";
import type { ClientProof } from "./proof.ts";

/**
 * Puts one client of a copy back into a practice that no server works on: its folder is brought beside the one that is
 * there, opened and added up, and takes its place when the figures are those of the copy. What was there is kept.
 * @returns what was proved, and where what was there is kept
 * @throws Error in words; nothing was changed then
 */
export async function restoreClient(
  backup: string,
  dataDir: string,
  client: number,
  passphrase: string | null = null,
): Promise<{ proof: ClientProof; kept: string | null }> {
  const { proof } = await noteOf(backup, passphrase);
  const wanted = proof.clients.find(({ id }) => id === client);
  if (!wanted) throw new Error(`${backup} holds no client ${client}.`);
  const free = await holdFolder(dataDir);
  try {
    const place = join(dataDir, folderOfClient(client));
    const unfinished = `${place}.unfinished`;
    rmSync(unfinished, { recursive: true, force: true });
    await takeOut(backup, unfinished, passphrase, folderOfClient(client));
    const now = await proofOfClient(unfinished, client, wanted.name);
    if (!isDeepStrictEqual(now, wanted)) {
      rmSync(unfinished, { recursive: true, force: true });
      throw new Error(`What ${backup} holds of client ${client} is not what it held when it was made.`);
    }
    const kept = existsSync(place)
      ? `${place}.before-${new Date().toISOString().replace(/[:.]/g, "-")}`
      : null;
    mkdirSync(dirname(place), { recursive: true });
    await forgetSummary(dataDir, client, wanted.name);
    if (kept !== null) renameSync(place, kept);
    renameSync(unfinished, place);
    syncFolder(dirname(place));
    return { proof: now, kept };
  } finally {
    await free();
  }
}

/** The practice knows the client, and takes it as it is: a copy is older than what it last heard of. */
async function forgetSummary(dataDir: string, client: number, name: string): Promise<void> {
  const practice = await Practice.open(dataDir, "Nobody");
  try {
    const work = await practice.begin();
    await work.write(async (work) => {
      await work.run("DELETE FROM client_summaries WHERE client_id = $1", [client]);
      await work.run(
        `INSERT INTO clients (id, name, folder, state, created_at, created_by) VALUES ($1, $2, $3, 'ready', $4, $5)
         ON CONFLICT (id) DO NOTHING`,
        [client, name, folderOfClient(client), work.at, work.person],
      );
      await work.record({ action: "restore", entity: "client", id: client, after: { name } });
    });
  } finally {
    await practice.close();
  }
}
