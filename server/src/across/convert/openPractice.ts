import { existsSync } from "node:fs";
import { join } from "node:path";
import { Practice } from "../../practice/practice.ts";
import { PRACTICE_FILE } from "../../practice/clientFolder.ts";
import { convertFolder, OLDER_FILE } from "./convertFolder.ts";

/**
 * Opens the practice in a data folder; a folder of the shape before, with one database for all clients, is converted
 * first.
 * @param person the name of who works in a new one
 * @param told what is done, in words
 */
export async function openPractice(
  dataDir: string,
  person: string,
  told: (words: string) => void,
): Promise<Practice> {
  if (existsSync(join(dataDir, OLDER_FILE))) await convertFolder(dataDir, told);
  if (!existsSync(join(dataDir, PRACTICE_FILE))) told(`A new practice begins in ${dataDir}.`);
  return Practice.open(dataDir, person);
}
