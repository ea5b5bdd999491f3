import { useQueries } from "@tanstack/react-query";
import { useState } from "react";

const PAGE = 100;

/**
 * Rows of a long list by position, fetched a page at a time as they come into sight. `head` is the newest page seen,
 * for totals.
 */
export function usePagedRows<Row, Page extends { rows: Row[]; total: number }>(
  key: readonly unknown[],
  enabled: boolean,
  fetchPage: (offset: number, limit: number) => Promise<Page>,
) {
  const [wanted, setWanted] = useState<{ first: number; last: number }>({ first: 0, last: 0 });
  const pages = Array.from({ length: wanted.last - wanted.first + 1 }, (_, index) => wanted.first + index);
  const results = useQueries({
    queries: pages.map((page) => ({
      queryKey: [...key, "page", page],
      queryFn: () => fetchPage(page * PAGE, PAGE),
      enabled,
      placeholderData: (previous: Page | undefined) => previous,
    })),
  });
  const loaded = new Map(
    pages.map((page, index) => [page, results[index]?.isPlaceholderData ? undefined : results[index]?.data]),
  );
  return {
    rows: (index: number): Row | undefined => loaded.get(Math.floor(index / PAGE))?.rows[index % PAGE],
    head: results.find((result) => result.data)?.data,
    /** Says which rows are in sight. */
    want: (firstRow: number, lastRow: number) => {
      const next = { first: Math.floor(firstRow / PAGE), last: Math.floor(lastRow / PAGE) };
      if (next.first !== wanted.first || next.last !== wanted.last) queueMicrotask(() => setWanted(next));
    },
  };
}
