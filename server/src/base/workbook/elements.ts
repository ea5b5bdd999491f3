import { SaxesParser } from "saxes";
import { localName } from "@fiscalon/core/formats/xml/readXml";
import type { Part } from "./archive.ts";

/** Signs of a part that are read at once. */
const PIECE = 64 * 1024;
/** Signs without an element between them: more than any cell may hold. */
const LONGEST_TEXT = 1024 * 1024;
const UTF_16_LE = 0xff;
const UTF_16_BE = 0xfe;

export type Attributes = Readonly<Record<string, string>>;

/** What is done with the elements of a part as they come, by their names without a prefix. */
export interface Handlers {
  open: (name: string, attributes: Attributes) => void;
  close?: (name: string) => void;
  text?: (text: string) => void;
}

/**
 * Reads a part element by element and gives what its handlers find, as it is found. No entity is known beside the five
 * of XML itself. What is not well formed throws.
 * @param handlers makes them; `found` is what they call with what they find
 */
export function* elements<T>(part: Part, handlers: (found: (one: T) => void) => Handlers): Generator<T> {
  const found: T[] = [];
  const { open, close, text } = handlers((one) => found.push(one));
  let quiet = 0;
  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", ({ name, attributes }) => {
    quiet = 0;
    open(localName(name), attributes);
  });
  parser.on("closetag", ({ name }) => close?.(localName(name)));
  if (text) {
    parser.on("text", text);
    parser.on("cdata", text);
  }
  for (const piece of textOf(part)) {
    quiet += piece.length;
    if (quiet > LONGEST_TEXT) throw new Error("A text is longer than a cell can hold.");
    parser.write(piece);
    yield* found.splice(0);
  }
  parser.close();
  yield* found;
}

/** An attribute whatever its prefix, which it must have. */
export function prefixedAttribute(attributes: Attributes, name: string): string | undefined {
  return Object.entries(attributes).find(([key]) => key.endsWith(`:${name}`))?.[1];
}

function* textOf({ bytes }: Part): Generator<string> {
  let decoder: TextDecoder | undefined;
  for (const piece of bytes()) {
    decoder ??= new TextDecoder(encodingBy(piece[0]));
    for (let at = 0; at < piece.length; at += PIECE)
      yield decoder.decode(piece.subarray(at, at + PIECE), { stream: true });
  }
}

function encodingBy(first: number | undefined): string {
  if (first === UTF_16_LE) return "utf-16le";
  return first === UTF_16_BE ? "utf-16be" : "utf-8";
}
