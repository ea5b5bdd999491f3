import { cpSync, existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { Proof } from "./proof.ts";
import { isSealed, openFolder, readSealed } from "./sealing.ts";

/** Where a copy says what was proved of it. */
export const PROOF = "backup.json";

export interface BackupNote {
  made: string;
  proof: Proof;
}

/** Whether a folder is a finished copy, sealed or not. */
export function isCopy(folder: string): boolean {
  return existsSync(join(folder, PROOF)) || isSealed(folder);
}

/**
 * What was proved of a copy when it was made.
 * @param passphrase null where none is set
 * @throws Error in words
 */
export async function noteOf(folder: string, passphrase: string | null): Promise<BackupNote> {
  if (!isCopy(folder)) throw new Error(`${folder} is no copy made by backup: it has no ${PROOF}.`);
  const text = isSealed(folder)
    ? await readSealed(folder, PROOF, requirePassphrase(folder, passphrase))
    : readFileSync(join(folder, PROOF), "utf8");
  return JSON.parse(text) as BackupNote;
}

/**
 * Takes a copy, or a folder in it, out to another place.
 * @throws Error in words
 */
export async function takeOut(
  copy: string,
  to: string,
  passphrase: string | null,
  within = "",
): Promise<void> {
  if (isSealed(copy)) await openFolder(copy, to, requirePassphrase(copy, passphrase), within);
  else cpSync(join(copy, within), to, { recursive: true });
}

function requirePassphrase(folder: string, passphrase: string | null): string {
  if (passphrase !== null) return passphrase;
  throw new Error(`${folder} is sealed. Set FISCALON_BACKUP_KEY to the file with its passphrase.`);
}
