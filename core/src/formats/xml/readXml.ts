import { XMLParser, XMLValidator } from "fast-xml-parser";
import { FiscalError } from "../../errors.ts";

/** An element: its children by name, its attributes by `@name`, its text by `#text`. */
export type XmlElement = { [name: string]: XmlValue };
type XmlValue = string | XmlElement | (string | XmlElement)[];

/** Deeper than any document of the trade. */
const MOST_DEPTH = 60;

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: "@",
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  ignoreDeclaration: true,
  trimValues: true,
  processEntities: true,
  // Characters by their number (&#233;) come with the set of HTML; entities of a file's own are refused below.
  htmlEntities: true,
});

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
  refuseDepth(bare);
  const valid = XMLValidator.validate(bare);
  if (valid !== true) {
    throw new FiscalError(
      "formats/xml-malformed",
      `This XML is broken in line ${valid.err.line}: ${valid.err.msg} Ask for the file again.`,
      "file",
    );
  }
  try {
    return parser.parse(bare) as XmlElement;
  } catch (error) {
    const why = error instanceof Error ? error.message : "";
    throw new FiscalError("formats/xml-malformed", `This XML cannot be read: ${why}`, "file");
  }
}

/** Counts opening against closing tags; a nest of thousands would exhaust the stack of any reader. */
function refuseDepth(text: string): void {
  let depth = 0;
  for (const [tag] of text.matchAll(/<[^!?][^>]*>/g)) {
    if (tag.startsWith("</")) depth -= 1;
    else if (!tag.endsWith("/>")) depth += 1;
    if (depth > MOST_DEPTH)
      throw new FiscalError("formats/xml-depth", "This XML is nested too deeply to be genuine.", "file");
  }
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
