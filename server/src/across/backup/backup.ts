import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { isDeepStrictEqual } from "node:util";
import { join, resolve } from "node:path";
import { QueryTypes, Sequelize } from "sequelize";
import { BOOKS_FILE, folderOfClient, PRACTICE_FILE } from "../../practice/clientFolder.ts";
import { noteOf, PROOF, takeOut } from "./copyFolder.ts";
import type { BackupNote } from "./copyFolder.ts";
import { proofOf } from "./proof.ts";
import type { Proof } from "./proof.ts";
import { sealFolder } from "./sealing.ts";

const FILES = "files";
/** What was broken off so long ago is nobody's work any more. */
const DAY_MS = 86_400_000;
const PREFIX = "fiscalon-";
/** A copy that is to be sealed is made here, in the data folder, and gone when it is. */
const BEFORE_SEALING = "copy-before-sealing";
/** The name of a finished copy, which says when it was made. */
export const COPY = /^fiscalon-(?<day>\d{4}-\d\d-\d\d)T(?<h>\d\d)-(?<m>\d\d)-(?<s>\d\d)-(?<ms>\d{3})Z$/;

/**
 * Copies a data folder while a server may be working on it: the file of the practice as it is at one moment, then each
 * client it knows, books before papers, opened and added up before the copy gets its name. Older copies beyond `keep` are
 * taken away afterwards.
 * @param passphrase with which the copy is sealed: it is then made and proved beside the data, and only sealed files
 * come to the target; null where it is not
 * @returns the folder of the copy, and what was proved of it
 * @throws Error in words
 */
export async function backUp(
  dataDir: string,
  target: string,
  keep: number,
  passphrase: string | null = null,
): Promise<{ folder: string; proof: Proof }> {
  if (!existsSync(join(dataDir, PRACTICE_FILE))) throw new Error(`There is no practice in ${dataDir}.`);
  const made = new Date().toISOString();
  const folder = join(resolve(target), PREFIX + made.replace(/[:.]/g, "-"));
  const unfinished = `${folder}.unfinished`;
  mkdirSync(unfinished, { recursive: true });
  const plain = passphrase === null ? unfinished : join(dataDir, BEFORE_SEALING);
  if (passphrase !== null) rmSync(plain, { recursive: true, force: true });
  const proof = await provedCopy(dataDir, plain, made);
  if (passphrase !== null) {
    await sealFolder(plain, unfinished, passphrase);
    rmSync(plain, { recursive: true, force: true });
  }
  renameSync(unfinished, folder);
  takeOldAway(resolve(target), keep);
  return { folder, proof };
}

/** Copies everything, opens it and adds it up. */
async function provedCopy(dataDir: string, unfinished: string, made: string): Promise<Proof> {
  mkdirSync(unfinished, { recursive: true });
  await copyDatabase(join(dataDir, PRACTICE_FILE), join(unfinished, PRACTICE_FILE));
  for (const client of await clientsIn(join(unfinished, PRACTICE_FILE))) {
    const [from, to] = [join(dataDir, folderOfClient(client)), join(unfinished, folderOfClient(client))];
    mkdirSync(to, { recursive: true });
    await copyDatabase(join(from, BOOKS_FILE), join(to, BOOKS_FILE));
    // Papers are kept before their row is, and never changed: those of the database's moment are all there.
    if (existsSync(join(from, FILES)))
      cpSync(join(from, FILES), join(to, FILES), {
        recursive: true,
        filter: (path) => !path.endsWith(".part"),
      });
  }
  const proof = await proofOf(unfinished);
  refuseBroken(proof);
  writeFileSync(join(unfinished, PROOF), JSON.stringify({ made, proof } satisfies BackupNote, null, 2));
  tidy(unfinished);
  return proof;
}

/** Keeps so many of the newest copies; what was broken off long ago goes, too. */
function takeOldAway(target: string, keep: number): void {
  const names = readdirSync(target);
  const old = names
    .filter((name) => name.startsWith(PREFIX) && !name.endsWith(".unfinished"))
    .sort()
    .slice(0, -keep);
  const broken = names.filter(
    (name) => name.endsWith(".unfinished") && statSync(join(target, name)).mtimeMs < Date.now() - DAY_MS,
  );
  for (const name of [...old, ...broken]) rmSync(join(target, name), { recursive: true, force: true });
}

/**
 * Puts a copy into a new place, and proves that the same figures are there before it gets its name.
 * @throws Error in words; nothing stays behind then
 */
export async function restore(
  backup: string,
  dataDir: string,
  passphrase: string | null = null,
): Promise<Proof> {
  const { proof } = await noteOf(backup, passphrase);
  if (existsSync(dataDir) && readdirSync(dataDir).length > 0)
    throw new Error(`${dataDir} is not empty. Restore into a new folder, and set FISCALON_DATA to it.`);
  const unfinished = `${resolve(dataDir)}.unfinished`;
  rmSync(unfinished, { recursive: true, force: true });
  try {
    await takeOut(backup, unfinished, passphrase);
  } catch (error) {
    rmSync(unfinished, { recursive: true, force: true });
    throw error;
  }
  rmSync(join(unfinished, PROOF));
  const now = await proofOf(unfinished);
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
  // Opening what is not there would make it.
  if (!existsSync(from)) throw new Error(`${from} is missing. Bring it back first; no copy was made.`);
  const source = new Sequelize({ dialect: "sqlite", storage: from, logging: false });
  try {
    await source.query("VACUUM INTO $1", { bind: [to], type: QueryTypes.RAW });
  } finally {
    await source.close();
  }
}

/** The clients of a copied practice; nobody writes in it. */
async function clientsIn(file: string): Promise<number[]> {
  const copy = new Sequelize({ dialect: "sqlite", storage: file, logging: false });
  try {
    const rows = await copy.query<{ id: number }>(
      "SELECT id FROM clients WHERE state = 'ready' ORDER BY id",
      {
        type: QueryTypes.SELECT,
      },
    );
    return rows.map(({ id }) => id);
  } finally {
    await copy.close();
  }
}

function refuseBroken({ clients, ...practice }: Proof): void {
  for (const { name, integrity, auditTrail } of [{ name: "the practice", ...practice }, ...clients]) {
    if (integrity !== "ok")
      throw new Error(`The file of ${name} is damaged: ${integrity}. The copy is not kept.`);
    if (auditTrail === null)
      throw new Error(`The audit trail of ${name} is broken. Run verify-audit; the copy is not kept.`);
  }
}

/** Takes logs away that opening the databases left. */
function tidy(folder: string): void {
  for (const name of readdirSync(folder, { recursive: true, encoding: "utf8" }))
    if (/\.sqlite-(wal|shm)$/.test(name)) rmSync(join(folder, name), { force: true });
}
