import { useNavigate } from "react-router";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { Decision, MatchSide, MatchView, StatementView } from "@fiscalon/contract/statements";
import { api } from "../../../api/client.ts";
import type { BegunDocument } from "../../../app/begunDocument.ts";
import { useScope } from "../../../app/scope.ts";
import type { PairAction } from "./PairPanel.tsx";
import type { useStatement } from "./useStatement.ts";

/** What can be done about the line one stands on, or about all that are marked. */
export function useLineActions({
  view,
  line,
  marked,
  statement: { decide, undo, together },
  onLetter,
  onDone,
}: {
  view: StatementView | undefined;
  line: MatchView | undefined;
  marked: readonly MatchView[];
  statement: Pick<ReturnType<typeof useStatement>, "decide" | "undo" | "together">;
  onLetter: (lines: number[]) => void;
  onDone: () => void;
}): PairAction[] {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const chosen = marked.length > 0 ? marked : line ? [line] : [];
  if (!view || chosen.length === 0) return [];
  const lines = chosen.map(({ id }) => id);
  const every = (side: "ours" | "theirs") => chosen.every((one) => one[side].length > 0);
  const some = (side: "ours" | "theirs") => chosen.some((one) => one[side].length > 0);
  const say = (decision: Decision, then?: () => void) => () =>
    decide.mutate({ lines, decision, reason: "" }, { onSuccess: () => (then ?? onDone)() });
  const pairs = every("ours") && every("theirs");
  const decided = chosen.some(({ decision }) => decision !== null);
  const [first] = chosen;
  const document = first?.ours[0];
  const row = first?.theirs[0];
  const bill = async (side: MatchSide) => {
    const asked = { name: side.party, number: side.partyNumber };
    // Who cannot be asked for now is chosen on the document.
    const { contact } = await api
      .get("/clients/:id/contacts/meant", [client?.id], asked)
      .catch(() => ({ contact: null }));
    const kind = `${view.direction === "purchase" ? "purchase" : "sales"}-${side.value < 0 ? "credit-note" : view.direction === "purchase" ? "bill" : "invoice"}`;
    const begun: BegunDocument = {
      number: side.number,
      date: side.date,
      contact,
      note: `Made from ${view.title}`,
      lines: [
        {
          text: side.party,
          amount: formatAmount(Math.abs(side.value), view.digits),
          tax: side.tax === 0 ? "" : formatAmount(Math.abs(side.tax), view.digits),
        },
      ],
    };
    await navigate(path(`books/documents/new/${kind}`), { state: { begun } });
  };
  const actions: (PairAction | false)[] = [
    pairs && { key: "E", name: "These agree", act: say("agreed") },
    chosen.length > 1 &&
      some("ours") &&
      some("theirs") && { key: "P", name: "Pair by hand", detail: "one document", act: say("pair") },
    every("ours") && {
      key: "O",
      name: "Ours to correct",
      detail: chosen.length === 1 ? "opens it" : "",
      act: say("ours", () => {
        onDone();
        if (chosen.length === 1 && document?.link) void navigate(path(document.link));
      }),
    },
    {
      key: "T",
      name: "Theirs to correct",
      detail: "write to them",
      act: say("theirs", () => onLetter(lines)),
    },
    { key: "W", name: "Wait", detail: "until the next one", act: say("wait") },
    view.canHold &&
      every("ours") &&
      !chosen.some(({ ours }) => ours.some(({ held }) => held !== null)) && {
        key: "H",
        name: "Hold the credit back",
        detail: "until they tell",
        act: say("hold"),
      },
    chosen.length === 1 &&
      row !== undefined &&
      view.kind !== "authority" &&
      document === undefined && {
        key: "B",
        name: "Make our document",
        detail: "as a draft",
        act: () => void bill(row),
      },
    pairs && { key: "N", name: "Not a pair", act: say("apart") },
    !some("ours") && { key: "N", name: "Not ours", act: say("not-ours") },
    { key: "L", name: "Ask them", detail: "a letter", act: () => onLetter(lines) },
    decided
      ? { key: "U", name: "Take back", act: () => undo.mutate(lines, { onSuccess: onDone }) }
      : view.parted > 0 && {
          key: "U",
          name: "Undo “not a pair”",
          detail: "the last one",
          act: () => together.mutate(),
        },
  ];
  return actions.filter((action) => action !== false);
}
