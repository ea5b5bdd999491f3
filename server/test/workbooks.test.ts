import fc from "fast-check";
import { strToU8, zipSync } from "fflate";
import readXlsx from "read-excel-file/node";
import { expect, test } from "vitest";
import { openFirstSheet, openSheets } from "../dist/base/workbook/sheets.js";
import { workbookOf } from "./support/workbook.ts";

/** Workbooks as writers of all kinds make them. What they may look like: ECMA-376 part 1, from memory. */

const PACKAGE = "http://schemas.openxmlformats.org/package/2006/relationships";
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";

interface Made {
  /** By their names; the text between the tags of sheetData. */
  sheets: Record<string, string>;
  hidden?: string[];
  workbook?: string;
  styles?: string;
  texts?: string;
  level?: 0 | 9;
  encode?: (xml: string) => Uint8Array<ArrayBuffer>;
}

function made({
  sheets,
  hidden = [],
  workbook = "",
  styles = "",
  texts = "",
  level = 9,
  encode,
}: Made): Buffer {
  const names = Object.keys(sheets);
  const relations = names.map(
    (_, n) => `<Relationship Id="s${n}" Type="${OFFICE}/worksheet" Target="/book/Tabelle ${n}.xml"/>`,
  );
  const listed = names.map(
    (name, n) =>
      `<sheet name="${name}" sheetId="${n + 7}" q:id="s${n}"${hidden.includes(name) ? ' state="hidden"' : ""}/>`,
  );
  const parts: Record<string, string> = {
    "_rels/.rels": `<Relationships xmlns="${PACKAGE}"><Relationship Id="a" Type="${OFFICE}/officeDocument" Target="book/main.xml"/></Relationships>`,
    "book/_rels/main.xml.rels": `<Relationships xmlns="${PACKAGE}">${relations.join("")}<Relationship Id="y" Type="${OFFICE}/styles" Target="looks.xml"/><Relationship Id="t" Type="${OFFICE}/sharedStrings" Target="words/all.xml"/></Relationships>`,
    "book/main.xml": `<workbook xmlns="${MAIN}" xmlns:q="${OFFICE}">${workbook}<sheets>${listed.join("")}</sheets></workbook>`,
    "book/looks.xml": `<styleSheet xmlns="${MAIN}">${styles}</styleSheet>`,
    "book/words/all.xml": `<sst xmlns="${MAIN}">${texts}</sst>`,
  };
  const files = Object.fromEntries(Object.entries(parts).map(([name, xml]) => [name, strToU8(xml)]));
  names.forEach((name, n) => {
    const xml = `<x:worksheet xmlns:x="${MAIN}"><x:sheetData>${sheets[name]}</x:sheetData></x:worksheet>`;
    files[`book/Tabelle ${n}.xml`] = (encode ?? strToU8)(xml);
  });
  return Buffer.from(zipSync(files, { level }));
}

async function rowsOf(book: Made | Buffer): Promise<string[][]> {
  const { rows } = await openFirstSheet(Buffer.isBuffer(book) ? book : made(book));
  return [...rows()];
}

const cell = (value: string, attributes = "") => `<x:c ${attributes}><x:v>${value}</x:v></x:c>`;

test("what a library wrote is read as another library reads it", async () => {
  const day = fc
    .integer({ min: 36_526, max: 73_050 })
    .map((serial) => new Date(Date.UTC(1899, 11, 30) + serial * 86_400_000));
  const text = fc.stringMatching(/^[A-Za-zÀ-ž0-9<>&"' _/-]{1,20}$/).filter((one) => one.trim() !== "");
  const amount = fc.integer({ min: -1e11, max: 1e11 }).map((minor) => minor / 100);
  const value = fc.oneof(text, amount, day, fc.constant(null));
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(value, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 12 }),
      async (rows) => {
        fc.pre(rows.some((row) => row.some((one) => one !== null)));
        const content = await workbookOf(rows);
        const [sheet] = await readXlsx(content);
        const theirs = (sheet?.data ?? []).map((row) =>
          row.map((one) => (one instanceof Date ? one.toISOString().slice(0, 10) : String(one ?? ""))),
        );
        const width = theirs[0]?.length ?? 0;
        const ours = await rowsOf(content);
        expect(ours.map((row) => [...row, ...Array<string>(width - row.length).fill("")])).toEqual(theirs);
      },
    ),
    { seed: 13, numRuns: 60 },
  );
});

test.each([
  ["packed", 9, strToU8],
  ["stored", 0, strToU8],
  ["in UTF-16", 9, (xml: string) => new Uint8Array(Buffer.from(`\uFEFF${xml}`, "utf16le"))],
] as const)(
  "cells without references, names with a prefix, parts under any name, %s",
  async (_, level, encode) => {
    const sheets = {
      Übersicht: `<x:row>${cell("0", 't="s"')}${cell("19.99")}</x:row><x:row>${cell("2", 't="s"')}</x:row>`,
    };
    const texts =
      "<si><t>Número</t></si><si><t>no one's</t></si><si><r><t>two </t></r><r><t>pieces</t></r></si>";
    expect(await rowsOf({ sheets, texts, level, encode })).toEqual([["Número", "19.99"], ["two pieces"]]);
  },
);

test("rows and cells that are left out are empty, empty ones at the end are none", async () => {
  const sheets = {
    One: `<x:row r="3"><x:c r="B3"><x:v>1</x:v></x:c><x:c r="AA3"><x:v>2</x:v></x:c></x:row>
      <x:row r="5"><x:c r="A5" t="str"><x:f>A1</x:f><x:v>of a formula</x:v></x:c><x:c r="B5"/></x:row>
      <x:row r="1048576"><x:c r="A1048576" s="0"/></x:row>`,
  };
  const third = ["", "1", ...Array<string>(24).fill(""), "2"];
  expect(await rowsOf({ sheets })).toEqual([[], [], third, [], ["of a formula"]]);
});

