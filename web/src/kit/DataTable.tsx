import clsx from "clsx";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import type { CSSProperties, ReactNode } from "react";
import type { RowSelectionState } from "@tanstack/react-table";
import { ErrorNote } from "./ErrorNote.tsx";
import { ColumnChoice, HeadCell } from "./TableHead.tsx";
import { useFittingFigures } from "./useFittingFigures.ts";
import { useGridTable } from "./useGridTable.ts";
import type { Column } from "./useGridTable.ts";
import { ROW_HEIGHT, usePagedRows } from "./usePagedRows.ts";
import type { PageOf, PageOrder } from "./usePagedRows.ts";

/** Room for the choice of columns, where no empty head makes it. */
const ROOM = "pr-7";
const ROW = "grid border-b [&>*]:truncate [&>*]:px-2 [&>*]:py-1";

/** A row of sums or of what was before: what it is called, and its figures by column. */
export interface SumRow {
  caption: string;
  figures: Readonly<Record<string, ReactNode>>;
}

/** What can be done with several rows at once. */
export interface Choosing<Row> {
  /** What a row is called, for who does not see it. */
  nameOf: (row: Row) => string;
  actions: (ids: number[], done: () => void) => ReactNode;
}

/**
 * A long list as a table: paged and ordered on the server, drawn only where it is looked at. Columns are made wider,
 * hidden and brought back; rows are chosen for what can be done with several at once.
 */
