import { configFromEnvironment } from "../../config.ts";
import { restore } from "./backup.ts";
import { restoreClient } from "./restoreClient.ts";
import { passphraseIn } from "./sealing.ts";

/**
 * `npm run restore -- COPY NEW-FOLDER`: puts a copy into a new place, with proof of the same figures.
 * `npm run restore -- COPY DATA-FOLDER --client 5`: puts one client of it back where the others are.
 */
const [, , backup, target, option, number] = process.argv;
if (backup === undefined || target === undefined || (option !== undefined && option !== "--client")) {
  console.error("Say which copy, and where to: npm run restore -- COPY NEW-FOLDER [--client NUMBER]");
  process.exit(1);
}
await (option === undefined ? whole(backup, target) : one(backup, target, Number(number))).catch(
  (error: Error) => {
    console.error(error.message);
    process.exitCode = 1;
  },
);

async function whole(backup: string, target: string): Promise<void> {
  const { clients } = await restore(backup, target, passphrase());
  console.log(
    `${target}: ${clients.length} clients; the same figures as when it was made. Start with FISCALON_DATA=${target}.`,
  );
}

async function one(backup: string, target: string, client: number): Promise<void> {
  const { proof, kept } = await restoreClient(backup, target, client, passphrase());
  console.log(`${proof.name}: ${proof.documents} documents; the same figures as when the copy was made.`);
  if (kept !== null) console.log(`What was there is kept in ${kept}.`);
}

/** Of copies that are sealed. */
function passphrase(): string | null {
  const { backupKey } = configFromEnvironment(process.env);
  return backupKey === null ? null : passphraseIn(backupKey);
}
