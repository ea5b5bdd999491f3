import PDFDocument from "pdfkit";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { registerFonts } from "../../exports/pdfFonts.ts";
import type { RegistrationRecord } from "../../db/models.ts";

const LEFT = 56;
const RIGHT = 539;
const INK = "#1d1c1a";
const QUIET = "#5f5b55";

/** From how many boxes on only those with something in them are printed. */
const MANY = 40;
const FOOT = 760;

/** The return as a PDF: boxes, state, receipt, and the hash of what was sealed. */
export function returnPdf(view: ReturnView, setup: ClientSetup, r: RegistrationRecord): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: "A4",
    margin: LEFT,
    info: { Title: `${view.formName} ${view.from} to ${view.to}` },
  });
  registerFonts(pdf);
  heading(pdf, view, setup, r);
  const y = boxRows(pdf, view, setup.plain.digits);
  footing(pdf, view, y + 16);
  const chunks: Buffer[] = [];
  pdf.on("data", (chunk: Buffer) => chunks.push(chunk));
  return new Promise((resolve, reject) => {
    pdf.on("end", () => resolve(Buffer.concat(chunks)));
    pdf.on("error", reject);
    pdf.end();
  });
}

/** The boxes down the page and over to the next; returns where they end. */
function boxRows(pdf: PDFKit.PDFDocument, view: ReturnView, digits: number): number {
  const boxes =
    view.boxes.length > MANY
      ? view.boxes.filter(({ contributions, amount }) => amount || contributions.length)
      : view.boxes;
  const first = Math.max(...boxes.map(({ id }) => pdf.font("bold").fontSize(11).widthOfString(id)), 20) + 10;
  let y = 190;
  for (const box of boxes) {
    const width = 358 - first;
    const height = pdf.font("text").fontSize(10).heightOfString(box.title, { width });
    if (y + height > FOOT) {
      pdf.addPage();
      y = LEFT;
    }
    pdf.font("bold").fontSize(11).fillColor(QUIET).text(box.id, LEFT, y);
    pdf
      .font("text")
      .fontSize(10)
      .fillColor(INK)
      .text(box.title, LEFT + first, y, { width });
    pdf
      .font("mono")
      .fontSize(11)
      .text(shown(box.amount, box.digits, digits), 430, y, { width: RIGHT - 430, align: "right" });
    y += Math.max(height, 14) + 10;
    pdf
      .moveTo(LEFT, y - 5)
      .lineTo(RIGHT, y - 5)
      .lineWidth(0.5)
      .strokeColor("#d8d3c8")
      .stroke();
  }
  return y;
}

function heading(pdf: PDFKit.PDFDocument, view: ReturnView, setup: ClientSetup, r: RegistrationRecord): void {
  pdf.font("bold").fontSize(20).fillColor(INK).text(view.formName, LEFT, 56);
  pdf.font("text").fontSize(11).text(`${view.from} to ${view.to}`);
  pdf.moveDown(0.8).font("bold").text(setup.client.name);
  pdf
    .font("text")
    .fillColor(QUIET)
    .text(
      `Registration ${r.number ?? "not yet given"} · due ${view.due} · amounts in ${setup.client.currency}`,
    );
  pdf.text(`State: ${view.state}`);
}

function footing(pdf: PDFKit.PDFDocument, view: ReturnView, top: number): void {
  pdf.font("text").fontSize(9).fillColor(QUIET);
  const lines = [
    view.sealed
      ? `Sealed by ${view.sealed.by}, ${view.sealed.at}`
      : "Not sealed: these figures can still change.",
    view.filed ? `Filed by ${view.filed.by}, ${view.filed.at}` : "Not filed.",
    ...(view.filed
      ? Object.entries(view.filed.receipt).map(([field, value]) => `${field}: ${String(value)}`)
      : []),
    `${view.factCount} tax facts${view.hash ? `, SHA-256 ${view.hash}` : ""}`,
    ...view.adjustments.map((one) => `Adjustment of box ${one.box} by ${one.by}: ${one.reason}`),
    ...view.findings
      .filter((one) => one.accepted)
      .map((one) => `Accepted: ${one.text} (${one.accepted?.reason})`),
  ];
  let y = top;
  for (const line of lines) {
    if (y > FOOT) {
      pdf.addPage();
      y = LEFT;
    }
    pdf.text(line, LEFT, y, { width: RIGHT - LEFT });
    y = pdf.y + 3;
  }
}

function shown(amount: number, digits: number, minor: number): string {
  return digits === 0 ? displayAmount(Math.trunc(amount / 10 ** minor), 0) : displayAmount(amount, digits);
}
