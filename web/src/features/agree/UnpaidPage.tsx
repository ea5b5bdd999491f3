import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMemo, useState } from "react";
import { displayAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import { unpaidBody } from "@fiscalon/contract/unpaid";
import type { UnpaidPage as Page, UnpaidRow, UnpaidRuleView } from "@fiscalon/contract/unpaid";
import { useQuery } from "@tanstack/react-query";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useSetup } from "../../app/useSetup.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { DataTable } from "../../kit/DataTable.tsx";
import type { SumRow } from "../../kit/DataTable.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showPeriod } from "../../kit/format.ts";
import { ChoiceField } from "../../kit/formFields.tsx";
import { NumberLink } from "../../kit/NumberLink.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import type { Column } from "../../kit/useGridTable.ts";
import { ViewTabs } from "../../kit/ViewTabs.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";

type Part = number | string | undefined;

const UNPAID = "/clients/:id/registrations/:rid/unpaid/:period";

/** Documents unpaid for so long that the law relieves or takes back their tax, on the return of the period. */
export function UnpaidPage() {
  const { client, registration, period, path, minorDigits: digits } = useScope();
  const [chosen, setChosen] = useState("");
  const [search, setSearch] = useState("");
  const [taking, setTaking] = useState<{ ids: number[]; done: () => void } | null>(null);
  const parts: [Part, Part, Part] = [client?.id, registration?.id, period?.to];
  const ready = registration !== undefined && period !== undefined;
  const { data: head } = useQuery({
    queryKey: keys.of(client?.id, "unpaid", "rules", ...parts),
    queryFn: ({ signal }) => api.get(UNPAID, parts, { limit: 1 }, signal),
    enabled: ready,
  });
  const rule = head?.rules.find(({ id }) => id === chosen) ?? head?.rules[0];
  const columns = useMemo(() => (rule ? columnsOf(digits, path, rule) : []), [digits, path, rule]);
  const links = <AgreeLinks />;
  if (!ready || (head && !rule)) {
    return (
      <Sheet title="Unpaid too long" actions={links}>
        <p className="quiet">
          {ready
            ? "The law here relieves or takes back no tax because a document stays unpaid, or the pack does not work it out."
            : "Unpaid documents are looked at period by period, once there is a registration."}
        </p>
      </Sheet>
    );
  }
  return (
    <Sheet
      title="Unpaid too long"
      lead={`On the return of ${showPeriod(period.from, period.to)}, as money stands on its last day.`}
      actions={links}
    >
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <FindInput label="Find documents" placeholder="Number or party" value={search} onChange={setSearch} />
        {head && rule && (
          <ViewTabs
            label="Rule"
            views={head.rules.map(({ id, name, count }) => [id, `${name} (${count})`] as const)}
            chosen={rule.id}
            onChoose={setChosen}
            className="pb-1"
          />
        )}
      </div>
      {rule && (
        <>
          <p className="quiet mb-2 max-w-[90ch] text-[13px]">
            {rule.claimed ? "Yours to claim: " : "Must be done: "}
            {rule.says} <span className="whitespace-nowrap">({rule.source})</span>.
          </p>
          <DataTable<UnpaidRow, Page>
            name="unpaid"
            label="Unpaid documents"
            columns={columns}
            rowId={({ document }) => document}
            queryKey={keys.of(client?.id, "unpaid", ...parts, { rule: rule.id, search })}
            enabled={ready}
            fetchPage={(order, signal) => api.get(UNPAID, parts, { rule: rule.id, search, ...order }, signal)}
            foot={(page) => [sumOf(rule, page, digits)]}
            {...(head?.open
              ? {
                  choosing: {
                    nameOf: ({ number }: UnpaidRow) => number,
                    actions: (ids: number[], done: () => void) => (
                      <button type="button" className="word-link" onClick={() => setTaking({ ids, done })}>
                        Put on this return …
                      </button>
                    ),
                  },
                }
              : {})}
            empty="Nothing is asked for. What was taken already stands in Books, Documents, as journals."
          />
        </>
      )}
      {taking && rule && head && (
        <TakeDialog
          rule={rule}
          ids={taking.ids}
          account={head.account}
          onClose={() => setTaking(null)}
          onDone={() => {
            taking.done();
            setTaking(null);
          }}
        />
      )}
    </Sheet>
  );
}

