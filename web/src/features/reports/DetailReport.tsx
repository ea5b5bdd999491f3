import { keys } from "../../api/keys.ts";
import clsx from "clsx";
import { Link } from "react-router";
import type { DetailPage, DetailRow } from "@fiscalon/contract/reports";
import { useScope } from "../../app/scope.ts";
import { api, withQuery } from "../../api/client.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate } from "../../kit/format.ts";
import { usePagedRows } from "../../kit/usePagedRows.ts";
import type { Filter } from "./useTaxSummary.ts";

const ROW = "grid gap-x-3 border-b py-1.5 text-[13px]";
const COLUMNS = "grid-cols-[88px_96px_minmax(110px,1fr)_minmax(120px,1.2fr)_62px_52px_56px_104px_96px_96px]";

/** The lines that were counted, in order of time; each opens its trail. */
export function DetailReport({ clientId, filter }: { clientId: number; filter: Filter }) {
  const { path, minorDigits } = useScope();
  const { rows, head, setBox, height, shown } = usePagedRows<DetailRow, DetailPage>(
    keys.of(clientId, "tax-details", filter),
    true,
    (offset, limit) =>
      api.get<DetailPage>(
        withQuery(`/clients/${clientId}/reports/tax/details`, { ...filter, offset, limit }),
      ),
  );
  return (
    <div
      role="table"
      aria-label="Lines counted"
      aria-rowcount={head?.total ?? 0}
      ref={setBox}
      tabIndex={0}
      className="min-h-[160px] flex-1 overflow-y-auto"
    >
      <div role="rowgroup" className="sticky top-0 z-10 bg-base-100">
        <div
          role="row"
          className={clsx(ROW, COLUMNS, "border-base-content text-[12px] font-semibold text-secondary")}
        >
          {["Tax point", "Number", "Party", "Text", "Levy", "Code", "Rate"].map((name) => (
            <span role="columnheader" key={name}>
              {name}
            </span>
          ))}
          {["Net", "Tax", "Deducted"].map((name) => (
            <span role="columnheader" key={name} className="text-right">
              {name}
            </span>
          ))}
        </div>
      </div>
      {head?.total === 0 && <p className="quiet mt-6 text-center">Nothing was counted in these days.</p>}
      <div style={{ height }} className="relative" role="rowgroup">
        {shown.map((item) => {
          const row = rows(item.index);
          return (
            <div
              key={item.key}
              role="row"
              aria-rowindex={item.index + 1}
              className={clsx(ROW, COLUMNS, "absolute top-0 left-0 w-full items-center border-base-300")}
              style={{ height: 33, transform: `translateY(${item.start}px)` }}
            >
              {row ? (
                <Cells row={row} digits={minorDigits} to={path(`books/documents/${row.document}`)} />
              ) : (
                <span role="cell" className="quiet">
                  …
                </span>
              )}
            </div>
          );
        })}
      </div>
      {head && head.total > 0 && <p className="quiet mt-2">{plural(head.total, "line")}</p>}
    </div>
  );
}

function Cells({ row, digits, to }: { row: DetailRow; digits: number; to: string }) {
  const of = `line/${row.document}/${row.line}`;
  return (
    <>
      <span role="cell">{showDate(row.taxPoint)}</span>
      <Link role="cell" to={to} className="truncate font-mono text-[12.5px] font-semibold hover:text-primary">
        {row.number}
      </Link>
      <span role="cell" className="truncate">
        {row.party}
      </span>
      <span role="cell" className="truncate">
        {row.text}
      </span>
      <span role="cell">{row.levy}</span>
      <span role="cell" className="font-mono text-[12px]">
        {row.code}
      </span>
      <span role="cell">{row.rate === null ? "–" : `${row.rate} %`}</span>
      {[row.net, row.tax, row.recoverable].map((amount, index) => (
        <span role="cell" key={index} className="text-right">
          <Figure
            amount={amount}
            digits={digits}
            of={amount === 0 ? null : of}
            label={`${row.number} line ${row.line}`}
            dash
          />
        </span>
      ))}
    </>
  );
}
