import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { displayAmount } from "@fiscalon/core/money/amount";
import { releaseBody } from "@fiscalon/contract/credit";
import type { HeldCredit, HeldCreditPage as Page } from "@fiscalon/contract/credit";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { DataTable } from "../../kit/DataTable.tsx";
import type { SumRow } from "../../kit/DataTable.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, today } from "../../kit/format.ts";
import { DayField, TextField } from "../../kit/formFields.tsx";
import { NumberLink } from "../../kit/NumberLink.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { Tip } from "../../kit/Tip.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import type { Column } from "../../kit/useGridTable.ts";
import { ViewTabs } from "../../kit/ViewTabs.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";

const STATES = [
  ["waiting", "Waiting"],
  ["released", "Released"],
] as const;

/** Tax on purchases that is charged but not deducted yet: what it waits for, how long, and its release. */
export function HeldCreditPage() {
  const { client, path, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [state, setState] = useState<"waiting" | "released">("waiting");
  const [search, setSearch] = useState("");
  const [releasing, setReleasing] = useState<{ ids: number[]; done: () => void } | null>(null);
  const takeBack = useMutation({
    mutationFn: (document: number) =>
      api.delete("/clients/:id/held-credit/:document", [client?.id, document]),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  const { mutate } = takeBack;
  const columns = useMemo(
    () => columnsOf(digits, path, state === "released" ? (document) => mutate(document) : undefined),
    [digits, path, state, mutate],
  );
  const filter = { search, state };
  return (
    <Sheet
      title="Input tax not yet deducted"
      lead="Charged on a bill, but the law lets it be deducted only once something more is there."
      actions={<AgreeLinks />}
    >
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <FindInput label="Find bills" placeholder="Number or supplier" value={search} onChange={setSearch} />
        <ViewTabs label="What is shown" views={STATES} chosen={state} onChoose={setState} className="pb-1" />
      </div>
      <ErrorNote error={takeBack.error} />
      <DataTable<HeldCredit, Page>
        name="held-credit"
        label="Held credit"
        columns={columns}
        rowId={({ document }) => document}
        queryKey={keys.of(client?.id, "held-credit", filter)}
        enabled={client !== undefined}
        fetchPage={(order, signal) =>
          api.get("/clients/:id/held-credit", [client?.id], { ...filter, ...order }, signal)
        }
        foot={(page) => [heldSum(page, digits)]}
        {...(state === "waiting"
          ? {
              choosing: {
                nameOf: ({ number }: HeldCredit) => number,
                actions: (ids: number[], done: () => void) => (
                  <button type="button" className="word-link" onClick={() => setReleasing({ ids, done })}>
                    It is there: deduct …
                  </button>
                ),
              },
            }
          : {})}
        empty={
          state === "waiting"
            ? "Nothing waits. A bill whose tax cannot be deducted yet says so on the document."
            : "Nothing was released here."
        }
      />
      {releasing && (
        <ReleaseDialog
          ids={releasing.ids}
          onClose={() => setReleasing(null)}
          onDone={() => {
            releasing.done();
            setReleasing(null);
          }}
        />
      )}
    </Sheet>
  );
}

function ReleaseDialog({ ids, onClose, onDone }: { ids: number[]; onClose: () => void; onDone: () => void }) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { on: today(), evidence: "" },
    schema: releaseBody,
    body: (typed) => ({ ...typed, documents: ids }),
    send: (body) => api.post("/clients/:id/held-credit/release", [client?.id], body),
    refresh: keys.client(client?.id),
    onSaved: onDone,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Deduct the tax of ${plural(ids.length, "bill")}`}
      action="Deduct"
      className="grid gap-4"
      onClose={onClose}
    >
      <DayField name="on" label="From" />
      <TextField name="evidence" label="What is there" placeholder="the tax invoice, GSTR-2B of June" />
    </BodyDialog>
  );
}

function heldSum({ total, waiting, ledger }: Page, digits: number): SumRow {
  const label = "Waiting in all";
  const step = {
    ref: `held-credit/${waiting}`,
    title: label,
    amount: waiting,
    digits,
    words: [
      "The tax of every bill that still waits. Open any row for its own trail.",
      `The accounts for it hold ${displayAmount(ledger, digits)}${ledger === waiting ? ", the same" : ", which differs"}.`,
    ],
    parts: [],
    arithmetic: [],
  };
  return {
    caption: `${plural(total, "bill")}; waiting in all${ledger === waiting ? ", as the ledger has it ✓" : `, but the ledger has ${displayAmount(ledger, digits)} ▲`}`,
    figures: { tax: <Figure amount={waiting} digits={digits} of={step} label={label} /> },
  };
}

function columnsOf(
  digits: number,
  path: (inside: string) => string,
  onTakeBack: ((document: number) => void) | undefined,
): Column<HeldCredit>[] {
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, sorts: true, cell: ({ date }) => displayDate(date) },
    {
      id: "number",
      head: "Bill",
      width: 110,
      sorts: true,
      always: true,
      cell: ({ document, number }) => (
        <NumberLink to={path(`books/documents/${document}`)}>{number}</NumberLink>
      ),
    },
    { id: "party", head: "Supplier", width: 140, grow: 1, sorts: true, cell: ({ party }) => party },
    { id: "levies", head: "Levies", width: 90, cell: ({ levies }) => levies.replaceAll(",", ", ") },
    {
      id: "waitsFor",
      head: "Waits for",
      width: 180,
      grow: 1.4,
      cell: ({ waitsFor, source }) => (
        <Tip words={source}>
          <span>{waitsFor}</span>
        </Tip>
      ),
    },
    { id: "days", head: "Days", width: 60, amount: true, sorts: true, cell: ({ days }) => days },
    {
      id: "tax",
      head: "Tax",
      width: 110,
      amount: true,
      sorts: true,
      cell: ({ document, number, tax }) => (
        <Figure amount={tax} digits={digits} of={`document/${document}`} label={`Tax of ${number}`} />
      ),
    },
    ...(onTakeBack
      ? [
          {
            id: "released",
            head: "Deducted from",
            width: 190,
            sorts: true,
            cell: ({ released, evidence }: HeldCredit) =>
              released === null ? "" : `${displayDate(released)}, ${evidence}`,
          },
          {
            id: "takeBack",
            head: "",
            width: 90,
            cell: ({ document, number }: HeldCredit) => (
              <button
                type="button"
                className="word-link"
                aria-label={`Take the release of ${number} back`}
                onClick={() => onTakeBack(document)}
              >
                Take back
              </button>
            ),
          },
        ]
      : []),
  ];
}
