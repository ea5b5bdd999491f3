import { useState } from "react";

/** The width of a column of dates: the longest, "28 Sept 2026", is whole in it. */
export const DATE_WIDTH = 104;

/** What a person chose of a table: widths of columns, and which are hidden. Kept in this browser. */
export interface TableLayout {
  widths: Record<string, number>;
  shown: Record<string, boolean>;
}

const EMPTY: TableLayout = { widths: {}, shown: {} };

/** The layout of a table by its name, and how it is changed; what cannot be read counts as nothing chosen. */
export function useTableLayout(name: string) {
  const key = `fiscalon.table.${name}`;
  const [layout, setLayout] = useState<TableLayout>(() => kept(key));
  const change = (part: Partial<TableLayout>) =>
    setLayout((now) => {
      const next = { ...now, ...part };
      localStorage.setItem(key, JSON.stringify(next));
      return next;
    });
  const forget = () => {
    localStorage.removeItem(key);
    setLayout(EMPTY);
  };
  return { layout, change, forget };
}

function kept(key: string): TableLayout {
  try {
    const { widths, shown } = JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<TableLayout>;
    return { widths: widths ?? {}, shown: shown ?? {} };
  } catch {
    return EMPTY;
  }
}
