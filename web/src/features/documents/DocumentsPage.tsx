import { useQuery } from "@tanstack/react-query";
import clsx from "clsx";
import { Lock } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { DocumentPage as Page, DocumentRow } from "@fiscalon/contract/views";
import type { TrailStep } from "@fiscalon/contract/trail";
import { useScope } from "../../app/scope.ts";
import { api, withQuery } from "../../kit/api.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate, showPeriod } from "../../kit/format.ts";
import { ALL_KINDS, KIND_NAMES, TYPED_KINDS } from "../../kit/kinds.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { usePagedRows } from "../../kit/usePagedRows.ts";
import { BooksNav } from "./BooksNav.tsx";

const ROW = "grid border-b [&>*]:truncate [&>*]:px-2 [&>*]:py-1";
const COLUMNS = "grid-cols-[98px_134px_146px_minmax(100px,1fr)_92px_110px_96px_110px_40px]";

/** One grid for all documents, paged on the server and drawn only where it is looked at. */
export function DocumentsPage() {
  const { client, period, registration, path, minorDigits } = useScope();
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState("");
  const [scoped, setScoped] = useState(true);
  const filter = {
    search,
    kind,
    ...(scoped && period ? { from: period.from, to: period.to, registration: registration?.id } : {}),
  };
  const base = `/clients/${client?.id}/documents`;
  const { rows, head, setBox, height, shown } = usePagedRows<DocumentRow, Page>(
    ["client", client?.id, "documents", filter],
    client !== undefined,
    (offset, limit) => api.get<Page>(withQuery(base, { ...filter, offset, limit })),
  );
  const anything = useQuery({
    queryKey: ["client", client?.id, "documents", "any"],
    queryFn: () => api.get<Page>(withQuery(base, { limit: 1 })),
    enabled: client !== undefined,
  });
  if (anything.data?.total === 0) {
    return (
      <Sheet title="Documents" actions={<BooksNav />}>
        <EmptyState
          title="The books are empty"
          action={
            <>
              <Link className="action main" to={path("books/import")}>
                Import a register
              </Link>
              <Link className="action" to={path("books/documents/new/sales-invoice")}>
                Type an invoice
              </Link>
            </>
          }
        >
          Drop the register of sales or purchases that the client sends, or type the documents one by one.
        </EmptyState>
      </Sheet>
    );
  }
  return (
    <Sheet title="Documents" aside={head ? plural(head.total, "document") : ""} actions={<BooksNav />}>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <input
          className="entry w-[200px]"
          placeholder="Number, party or note"
          aria-label="Find documents"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <select
          className="entry w-[170px]"
          aria-label="Kind"
          value={kind}
          onChange={(event) => setKind(event.target.value)}
        >
          <option value="">all kinds</option>
          {ALL_KINDS.map((one) => (
            <option key={one} value={one}>
              {KIND_NAMES[one]}
            </option>
          ))}
        </select>
        {period && (
          <label className="flex cursor-pointer items-center gap-1.5 pb-1">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={scoped}
              onChange={(event) => setScoped(event.target.checked)}
            />
            only {showPeriod(period.from, period.to)}
          </label>
        )}
        <NewMenu />
      </div>
      <div
        role="table"
        aria-label="Documents"
        aria-rowcount={head?.total ?? 0}
        ref={setBox}
        tabIndex={0}
        className="min-h-[240px] flex-1 overflow-y-auto"
      >
        <div role="rowgroup" className="sticky top-0 z-10 bg-base-100">
          <div
            role="row"
            className={clsx(ROW, COLUMNS, "border-base-content text-[12px] font-semibold text-secondary")}
          >
            {["Date", "Kind", "Number", "Party", "Codes"].map((name) => (
              <span role="columnheader" key={name}>
                {name}
              </span>
            ))}
            {["Net", "Tax", "Gross"].map((name) => (
              <span role="columnheader" key={name} className="text-right">
                {name}
              </span>
            ))}
            <span role="columnheader">
              <span className="sr-only">State</span>
            </span>
          </div>
        </div>
        <div style={{ height: height }} className="relative" role="rowgroup">
          {shown.map((item) => {
            const row = rows(item.index);
            return (
              <div
                key={item.key}
                role="row"
                aria-rowindex={item.index + 1}
                className={clsx(
                  ROW,
                  COLUMNS,
                  "absolute top-0 left-0 w-full items-center border-base-300 hover:bg-base-200",
                )}
                style={{ height: 33, transform: `translateY(${item.start}px)` }}
                onDoubleClick={() => row && void navigate(path(`books/documents/${row.id}`))}
              >
                {row ? (
                  <Cells row={row} digits={minorDigits} to={path(`books/documents/${row.id}`)} />
                ) : (
                  <span role="cell" className="quiet">
                    …
                  </span>
                )}
              </div>
            );
          })}
        </div>
        {head && (
          <div role="rowgroup" className="sticky bottom-0 bg-base-100">
            <div
              role="row"
              className={clsx(ROW, COLUMNS, "border-t border-b-2 border-base-content font-semibold")}
            >
              <span role="cell" className="col-span-5">
                All {plural(head.total, "document")}, credit notes taken off
              </span>
              {(["net", "tax", "gross"] as const).map((key) => (
                <span role="cell" key={key} className="text-right">
                  <Figure
                    amount={head[key]}
                    digits={minorDigits}
                    of={sumStep(key, head, minorDigits)}
                    label={`Sum of ${key}`}
                  />
                </span>
              ))}
              <span role="cell" />
            </div>
          </div>
        )}
      </div>
    </Sheet>
  );
}

