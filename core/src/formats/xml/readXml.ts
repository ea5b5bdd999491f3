import { SaxesParser } from "saxes";
import { FiscalError } from "../../errors.ts";

/** An element: its children by name, its attributes by `@name`, its text by `#text`. */
export type XmlElement = { [name: string]: XmlValue };
type XmlValue = string | XmlElement | (string | XmlElement)[];

/** Deeper than any document of the trade. */
const MOST_DEPTH = 60;
/** Signs that are read at once. */
const PIECE = 64 * 1024;
/** Names of signs that programs write as if XML knew them. */
const SIGNS = { nbsp: "\u00a0", euro: "€", pound: "£", yen: "¥", cent: "¢", inr: "₹", copy: "©", reg: "®" };

/**
 * Reads XML without namespaces prefixes. Document types are refused before anything is parsed, so that no entity can
 * be declared, let alone fetched or blown up.
 * @param text the whole document
 * @throws FiscalError `formats/xml-doctype`, `formats/xml-depth`, `formats/xml-malformed` with the line
 */
export function readXml(text: string): XmlElement {
  const bare = text.replace(/^\uFEFF/, "").trimStart();
  if (/<!(DOCTYPE|ENTITY)/i.test(bare)) {
    throw new FiscalError(
      "formats/xml-doctype",
      "This XML declares a document type or entities, which no invoice, audit file or bank statement needs. It is not read; ask for the file without them.",
      "file",
    );
  }
  const parser = new SaxesParser();
  Object.assign(parser.ENTITIES, SIGNS);
  parser.on("error", ({ message }) => {
    throw new FiscalError(
      "formats/xml-malformed",
      `This XML is broken in line ${parser.line}: ${message.replace(/^(\d+:)+ ?/, "")} Ask for the file again.`,
      "file",
    );
  });
  const root = treeOf(parser);
  for (let at = 0; at < bare.length; at += PIECE) parser.write(bare.slice(at, at + PIECE));
  parser.close();
  return root;
}

/** What a parser reads, as it is read. */
function treeOf(parser: SaxesParser): XmlElement {
  const root = empty();
  const open: XmlElement[] = [root];
  parser.on("opentag", ({ attributes }) => {
    if (open.length > MOST_DEPTH)
      throw new FiscalError("formats/xml-depth", "This XML is nested too deeply to be genuine.", "file");
    const element = empty();
    for (const [name, value] of Object.entries(attributes)) element[`@${localName(name)}`] = value.trim();
    open.push(element);
  });
  const take = (piece: string) => {
    const element = open.at(-1);
    if (element && element !== root) element["#text"] = textOf(element) + piece;
  };
  parser.on("text", take);
  parser.on("cdata", take);
  parser.on("closetag", ({ name }) => {
    const element = open.pop();
    const parent = open.at(-1);
    if (element && parent) put(parent, localName(name), plain(element));
  });
  return root;
}

/** Without what all objects have: an element may be called `constructor`. */
function empty(): XmlElement {
  return Object.create(null) as XmlElement;
}

/** An element with nothing but a text is that text; blanks between elements are none. */
function plain(element: XmlElement): string | XmlElement {
  const text = textOf(element).trim();
  const names = Object.keys(element);
  if (names.length === 0 || (names.length === 1 && "#text" in element)) return text;
  if (text === "") delete element["#text"];
  else element["#text"] = text;
  return element;
}

function textOf({ "#text": text }: XmlElement): string {
  return typeof text === "string" ? text : "";
}

function put(parent: XmlElement, name: string, value: string | XmlElement): void {
  const there = parent[name];
  if (there === undefined) parent[name] = value;
  else if (Array.isArray(there)) there.push(value);
  else parent[name] = [there, value];
}

/** A name without its prefix. */
export function localName(name: string): string {
  return name.slice(name.indexOf(":") + 1);
}

/** The elements at a path such as `Ntry.NtryDtls`, in order of appearance. */
export function elements(of: XmlElement | undefined, path: string): XmlElement[] {
  let found: XmlElement[] = of ? [of] : [];
  for (const name of path.split(".")) {
    found = found.flatMap((one) => {
      const value = one[name];
      const list = value === undefined ? [] : Array.isArray(value) ? value : [value];
      return list.map((item) => (typeof item === "string" ? { "#text": item } : item));
    });
  }
  return found;
}

/** The first element at a path. */
export function element(of: XmlElement | undefined, path: string): XmlElement | undefined {
  return elements(of, path)[0];
}

/** The text of the first element (or attribute, `a.@b`) at a path; empty where there is none. */
export function textAt(of: XmlElement | undefined, path: string): string {
  const at = path.lastIndexOf(".@");
  if (at >= 0) return attribute(element(of, path.slice(0, at)), path.slice(at + 2));
  const text = element(of, path)?.["#text"];
  return typeof text === "string" ? text.trim() : "";
}

/** An attribute of an element; empty where it has none. */
export function attribute(of: XmlElement | undefined, name: string): string {
  const value = of?.[`@${name}`];
  return typeof value === "string" ? value : "";
}
