import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMemo } from "react";
import { Link, useParams } from "react-router";
import type { LedgerEntryRow } from "@fiscalon/contract/ledger";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { BooksNav } from "../../app/BooksNav.tsx";
import { useScope } from "../../app/scope.ts";
import { useLedgerDates } from "../../app/useLedgerDates.ts";
import { usePlainSetup } from "../../app/records.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { DateField } from "../../kit/DateField.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import type { Column } from "../../kit/useGridTable.ts";

interface Page {
  opening: number;
  total: number;
  rows: LedgerEntryRow[];
}

/** The general ledger: one account, entry by entry, with its running balance. */
export function AccountPage() {
  const { client, path, minorDigits: digits } = useScope();
  const { account = "" } = useParams();
  const setup = usePlainSetup();
  const dates = useLedgerDates();
  const columns = useMemo(() => entryColumns(digits, path), [digits, path]);
  const known = setup?.accounts.find(({ code }) => code === account);
  const name = known ? known.name : "";
  return (
    <Sheet title={`${account} ${name}`} actions={<BooksNav />}>
      <div className="mb-2 flex items-end gap-4">
        <DateField label="From" value={dates.from} onChange={dates.setFrom} />
        <DateField label="To" value={dates.to} onChange={dates.setTo} />
        <Link className="word-link pb-1.5" to={path("books/ledger")}>
          Trial balance
        </Link>
      </div>
      <DataTable<LedgerEntryRow, Page>
        name="ledger"
        label={`Ledger of ${name}`}
        columns={columns}
        rowId={({ entry, text, amount, balance }) => `${entry} ${text} ${amount} ${balance}`}
        queryKey={keys.of(client?.id, "ledger", account, dates.from, dates.to)}
        enabled={client !== undefined}
        fetchPage={({ offset, limit }) =>
          api.get("/clients/:id/ledger/:account", [client?.id, account], {
            from: dates.from,
            to: dates.to,
            offset,
            limit,
          })
        }
        lead={({ opening }) => ({
          caption: `${displayDate(dates.from)}: balance brought forward`,
          figures: { balance: <span className="num">{displayAmount(opening, digits)}</span> },
        })}
        foot={({ total }) => [{ caption: plural(total, "entry", "entries"), figures: {} }]}
        empty="Nothing was posted here in these days."
      />
    </Sheet>
  );
}

function entryColumns(digits: number, path: (inside: string) => string): Column<LedgerEntryRow>[] {
  const side = (id: "debit" | "credit", sign: 1 | -1): Column<LedgerEntryRow> => ({
    id,
    head: id === "debit" ? "Debit" : "Credit",
    width: 120,
    amount: true,
    cell: ({ amount, entry, documentId, text }) =>
      amount * sign > 0 && (
        <Figure
          amount={Math.abs(amount)}
          digits={digits}
          of={documentId === null ? `entry/${entry}` : `document/${documentId}`}
          label={text}
        />
      ),
  });
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, cell: ({ date }) => displayDate(date) },
    {
      id: "entry",
      head: "Entry",
      width: 160,
      grow: 1,
      always: true,
      cell: ({ documentId, text }) =>
        documentId === null ? (
          text
        ) : (
          <Link className="hover:text-primary" to={path(`books/documents/${documentId}`)}>
            {text}
          </Link>
        ),
    },
    side("debit", 1),
    side("credit", -1),
    {
      id: "balance",
      head: "Balance",
      width: 130,
      amount: true,
      cell: ({ balance }) => <span className="num">{displayAmount(balance, digits)}</span>,
    },
  ];
}
