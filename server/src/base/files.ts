import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import chardet from "chardet";
import iconv from "iconv-lite";
import { FiscalError } from "@fiscalon/core/errors";
import { syncFolder } from "./syncFolder.ts";

/**
 * Keeps a file under the hash of its content; the same file again is kept once. It is on the disk, under its name, before
 * a row can tell of it.
 */
export function keepFile(folder: string, content: Buffer): string {
  const hash = createHash("sha256").update(content).digest("hex");
  mkdirSync(join(folder, "files"), { recursive: true });
  const path = pathOf(folder, hash);
  if (existsSync(path)) return hash;
  writeFileSync(`${path}.part`, content, { flush: true });
  renameSync(`${path}.part`, path);
  syncFolder(join(folder, "files"));
  return hash;
}

export function readKeptFile(folder: string, hash: string): Buffer {
  return readFileSync(pathOf(folder, hash));
}

function pathOf(folder: string, hash: string): string {
  return join(folder, "files", hash);
}

/** The encoding of a text file: a byte order mark, valid UTF-8, or a guess among the older ones. */
export function encodingOf(content: Buffer): string {
  if (
    content.length > 1 &&
    ((content[0] === 0xff && content[1] === 0xfe) || (content[0] === 0xfe && content[1] === 0xff))
  ) {
    return "utf-16";
  }
  try {
    new TextDecoder("utf-8", { fatal: true }).decode(content);
    return "utf-8";
  } catch {
    const guess = chardet.detect(content.subarray(0, 65_536)) ?? "windows-1252";
    return iconv.encodingExists(guess) && !/utf/i.test(guess) ? guess.toLowerCase() : "windows-1252";
  }
}

export function decoded(content: Buffer, encoding: string): string {
  return iconv.decode(content, encoding);
}

/** Refuses what is certainly no table of text, and says what to do instead. */
export function refuseForeignFile(content: Buffer): void {
  const head = content.subarray(0, 8).toString("latin1");
  if (head.startsWith("PK")) {
    throw new FiscalError(
      "imports/workbook",
      "This is a workbook or an archive. Save the sheet as CSV and drop that.",
      "file",
    );
  }
  if (head.startsWith("%PDF")) {
    throw new FiscalError("imports/pdf", "This is a PDF. Export the register as CSV instead.", "file");
  }
  if (head.startsWith("\u00d0\u00cf\u0011\u00e0")) {
    throw new FiscalError(
      "imports/workbook",
      "This is an old workbook. Save the sheet as CSV and drop that.",
      "file",
    );
  }
}
