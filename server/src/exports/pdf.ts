import { createRequire } from "node:module";
import type Pdfmake from "pdfmake";
import type { CustomTableLayout, TDocumentDefinitions } from "pdfmake/interfaces.js";

const require = createRequire(import.meta.url);
const file = (family: string, weight: number) =>
  require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`);
const text = {
  normal: file("atkinson-hyperlegible-next", 400),
  bold: file("atkinson-hyperlegible-next", 700),
};
const mono = {
  normal: file("atkinson-hyperlegible-mono", 400),
  bold: file("atkinson-hyperlegible-mono", 400),
};
const FONT_FILES = new Set([...Object.values(text), ...Object.values(mono)]);

let loaded: Promise<typeof Pdfmake> | undefined;

/** The library, loaded with the first paper: a server starts without it. It reads the fonts and nothing else. */
function library(): Promise<typeof Pdfmake> {
  loaded ??= import("pdfmake").then(({ default: pdfmake }) => {
    pdfmake.setFonts({ Text: text, Mono: mono });
    pdfmake.setLocalAccessPolicy((path) => FONT_FILES.has(path));
    pdfmake.setUrlAccessPolicy(() => false);
    return pdfmake;
  });
  return loaded;
}

export const INK = "#1d1c1a";
export const QUIET = "#5f5b55";

/** A line under the head, hair lines between the rows. */
export const RULED: CustomTableLayout = {
  hLineWidth: (line, { table }) => (line === 0 ? 0 : line === (table.headerRows ?? 0) ? 0.7 : 0.4),
  vLineWidth: () => 0,
  hLineColor: (line, { table }) => (line === (table.headerRows ?? 0) ? INK : "#d8d3c8"),
  paddingLeft: (column) => (column === 0 ? 0 : 6),
  paddingRight: () => 0,
  paddingTop: () => 3,
  paddingBottom: () => 3,
};

/** Styles that the papers share; `font: "Mono"` is for figures. */
const STYLES: TDocumentDefinitions["styles"] = {
  title: { fontSize: 20, bold: true },
  quiet: { color: QUIET },
  figure: { font: "Mono", alignment: "right" },
};

/** A paper in the fonts of the application, with the number of each page where there are several. */
export async function pdfOf(definition: TDocumentDefinitions): Promise<Buffer> {
  const pdfmake = await library();
  return pdfmake
    .createPdf({
      pageSize: "A4",
      pageMargins: 56,
      footer: (page, pages) =>
        pages === 1
          ? ""
          : {
              text: `${page} of ${pages}`,
              alignment: "center",
              fontSize: 8.5,
              color: QUIET,
              margin: [0, 14],
            },
      ...definition,
      styles: STYLES,
      defaultStyle: { font: "Text", fontSize: 10, color: INK, ...definition.defaultStyle },
    })
    .getBuffer();
}
