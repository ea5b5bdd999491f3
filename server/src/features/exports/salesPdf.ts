import PDFDocument from "pdfkit";
import { PLAIN_WORDS } from "@fiscalon/core/packs/shared/paperWords";
import type { PricedLine } from "@fiscalon/core/model/pricedDocument";
import { levyTotals } from "@fiscalon/core/tax/priceDocument";
import { levyWords } from "@fiscalon/core/tax/levyWords";
import { displayAmount } from "@fiscalon/core/money/amount";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import { taxPointOf } from "@fiscalon/core/model/document";
import type { EInvoiceParty } from "@fiscalon/core/formats/einvoice/eInvoice";
import { FiscalError } from "@fiscalon/core/errors";
import { registerFonts } from "../../exports/pdfFonts.ts";
import type { PrintedDocument } from "./salesDocument.ts";

const LEFT = 56;
const RIGHT = 539;
const FOOT = 740;
const INK = "#1d1c1a";
const QUIET = "#5f5b55";
const LINE = "#d8d3c8";

/**
 * A sales document as it goes to the customer: what the law of its place asks for, and the split by levy and rate. On
 * the margin scheme no tax is shown.
 * @throws FiscalError `export/not-sales` for documents that are not the business's own
 */
export function salesPdf(printed: PrintedDocument): Promise<Buffer> {
  const { document } = printed;
  const { paper, name } = kindOf(document.input.kind);
  if (paper === null)
    throw new FiscalError("export/not-sales", `A ${name.toLowerCase()} is not written by this business.`);
  const pdf = new PDFDocument({ size: "A4", margin: LEFT, info: { Title: document.input.number } });
  registerFonts(pdf);
  let y = head(pdf, printed);
  y = lines(pdf, printed, y);
  y = totals(pdf, printed, y + 12);
  statements(pdf, printed, y + 18);
  const chunks: Buffer[] = [];
  pdf.on("data", (chunk: Buffer) => chunks.push(chunk));
  return new Promise((resolve, reject) => {
    pdf.on("end", () => resolve(Buffer.concat(chunks)));
    pdf.on("error", reject);
    pdf.end();
  });
}

function wordsOf({ setup, registration, seller }: PrintedDocument) {
  const pack = registration
    ? setup.effect.packs.byId(registration.pack)
    : setup.effect.packs.ofCountry(seller.country || setup.client.country);
  return { words: pack?.words ?? PLAIN_WORDS, pack };
}

function head(pdf: PDFKit.PDFDocument, printed: PrintedDocument): number {
  const { document, seller, buyer, registration } = printed;
  const { input } = document;
  const { words, pack } = wordsOf(printed);
  const credit = kindOf(input.kind).sign < 0;
  const registered = registration !== undefined && seller.taxNumber !== "";
  const title = credit
    ? words.creditNote
    : registered
      ? words.invoice
      : words.invoice.replace(/^Tax invoice/, "Invoice");
  pdf.font("bold").fontSize(20).fillColor(INK).text(title, LEFT, 56);
  pdf.font("text").fontSize(10).fillColor(QUIET);
  const facts = [
    ["Number", input.number],
    ["Date", input.date],
    ...(taxPointOf(input) === input.date ? [] : [["Tax point", taxPointOf(input)]]),
    ...(document.corrects ? [["Corrects", document.corrects]] : []),
  ];
  facts.forEach(([label = "", value = ""], index) => {
    const y = 92 + index * 15;
    pdf.font("text").fillColor(QUIET).text(label, LEFT, y);
    pdf
      .font("mono")
      .fillColor(INK)
      .text(value, LEFT + 70, y);
  });
  const top = 92 + facts.length * 15 + 20;
  const numberName = pack?.numberName ?? "Tax number";
  const left = party(pdf, "From", seller, registered ? numberName : null, LEFT, top);
  const right = buyer.name === "" ? top : party(pdf, "To", buyer, numberName, 310, top);
  return Math.max(left, right) + 24;
}

function party(
  pdf: PDFKit.PDFDocument,
  label: string,
  { name, taxNumber, country, region }: EInvoiceParty,
  numberName: string | null,
  x: number,
  y: number,
): number {
  pdf.font("text").fontSize(9).fillColor(QUIET).text(label, x, y);
  pdf
    .font("bold")
    .fontSize(11)
    .fillColor(INK)
    .text(name, x, y + 13, { width: 220 });
  const place = [region, country].filter(Boolean).join(", ");
  pdf.font("text").fontSize(10);
  if (place) pdf.text(place, x, pdf.y + 2, { width: 220 });
  if (numberName !== null && taxNumber)
    pdf.fillColor(QUIET).text(`${numberName} ${taxNumber}`, x, pdf.y + 2, { width: 220 });
  return pdf.y;
}

const COLUMNS = { text: LEFT, quantity: 300, price: 345, net: 410, rate: 475 };

