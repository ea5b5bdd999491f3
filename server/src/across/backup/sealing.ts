import { createCipheriv, createDecipheriv, randomBytes, scrypt } from "node:crypto";
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { dirname, join, sep } from "node:path";
import { pipeline } from "node:stream/promises";

/** What stands beside sealed files and says so. */
const SEAL = "sealed.json";
const SUFFIX = ".sealed";
const CIPHER = "aes-256-gcm";
const IV_BYTES = 12;
const TAG_BYTES = 16;
const KEY_BYTES = 32;
/** What a key that was guessed costs whoever guesses: 32 MB and a tenth of a second each. */
const SCRYPT = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
const LEAST_PASSPHRASE = 16;

interface SealNote {
  format: "fiscalon-sealed";
  version: 1;
  /** Base64; with it the passphrase gives the key. */
  salt: string;
}

/**
 * The passphrase copies are sealed with.
 * @param file holds it; line ends around it do not count
 * @throws Error in words
 */
export function passphraseIn(file: string): string {
  if (!existsSync(file))
    throw new Error(`There is no passphrase in ${file}. Set FISCALON_BACKUP_KEY to the file.`);
  const passphrase = readFileSync(file, "utf8").trim();
  if (passphrase.length < LEAST_PASSPHRASE)
    throw new Error(
      `The passphrase in ${file} is shorter than ${LEAST_PASSPHRASE} characters. Take a longer one.`,
    );
  return passphrase;
}

export function isSealed(folder: string): boolean {
  return existsSync(join(folder, SEAL));
}

/**
 * Seals every file of a folder into another one, each with AES-256-GCM under one key of this folder, together with its
 * name: one that was changed, or put in the place of another, does not open.
 */
export async function sealFolder(from: string, to: string, passphrase: string): Promise<void> {
  const salt = randomBytes(16);
  const key = await keyWith(passphrase, salt);
  const note: SealNote = { format: "fiscalon-sealed", version: 1, salt: salt.toString("base64") };
  mkdirSync(to, { recursive: true });
  writeFileSync(join(to, SEAL), JSON.stringify(note), { flush: true });
  for (const name of filesIn(from)) {
    const target = join(to, name + SUFFIX);
    mkdirSync(dirname(target), { recursive: true });
    await pipeline(sealed(join(from, name), name, key), createWriteStream(target, { flush: true }));
  }
}

/**
 * Opens what was sealed into another folder.
 * @param within only what lies in this folder of it
 * @throws Error in words where the passphrase is another one, or something was changed
 */
export async function openFolder(from: string, to: string, passphrase: string, within = ""): Promise<void> {
  const key = await keyOf(from, passphrase);
  const inside = join(from, within);
  for (const name of filesIn(inside)) {
    if (!name.endsWith(SUFFIX)) continue;
    const target = join(to, name.slice(0, -SUFFIX.length));
    mkdirSync(dirname(target), { recursive: true });
    await pipeline(opened(inside, name, key, within), createWriteStream(target)).catch((error: unknown) => {
      rmSync(target, { force: true });
      throw error;
    });
  }
}

/** The content of one small file of a sealed folder, as text. */
export async function readSealed(folder: string, name: string, passphrase: string): Promise<string> {
  const parts: Buffer[] = [];
  for await (const part of opened(folder, name + SUFFIX, await keyOf(folder, passphrase), ""))
    parts.push(part);
  return Buffer.concat(parts).toString("utf8");
}

async function* sealed(file: string, name: string, key: Buffer): AsyncGenerator<Buffer> {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv(CIPHER, key, iv);
  cipher.setAAD(Buffer.from(name));
  yield iv;
  for await (const part of createReadStream(file)) yield cipher.update(part as Buffer);
  yield cipher.final();
  yield cipher.getAuthTag();
}

async function* opened(folder: string, name: string, key: Buffer, within: string): AsyncGenerator<Buffer> {
  const file = join(folder, name);
  const { size } = statSync(file);
  const ends = size - TAG_BYTES;
  if (ends < IV_BYTES) throw doesNotOpen(file);
  const decipher = createDecipheriv(CIPHER, key, await bytes(file, 0, IV_BYTES));
  decipher.setAAD(Buffer.from(plainName(join(within, name.slice(0, -SUFFIX.length)))));
  decipher.setAuthTag(await bytes(file, ends, size));
  if (ends > IV_BYTES)
    for await (const part of createReadStream(file, { start: IV_BYTES, end: ends - 1 }))
      yield decipher.update(part as Buffer);
  try {
    yield decipher.final();
  } catch {
    throw doesNotOpen(file);
  }
}

async function bytes(file: string, from: number, to: number): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of createReadStream(file, { start: from, end: to - 1 })) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

async function keyOf(folder: string, passphrase: string): Promise<Buffer> {
  const { salt } = JSON.parse(readFileSync(join(folder, SEAL), "utf8")) as SealNote;
  return keyWith(passphrase, Buffer.from(salt, "base64"));
}

function keyWith(passphrase: string, salt: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) =>
    scrypt(passphrase, salt, KEY_BYTES, SCRYPT, (error, key) => (error ? reject(error) : resolve(key))),
  );
}

/** Every file in a folder and those in it, by its name from there, however the system writes it. */
function filesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile())
    .map(({ parentPath, name }) => plainName(join(parentPath, name).slice(folder.length + 1)));
}

function plainName(path: string): string {
  return path.split(sep).join("/");
}

function doesNotOpen(file: string): Error {
  return new Error(`${file} does not open: the passphrase is another one, or the file was changed.`);
}
