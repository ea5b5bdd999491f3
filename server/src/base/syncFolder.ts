import { closeSync, fsyncSync, openSync } from "node:fs";

/** Puts the names in a folder on the disk: a file that was written or renamed there is found after a loss of power. */
export function syncFolder(folder: string): void {
  const open = openSync(folder, "r");
  try {
    fsyncSync(open);
  } finally {
    closeSync(open);
  }
}