function lines(pdf: PDFKit.PDFDocument, { document, effect, digits }: PrintedDocument, from: number): number {
  let y = heading(pdf, from);
  for (const line of effect.printed.lines) {
    const input = document.input.lines[line.no - 1];
    const text = input?.text || line.code?.name || "";
    const height = pdf.font("text").fontSize(10).heightOfString(text, { width: 234 });
    if (y + height > FOOT) {
      pdf.addPage();
      y = heading(pdf, LEFT);
    }
    const margin = line.code?.treatment === "margin";
    pdf.fillColor(INK).text(text, COLUMNS.text, y, { width: 234 });
    const rates = margin ? "" : ratesOf(line);
    cell(pdf, input?.quantity ?? "", COLUMNS.quantity, y, 40);
    cell(pdf, input?.unitPrice ?? "", COLUMNS.price, y, 60);
    cell(pdf, displayAmount(margin ? line.gross : line.net, digits), COLUMNS.net, y, 60);
    pdf
      .font("text")
      .fontSize(9)
      .fillColor(QUIET)
      .text(rates, COLUMNS.rate, y + 1, { width: RIGHT - COLUMNS.rate, align: "right" });
    y += Math.max(height, pdf.heightOfString(rates, { width: RIGHT - COLUMNS.rate }), 13) + 8;
    rule(pdf, y - 4);
  }
  return y;
}

/** The rates of a line, those the customer accounts for too. */
function ratesOf({ taxes }: PricedLine): string {
  return taxes
    .filter(({ rate }) => rate !== null)
    .map(({ component, rate }) =>
      levyWords({
        levy: component.levy,
        rate,
        per:
          component.rate.kind === "per-unit"
            ? "unit"
            : component.rate.kind === "per-document"
              ? "document"
              : "percent",
        charged: "charged",
      }),
    )
    .join(", ");
}

function heading(pdf: PDFKit.PDFDocument, y: number): number {
  pdf.font("text").fontSize(9).fillColor(QUIET).text("Supply", COLUMNS.text, y);
  for (const [label, x, width] of [
    ["Quantity", COLUMNS.quantity, 40],
    ["Price", COLUMNS.price, 60],
    ["Net", COLUMNS.net, 60],
    ["Tax", COLUMNS.rate, RIGHT - COLUMNS.rate],
  ] as const)
    pdf.text(label, x, y, { width, align: "right" });
  rule(pdf, y + 13, INK);
  return y + 19;
}

function cell(pdf: PDFKit.PDFDocument, text: string, x: number, y: number, width: number): void {
  pdf.font("mono").fontSize(9.5).fillColor(INK).text(text, x, y, { width, align: "right" });
}

function rule(pdf: PDFKit.PDFDocument, y: number, colour = LINE): void {
  pdf.moveTo(LEFT, y).lineTo(RIGHT, y).lineWidth(0.5).strokeColor(colour).stroke();
}

function totals(pdf: PDFKit.PDFDocument, printed: PrintedDocument, from: number): number {
  const { effect, currency, digits, setup } = printed;
  const { words } = wordsOf(printed);
  const open = effect.printed.lines.filter(({ code }) => code?.treatment !== "margin");
  const levies = levyTotals(open).filter((row) => row.rate !== null && row.charged !== "self-assessed");
  const tax = open.reduce((sum, line) => sum + line.gross - line.net, 0);
  const rows: [string, string][] =
    open.length === 0
      ? []
      : [
          ["Net", displayAmount(effect.printed.gross - tax, digits)],
          ...levies.map((row): [string, string] => [
            `${levyWords(row)} on ${displayAmount(row.net, digits)}`,
            displayAmount(row.tax, digits),
          ]),
        ];
  let y = from + (rows.length + 2) * 17 > FOOT ? (pdf.addPage(), LEFT) : from;
  for (const [label, amount] of rows) {
    pdf.font("text").fontSize(10).fillColor(QUIET).text(label, 280, y, { width: 160 });
    pdf
      .font("mono")
      .fillColor(INK)
      .text(amount, 440, y, { width: RIGHT - 440, align: "right" });
    y += 17;
  }
  rule(pdf, y, INK);
  pdf
    .font("bold")
    .fontSize(12)
    .text(`Total ${currency}`, 280, y + 6);
  pdf
    .font("mono")
    .text(displayAmount(effect.printed.gross, digits), 440, y + 6, { width: RIGHT - 440, align: "right" });
  y += 26;
  const home = setup.client.currency;
  if (words.taxInHomeCurrency && currency !== home && effect.priced.tax !== 0) {
    const rate = printed.document.input.exchange;
    const text = `Tax in ${home}: ${displayAmount(effect.priced.tax, setup.plain.digits)} (1 ${currency} = ${rate?.rate ?? ""} ${home}${rate?.source ? `, ${rate.source}` : ""})`;
    pdf
      .font("text")
      .fontSize(9.5)
      .fillColor(QUIET)
      .text(text, 280, y, { width: RIGHT - 280 });
    y = pdf.y + 4;
  }
  return y;
}

function statements(pdf: PDFKit.PDFDocument, printed: PrintedDocument, y: number): void {
  const { words } = wordsOf(printed);
  const said = new Set(
    printed.effect.printed.lines.flatMap(({ code }) => {
      const statement = code ? words.statements[code.treatment] : undefined;
      return statement ? [statement] : [];
    }),
  );
  const text = [...said, printed.document.note].filter(Boolean).join("\n");
  if (text === "") return;
  const at = y > FOOT ? (pdf.addPage(), LEFT) : y;
  pdf
    .font("text")
    .fontSize(10)
    .fillColor(INK)
    .text(text, LEFT, at, { width: RIGHT - LEFT });
}