export function DataTable<Row extends object, Page extends PageOf<Row>>({
  name,
  label,
  columns,
  rowId,
  queryKey,
  enabled,
  fetchPage,
  fetchSums,
  onOpen,
  lead,
  foot,
  choosing,
  empty,
}: {
  /** Under which what is chosen of the columns is kept. */
  name: string;
  label: string;
  /** Kept stable by whoever gives them. */
  columns: readonly Column<Row>[];
  rowId: (row: Row) => number | string;
  queryKey: readonly unknown[];
  enabled: boolean;
  fetchPage: (order: PageOrder, signal: AbortSignal) => Promise<Page>;
  /** What all rows come to, where that takes longer than the rows. */
  fetchSums?: (signal: AbortSignal) => Promise<Page>;
  /** What a double click on a row does. */
  onOpen?: (row: Row) => void;
  /** What stands before the first row. */
  lead?: (page: Page) => SumRow;
  foot?: (page: Page) => SumRow[];
  choosing?: Choosing<Row>;
  empty: string;
}) {
  const wholeBox = useRef<HTMLDivElement>(null);
  const footBox = useRef<HTMLDivElement>(null);
  const [sorting, setSorting] = useState<{ id: string; desc: boolean }[]>([]);
  const [chosen, setChosen] = useState<RowSelectionState>({});
  const sumsApart = useQuery({
    queryKey: [...queryKey, "sums"],
    queryFn: ({ signal }) => fetchSums?.(signal),
    enabled: enabled && fetchSums !== undefined,
  });
  const { rows, head, error, setBox, height, shown } = usePagedRows<Row, Page>(
    queryKey,
    enabled,
    sorting[0],
    fetchPage,
    ROW_HEIGHT,
    sumsApart.data?.total,
  );
  const page = fetchSums ? sumsApart.data : head;
  const isEmpty = page ? page.total === 0 : head?.total === null && head.rows.length === 0;
  const inSight = shown.flatMap(({ index }) => rows(index) ?? []);
  const { table, template, forget } = useGridTable<Row>({
    name,
    columns,
    rows: inSight,
    rowId: (row) => String(rowId(row)),
    sorting,
    onSort: setSorting,
    chosen,
    onChoose: setChosen,
  });
  useFittingFigures(wholeBox);
  const visible = table.getVisibleLeafColumns();
  const cellOf = new Map(columns.map((column) => [column.id, column]));
  const room = visible.at(-1)?.columnDef.meta?.head === "" ? "" : ROOM;
  const grid = { gridTemplateColumns: choosing ? `34px ${template}` : template };
  const sums = { ids: visible.map(({ id }) => id), before: choosing ? 1 : 0, room, style: grid };
  const ids = Object.keys(chosen)
    .filter((id) => chosen[id])
    .map(Number);
  const footRows = page && page.total !== 0 && foot ? foot(page) : [];
  return (
    <div ref={wholeBox} className="relative flex min-h-[240px] flex-1 flex-col">
      <ErrorNote error={error ?? sumsApart.error} />
      {choosing && ids.length > 0 && (
        <div role="status" className="mb-1 flex items-center gap-3 rounded bg-accent px-3 py-1.5">
          <span>{ids.length === 1 ? "1 row chosen" : `${ids.length} rows chosen`}</span>
          {choosing.actions(ids, () => setChosen({}))}
          <button type="button" className="word-link ml-auto" onClick={() => setChosen({})}>
            Choose none
          </button>
        </div>
      )}
      <div className="relative min-h-0 flex-1">
        <ColumnChoice table={table} onForget={forget} />
        <div
          role="table"
          aria-label={label}
          aria-rowcount={page?.total ?? -1}
          ref={setBox}
          tabIndex={0}
          className="absolute inset-0 overflow-auto [scrollbar-gutter:stable]"
          onScroll={({ currentTarget }) => {
            if (footBox.current) footBox.current.scrollLeft = currentTarget.scrollLeft;
          }}
        >
          <div role="rowgroup" className="sticky top-0 z-10 bg-base-100">
            <div
              role="row"
              className={clsx(ROW, room, "border-base-content text-[12px] font-semibold text-secondary")}
              style={grid}
            >
              {choosing && <span role="columnheader" aria-label="Choose rows" />}
              {table.getLeafHeaders().map((header) => (
                <HeadCell key={header.id} header={header} />
              ))}
            </div>
            {page && lead && <SumLine {...sums} row={lead(page)} className="quiet border-base-300" />}
          </div>
          {isEmpty && <p className="quiet px-2 py-6">{empty}</p>}
          <div style={{ height: height }} className="relative" role="rowgroup">
            {shown.map((item) => {
              const row = rows(item.index);
              return (
                <div
                  key={item.key}
                  role="row"
                  aria-rowindex={item.index + 1}
                  aria-selected={choosing && row ? chosen[rowId(row)] === true : undefined}
                  className={clsx(
                    ROW,
                    room,
                    "absolute top-0 left-0 w-full items-center border-base-300 hover:bg-base-200",
                  )}
                  style={{ ...grid, height: ROW_HEIGHT, transform: `translateY(${item.start}px)` }}
                  onDoubleClick={() => row && onOpen?.(row)}
                >
                  {row && choosing && (
                    <span role="cell">
                      <input
                        type="checkbox"
                        className="checkbox checkbox-xs"
                        aria-label={`Choose ${choosing.nameOf(row)}`}
                        checked={chosen[rowId(row)] === true}
                        onChange={() => undefined}
                        onClick={(event) =>
                          table.getRow(String(rowId(row))).getToggleSelectedHandler()(event)
                        }
                      />
                    </span>
                  )}
                  {row ? (
                    visible.map(({ id }) => {
                      const column = cellOf.get(id);
                      return (
                        <span
                          role="cell"
                          key={id}
                          {...(column?.amount ? { className: "text-right", "data-figure": id } : {})}
                        >
                          {column?.cell(row)}
                        </span>
                      );
                    })
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
      {fetchSums && foot && sumsApart.isPending && (
        <p role="status" className="quiet border-t border-b-2 border-base-content px-2 py-1.5">
          Adding up …
        </p>
      )}
      {footRows.length > 0 && (
        <div
          role="table"
          aria-label="Totals"
          ref={footBox}
          className="overflow-hidden border-t border-b-2 border-base-content [scrollbar-gutter:stable]"
        >
          {footRows.map((row) => (
            <SumLine
              {...sums}
              key={row.caption}
              row={row}
              className="min-h-[30px] border-b-0 font-semibold"
            />
          ))}
        </div>
      )}
    </div>
  );
}

/** The caption over the columns before the first figure, and each figure under its column. */
function SumLine({
  row,
  ids,
  before,
  room,
  style,
  className,
}: {
  row: SumRow;
  /** The columns that are shown. */
  ids: readonly string[];
  /** Cells before the first column. */
  before: number;
  room: string;
  style: CSSProperties;
  className: string;
}) {
  const found = ids.findIndex((id) => id in row.figures);
  const first = found < 0 ? ids.length : found;
  return (
    <div role="row" className={clsx(ROW, room, className)} style={style}>
      {first + before > 0 && (
        <span role="cell" style={{ gridColumn: `span ${first + before}` }}>
          {row.caption}
        </span>
      )}
      {ids.slice(first).map((id) => (
        <span role="cell" key={id} data-figure={id} className="text-right">
          {row.figures[id]}
        </span>
      ))}
    </div>
  );
}
