import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useHotkeys } from "react-hotkeys-hook";
import { OUTCOMES } from "@fiscalon/core/agree/matching/outcomes";
import type { Outcome } from "@fiscalon/core/agree/matching/outcomes";
import type { MatchPage, MatchView } from "@fiscalon/contract/statements";
import { api } from "../../../api/client.ts";
import { keys } from "../../../api/keys.ts";
import { useScope } from "../../../app/scope.ts";
import { ErrorNote } from "../../../kit/ErrorNote.tsx";
import { FileLinks } from "../../../kit/FileLinks.tsx";
import { FindInput } from "../../../kit/FindInput.tsx";
import { plural } from "../../../kit/format.ts";
import { JobProgress } from "../../../kit/JobProgress.tsx";
import { Sheet } from "../../../kit/Sheet.tsx";
import { usePagedRows } from "../../../kit/usePagedRows.ts";
import { Waiting } from "../../../kit/Waiting.tsx";
import { AgreeLinks } from "../AgreeLinks.tsx";
import { LetterDialog } from "./LetterDialog.tsx";
import { MatchSettingsDialog } from "./MatchSettingsDialog.tsx";
import { OutcomeList } from "./OutcomeList.tsx";
import { LINE_HEIGHT, PairLine } from "./PairLine.tsx";
import { PairPanel } from "./PairPanel.tsx";
import { useLineActions } from "./useLineActions.ts";
import { useStatement } from "./useStatement.ts";

/** Lines of every outcome. */
const EVERY = "";

