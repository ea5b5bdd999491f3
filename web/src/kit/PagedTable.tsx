import clsx from "clsx";
import type { ReactNode } from "react";
import { usePagedRows } from "./usePagedRows.ts";

const ROW = "grid border-b [&>*]:truncate [&>*]:px-2 [&>*]:py-1";

/**
 * A long list as a table: paged on the server, drawn only where it is looked at. `foot` gives its rows:
 * of each what spans the columns before the first figures, and a cell for each of the others.
 */
export function PagedTable<Row, Page extends { rows: Row[]; total: number }>({
  label,
  columns,
  head,
  amounts,
  queryKey,
  enabled,
  fetchPage,
  cells,
  onOpen,
  foot,
  empty,
}: {
  label: string;
  /** A Tailwind class with the widths of the columns. */
  columns: string;
  head: readonly string[];
  /** Positions of the columns that hold figures. */
  amounts: readonly number[];
  queryKey: readonly unknown[];
  enabled: boolean;
  fetchPage: (offset: number, limit: number) => Promise<Page>;
  cells: (row: Row) => ReactNode[];
  /** What a double click on a row does. */
  onOpen?: (row: Row) => void;
  foot?: (page: Page) => ReactNode[][];
  empty: string;
}) {
  const { rows, head: page, setBox, height, shown } = usePagedRows<Row, Page>(queryKey, enabled, fetchPage);
  const isAmount = (at: number) => amounts.includes(at);
  const footRows = page && page.total > 0 && foot ? foot(page) : [];
  return (
    <div
      role="table"
      aria-label={label}
      aria-rowcount={page?.total ?? 0}
      ref={setBox}
      tabIndex={0}
      className="min-h-[240px] flex-1 overflow-y-auto"
    >
      <div role="rowgroup" className="sticky top-0 z-10 bg-base-100">
        <div
          role="row"
          className={clsx(ROW, columns, "border-base-content text-[12px] font-semibold text-secondary")}
        >
          {head.map((name, at) => (
            <span role="columnheader" key={name} className={clsx(isAmount(at) && "text-right")}>
              {name || <span className="sr-only">Actions</span>}
            </span>
          ))}
        </div>
      </div>
      {page?.total === 0 && <p className="quiet px-2 py-6">{empty}</p>}
      <div style={{ height }} className="relative" role="rowgroup">
        {shown.map((item) => {
          const row = rows(item.index);
          return (
            <div
              key={item.key}
              role="row"
              aria-rowindex={item.index + 1}
              className={clsx(
                ROW,
                columns,
                "absolute top-0 left-0 w-full items-center border-base-300 hover:bg-base-200",
              )}
              style={{ height: 33, transform: `translateY(${item.start}px)` }}
              onDoubleClick={() => row && onOpen?.(row)}
            >
              {row ? (
                cells(row).map((cell, at) => (
                  <span role="cell" key={head[at]} className={clsx(isAmount(at) && "text-right")}>
                    {cell}
                  </span>
                ))
              ) : (
                <span role="cell" className="quiet">
                  …
                </span>
              )}
            </div>
          );
        })}
      </div>
      {footRows.length > 0 && (
        <div role="rowgroup" className="sticky bottom-0 border-t border-b-2 border-base-content bg-base-100">
          {footRows.map(([caption, ...sums], index) => (
            <div role="row" key={index} className={clsx(ROW, columns, "border-b-0 font-semibold")}>
              <span role="cell" style={{ gridColumn: `span ${amounts[0] ?? head.length}` }}>
                {caption}
              </span>
              {sums.map((sum, at) => (
                <span role="cell" key={at} className="text-right">
                  {sum}
                </span>
              ))}
            </div>
          ))}
        </div>
      )}
    </div>
  );
}
