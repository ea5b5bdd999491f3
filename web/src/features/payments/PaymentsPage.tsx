import { keys } from "../../api/keys.ts";
import { bringsMoney } from "@fiscalon/core/model/documentKinds";
import clsx from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { OpenItem, OpenItemPage, PaymentPage, PaymentRow } from "@fiscalon/contract/payments";
import { useScope } from "../../app/scope.ts";
import { api, withQuery } from "../../api/client.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate, showPeriod } from "../../kit/format.ts";
import { KIND_NAMES } from "../../kit/kinds.ts";
import { PagedTable } from "../../kit/PagedTable.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";

/** Money that moved, and what is still open. */
export function PaymentsPage() {
  const { path } = useScope();
  const [view, setView] = useState<"payments" | "open">("payments");
  const [search, setSearch] = useState("");
  return (
    <Sheet title="Payments" actions={<BooksNav />}>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <input
          className="entry w-[200px]"
          placeholder="Number, party or reference"
          aria-label="Find payments"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <div role="tablist" aria-label="What is shown" className="flex gap-4 pb-1">
          {(
            [
              ["payments", "Payments and receipts"],
              ["open", "Open items"],
            ] as const
          ).map(([id, name]) => (
            <button
              key={id}
              type="button"
              role="tab"
              aria-selected={view === id}
              className={clsx(
                "cursor-pointer border-b-2",
                view === id ? "border-primary" : "quiet border-transparent",
              )}
              onClick={() => setView(id)}
            >
              {name}
            </button>
          ))}
        </div>
        <div className="ml-auto flex gap-2">
          <Link className="action main" to={path("books/payments/new/receipt")}>
            Record a receipt
          </Link>
          <Link className="action" to={path("books/payments/new/payment")}>
            Record a payment
          </Link>
        </div>
      </div>
      {view === "payments" ? <Moved search={search} /> : <Open search={search} />}
    </Sheet>
  );
}

function Moved({ search }: { search: string }) {
  const { client, period, path, minorDigits: digits } = useScope();
  const [scoped, setScoped] = useState(true);
  const filter = { search, ...(scoped && period ? { from: period.from, to: period.to } : {}) };
  return (
    <>
      {period && (
        <label className="mb-1 flex cursor-pointer items-center gap-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={scoped}
            onChange={(event) => setScoped(event.target.checked)}
          />
          only {showPeriod(period.from, period.to)}
        </label>
      )}
      <PagedTable<PaymentRow, PaymentPage>
        label="Payments"
        columns="grid-cols-[106px_84px_100px_minmax(120px,1fr)_minmax(120px,1fr)_minmax(90px,.7fr)_104px_104px]"
        head={["Date", "Kind", "Number", "Party", "Settles", "Reference", "Amount", "On account"]}
        amounts={[6, 7]}
        queryKey={keys.of(client?.id, "payments", filter)}
        enabled={client !== undefined}
        fetchPage={(offset, limit) =>
          api.get<PaymentPage>(withQuery(`/clients/${client?.id}/payments`, { ...filter, offset, limit }))
        }
        cells={(row) => [
          showDate(row.date),
          row.kind === "receipt" ? "Receipt" : "Payment",
          <Link
            key="number"
            to={path(`books/payments/${row.id}`)}
            className="font-mono text-[12.5px] font-semibold hover:text-primary"
          >
            {row.number}
          </Link>,
          row.party,
          <span key="documents" className="font-mono text-[12px]">
            {row.documents}
          </span>,
          row.reference,
          <Figure
            key="amount"
            amount={row.kind === "receipt" ? row.amount : -row.amount}
            digits={digits}
            of={`payment/${row.id}`}
            label={`Amount of ${row.number}`}
          />,
          <Figure
            key="rest"
            amount={row.onAccount}
            digits={digits}
            of={`payment/${row.id}`}
            label={`On account of ${row.number}`}
            dash
          />,
        ]}
        foot={(page) => [
          [
            `${plural(page.total, "payment")}: received less paid`,
            <Figure
              key="sum"
              amount={page.received - page.paid}
              digits={digits}
              label="Received less paid"
              of={{
                ref: `payments/${page.received}/${page.paid}`,
                title: "Received less paid",
                amount: page.received - page.paid,
                digits,
                words: ["All payments of the list. Open any row for its own trail."],
                parts: [
                  { ref: null, label: "Received", detail: "", amount: page.received },
                  { ref: null, label: "Paid", detail: "", amount: -page.paid },
                ],
                arithmetic: [],
              }}
            />,
            "",
          ],
        ]}
        empty="No money moved here. Record a receipt or a payment, or change the period."
      />
    </>
  );
}

function Open({ search }: { search: string }) {
  const { client, path, minorDigits: digits } = useScope();
  const [side, setSide] = useState<"" | "sale" | "purchase">("");
  const filter = { search, side };
  return (
    <>
      <select
        className="entry mb-1 !w-[190px]"
        aria-label="Whose"
        value={side}
        onChange={(event) => setSide(event.target.value as typeof side)}
      >
        <option value="">customers and suppliers</option>
        <option value="sale">customers</option>
        <option value="purchase">suppliers</option>
      </select>
      <PagedTable<OpenItem, OpenItemPage>
        label="Open items"
        columns="grid-cols-[106px_160px_120px_minmax(140px,1fr)_80px_110px_110px_90px]"
        head={["Date", "Kind", "Number", "Party", "Days", "Gross", "Open", ""]}
        amounts={[5, 6]}
        queryKey={keys.of(client?.id, "open-items", filter)}
        enabled={client !== undefined}
        fetchPage={(offset, limit) =>
          api.get<OpenItemPage>(withQuery(`/clients/${client?.id}/open-items`, { ...filter, offset, limit }))
        }
        cells={(row) => [
          showDate(row.date),
          KIND_NAMES[row.kind],
          <Link
            key="number"
            to={path(`books/documents/${row.document}`)}
            className="font-mono text-[12.5px] font-semibold hover:text-primary"
          >
            {row.number}
          </Link>,
          row.currency === client?.currency ? row.party : `${row.party} · ${row.currency}`,
          String(row.days),
          <Figure
            key="gross"
            amount={row.gross}
            digits={minorDigits(row.currency)}
            of={`document/${row.document}`}
            label={`Gross of ${row.number}`}
          />,
          <Figure
            key="open"
            amount={row.open}
            digits={minorDigits(row.currency)}
            of={`open/${row.document}`}
            label={`Open of ${row.number}`}
          />,
          <Link key="pay" className="word-link" to={path(payPath(row))}>
            settle
          </Link>,
        ]}
        foot={(page) => [
          [
            `${plural(page.total, "open item")}: to receive less to pay`,
            "",
            <Figure
              key="sum"
              amount={page.open}
              digits={digits}
              label="To receive less to pay"
              of={{
                ref: `open-items/${page.open}`,
                title: "To receive less to pay",
                amount: page.open,
                digits,
                words: [
                  "What customers owe less what is owed to suppliers. Credit notes count the other way. Open any row for its own trail.",
                ],
                parts: [],
                arithmetic: [],
              }}
            />,
          ],
        ]}
        empty="Nothing is open."
      />
    </>
  );
}

function payPath({ kind, document, contact }: OpenItem): string {
  return `books/payments/new/${bringsMoney(kind) ? "receipt" : "payment"}/${contact ?? 0}/${document}`;
}
