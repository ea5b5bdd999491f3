import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { Link } from "react-router";
import { bringsMoney } from "@fiscalon/core/model/documentKinds";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { OpenItem, OpenItemPage, PaymentPage, PaymentRow } from "@fiscalon/contract/payments";
import type { SumRow } from "../../kit/DataTable.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { KIND_NAMES } from "../../kit/kinds.ts";
import { NumberLink } from "../../kit/NumberLink.tsx";
import type { Column } from "../../kit/useGridTable.ts";

type PathOf = (inside: string) => string;

/** The columns of what was received and paid. */
export function paymentColumns(digits: number, path: PathOf): Column<PaymentRow>[] {
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, sorts: true, cell: ({ date }) => displayDate(date) },
    {
      id: "kind",
      head: "Kind",
      width: 84,
      sorts: true,
      cell: ({ kind }) => (kind === "receipt" ? "Receipt" : "Payment"),
    },
    {
      id: "number",
      head: "Number",
      width: 100,
      sorts: true,
      always: true,
      cell: ({ id, number }) => <NumberLink to={path(`books/payments/${id}`)}>{number}</NumberLink>,
    },
    { id: "party", head: "Party", width: 120, grow: 1, sorts: true, cell: ({ party }) => party },
    {
      id: "settles",
      head: "Settles",
      width: 120,
      grow: 1,
      cell: ({ documents }) => <span className="font-mono text-[12px]">{documents}</span>,
    },
    {
      id: "reference",
      head: "Reference",
      width: 90,
      grow: 0.7,
      sorts: true,
      cell: ({ reference }) => reference,
    },
    {
      id: "amount",
      head: "Amount",
      width: 104,
      amount: true,
      sorts: true,
      cell: (row) => (
        <Figure
          amount={row.kind === "receipt" ? row.amount : -row.amount}
          digits={digits}
          of={`payment/${row.id}`}
          label={`Amount of ${row.number}`}
        />
      ),
    },
    {
      id: "rest",
      head: "On account",
      width: 104,
      amount: true,
      sorts: true,
      cell: (row) => (
        <Figure
          amount={row.onAccount}
          digits={digits}
          of={`payment/${row.id}`}
          label={`On account of ${row.number}`}
          dash
        />
      ),
    },
  ];
}

/** What came in less what went out. */
export function paymentSum({ total, received, paid }: PaymentPage, digits: number): SumRow {
  const label = "Received less paid";
  const amount = received - paid;
  const step = {
    ref: `payments/${received}/${paid}`,
    title: label,
    amount,
    digits,
    words: ["All payments of the list. Open any row for its own trail."],
    parts: [
      { ref: null, label: "Received", detail: "", amount: received },
      { ref: null, label: "Paid", detail: "", amount: -paid },
    ],
    arithmetic: [],
  };
  return {
    caption: `${plural(total, "payment")}: received less paid`,
    figures: { amount: <Figure amount={amount} digits={digits} label={label} of={step} /> },
  };
}

/** The columns of what is not settled; figures in the currency of the document. */
export function openItemColumns(home: string | undefined, path: PathOf): Column<OpenItem>[] {
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, sorts: true, cell: ({ date }) => displayDate(date) },
    { id: "kind", head: "Kind", width: 160, sorts: true, cell: ({ kind }) => KIND_NAMES[kind] },
    {
      id: "number",
      head: "Number",
      width: 120,
      sorts: true,
      always: true,
      cell: ({ document, number }) => (
        <NumberLink to={path(`books/documents/${document}`)}>{number}</NumberLink>
      ),
    },
    {
      id: "party",
      head: "Party",
      width: 140,
      grow: 1,
      sorts: true,
      cell: ({ party, currency }) => (currency === home ? party : `${party} · ${currency}`),
    },
    { id: "days", head: "Days", width: 80, sorts: true, cell: ({ days }) => String(days) },
    {
      id: "gross",
      head: "Gross",
      width: 110,
      amount: true,
      sorts: true,
      cell: ({ gross, currency, document, number }) => (
        <Figure
          amount={gross}
          digits={minorDigits(currency)}
          of={`document/${document}`}
          label={`Gross of ${number}`}
        />
      ),
    },
    {
      id: "open",
      head: "Open",
      width: 110,
      amount: true,
      sorts: true,
      cell: ({ open, currency, document, number }) => (
        <Figure
          amount={open}
          digits={minorDigits(currency)}
          of={`open/${document}`}
          label={`Open of ${number}`}
        />
      ),
    },
    {
      id: "settle",
      head: "",
      width: 70,
      cell: ({ kind, contact, document }) => (
        <Link
          className="word-link"
          to={path(
            `books/payments/new/${bringsMoney(kind) ? "receipt" : "payment"}/${contact ?? 0}/${document}`,
          )}
        >
          settle
        </Link>
      ),
    },
  ];
}

/** What customers owe less what suppliers are owed. */
export function openItemSum({ total, open }: OpenItemPage, digits: number): SumRow {
  const label = "To receive less to pay";
  const step = {
    ref: `open-items/${open}`,
    title: label,
    amount: open,
    digits,
    words: [
      "What customers owe less what is owed to suppliers. Credit notes count the other way. Open any row for its own trail.",
    ],
    parts: [],
    arithmetic: [],
  };
  return {
    caption: `${plural(total, "open item")}: to receive less to pay`,
    figures: { open: <Figure amount={open} digits={digits} label={label} of={step} /> },
  };
}
