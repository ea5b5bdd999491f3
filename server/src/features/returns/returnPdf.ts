import { displayDate, displayMoment } from "@fiscalon/core/calendar/displayDate";
import { drawnTables } from "@fiscalon/core/returns/drawnTables";
import { shownBox } from "@fiscalon/core/returns/shownBox";
import { isTold } from "@fiscalon/core/returns/toldBox";
import type { Content, TableCell } from "pdfmake/interfaces.js";
import type { BoxView, ReturnView } from "@fiscalon/contract/returns";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { formOf } from "../../books/returns/evaluation.ts";
import { pdfOf, RULED } from "../../exports/pdf.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { formTable, shownFigure } from "./formTablesPdf.ts";

/** From how many boxes on only those with something in them are printed, and of tables those with anything in them. */
const MANY = 40;
/** Columns of figures that have room on an upright page. */
const UPRIGHT = 3;

/** The return as a PDF: the form as its authority draws it, state, receipt, and the hash of what was sealed. */
export function returnPdf(
  work: Work,
  view: ReturnView,
  setup: ClientSetup,
  r: RegistrationRecord,
): Promise<Buffer> {
  const form = formOf(work, r, view.to);
  const shown = shownBox(form, view.net);
  const tells = (box: BoxView | null | undefined) =>
    !!box && (view.boxes.length <= MANY || isTold(box) || box.id === shown);
  const tables = drawnTables(form.tables ?? [], view.boxes, shown).filter(({ rows }) =>
    rows.some(({ cells }) => cells.some(tells)),
  );
  const { digits } = setup.plain;
  const regions = work.packs.byId(r.pack).regions ?? [];
  const isWide = tables.some(({ columns }) => columns.length > UPRIGHT);
  return pdfOf({
    info: { title: `${view.formName} ${displayDate(view.from)} to ${displayDate(view.to)}` },
    ...(isWide ? { pageOrientation: "landscape" as const } : {}),
    content: [
      { text: view.formName, style: "title" },
      { text: `${displayDate(view.from)} to ${displayDate(view.to)}`, fontSize: 11, margin: [0, 2, 0, 10] },
      { text: setup.client.name, fontSize: 11, bold: true },
      {
        style: "quiet",
        text: `Registration ${r.number ?? "not yet given"} · due ${displayDate(view.due)} · amounts in ${setup.client.currency}\nState: ${view.state}. Working copy, not an official form.`,
        margin: [0, 0, 0, 14],
      },
      form.tables
        ? tables.map((table) => formTable(table, digits, regions))
        : boxTable(view.boxes.length > MANY ? view.boxes.filter(isTold) : view.boxes, digits),
      footing(view),
    ],
  });
}

function boxTable(boxes: readonly BoxView[], digits: number): Content {
  if (boxes.length === 0) return { text: "Nothing was declared in any box.", margin: [0, 20] };
  const row = (box: BoxView): TableCell[] => [
    { text: box.id, bold: true, fontSize: 11, style: "quiet" },
    { text: box.title },
    { text: shownFigure(box, digits), style: "figure", fontSize: 11 },
  ];
  return {
    margin: [0, 6, 0, 16],
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
