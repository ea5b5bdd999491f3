/** An element to be written: name, attributes, and text or children. */
export interface XmlNode {
  name: string;
  attributes?: Record<string, string>;
  children: string | readonly (XmlNode | null)[];
}

/** An element; children that are null are left out, so that optional parts read like the others. */
export function node(
  name: string,
  children: XmlNode["children"],
  attributes?: Record<string, string>,
): XmlNode {
  return attributes ? { name, attributes, children } : { name, children };
}

/** An element with a text, or none where the text is empty. */
export function textNode(
  name: string,
  text: string | null | undefined,
  attributes?: Record<string, string>,
): XmlNode | null {
  return text === null || text === undefined || text === "" ? null : node(name, text, attributes);
}

/** The document as text, indented by two blanks. Characters XML does not know are left out. */
export function writeXml(root: XmlNode): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n${written(root, "")}`;
}

/** An element as text, as it stands in a document at a depth: 0 is the root. */
export function writeElement(element: XmlNode, depth: number): string {
  return written(element, "  ".repeat(depth));
}

function written({ name, attributes = {}, children }: XmlNode, indent: string): string {
  const attributeText = Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escaped(value).replaceAll('"', "&quot;")}"`)
    .join("");
  if (typeof children === "string")
    return `${indent}<${name}${attributeText}>${escaped(children)}</${name}>\n`;
  const inner = children.map((child) => (child ? written(child, `${indent}  `) : "")).join("");
  return inner === ""
    ? `${indent}<${name}${attributeText}/>\n`
    : `${indent}<${name}${attributeText}>\n${inner}${indent}</${name}>\n`;
}

function escaped(text: string): string {
  return (
    text
      // eslint-disable-next-line no-control-regex -- exactly the characters XML 1.0 does not allow
      .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, "")
      .replaceAll("&", "&amp;")
      .replaceAll("<", "&lt;")
      .replaceAll(">", "&gt;")
  );
}
