import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { displayAmount } from "@fiscalon/core/money/amount";
import { PIECES } from "@fiscalon/core/agree/matching/matchRow";
import type { MatchSide, MatchView, StatementLetter } from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import { linePage, statementView } from "./views.ts";

/** No limit, as the database writes it. */
const ALL = -1;

/** What is asked of the other side about lines of one party: what we have, what they say, and what would settle it. */
export async function letterAbout(
  work: Work,
  setup: ClientSetup,
  id: number,
  lineIds: readonly number[],
): Promise<StatementLetter[]> {
  const view = await statementView(work, setup, id);
  const { rows } = await linePage(work, setup, id, {
    outcome: "",
    search: "",
    open: false,
    offset: 0,
    limit: ALL,
  });
  const chosen = rows.filter((row) => lineIds.includes(row.id));
  const parties = [...new Set(chosen.map(({ party }) => party))];
  return parties.map((party) => {
    const lines = chosen.filter((line) => line.party === party);
    const subject = `${setup.client.name}: ${lines.length === 1 ? "a document" : `${lines.length} documents`} to ${displayDate(view.periodEnd)}`;
    const bought = view.direction === "purchase";
    const text = [
      party === "" ? "Good day," : `To ${party}`,
      "",
      bought
        ? `We laid your documents to ${displayDate(view.periodEnd)} beside our books. These are not the same on both sides:`
        : `We laid what you say of our documents to ${displayDate(view.periodEnd)} beside our books. These are not the same:`,
      "",
      ...lines.flatMap((line) => paragraph(line, view.digits)),
      bought
        ? "Please tell us which of the two is right, and furnish or correct your document where it is ours."
        : "Please tell us which of the two is right, so that both of us declare the same.",
      "",
      setup.client.name,
    ].join("\n");
    return { party, subject, text };
  });
}

function paragraph({ ours, theirs, differs }: MatchView, digits: number): string[] {
  const told = (side: MatchSide) =>
    `${side.number || "without number"} of ${displayDate(side.date)}: ${displayAmount(side.value, digits)}, tax ${displayAmount(side.tax, digits)}`;
  if (theirs.length === 0)
    return [...ours.map((one) => `- In our books: ${told(one)}. We do not find it with you.`), ""];
  if (ours.length === 0)
    return [...theirs.map((one) => `- With you: ${told(one)}. We do not have it; please send it.`), ""];
  const what = differs.map((piece) => PIECES[piece]).join(", ");
  return [
    ...ours.map((one) => `- In our books: ${told(one)}`),
    ...theirs.map((one) => `  With you:     ${told(one)}`),
    ...(what === "" ? [] : [`  Apart in: ${what}`]),
    "",
  ];
}