test("numbers are what stands on the screen: days, percentages, digits in front, fifteen digits", async () => {
  const formats = [
    '<numFmt numFmtId="164" formatCode="dd/mm/yyyy;@"/>',
    '<numFmt numFmtId="165" formatCode="000000"/>',
    '<numFmt numFmtId="166" formatCode="#,##0.00 &quot;per day&quot;"/>',
    '<numFmt numFmtId="167" formatCode="[$-409]h:mm AM/PM"/>',
    '<numFmt numFmtId="168" formatCode="[&lt;1]&quot;none&quot;;yyyy-mm-dd"/>',
  ];
  const ids = [0, 164, 165, 166, 10, 14, 167, 168];
  const styles = `<numFmts>${formats.join("")}</numFmts><cellStyleXfs><xf numFmtId="14"/></cellStyleXfs><cellXfs>${ids.map((id) => `<xf numFmtId="${id}"/>`).join("")}</cellXfs>`;
  const values = [
    ["0.30000000000000004", 0],
    ["46143", 1],
    ["46143.99999999", 5],
    ["417", 2],
    ["12.5", 3],
    ["0.2", 4],
    ["0.07", 4],
    ["0.75", 6],
    ["1E3", 0],
    ["46143", 7],
  ] as const;
  const row = values.map(([value, style]) => cell(value, `s="${style}"`)).join("");
  const sheets = { One: `<x:row>${row}</x:row>` };
  const read = [
    "0.3",
    "2026-05-01",
    "2026-05-02",
    "000417",
    "12.5",
    "20%",
    "7%",
    "18:00:00",
    "1000",
    "2026-05-01",
  ];
  expect(await rowsOf({ sheets, styles })).toEqual([read]);
  const from1904 = await rowsOf({ sheets, styles, workbook: '<workbookPr date1904="1"/>' });
  expect(from1904[0]?.[1]).toBe("2030-05-02");
});

test("texts: in the cell, of several pieces, with signs XML has none for; faults and answers of formulas", async () => {
  const inline = (xml: string) => `<x:c t="inlineStr"><x:is>${xml}</x:is></x:c>`;
  const cells = [
    inline("<x:t> in the cell </x:t>"),
    inline("<x:r><x:t>A</x:t></x:r><x:r><x:t>B</x:t></x:r><x:rPh><x:t>spoken</x:t></x:rPh>"),
    inline("<x:t>line_x000A_break &amp; <![CDATA[<more>]]></x:t>"),
    cell("#N/A", 't="e"'),
    cell("1", 't="b"'),
    cell("2026-05-03T00:00:00Z", 't="d"'),
    cell("007", 't="str"'),
  ];
  const read = ["in the cell", "AB", "line\nbreak & <more>", "", "true", "2026-05-03", "007"];
  expect(await rowsOf({ sheets: { One: `<x:row>${cells.join("")}</x:row>` } })).toEqual([read]);
});

test("sheets that are hidden or empty are passed over, the others keep their order and names", async () => {
  const row = (value: number) => `<x:row>${cell(String(value))}</x:row>`;
  const sheets = { Lists: row(1), Blank: "<x:row/>", "A &amp; B": row(2), Last: row(3) };
  const read = [...(await openSheets(made({ sheets, hidden: ["Lists"] })))];
  expect(read.map(({ name, rows }) => [name, [...rows()]])).toEqual([
    ["A & B", [["2"]]],
    ["Last", [["3"]]],
  ]);
  await expect(openFirstSheet(made({ sheets: { Blank: "" } }))).rejects.toMatchObject({
    code: "formats/empty-file",
  });
});

test.each([
  [
    "rows out of order",
    '<x:row r="2"><x:c><x:v>1</x:v></x:c></x:row><x:row r="2"><x:c><x:v>1</x:v></x:c></x:row>',
  ],
  ["a text that is not there", `<x:row>${cell("7", 't="s"')}</x:row>`],
  ["an entity of its own", "<x:row><x:c t='str'><x:v>&own;</x:v></x:c></x:row>"],
  ["a cell without a column", `<x:row>${cell("7", 'r="12"')}</x:row>`],
  ["an end that is missing", "<x:row><x:c>"],
  ["a cell of two million signs", `<x:row>${cell("9".repeat(2_000_000), 't="str"')}</x:row>`],
])("%s: it is refused, and said what to do", async (_, sheet) => {
  await expect(rowsOf({ sheets: { One: sheet } })).rejects.toMatchObject({ code: "imports/workbook" });
});

test.each([
  ["more columns", `<x:row>${cell("1").repeat(201)}</x:row>`],
  ["more rows", `<x:row r="400001">${cell("1")}</x:row>`],
])("%s than can be read", async (_, sheet) => {
  await expect(rowsOf({ sheets: { One: sheet } })).rejects.toMatchObject({ code: "imports/too-large" });
});

test("a workbook that was damaged on its way is refused, wherever it was", async () => {
  const rows = Array.from({ length: 300 }, (_, n) => [`INV-${n}`, n + 0.25]);
  const content = await workbookOf(rows);
  const whole = JSON.stringify(await rowsOf(content));
  for (let at = 0; at < content.length; at += 7) {
    const damaged = Buffer.from(content);
    damaged.writeUInt8(damaged.readUInt8(at) ^ 4, at);
    const outcome = await rowsOf(damaged).then(JSON.stringify, ({ code }: { code: string }) => code);
    expect([whole, "imports/workbook", "imports/too-large", "formats/empty-file"], `byte ${at}`).toContain(
      outcome,
    );
  }
});