/** One list of another beside our documents: outcomes at the left, pairs in the middle, reasons at the right. */
export function StatementPage() {
  const { statementId } = useParams();
  const { client, path } = useScope();
  const navigate = useNavigate();
  const id = Number(statementId);
  const statement = useStatement(client?.id, id);
  const { view, busy, job, error, accept, release, refresh } = statement;
  const [chosenOutcome, setOutcome] = useState<Outcome | "" | null>(null);
  const [search, setSearch] = useState("");
  const [at, setAt] = useState(0);
  const [marked, setMarked] = useState<ReadonlyMap<number, MatchView>>(new Map());
  const [letterAbout, setLetterAbout] = useState<number[] | null>(null);
  const [setting, setSetting] = useState(false);
  const first = view?.outcomes.find(({ undecided }) => undecided > 0)?.outcome ?? EVERY;
  const outcome = chosenOutcome ?? first;
  const filter = { outcome, search };
  const { rows, head, setBox, height, shown, show } = usePagedRows<MatchView, MatchPage>(
    keys.of(client?.id, "statements", "lines", id, filter),
    view !== undefined,
    undefined,
    ({ offset, limit }) =>
      api.get("/clients/:id/statements/:statement/lines", [client?.id, id], { ...filter, offset, limit }),
    LINE_HEIGHT,
  );
  const total = head?.total ?? 0;
  const line = rows(Math.min(at, Math.max(0, total - 1)));
  const choose = (next: Outcome | "") => {
    setOutcome(next);
    setAt(0);
    setMarked(new Map());
  };
  const mark = (one: MatchView) => {
    const next = new Map(marked);
    if (!next.delete(one.id)) next.set(one.id, one);
    setMarked(next);
  };
  const actions = useLineActions({
    view,
    line,
    marked: [...marked.values()],
    statement,
    onLetter: setLetterAbout,
    onDone: () => setMarked(new Map()),
  });
  const step = (by: number) => {
    const next = Math.max(0, Math.min(total - 1, at + by));
    setAt(next);
    show(next);
  };
  const outcomes: (Outcome | "")[] = ["", ...(view?.outcomes ?? []).map((one) => one.outcome)];
  const turn = (by: number) =>
    choose(outcomes[(outcomes.indexOf(outcome) + by + outcomes.length) % outcomes.length] ?? EVERY);
  const enabled = letterAbout === null && !setting;
  const hot = { enabled, preventDefault: true, useKey: true };
  useHotkeys("down", () => step(1), { ...hot, useKey: false });
  useHotkeys("up", () => step(-1), { ...hot, useKey: false });
  useHotkeys("right", () => turn(1), { ...hot, useKey: false });
  useHotkeys("left", () => turn(-1), { ...hot, useKey: false });
  useHotkeys("space", () => line && mark(line), { ...hot, useKey: false });
  useHotkeys("a", () => accept.mutate(), hot);
  useHotkeys("enter", () => line?.ours[0]?.link && void navigate(path(line.ours[0].link)), {
    ...hot,
    useKey: false,
  });
  useHotkeys(
    actions.map(({ key }) => key.toLowerCase()),
    ({ key }) => actions.find((one) => one.key === key.toUpperCase())?.act(),
    hot,
  );
  if (!view)
    return (
      <Sheet title="Statement" actions={<AgreeLinks />}>
        <ErrorNote error={error} />
        {!error && <Waiting what="the statement" />}
      </Sheet>
    );
  return (
    <Sheet
      title={`${view.title}, to ${displayDate(view.periodEnd)}`}
      aside={view.undecided === 0 ? "all decided" : `${plural(view.undecided, "line")} open`}
      lead={`${view.party === "" ? view.name : view.party}${view.drawnOn === null ? "" : `, drawn on ${displayDate(view.drawnOn)}`}: ${plural(view.theirsTotal.rows, "document")} of theirs, ${view.oursTotal.rows} of ours.`}
      actions={
        <Link className="word-link" to={path("agree/statements")}>
          All statements
        </Link>
      }
    >
      <div className="no-print mb-2 flex flex-wrap items-end gap-4">
        <FindInput label="Find lines" placeholder="Party or number" value={search} onChange={setSearch} />
        <span className="ml-auto flex flex-wrap items-center gap-4">
          <FileLinks href={`/api/clients/${client?.id}/statements/${id}/file`} />
          <button type="button" className="word-link" onClick={() => setSetting(true)}>
            How near …
          </button>
          {view.releasable > 0 && (
            <button type="button" className="action" disabled={busy} onClick={() => release.mutate()}>
              Deduct {plural(view.releasable, "credit")} that {view.releasable === 1 ? "was" : "were"} held
              back
            </button>
          )}
          <button
            type="button"
            className="btn btn-primary"
            disabled={view.sure === 0 || busy || accept.isPending}
            onClick={() => accept.mutate()}
          >
            Accept {view.sure} that agree <kbd className="kbd kbd-sm text-base-content">A</kbd>
          </button>
        </span>
      </div>
      <ErrorNote error={error} />
      <JobProgress job={job.job} onCancel={job.cancel} />
      {view.problems.length > 0 && (
        <details className="quiet mb-2">
          <summary>{plural(view.problems.length, "row")} could not be read</summary>
          <ul>
            {view.problems.map(({ row, message }) => (
              <li key={`${row} ${message}`}>
                Row {row}: {message}
              </li>
            ))}
          </ul>
        </details>
      )}
      <div className="flex min-h-0 flex-1 gap-4">
        <OutcomeList view={view} chosen={outcome} onChoose={choose} />
        <div className="flex min-h-[300px] min-w-0 flex-1 flex-col">
          <div className="grid grid-cols-[26px_minmax(0,1fr)_minmax(0,184px)_minmax(0,1fr)] border-b-2 border-base-content pb-1 text-[12.5px]">
            <span />
            <span className="px-3 text-right">Ours</span>
            <span className="text-center">Both say</span>
            <span className="px-3">Theirs</span>
          </div>
          <div
            ref={setBox}
            className="relative min-h-0 flex-1 overflow-y-auto"
            role="grid"
            tabIndex={0}
            aria-label={outcome === "" ? "All lines" : OUTCOMES[outcome]}
            aria-rowcount={total}
          >
            <div style={{ height }} className="relative" role="rowgroup">
              {shown.map(({ index, start }) => {
                const row = rows(index);
                return row ? (
                  <PairLine
                    key={row.id}
                    line={row}
                    digits={view.digits}
                    marked={marked.has(row.id)}
                    current={index === at}
                    top={start}
                    onMark={() => mark(row)}
                    onOpen={() => setAt(index)}
                  />
                ) : null;
              })}
            </div>
          </div>
          <div className="quiet no-print flex flex-wrap gap-x-4 pt-2 text-[12.5px]">
            <span>
              <kbd className="kbd kbd-xs">↑ ↓</kbd> line
            </span>
            <span>
              <kbd className="kbd kbd-xs">← →</kbd> outcome
            </span>
            <span>
              <kbd className="kbd kbd-xs">Space</kbd> mark
            </span>
            <span>
              <kbd className="kbd kbd-xs">Enter</kbd> open ours
            </span>
            <span className="ml-auto">
              {marked.size > 0 ? `${marked.size} marked` : plural(total, "line")}
              {view.brokenOff > 0 && `, ${view.brokenOff} not searched to the end`}
            </span>
          </div>
        </div>
        <PairPanel line={line} view={view} actions={actions} />
      </div>
      {letterAbout && (
        <LetterDialog
          clientId={client?.id}
          statement={id}
          lines={letterAbout}
          onClose={() => setLetterAbout(null)}
        />
      )}
      {setting && (
        <MatchSettingsDialog
          clientId={client?.id}
          view={view}
          onClose={() => {
            setSetting(false);
            void refresh();
          }}
        />
      )}
    </Sheet>
  );
}
