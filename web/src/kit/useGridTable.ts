import {
  columnResizingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  rowSelectionFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import type { ColumnDef, Header, ReactTable, RowSelectionState, SortingState } from "@tanstack/react-table";
import { useMemo } from "react";
import type { ReactNode } from "react";
import { fittingWidth } from "./useFittingFigures.ts";
import { useTableLayout } from "./tableLayout.ts";

/** A column of a long list. */
export interface Column<Row> {
  /** Also what the server knows it by when it orders. */
  id: string;
  /** Empty for what is done with a row. */
  head: string;
  cell: (row: Row) => ReactNode;
  /** In pixels; with `grow` the least, and its share of what is left. */
  width: number;
  grow?: number;
  /** Holds a figure: set to the right, its sum below it. */
  amount?: boolean;
  /** The server can order by it. */
  sorts?: boolean;
  /** Cannot be hidden. */
  always?: boolean;
}

interface Meta {
  head: string;
  amount?: boolean | undefined;
  grow?: number | undefined;
}

const features = tableFeatures({
  columnVisibilityFeature,
  columnSizingFeature,
  columnResizingFeature,
  rowSortingFeature,
  rowSelectionFeature,
  columnMeta: {} as Meta,
});
type Features = typeof features;
export type GridTable<Row extends object> = ReactTable<Features, Row>;
export type ColumnHeader<Row extends object> = Header<Features, Row>;

const LEAST = 44;
const MOST = 900;

/**
 * The model of a table of which only some rows are here: its columns with their widths, which of them are shown, the
 * order asked of the server, and the rows chosen. What a person chose of the columns is kept under `name`.
 */
export function useGridTable<Row extends object>({
  name,
  columns,
  rows,
  rowId,
  sorting,
  onSort,
  chosen,
  onChoose,
}: {
  name: string;
  columns: readonly Column<Row>[];
  rows: Row[];
  rowId: (row: Row, index: number) => string;
  sorting: SortingState;
  onSort: (sorting: SortingState) => void;
  chosen: RowSelectionState;
  onChoose: (chosen: RowSelectionState) => void;
}) {
  const { layout, change, forget } = useTableLayout(name);
  const definitions = useMemo(
    () =>
      columns.map(
        ({ id, head, width, grow, amount, sorts = false, always = false }): ColumnDef<Features, Row> => ({
          id,
          accessorFn: () => id,
          size: width,
          minSize: LEAST,
          maxSize: MOST,
          enableSorting: sorts,
          sortDescFirst: amount === true,
          enableHiding: !always && head !== "",
          enableResizing: head !== "",
          meta: { head, amount, grow },
        }),
      ),
    [columns],
  );
  const table = useTable({
    features,
    columns: definitions,
    data: rows,
    getRowId: rowId,
    manualSorting: true,
    enableMultiSort: false,
    columnResizeMode: "onChange",
    state: {
      columnSizing: layout.widths,
      columnVisibility: layout.shown,
      sorting,
      rowSelection: chosen,
    },
    onColumnSizingChange: (update) => change({ widths: next(update, layout.widths) }),
    onColumnVisibilityChange: (update) => change({ shown: next(update, layout.shown) }),
    onSortingChange: (update) => onSort(next(update, sorting)),
    onRowSelectionChange: (update) => onChoose(next(update, chosen)),
  });
  const template = table
    .getVisibleLeafColumns()
    .map((column) => {
      const { grow, amount } = column.columnDef.meta ?? {};
      const size = column.getSize();
      if (layout.widths[column.id] !== undefined) return `${size}px`;
      if (amount) return fittingWidth(column.id, size);
      return grow === undefined ? `${size}px` : `minmax(${size}px, ${grow}fr)`;
    })
    .join(" ");
  return { table, template, forget };
}

function next<T>(update: T | ((now: T) => T), now: T): T {
  return typeof update === "function" ? (update as (now: T) => T)(now) : update;
}
