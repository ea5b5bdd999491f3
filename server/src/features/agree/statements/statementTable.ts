import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { OUTCOMES } from "@fiscalon/core/agree/matching/outcomes";
import { PIECES } from "@fiscalon/core/agree/matching/matchRow";
import { DECISIONS } from "@fiscalon/contract/statements";
import type { MatchSide, MatchView } from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import type { ReportTable } from "../../../exports/reportTable.ts";
import { linePage, statementView } from "./views.ts";

/** No limit, as the database writes it. */
const ALL = -1;

/** The matching as a table: under each outcome its lines, both sides beside each other. */
export async function statementTable(work: Work, setup: ClientSetup, id: number): Promise<ReportTable> {
  const view = await statementView(work, setup, id);
  const { rows } = await linePage(work, setup, id, {
    outcome: "",
    search: "",
    open: false,
    offset: 0,
    limit: ALL,
  });
  return {
    title: `${view.title}, to ${displayDate(view.periodEnd)}`,
    about: `${setup.client.name}, ${view.party === "" ? view.name : view.party}. Ours ${view.oursTotal.rows}, theirs ${view.theirsTotal.rows}; ${view.undecided} not decided.`,
    digits: view.digits,
    columns: [
      { name: "Party", width: 110 },
      { name: "Ours", width: 70 },
      { name: "Date", date: true, width: 55 },
      { name: "Value", amount: true },
      { name: "Tax", amount: true },
      { name: "Theirs", width: 70 },
      { name: "Date", date: true, width: 55 },
      { name: "Value", amount: true },
      { name: "Tax", amount: true },
      { name: "Apart in", width: 80 },
      { name: "Decided", width: 90 },
    ],
    rows: view.outcomes.flatMap(({ outcome, oursValue, oursTax, theirsValue, theirsTax }) => [
      {
        cells: [OUTCOMES[outcome], "", "", oursValue, oursTax, "", "", theirsValue, theirsTax, "", ""],
        total: true,
      },
      ...rows.filter((row) => row.outcome === outcome).map((row) => ({ cells: cellsOf(row) })),
    ]),
  };
}

function cellsOf({ party, ours, theirs, differs, decision }: MatchView): (string | number)[] {
  const sum = (sides: readonly MatchSide[], field: "value" | "tax") =>
    sides.length === 0 ? "" : sides.reduce((all, side) => all + side[field], 0);
  const words = (sides: readonly MatchSide[], field: "number" | "date") =>
    sides.map((side) => side[field]).join(", ");
  const said = decision === null ? "" : DECISIONS[decision.decision];
  return [
    party,
    words(ours, "number"),
    words(ours, "date"),
    sum(ours, "value"),
    sum(ours, "tax"),
    words(theirs, "number"),
    words(theirs, "date"),
    sum(theirs, "value"),
    sum(theirs, "tax"),
    differs.map((piece) => PIECES[piece]).join(", "),
    decision === null || decision.reason === "" ? said : `${said}: ${decision.reason}`,
  ];
}
