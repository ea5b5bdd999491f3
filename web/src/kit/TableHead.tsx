import clsx from "clsx";
import { ArrowDown, ArrowUp, Columns3 } from "lucide-react";
import { Menu, MenuCheck, MenuItem, MenuLine } from "./Menu.tsx";
import type { ColumnHeader, GridTable } from "./useGridTable.ts";

/** How much an arrow key changes the width of a column. */
const STEP = 16;

/** The head of a column: a click orders by it where the server can, its right edge is dragged or moved by arrows. */
export function HeadCell<Row extends object>({ header }: { header: ColumnHeader<Row> }) {
  const { column } = header;
  const { head, amount } = column.columnDef.meta ?? { head: "" };
  const sorted = column.getIsSorted();
  const Arrow = sorted === "desc" ? ArrowDown : ArrowUp;
  return (
    <span
      role="columnheader"
      aria-sort={sorted === "desc" ? "descending" : sorted === "asc" ? "ascending" : undefined}
      className={clsx("group relative !overflow-visible", amount && "text-right")}
    >
      {column.getCanSort() ? (
        <button
          type="button"
          className="inline-flex max-w-full cursor-pointer items-center gap-0.5 hover:text-base-content"
          onClick={column.getToggleSortingHandler()}
        >
          <span className="truncate">{head}</span>
          {sorted && <Arrow size={12} aria-hidden className="shrink-0" />}
        </button>
      ) : head === "" ? (
        <span className="sr-only">Actions</span>
      ) : (
        <span className="block truncate">{head}</span>
      )}
      {column.getCanResize() && (
        <span
          role="separator"
          aria-orientation="vertical"
          aria-label={`Width of ${head}`}
          aria-valuenow={column.getSize()}
          tabIndex={0}
          className="absolute top-0 -right-1 z-10 h-full w-2 cursor-col-resize touch-none border-r-2 border-transparent group-hover:border-base-300 focus:border-primary"
          onMouseDown={header.getResizeHandler()}
          onTouchStart={header.getResizeHandler()}
          onDoubleClick={() => column.resetSize()}
          onKeyDown={({ key }) => {
            const by = key === "ArrowLeft" ? -STEP : key === "ArrowRight" ? STEP : 0;
            if (by !== 0)
              header
                .getContext()
                .table.setColumnSizing((now) => ({ ...now, [column.id]: column.getSize() + by }));
          }}
        />
      )}
    </span>
  );
}

/** Which columns are shown, and the way back to what they were. */
export function ColumnChoice<Row extends object>({
  table,
  onForget,
}: {
  table: GridTable<Row>;
  onForget: () => void;
}) {
  return (
    <Menu
      name="Choose columns"
      trigger={<Columns3 size={15} aria-hidden />}
      className="absolute top-0 right-0 z-20 flex size-6 h-[25px] items-center justify-center rounded bg-base-100 text-secondary hover:text-base-content"
    >
      {table
        .getAllLeafColumns()
        .filter((column) => column.columnDef.meta?.head)
        .map((column) => (
          <MenuCheck
            key={column.id}
            checked={column.getIsVisible()}
            disabled={!column.getCanHide()}
            onChange={(checked) => column.toggleVisibility(checked)}
          >
            {column.columnDef.meta?.head}
          </MenuCheck>
        ))}
      <MenuLine />
      <MenuItem onSelect={onForget}>Columns as they were</MenuItem>
    </Menu>
  );
}
