import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { CollectionCustomer, CollectionCustomers, CollectionView } from "@fiscalon/contract/collection";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api, filled, withQuery } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { BooksNav } from "../../app/BooksNav.tsx";
import { useScope } from "../../app/scope.ts";
import { useCollects } from "../../app/useKept.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { SelectField } from "../../kit/Field.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { showPeriod, today } from "../../kit/format.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { ViewTabs } from "../../kit/ViewTabs.tsx";
import { ChargeDialog } from "./ChargeDialog.tsx";
import { customerColumns, customerSums } from "./customerColumns.tsx";
import { CustomerPanel } from "./CustomerPanel.tsx";
import { Deducted } from "./Deducted.tsx";

type Shown = "customers" | "months" | "deducted";
const WAYS: Readonly<Record<string, string>> = {
  no: "not collected on the last day of it",
  receipt: "collected on what customers pay",
  invoice: "collected on invoices, once over the sum",
};

/** Tax collected from customers on what they pay above a yearly sum: by customer, by month and quarter; and what others deducted. */
export function CollectedPage() {
  const { client } = useScope();
  const collects = useCollects();
  if (client && !collects) {
    return (
      <Sheet title="Collected at source" actions={<BooksNav />}>
        <EmptyState title="Nothing is collected from customers">
          The choice stands in Set up, Places &amp; registrations, where the law has such a tax.
        </EmptyState>
      </Sheet>
    );
  }
  return <Register />;
}

function Register() {
  const { client, path, minorDigits: digits } = useScope();
  const { contactId } = useParams();
  const [day, setDay] = useState(today());
  const [shown, setShown] = useState<Shown>("customers");
  const { data: view, error } = useQuery({
    queryKey: keys.of(client?.id, "collection", "year", day),
    queryFn: ({ signal }) => api.get("/clients/:id/collection", [client?.id], { day }, signal),
    enabled: client !== undefined,
    placeholderData: (before) => before,
  });
  if (!view) {
    return (
      <Sheet title="Collected at source" actions={<BooksNav />}>
        <ErrorNote error={error} />
      </Sheet>
    );
  }
  return (
    <>
      <Sheet
        title="Collected at source"
        aside={WAYS[view.way]}
        lead={`${view.says} (${view.source})`}
        actions={<BooksNav />}
      >
        <div className="mb-2 flex flex-wrap items-end gap-4">
          <SelectField
            label="Fiscal year to"
            className="w-[130px]"
            value={view.year}
            onChange={({ target }) => setDay(target.value)}
          >
            {view.years.map((year) => (
              <option key={year} value={year}>
                {displayDate(year)}
              </option>
            ))}
          </SelectField>
          <ViewTabs<Shown>
            label="What is shown"
            views={[
              ["customers", "Customers"],
              ["months", "Months and statements"],
              ["deducted", "Deducted from us"],
            ]}
            chosen={shown}
            onChoose={setShown}
            className="pb-1"
          />
          <span className="ml-auto pb-1 text-[13px]">
            On account {view.account || "(none has the role)"}:{" "}
            <Figure
              amount={view.balance}
              digits={digits}
              of={view.account === "" ? null : `account/${view.account}`}
              label="Balance"
            />
          </span>
        </div>
        {shown === "customers" && <Customers view={view} />}
        {shown === "months" && <Months view={view} />}
        {shown === "deducted" && <Deducted year={view.year} />}
      </Sheet>
      {contactId !== undefined && shown === "customers" && (
        <SidePanel name="collection" initial={440}>
          <CustomerPanel
            key={`${contactId}/${view.year}`}
            contact={Number(contactId)}
            view={view}
            close={path("books/collected")}
          />
        </SidePanel>
      )}
    </>
  );
}

