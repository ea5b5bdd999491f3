import { createRequire } from "node:module";

const require = createRequire(import.meta.url);
const file = (family: string, weight: number) =>
  require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`);

/** The fonts of the application under the names `text`, `bold` and `mono`. */
export function registerFonts(pdf: PDFKit.PDFDocument): void {
  pdf
    .registerFont("text", file("atkinson-hyperlegible-next", 400))
    .registerFont("bold", file("atkinson-hyperlegible-next", 700))
    .registerFont("mono", file("atkinson-hyperlegible-mono", 400));
}
