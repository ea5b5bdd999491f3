import { displayDate, displayMoment } from "@fiscalon/core/calendar/displayDate";
import type { Content, TableCell } from "pdfmake/interfaces.js";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { pdfOf, RULED } from "../../exports/pdf.ts";
import type { RegistrationRecord } from "../../db/models.ts";

/** From how many boxes on only those with something in them are printed. */
const MANY = 40;

/** The return as a PDF: boxes, state, receipt, and the hash of what was sealed. */
export function returnPdf(view: ReturnView, setup: ClientSetup, r: RegistrationRecord): Promise<Buffer> {
  return pdfOf({
    info: { title: `${view.formName} ${displayDate(view.from)} to ${displayDate(view.to)}` },
    content: [
      { text: view.formName, style: "title" },
      { text: `${displayDate(view.from)} to ${displayDate(view.to)}`, fontSize: 11, margin: [0, 2, 0, 10] },
      { text: setup.client.name, fontSize: 11, bold: true },
      {
        style: "quiet",
        text: `Registration ${r.number ?? "not yet given"} · due ${displayDate(view.due)} · amounts in ${setup.client.currency}\nState: ${view.state}`,
      },
      boxTable(view, setup.plain.digits),
      footing(view),
    ],
  });
}

function boxTable(view: ReturnView, digits: number): Content {
  const boxes =
    view.boxes.length > MANY
      ? view.boxes.filter(({ contributions, amount }) => amount || contributions.length)
      : view.boxes;
  if (boxes.length === 0) return { text: "Nothing was declared in any box.", margin: [0, 20] };
  const row = (box: ReturnView["boxes"][number]): TableCell[] => [
    { text: box.id, bold: true, fontSize: 11, style: "quiet" },
    { text: box.title },
    { text: shown(box.amount, box.digits, digits), style: "figure", fontSize: 11 },
  ];
  return {
    margin: [0, 20, 0, 16],
    layout: RULED,
    table: { widths: ["auto", "*", 110], dontBreakRows: true, body: boxes.map(row) },
  };
}

function footing(view: ReturnView): Content {
  const lines = [
    view.sealed
      ? `Sealed by ${view.sealed.by}, ${displayMoment(view.sealed.at)}`
      : "Not sealed: these figures can still change.",
    view.filed ? `Filed by ${view.filed.by}, ${displayMoment(view.filed.at)}` : "Not filed.",
    ...(view.filed
      ? Object.entries(view.filed.receipt).map(([field, value]) => `${field}: ${String(value)}`)
      : []),
    `${view.factCount} tax facts${view.hash ? `, SHA-256 ${view.hash}` : ""}`,
    ...view.adjustments.map((one) => `Adjustment of box ${one.box} by ${one.by}: ${one.reason}`),
    ...view.findings
      .filter((one) => one.accepted)
      .map((one) => `Accepted: ${one.text} (${one.accepted?.reason})`),
  ];
  return { style: "quiet", fontSize: 9, stack: lines.map((text) => ({ text, margin: [0, 0, 0, 3] })) };
}

function shown(amount: number, digits: number, minor: number): string {
  return digits === 0 ? displayAmount(Math.trunc(amount / 10 ** minor), 0) : displayAmount(amount, digits);
}
