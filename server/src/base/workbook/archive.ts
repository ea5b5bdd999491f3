import { crc32 } from "node:zlib";
import { Inflate } from "fflate";
import { fromBufferPromise } from "yauzl";
import type { Entry } from "yauzl";
import { tooLarge } from "./unreadable.ts";

/** What a workbook may come to when unpacked; a genuine register of 400,000 rows needs half. */
const MOST_UNPACKED = 600 * 1024 * 1024;
/** Bytes as they are packed that are unpacked at once. */
const PIECE = 16 * 1024;
const STORED = 0;

/** A part of an archive: what it comes to unpacked, and its bytes, unpacked as they are asked for. */
export interface Part {
  size: number;
  bytes: () => Iterable<Uint8Array>;
}

/** The parts of an archive by their paths, in small letters, as its directory names them. */
export type Archive = ReadonlyMap<string, Part>;

/**
 * Opens an archive by its directory; nothing is unpacked yet.
 * @throws FiscalError `imports/too-large`; what is damaged throws what the reader of archives throws
 */
export async function openArchive(content: Buffer): Promise<Archive> {
  const zip = await fromBufferPromise(content, { lazyEntries: true });
  const archive = new Map<string, Part>();
  let unpacked = 0;
  for await (const entry of zip.eachEntry()) {
    unpacked += entry.uncompressedSize;
    if (unpacked > MOST_UNPACKED) throw tooLarge();
    const { fileDataStart: from } = await zip.readLocalFileHeaderPromise(entry, { minimal: true });
    const packed = content.subarray(from, from + entry.compressedSize);
    archive.set(entry.fileName.toLowerCase(), {
      size: entry.uncompressedSize,
      bytes: () => whole(entry, entry.compressionMethod === STORED ? [packed] : inflated(packed)),
    });
  }
  return archive;
}

/** Bytes of a part; what is longer than its directory says, or is not what was packed, is not handed on to its end. */
function* whole(
  { uncompressedSize, crc32: expected }: Entry,
  pieces: Iterable<Uint8Array>,
): Generator<Uint8Array> {
  let [size, sum] = [0, 0];
  for (const piece of pieces) {
    size += piece.length;
    sum = crc32(piece, sum);
    if (size > uncompressedSize) throw new Error("A part of the archive is longer than its directory says.");
    yield piece;
  }
  if (sum !== expected) throw new Error("A part of the archive is damaged.");
}

function* inflated(packed: Uint8Array): Generator<Uint8Array> {
  const pieces: Uint8Array[] = [];
  const inflate = new Inflate((piece) => pieces.push(piece));
  for (let at = 0; at < packed.length; at += PIECE) {
    inflate.push(packed.subarray(at, at + PIECE), at + PIECE >= packed.length);
    yield* pieces.splice(0);
  }
}
