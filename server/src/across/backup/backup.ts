import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { isDeepStrictEqual } from "node:util";
import { join, resolve } from "node:path";
import { QueryTypes, Sequelize } from "sequelize";
import { proofOf } from "./proof.ts";
import type { Proof } from "./proof.ts";

const DATABASE = "fiscalon.sqlite";
const FILES = "files";
const PROOF = "backup.json";
const PREFIX = "fiscalon-";

interface BackupNote {
  made: string;
  proof: Proof;
}

/**
 * Copies a data folder while a server may be working on it: the database as it is at one moment, then the papers, opened
 * and added up before the copy gets its name. Older copies beyond `keep` are taken away afterwards.
 * @returns the folder of the copy, and what was proved of it
 * @throws Error in words
 */
export async function backUp(
  dataDir: string,
  target: string,
  keep: number,
): Promise<{ folder: string; proof: Proof }> {
  if (!existsSync(join(dataDir, DATABASE))) throw new Error(`There is no Fiscalon database in ${dataDir}.`);
  const made = new Date().toISOString();
  const folder = join(resolve(target), PREFIX + made.replace(/[:.]/g, "-"));
  const unfinished = `${folder}.unfinished`;
  mkdirSync(unfinished, { recursive: true });
  await copyDatabase(join(dataDir, DATABASE), join(unfinished, DATABASE));
  // Papers are kept before their row is, and never changed: those of the database's moment are all there.
  const papers = join(dataDir, FILES);
  if (existsSync(papers))
    cpSync(papers, join(unfinished, FILES), { recursive: true, filter: (path) => !path.endsWith(".part") });
  const proof = await proofOf(unfinished, countFiles(unfinished));
  refuseBroken(proof, "The copy");
  writeFileSync(join(unfinished, PROOF), JSON.stringify({ made, proof } satisfies BackupNote, null, 2));
  tidy(unfinished);
  renameSync(unfinished, folder);
  const old = readdirSync(resolve(target))
    .filter((name) => name.startsWith(PREFIX) && !name.endsWith(".unfinished"))
    .sort()
    .slice(0, -keep);
  for (const name of old) rmSync(join(resolve(target), name), { recursive: true, force: true });
  return { folder, proof };
}

/**
 * Puts a copy into a new place, and proves that the same figures are there before it gets its name.
 * @throws Error in words; nothing stays behind then
 */
export async function restore(backup: string, dataDir: string): Promise<Proof> {
  if (!existsSync(join(backup, PROOF)))
    throw new Error(`${backup} is no copy made by backup: it has no ${PROOF}.`);
  if (existsSync(dataDir) && readdirSync(dataDir).length > 0)
    throw new Error(`${dataDir} is not empty. Restore into a new folder, and set FISCALON_DATA to it.`);
  const { proof } = JSON.parse(readFileSync(join(backup, PROOF), "utf8")) as BackupNote;
  const unfinished = `${resolve(dataDir)}.unfinished`;
  rmSync(unfinished, { recursive: true, force: true });
  cpSync(backup, unfinished, { recursive: true, filter: (path) => !path.endsWith(PROOF) });
  const now = await proofOf(unfinished, countFiles(unfinished));
  if (!isDeepStrictEqual(now, proof)) {
    rmSync(unfinished, { recursive: true, force: true });
    throw new Error(`What ${backup} holds is not what it held when it was made. Take another copy.`);
  }
  tidy(unfinished);
  rmSync(dataDir, { recursive: true, force: true });
  renameSync(unfinished, dataDir);
  return now;
}

/** The database as it is at one moment, in one file without a log beside it. */
async function copyDatabase(from: string, to: string): Promise<void> {
  const source = new Sequelize({ dialect: "sqlite", storage: from, logging: false });
  try {
    await source.query("VACUUM INTO $1", { bind: [to], type: QueryTypes.RAW });
  } finally {
    await source.close();
  }
}

function countFiles(folder: string): number {
  const papers = join(folder, FILES);
  return existsSync(papers) ? readdirSync(papers).length : 0;
}

function refuseBroken({ integrity, auditTrail }: Proof, what: string): void {
  if (integrity !== "ok") throw new Error(`${what} is damaged: ${integrity}. It is not kept.`);
  if (auditTrail === null)
    throw new Error(`${what} has a broken audit trail. Run verify-audit; it is not kept.`);
}

/** Logs of the database that opening it left. */
function tidy(folder: string): void {
  for (const end of ["-wal", "-shm"]) rmSync(join(folder, DATABASE + end), { force: true });
}
