import { configFromEnvironment } from "../../config.ts";
import { backUp } from "./backup.ts";
import type { Proof } from "./proof.ts";
import { passphraseIn } from "./sealing.ts";

/**
 * `npm run backup -- FOLDER [how many to keep]`: a copy of FISCALON_DATA, proved, and sealed where
 * FISCALON_BACKUP_KEY names a file with a passphrase; ends with 1 where there is none.
 */
const [, , target, keep = "14"] = process.argv;
const { dataDir, backupKey } = configFromEnvironment(process.env);
if (target === undefined || !/^\d+$/.test(keep) || Number(keep) === 0) {
  console.error("Say where the copy goes: npm run backup -- FOLDER [how many to keep]");
  process.exit(1);
}
await backUpSealed(target).then(
  ({ folder, proof }) =>
    console.log(
      `${folder}: ${proof.clients.length} clients, ${sumOf(proof, "documents")} documents, ${sumOf(proof, "files")} papers; opened and whole.`,
    ),
  (error: Error) => {
    console.error(error.message);
    process.exitCode = 1;
  },
);

async function backUpSealed(target: string): ReturnType<typeof backUp> {
  return backUp(dataDir, target, Number(keep), backupKey === null ? null : passphraseIn(backupKey));
}

function sumOf({ clients }: Proof, what: "documents" | "files"): number {
  return clients.reduce((sum, client) => sum + client[what], 0);
}
