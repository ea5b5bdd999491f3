import { createPrivateKey, createPublicKey, generateKeyPairSync, sign, verify } from "node:crypto";
import type { KeyObject } from "node:crypto";
import { existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { syncFolder } from "./syncFolder.ts";

/** Where an audit trail ended: whose (null is the practice), its last entry, and the hash of that. */
export interface TrailEnd {
  client: number | null;
  entry: number;
  hash: string;
}

/** Where audit trails ended at a moment, signed: kept elsewhere, it shows later what was cut off or written anew. */
export interface Digest {
  format: "fiscalon-digest";
  version: 1;
  at: string;
  trails: TrailEnd[];
  /** Ed25519, SPKI in base64. */
  publicKey: string;
  /** Over the JSON of moment and trails, base64. */
  signature: string;
}

const KEY_FILE = "digest-key.pem";

/** The key of a practice, made when it is first needed; only its owner may read the file. */
function keyOf(dataDir: string): KeyObject {
  const file = join(dataDir, KEY_FILE);
  if (!existsSync(file)) {
    const { privateKey } = generateKeyPairSync("ed25519");
    writeFileSync(`${file}.part`, privateKey.export({ type: "pkcs8", format: "pem" }), {
      mode: 0o600,
      flush: true,
    });
    renameSync(`${file}.part`, file);
    syncFolder(dataDir);
  }
  return createPrivateKey(readFileSync(file));
}

function publicText(key: KeyObject): string {
  return createPublicKey(key).export({ type: "spki", format: "der" }).toString("base64");
}

const contentOf = ({ at, trails }: Pick<Digest, "at" | "trails">) =>
  Buffer.from(JSON.stringify([at, trails]));

export function signedDigest(dataDir: string, at: string, trails: TrailEnd[]): Digest {
  const key = keyOf(dataDir);
  const signature = sign(null, contentOf({ at, trails }), key).toString("base64");
  return { format: "fiscalon-digest", version: 1, at, trails, publicKey: publicText(key), signature };
}

/** Why a file is no digest of a practice, or the digest. */
export function readDigest(dataDir: string, text: string): Digest | string {
  let digest: Digest;
  try {
    digest = JSON.parse(text) as Digest;
    if (digest.format !== "fiscalon-digest") return "is no digest";
    const key = createPublicKey({
      key: Buffer.from(digest.publicKey, "base64"),
      type: "spki",
      format: "der",
    });
    if (!verify(null, contentOf(digest), key, Buffer.from(digest.signature, "base64")))
      return "was changed after it was signed";
  } catch {
    return "is no digest";
  }
  return digest.publicKey === publicText(keyOf(dataDir)) ? digest : "was signed by another practice";
}
