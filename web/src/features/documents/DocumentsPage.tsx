import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { Lock } from "lucide-react";
import { useState } from "react";
import type { ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import type { DocumentPage as Page, DocumentRow, DocumentSum } from "@fiscalon/contract/views";
import type { TrailStep } from "@fiscalon/contract/trail";
import { useScope } from "../../app/scope.ts";
import { api, withQuery } from "../../api/client.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate, showPeriod } from "../../kit/format.ts";
import { ALL_KINDS, KIND_NAMES, TYPED_KINDS } from "../../kit/kinds.ts";
import { PagedTable } from "../../kit/PagedTable.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { useSetup } from "../../app/useSetup.ts";

/** One grid for all documents, paged on the server and drawn only where it is looked at. */
export function DocumentsPage() {
  const { client, period, registration, path, minorDigits } = useScope();
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState("");
  const [code, setCode] = useState("");
  const codes = useSetup()?.plain.codes ?? [];
  const [scoped, setScoped] = useState(true);
  const filter = {
    search,
    kind,
    code,
    ...(scoped && period ? { from: period.from, to: period.to, registration: registration?.id } : {}),
  };
  const base = `/clients/${client?.id}/documents`;
  const anything = useQuery({
    queryKey: keys.of(client?.id, "documents", "any"),
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
    <Sheet title="Documents" actions={<BooksNav />}>
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
        <select
          className="entry w-[150px]"
          aria-label="Code"
          value={code}
          onChange={(event) => setCode(event.target.value)}
        >
          <option value="">all codes</option>
          {codes.map((one) => (
            <option key={one.code} value={one.code}>
              {one.code} {one.name}
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
      <PagedTable<DocumentRow, Page>
        label="Documents"
        columns="grid-cols-[98px_134px_146px_minmax(100px,1fr)_92px_110px_96px_110px_40px]"
        head={["Date", "Kind", "Number", "Party", "Codes", "Net", "Tax", "Gross", ""]}
        amounts={[5, 6, 7]}
        queryKey={keys.of(client?.id, "documents", filter)}
        enabled={client !== undefined}
        fetchPage={(offset, limit) => api.get<Page>(withQuery(base, { ...filter, offset, limit }))}
        onOpen={(row) => void navigate(path(`books/documents/${row.id}`))}
        cells={(row) => cellsOf(row, minorDigits, path(`books/documents/${row.id}`))}
        foot={({ sums }) =>
          sums.map((sum) => [
            `${SIDES[sum.side]}: ${plural(sum.count, "document")}, credit notes taken off${code === "" ? "" : `, lines with ${code}`}`,
            ...(["net", "tax", "gross"] as const).map((key) => (
              <Figure
                key={key}
                amount={sum[key]}
                digits={minorDigits}
                of={sumStep(key, sum, minorDigits, code)}
                label={`${SIDES[sum.side]}: sum of ${key}`}
              />
            )),
          ])
        }
        empty={scoped ? "No document of this period fits." : "No document fits."}
      />
    </Sheet>
  );
}

const SIDES = { sale: "Sales", purchase: "Purchases" };

function sumStep(key: "net" | "tax" | "gross", sum: DocumentSum, digits: number, code: string): TrailStep {
  const what = code === "" ? `The ${key}` : `The ${key} of the lines with ${code}`;
  return {
    ref: `documents/${sum.side}/${code}/${key}/${sum.count}/${sum[key]}`,
    title: `${SIDES[sum.side]}: sum of ${key}`,
    amount: sum[key],
    digits,
    words: [
      `${what} of all ${plural(sum.count, "document")} of the list on this side; credit notes count negative. Open any row for its own trail.`,
    ],
    parts: [],
    arithmetic: [],
  };
}

function cellsOf(row: DocumentRow, digits: number, to: string): ReactNode[] {
  const of = `document/${row.id}`;
  return [
    showDate(row.date),
    KIND_NAMES[row.kind],
    <Link
      key="number"
      to={to}
      className="block truncate font-mono text-[12.5px] font-semibold hover:text-primary"
    >
      {row.number}
    </Link>,
    row.party,
    <span key="codes" className="font-mono text-[12px]">
      {row.codes}
    </span>,
    <Figure key="net" amount={row.net} digits={digits} of={of} label={`Net of ${row.number}`} />,
    <Figure key="tax" amount={row.tax} digits={digits} of={of} label={`Tax of ${row.number}`} dash />,
    <Figure key="gross" amount={row.gross} digits={digits} of={of} label={`Gross of ${row.number}`} />,
    <span key="state" className="quiet flex items-center gap-1 text-[11.5px]">
      {row.late && "late"}
      {row.locked && <Lock size={12} aria-label="on a sealed return" />}
    </span>,
  ];
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
