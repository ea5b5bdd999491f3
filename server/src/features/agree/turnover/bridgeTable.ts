import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { Work } from "../../../base/work.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import type { ReportTable } from "../../../exports/reportTable.ts";
import type { Span } from "../../../books/agree/turnover/apartRows.ts";
import { bridgeOver } from "../../../books/agree/turnover/bridge.ts";
import { bridgePage, bridgeView } from "./bridgeView.ts";

/** No limit, as the database writes it. */
const ALL = -1;

/** The bridge as a table: both figures, every cause, and under each the rows it is made of. */
export async function bridgeTable(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  span: Span,
  of: BridgeOf,
): Promise<ReportTable> {
  const bridge = await bridgeOver(work, r, span, of);
  const view = await bridgeView(work, setup, r, bridge);
  const bare = ["", "", "", "", ""];
  const rowsOf = async (cause: string) => {
    const { rows } = await bridgePage(work, r, bridge, { cause, offset: 0, limit: ALL });
    return rows.map(({ date, number, party, text, account, amount, reason }) => ({
      cells: ["", date, number, party, reason === "" ? text : `${text} (${reason})`, account, amount],
    }));
  };
  const rows: ReportTable["rows"][number][] = [
    {
      cells: [
        of === "turnover" ? "Income in the profit and loss account" : "Costs in the profit and loss account",
        ...bare,
        view.left,
      ],
      total: true,
    },
  ];
  for (const { id, name, amount } of view.causes)
    rows.push({ cells: [name, ...bare, amount], total: true }, ...(await rowsOf(id)));
  if (view.open.rows > 0)
    rows.push({ cells: ["Without a cause", ...bare, view.open.amount], total: true }, ...(await rowsOf("")));
  const boxes =
    view.boxes.length === 0
      ? `Value of ${of === "turnover" ? "sales" : "purchases"} on the returns`
      : `${view.boxes.length === 1 ? "Box" : "Boxes"} ${view.boxes.join(", ")}`;
  const { agreed, state } = view;
  return {
    title: of === "turnover" ? "Turnover bridge" : "Purchases bridge",
    about: `${setup.client.name}, ${view.form}, ${displayDate(span.from)} to ${displayDate(span.to)}. ${agreed ? `${state} by ${agreed.by} on ${displayDate(agreed.at)}${agreed.note === "" ? "" : `: ${agreed.note}`}` : "not agreed yet"}.`,
    digits: view.digits,
    columns: [
      { name: "Cause", width: 170 },
      { name: "Date", date: true, width: 60 },
      { name: "Number", width: 70 },
      { name: "Party", width: 100 },
      { name: "Text", width: 140 },
      { name: "Account", width: 50 },
      { name: "Amount", amount: true },
    ],
    rows: [
      ...rows,
      { cells: [boxes, ...bare, view.right], total: true },
      { cells: ["Left", ...bare, view.rest], total: true },
    ],
  };
}
