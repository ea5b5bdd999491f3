import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { FiscalError } from "@fiscalon/core/errors";
import { attribute, element, elements, readXml, textAt } from "@fiscalon/core/formats/xml/readXml";
import { node, textNode, writeXml } from "@fiscalon/core/formats/xml/writeXml";
import type { XmlNode } from "@fiscalon/core/formats/xml/writeXml";

function refusal(text: string): string {
  try {
    readXml(text);
  } catch (error) {
    if (error instanceof FiscalError) return `${error.code} ${error.message}`;
    throw error;
  }
  return "";
}

describe("XML as it comes in", () => {
  test.each([
    ["prefixes are left out", `<a:x xmlns:a="urn:a"><a:y>1</a:y></a:x>`],
    ["a mark of the byte order", `\uFEFF<x><y>1</y></x>`],
    ["a declaration and blank lines", `\n<?xml version="1.0" encoding="UTF-8"?>\n<x>\n  <y> 1 </y>\n</x>\n`],
    ["a comment", `<x><!-- none --><y>1</y></x>`],
    ["text taken as it is", `<x><y><![CDATA[1]]></y></x>`],
    ["a reference to a character", `<x><y>&#49;</y></x>`],
    ["a reference in hexadecimals", `<x><y>&#x31;</y></x>`],
  ])("%s", (_what, text) => expect(textAt(readXml(text), "x.y")).toBe("1"));

  test("figures stay text: no 007 becomes 7, no 1.10 becomes 1.1", () => {
    const xml = readXml(`<x id="007"><a>007</a><b>1.10</b><c>1e3</c><d/></x>`);
    expect(["a", "b", "c", "d"].map((name) => textAt(xml, `x.${name}`))).toEqual(["007", "1.10", "1e3", ""]);
    expect([textAt(xml, "x.@id"), textAt(xml, "x.@none"), textAt(xml, "x.none.a")]).toEqual(["007", "", ""]);
  });

  test("names that mean something to a program, signs by name, texts in pieces", () => {
    const xml = readXml(
      `<x><constructor>1</constructor><__proto__>2</__proto__><y a="&euro; 5">one<!-- --> <![CDATA[& two]]></y></x>`,
    );
    expect(["x.constructor", "x.__proto__", "x.y", "x.y.@a"].map((path) => textAt(xml, path))).toEqual([
      "1",
      "2",
      "one & two",
      "€ 5",
    ]);
    expect(({} as { y?: string }).y).toBeUndefined();
  });

  test("elements of one name keep their order, wherever they stand", () => {
    const xml = readXml(`<x><y><z>1</z></y><w/><y><z>2</z><z>3</z></y></x>`);
    expect(elements(xml, "x.y.z").map((one) => textAt({ z: one }, "z"))).toEqual(["1", "2", "3"]);
    expect(elements(xml, "x.none")).toEqual([]);
    expect(element(undefined, "x")).toBeUndefined();
    expect(attribute(undefined, "x")).toBe("");
  });

  test("names with accents, however a program writes them, and a text that only looks like a reference", () => {
    const texts = ["Caf&#233; &amp; S&#xF6;hne", "Café &#38; Söhne", "Café &amp; Söhne"];
    for (const text of texts) expect(textAt(readXml(`<x><y>${text}</y></x>`), "x.y")).toBe("Café & Söhne");
    expect(textAt(readXml(`<x><y>&amp;#49; &amp;lt;</y></x>`), "x.y")).toBe("&#49; &lt;");
  });

  test.each([
    ["a document type", `<!DOCTYPE x><x/>`, "formats/xml-doctype"],
    ["an entity", `<!DOCTYPE x [<!ENTITY a "b">]><x>&a;</x>`, "formats/xml-doctype"],
    [
      "an entity in small letters",
      `<!doctype x [<!entity a SYSTEM "file:///etc/passwd">]><x>&a;</x>`,
      "formats/xml-doctype",
    ],
    ["an element that is not closed", `<x><y></x>`, "formats/xml-malformed"],
    ["a file cut off", `<x><y>1</y>`, "formats/xml-malformed"],
    ["an attribute without quotes", `<x a=1/>`, "formats/xml-malformed"],
    ["no XML at all", `Dear accountant`, "formats/xml-malformed"],
    ["a nest of thousands", `${"<a>".repeat(5000)}${"</a>".repeat(5000)}`, "formats/xml-depth"],
  ])("%s is refused", (_what, text, code) => expect(refusal(text)).toContain(code));

  test("the line of the fault is named", () => {
    expect(refusal(`<x>\n<y>1</y>\n<z>\n</x>`)).toMatch(/broken in line \d/);
  });
});

describe("XML as it goes out", () => {
  const name = fc.constantFrom("ID", "Name", "TaxTotal", "Amt");
  const text = fc.string({ maxLength: 12 }).map((value) => value.replace(/[^\x20-\x7eäöü€₹]/g, "").trim());
  const leaf = fc.tuple(name, text).map(([label, value]): XmlNode => node(label, value));
  const branch = (inside: fc.Arbitrary<XmlNode>) =>
    fc
      .tuple(name, fc.array(inside, { maxLength: 3 }))
      .map(([label, children]): XmlNode => node(label, children));
  const tree = fc.oneof(leaf, branch(leaf), branch(branch(leaf)));

  /** The texts of a document in order, as its reader has them. */
  const textsOf = (value: unknown): string[] => {
    if (typeof value === "string") return value === "" ? [] : [value];
    if (Array.isArray(value)) return value.flatMap(textsOf);
    return Object.values(value as object).flatMap(textsOf);
  };

  test("any text comes back as it was, and none of it becomes an element", () => {
    fc.assert(
      fc.property(text, (value) => {
        const written = writeXml(node("Root", [textNode("Note", value)], { about: value }));
        const read = readXml(written);
        expect([textAt(read, "Root.Note"), textAt(read, "Root.@about")]).toEqual([value, value]);
        const inside = value === "" ? ["@about"] : ["@about", "Note"];
        expect(Object.keys(element(read, "Root") ?? {}).sort()).toEqual(inside);
      }),
      { numRuns: 300 },
    );
  });

  /** The texts a tree was given. */
  const given = ({ children }: XmlNode): string[] =>
    typeof children === "string"
      ? children === ""
        ? []
        : [children]
      : children.flatMap((one) => (one ? given(one) : []));

  test("any tree is well-formed, and holds every text it was given", () => {
    fc.assert(
      fc.property(tree, (part) => {
        const read = readXml(writeXml(node("Root", [part])));
        expect(textsOf(read).sort()).toEqual(given(part).sort());
      }),
      { numRuns: 200 },
    );
  });

  test.each(["</Note><Admin/>", "]]>", "&amp;", `" onload="x`, "<!DOCTYPE x>"])("%j is text", (hostile) => {
    const written = writeXml(node("Root", [textNode("Note", hostile)]));
    expect(textAt(readXml(written), "Root.Note")).toBe(hostile);
  });
});