function Customers({ view }: { view: CollectionView }) {
  const { client, path, minorDigits: digits } = useScope();
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const [left, setLeft] = useState(false);
  const [charging, setCharging] = useState<{ ids: number[]; done: () => void } | null>(null);
  const columns = useMemo(
    () => customerColumns(digits, view, (contact) => path(`books/collected/${contact}`)),
    [digits, path, view],
  );
  const filter = { day: view.year, search, ...(left ? { left: "true" } : {}) };
  return (
    <>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <FindInput
          label="Find customers"
          placeholder={`Name or ${view.identification}`}
          value={search}
          onChange={setSearch}
        />
        <label className="flex cursor-pointer items-center gap-1.5 pb-1">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={left}
            onChange={({ target }) => setLeft(target.checked)}
          />
          only where something is left to charge
        </label>
      </div>
      <DataTable<CollectionCustomer, CollectionCustomers>
        name="collection"
        label="Customers"
        columns={columns}
        rowId={({ contact }) => contact}
        queryKey={keys.of(client?.id, "collection", "customers", filter)}
        enabled={client !== undefined}
        fetchPage={(order, signal) =>
          api.get("/clients/:id/collection/customers", [client?.id], { ...filter, ...order }, signal)
        }
        onOpen={({ contact }) => void navigate(path(`books/collected/${contact}`))}
        foot={(page) => [customerSums(page, digits)]}
        choosing={{
          nameOf: ({ name }) => name,
          actions: (ids, done) => (
            <button type="button" className="word-link" onClick={() => setCharging({ ids, done })}>
              Charge what is left …
            </button>
          ),
        }}
        empty={search === "" ? "Nobody paid in this year." : "No customer fits."}
      />
      {charging && (
        <ChargeDialog
          ids={charging.ids}
          year={view.year}
          onClose={() => setCharging(null)}
          onDone={() => {
            charging.done();
            setCharging(null);
          }}
        />
      )}
    </>
  );
}

/** Month by month with the day it is paid over, and the statement of each quarter. */
function Months({ view }: { view: CollectionView }) {
  const { client, path, minorDigits: digits } = useScope();
  const file = (from: string, to: string, format: string) =>
    `/api${withQuery(filled("/clients/:id/collection/statement", [client?.id]), { from, to, format })}`;
  const figure = (amount: number, words: string, month: CollectionView["months"][number]) => (
    <Figure
      amount={amount}
      digits={digits}
      dash
      of={
        amount === 0
          ? null
          : {
              ref: `collection/${month.to}/${words}`,
              title: `${view.name}: ${words}`,
              amount,
              digits,
              words: [
                `Of ${showPeriod(month.from, month.to)}. The customers tab has each receipt with its running total; the account has the entries.`,
              ],
              parts:
                view.account === ""
                  ? []
                  : [
                      {
                        ref: `account/${view.account}`,
                        label: `Account ${view.account}`,
                        detail: "collected at source",
                        amount: view.balance,
                      },
                    ],
              arithmetic: [],
            }
      }
      label={words}
    />
  );
  return (
    <div className="grid max-w-4xl gap-8 xl:grid-cols-[1fr_280px]">
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Month</th>
            <th className="num">On receipts</th>
            <th className="num">By kind of goods</th>
            <th>Paid over by</th>
            <th className="num">Booked as paid</th>
          </tr>
        </thead>
        <tbody>
          {view.months.map((month) => (
            <tr key={month.to}>
              <td className="whitespace-nowrap">{showPeriod(month.from, month.to)}</td>
              <td className="num">{figure(month.onReceipts, "collected on receipts", month)}</td>
              <td className="num">{figure(month.onSales, "collected by kind of goods", month)}</td>
              <td className="whitespace-nowrap">
                {month.onReceipts + month.onSales === 0 ? "nothing to pay" : displayDate(month.due)}
              </td>
              <td className="num">{figure(month.paid, "paid over", month)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <section aria-label="Statements">
        <h2 className="mb-1">Statement {view.statement}</h2>
        <ul>
          {view.quarters.map(({ from, to, due }) => (
            <li key={to} className="border-b border-base-300 py-1.5">
              {showPeriod(from, to)} <span className="quiet">by {displayDate(due)}</span>
              <span className="mt-0.5 flex gap-3">
                {["csv", "xlsx", "pdf"].map((format) => (
                  <a key={format} className="word-link" href={file(from, to, format)} download>
                    {format.toUpperCase()}
                  </a>
                ))}
              </span>
            </li>
          ))}
        </ul>
        <p className="quiet mt-3 text-[13px]">
          Above {displayAmount(view.above, digits)} a year and customer, from {displayDate(view.from)}
          {view.to === null ? "" : ` to ${displayDate(view.to)}`}. What is paid over is a journal from the
          bank to the account: <a href={path("books/documents/new/journal")}>new journal</a>.
        </p>
      </section>
    </div>
  );
}