function TakeDialog({
  rule,
  ids,
  account,
  onClose,
  onDone,
}: {
  rule: UnpaidRuleView;
  ids: number[];
  account: string;
  onClose: () => void;
  onDone: () => void;
}) {
  const { client, registration, period } = useScope();
  const setup = useSetup();
  const dialog = useBodyForm({
    values: { account },
    schema: unpaidBody,
    body: (typed) => ({ ...typed, rule: rule.id, documents: ids }),
    send: (body) => api.post(UNPAID, [client?.id, registration?.id, period?.to], body),
    refresh: keys.client(client?.id),
    onSaved: onDone,
  });
  const accounts = (setup?.plain.accounts ?? []).filter(
    ({ role }) => role === null || role === "adjustment" || role === "held-credit",
  );
  return (
    <BodyDialog
      of={dialog}
      title={`${rule.name}: ${plural(ids.length, "document")}`}
      action="Post the journals"
      className="grid gap-4"
      onClose={onClose}
    >
      <p>
        A journal for each puts its tax on this return, with the arithmetic in its note. Take the journal out
        to undo it.
      </p>
      <ChoiceField
        name="account"
        label="Against account"
        hint={
          rule.direction === "sale"
            ? "where the bad debt itself is written off"
            : "where the tax waits until the bill is paid"
        }
      >
        {accounts.map(({ code, name }) => (
          <option key={code} value={code}>
            {code} {name}
          </option>
        ))}
      </ChoiceField>
    </BodyDialog>
  );
}

function sumOf({ name, count, owed }: UnpaidRuleView, { rows }: Page, digits: number): SumRow {
  const label = owed < 0 ? "Less to pay" : "More to pay";
  return {
    caption: `${plural(count, "document")}; ${label.toLowerCase()}`,
    figures: {
      owed: (
        <Figure
          amount={Math.abs(owed)}
          digits={digits}
          of={{
            ref: `unpaid/${name}`,
            title: `${name}: ${label.toLowerCase()}`,
            amount: Math.abs(owed),
            digits,
            words: ["The tax of every document of this list. Open any row for its own arithmetic."],
            parts: rows.map((row) => ({
              ref: `document/${row.document}`,
              label: row.number,
              detail: row.party,
              amount: owed < 0 ? -row.owed : row.owed,
            })),
            total: count,
            arithmetic: [],
          }}
          label={label}
        />
      ),
    },
  };
}

function columnsOf(
  digits: number,
  path: (inside: string) => string,
  rule: UnpaidRuleView,
): Column<UnpaidRow>[] {
  const money = (amount: number, currency: string) => displayAmount(amount, minorDigits(currency));
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, sorts: true, cell: ({ date }) => displayDate(date) },
    {
      id: "number",
      head: "Document",
      width: 104,
      sorts: true,
      always: true,
      cell: ({ document, number }) => (
        <NumberLink to={path(`books/documents/${document}`)}>{number}</NumberLink>
      ),
    },
    { id: "party", head: "Party", width: 124, grow: 1, sorts: true, cell: ({ party }) => party },
    {
      id: "due",
      head: "Due on",
      width: DATE_WIDTH,
      cell: ({ due }) => (due === null ? "not said" : displayDate(due)),
    },
    { id: "over", head: "Time over", width: DATE_WIDTH, sorts: true, cell: ({ over }) => displayDate(over) },
    ...(["gross", "unpaid"] as const).map((id): Column<UnpaidRow> => ({
      id,
      head: id === "gross" ? "Gross" : "Unpaid",
      width: 104,
      amount: true,
      sorts: id === "unpaid",
      cell: (row) => (
        <Figure
          amount={row[id]}
          digits={minorDigits(row.currency)}
          of={`document/${row.document}`}
          label={`${id} of ${row.number}`}
        />
      ),
    })),
    {
      id: "code",
      head: "By code",
      width: 104,
      cell: ({ code, way }) => (way === "back" ? `${code}, paid since` : code),
    },
    {
      id: "owed",
      head: "Tax to pay",
      width: 120,
      amount: true,
      sorts: true,
      cell: (row) => (
        <Figure
          amount={row.owed}
          digits={digits}
          of={{
            ref: `unpaid/${row.document}`,
            title: `${rule.name}, ${row.number}`,
            amount: row.owed,
            digits,
            words: [
              `${rule.says.charAt(0).toUpperCase()}${rule.says.slice(1)} (${rule.source}).`,
              `Time was over on ${displayDate(row.over)}; unpaid on the last day of the period: ${money(row.unpaid, row.currency)} of ${money(row.gross, row.currency)}.`,
            ],
            parts: [
              { ref: `document/${row.document}`, label: row.number, detail: row.party, amount: row.gross },
            ],
            arithmetic: row.taxes.map(
              ({ levy, tax, done, amount }) =>
                `${levy} ${displayAmount(tax, digits)} × ${money(row.unpaid, row.currency)} / ${money(row.gross, row.currency)}${done === 0 ? "" : ` − ${displayAmount(done, digits)}`} = ${row.way === "back" ? "−" : ""}${displayAmount(amount, digits)}`,
            ),
          }}
          label={`Tax of ${row.number}`}
        />
      ),
    },
  ];
}
