import { keys } from "../../api/keys.ts";
import clsx from "clsx";
import { Link, useParams } from "react-router";
import type { LedgerEntryRow } from "@fiscalon/contract/views";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { api, withQuery } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { usePagedRows } from "../../kit/usePagedRows.ts";
import { BooksNav } from "../../app/BooksNav.tsx";
import { useSetup } from "../../app/useSetup.ts";
import { useLedgerDates } from "../../app/useLedgerDates.ts";

interface Page {
  opening: number;
  total: number;
  rows: LedgerEntryRow[];
}

const COLUMNS = "grid-cols-[110px_minmax(160px,1fr)_120px_120px_130px]";

/** The general ledger: one account, entry by entry, with its running balance. */
export function AccountPage() {
  const { client, path, minorDigits: digits } = useScope();
  const { account = "" } = useParams();
  const setup = useSetup();
  const dates = useLedgerDates();
  const { rows, head, setBox, height, shown } = usePagedRows<LedgerEntryRow, Page>(
    keys.of(client?.id, "ledger", account, dates.from, dates.to),
    client !== undefined,
    (offset, limit) =>
      api.get<Page>(
        withQuery(`/clients/${client?.id}/ledger/${account}`, {
          from: dates.from,
          to: dates.to,
          offset,
          limit,
        }),
      ),
  );
  const name = setup?.plain.accounts.find((one) => one.code === account)?.name ?? "";
  return (
    <Sheet
      title={`${account} ${name}`}
      aside={head ? plural(head.total, "entry", "entries") : ""}
      actions={<BooksNav />}
    >
      <div className="mb-2 flex items-end gap-4">
        <DateField label="From" value={dates.from} onChange={dates.setFrom} />
        <DateField label="To" value={dates.to} onChange={dates.setTo} />
        <Link className="word-link pb-1.5" to={path("books/ledger")}>
          Trial balance
        </Link>
      </div>
      <div role="table" aria-label={`Ledger of ${name}`} className="flex min-h-[240px] flex-1 flex-col">
        <div
          role="row"
          className={clsx(
            "grid border-b border-base-content pr-3 text-[12px] font-semibold text-secondary [&>*]:px-2 [&>*]:py-1",
            COLUMNS,
          )}
        >
          <span role="columnheader">Date</span>
          <span role="columnheader">Entry</span>
          <span role="columnheader" className="text-right">
            Debit
          </span>
          <span role="columnheader" className="text-right">
            Credit
          </span>
          <span role="columnheader" className="text-right">
            Balance
          </span>
        </div>
        <div
          role="row"
          className={clsx("quiet grid border-b border-base-300 pr-3 [&>*]:px-2 [&>*]:py-1.5", COLUMNS)}
        >
          <span role="cell">{showDate(dates.from)}</span>
          <span role="cell">Balance brought forward</span>
          <span role="cell" />
          <span role="cell" />
          <span role="cell" className="num">
            {displayAmount(head?.opening ?? 0, digits)}
          </span>
        </div>
        <div
          ref={setBox}
          className="min-h-0 flex-1 overflow-y-auto"
          tabIndex={0}
          role="rowgroup"
          aria-label="Entries"
        >
          <div style={{ height: height }} className="relative" role="presentation">
            {shown.map((item) => {
              const row = rows(item.index);
              return (
                <div
                  key={item.key}
                  role="row"
                  className={clsx(
                    "absolute top-0 left-0 grid w-full items-center border-b border-base-300 hover:bg-base-200 [&>*]:truncate [&>*]:px-2",
                    COLUMNS,
                  )}
                  style={{ height: 33, transform: `translateY(${item.start}px)` }}
                >
                  {row ? (
                    <Cells row={row} digits={digits} path={path} />
                  ) : (
                    <span role="cell" className="quiet">
                      …
                    </span>
                  )}
                </div>
              );
            })}
          </div>
        </div>
      </div>
    </Sheet>
  );
}

function Cells({
  row,
  digits,
  path,
}: {
  row: LedgerEntryRow;
  digits: number;
  path: (inside: string) => string;
}) {
  const of = row.documentId === null ? `entry/${row.entry}` : `document/${row.documentId}`;
  const figure = <Figure amount={Math.abs(row.amount)} digits={digits} of={of} label={row.text} />;
  return (
    <>
      <span role="cell">{showDate(row.date)}</span>
      {row.documentId === null ? (
        <span role="cell">{row.text}</span>
      ) : (
        <Link role="cell" className="hover:text-primary" to={path(`books/documents/${row.documentId}`)}>
          {row.text}
        </Link>
      )}
      <span role="cell" className="text-right">
        {row.amount > 0 && figure}
      </span>
      <span role="cell" className="text-right">
        {row.amount < 0 && figure}
      </span>
      <span role="cell" className="num">
        {displayAmount(row.balance, digits)}
      </span>
    </>
  );
}