function sumStep(key: "net" | "tax" | "gross", head: Page, digits: number): TrailStep {
  return {
    ref: `documents/${key}/${head.total}/${head[key]}`,
    title: `Sum of ${key}`,
    amount: head[key],
    digits,
    words: [
      `The ${key} of all ${plural(head.total, "document")} of the list, sales and purchases alike; credit notes count negative. Open any row for its own trail.`,
    ],
    parts: [],
    arithmetic: [],
  };
}

function Cells({ row, digits, to }: { row: DocumentRow; digits: number; to: string }) {
  const of = `document/${row.id}`;
  return (
    <>
      <span role="cell">{showDate(row.date)}</span>
      <span role="cell">{KIND_NAMES[row.kind]}</span>
      <Link role="cell" to={to} className="font-mono text-[12.5px] font-semibold hover:text-primary">
        {row.number}
      </Link>
      <span role="cell">{row.party}</span>
      <span role="cell" className="font-mono text-[12px]">
        {row.codes}
      </span>
      <span role="cell" className="text-right">
        <Figure amount={row.net} digits={digits} of={of} label={`Net of ${row.number}`} />
      </span>
      <span role="cell" className="text-right">
        <Figure amount={row.tax} digits={digits} of={of} label={`Tax of ${row.number}`} dash />
      </span>
      <span role="cell" className="text-right">
        <Figure amount={row.gross} digits={digits} of={of} label={`Gross of ${row.number}`} />
      </span>
      <span role="cell" className="quiet flex items-center gap-1 text-[11.5px]">
        {row.late && "late"}
        {row.locked && <Lock size={12} aria-label="on a sealed return" />}
      </span>
    </>
  );
}

function NewMenu() {
  const { path } = useScope();
  const navigate = useNavigate();
  return (
    <select
      className="action main ml-auto cursor-pointer"
      aria-label="New document"
      value=""
      onChange={(event) => void navigate(path(`books/documents/new/${event.target.value}`))}
    >
      <option value="" disabled>
        New document …
      </option>
      {TYPED_KINDS.map((kind) => (
        <option key={kind} value={kind} className="bg-base-100 text-base-content">
          {KIND_NAMES[kind]}
        </option>
      ))}
    </select>
  );
}
