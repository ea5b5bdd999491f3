import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import type { BankLinePage, BankLineView, MatchBody, StatementReport } from "@fiscalon/contract/bank";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { FileButton } from "../../kit/FileButton.tsx";
import { plural } from "../../kit/format.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import type { PageOrder } from "../../kit/usePagedRows.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { ConnectBankDialog } from "./ConnectBankDialog.tsx";
import { MatchDialog } from "./MatchDialog.tsx";
import { lineColumns } from "./lineColumns.tsx";
import { bodyOfProposal } from "./proposals.ts";
import { Tip } from "../../kit/Tip.tsx";
import { ViewTabs } from "../../kit/ViewTabs.tsx";

const STATES = [
  ["open", "To match"],
  ["matched", "Matched"],
  ["ignored", "Left out"],
] as const;

/** What the bank says, and what each line of it is in the books. */
export function BankPage() {
  const { client, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [chosen, setChosen] = useState("");
  const [state, setState] = useState<BankLineView["state"]>("open");
  const [dialog, setDialog] = useState<"connect" | BankLineView | null>(null);
  const [said, setSaid] = useState("");
  const { data: accounts = [] } = useQuery({
    queryKey: keys.of(client?.id, "bank"),
    queryFn: ({ signal }) => api.get("/clients/:id/bank", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  const account = accounts.find((one) => one.account === chosen) ?? accounts[0];
  const refresh = () => queries.invalidateQueries({ queryKey: keys.client(client?.id) });
  const take = (report: StatementReport) =>
    [`${plural(report.fresh, "new line")}, ${report.alreadyThere} there already.`, ...report.notices].join(
      " ",
    );
  const fetchNew = useMutation({
    mutationFn: () => api.post("/clients/:id/bank/:account/fetch", [client?.id, account?.account]),
    onSuccess: async (report) => {
      setSaid(take(report));
      await refresh();
    },
  });
  const drop = useMutation({
    mutationFn: (statement: File) => {
      const form = new FormData();
      form.append("file", statement);
      return api.post("/clients/:id/bank/:account/statements", [client?.id, account?.account], form);
    },
    onSuccess: async (report) => {
      setSaid(take(report));
      await refresh();
    },
  });
  const accept = useMutation({
    mutationFn: (lines?: number[]) =>
      api.post("/clients/:id/bank/accept", [client?.id], {
        account: account?.account,
        ...(lines ? { lines } : {}),
      }),
    onSuccess: async ({ accepted }) => {
      setSaid(`${plural(accepted, "line")} matched.`);
      await refresh();
    },
  });
  const match = useMutation({
    mutationFn: ({ line, body }: { line: number; body: MatchBody }) =>
      api.post("/clients/:id/bank-lines/:line/match", [client?.id, line], body),
    onSuccess: refresh,
  });
  const unmatch = useMutation({
    mutationFn: (line: number) => api.post("/clients/:id/bank-lines/:line/unmatch", [client?.id, line]),
    onSuccess: refresh,
  });
  const { mutate: matchLine } = match;
  const { mutate: unmatchLine } = unmatch;
  const columns = useMemo(
    () =>
      lineColumns(digits, {
        accept: (line) => matchLine({ line: line.id, body: bodyOfProposal(line.proposals[0], digits) }),
        choose: setDialog,
        takeBack: ({ id }) => unmatchLine(id),
      }),
    [digits, matchLine, unmatchLine],
  );
  const busy = fetchNew.isPending || drop.isPending || accept.isPending;
  const linesKey = keys.of(client?.id, "bank", "lines", account?.account, state);
  const fetchPage = ({ offset, limit }: Pick<PageOrder, "offset" | "limit">) =>
    api.get("/clients/:id/bank/:account/lines", [client?.id, account?.account], { state, offset, limit });
  const { data: head } = useQuery({
    queryKey: [...linesKey, "head"],
    queryFn: () => fetchPage({ offset: 0, limit: 1 }),
    enabled: account !== undefined,
  });
  return (
    <Sheet title="Bank" actions={<BooksNav />}>
      <ErrorNote error={fetchNew.error ?? drop.error ?? accept.error ?? match.error ?? unmatch.error} />
      {account && (
        <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
          {accounts.length > 1 ? (
            <select
              className="entry !w-[200px]"
              aria-label="Account"
              value={account.account}
              onChange={(event) => setChosen(event.target.value)}
            >
              {accounts.map((one) => (
                <option key={one.account} value={one.account}>
                  {one.account} {one.name}
                </option>
              ))}
            </select>
          ) : (
            <strong>
              {account.account} {account.name}
            </strong>
          )}
          <span>
            Ledger{" "}
            <Figure
              amount={account.ledger}
              digits={digits}
              of={`account/${account.account}/1900-01-01/2999-12-31`}
              label="Ledger balance"
            />
          </span>
          <span className="quiet">
            lines of the bank sum to <span className="num">{displayAmount(account.bank, digits)}</span>
          </span>
          <span className="ml-auto flex gap-2">
            {account.number === null ? (
              <button type="button" className="action main" onClick={() => setDialog("connect")}>
                Connect the bank
              </button>
            ) : (
              <Tip
                control
                words={`Account ${account.number}, consent until ${displayDate(account.consentUntil ?? "")}`}
              >
                <button
                  type="button"
                  className="action main"
                  disabled={busy}
                  onClick={() => fetchNew.mutate()}
                >
                  {fetchNew.isPending ? "Asking the bank …" : "Fetch new lines"}
                </button>
              </Tip>
            )}
            <FileButton
              label="Statement file"
              accept=".xml,.ofx,.qfx,.csv,.txt"
              busy={busy}
              doing={drop.isPending ? "Reading …" : "Read a statement"}
              onFile={drop.mutate}
            >
              Read a statement
            </FileButton>
          </span>
        </div>
      )}
      {said && (
        <p role="status" className="note-row mb-3">
          {said}
        </p>
      )}
      <div className="mb-1 flex items-center gap-4">
        <ViewTabs
          label="Lines"
          views={STATES.map(
            ([id, name]) =>
              [
                id,
                id === "open" && account && account.open > 0 ? `${name} · ${account.open}` : name,
              ] as const,
          )}
          chosen={state}
          onChoose={setState}
        />
        {state === "open" && (head?.sure ?? 0) > 0 && (
          <button
            type="button"
            className="action ml-auto"
            disabled={busy}
            onClick={() => accept.mutate(undefined)}
          >
            {accept.isPending ? "Matching …" : `Accept the ${head?.sure} sure ones`}
          </button>
        )}
      </div>
      <DataTable<BankLineView, BankLinePage>
        name="bank-lines"
        label="Lines of the bank"
        columns={columns}
        rowId={({ id }) => id}
        queryKey={linesKey}
        enabled={account !== undefined}
        fetchPage={fetchPage}
        {...(state === "open"
          ? {
              choosing: {
                nameOf: ({ date, party }: BankLineView) => `${displayDate(date)} ${party}`,
                actions: (lines: number[], done: () => void) => (
                  <button
                    type="button"
                    className="word-link"
                    disabled={busy}
                    onClick={() => accept.mutate(lines, { onSuccess: done })}
                  >
                    Accept the best proposal of each
                  </button>
                ),
              },
            }
          : {})}
        empty={
          state === "open"
            ? "Nothing to match. Fetch new lines from the bank, or read a statement: camt.053, OFX or CSV."
            : "None."
        }
      />
      {dialog === "connect" && account && (
        <ConnectBankDialog account={account} onClose={() => setDialog(null)} onDone={() => setDialog(null)} />
      )}
      {dialog !== null && dialog !== "connect" && account && (
        <MatchDialog
          line={dialog}
          error={match.error}
          onClose={() => setDialog(null)}
          onMatch={(body) => match.mutate({ line: dialog.id, body }, { onSuccess: () => setDialog(null) })}
        />
      )}
    </Sheet>
  );
}
