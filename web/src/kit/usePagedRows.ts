import { useQueries } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useState } from "react";

const PAGE = 100;
export const ROW_HEIGHT = 33;

/** Which part of a list is asked for, and in which order; the server's own order where none is said. */
export interface PageOrder {
  offset: number;
  limit: number;
  sort: string | undefined;
  descending: string | undefined;
}

/** A page of a list; `total` null where what matches is counted apart. */
export interface PageOf<Row> {
  rows: Row[];
  total: number | null;
}

/**
 * Rows of a long list, fetched a page at a time as they come into sight and drawn only there. `setBox` takes the
 * scrolling element; `head` is the newest page seen, for totals.
 * @param counted how many match, where that is counted apart and known already
 */
export function usePagedRows<Row, Page extends PageOf<Row>>(
  key: readonly unknown[],
  enabled: boolean,
  sort: { id: string; desc: boolean } | undefined,
  fetchPage: (order: PageOrder, signal: AbortSignal) => Promise<Page>,
  rowHeight = ROW_HEIGHT,
  counted?: number | null,
) {
  const [box, setBox] = useState<HTMLDivElement | null>(null);
  const [sight, setSight] = useState({ first: 0, last: 0 });
  const pages = Array.from({ length: sight.last - sight.first + 1 }, (_, index) => sight.first + index);
  const results = useQueries({
    queries: pages.map((page) => ({
      queryKey: [...key, "page", page, sort],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        fetchPage(
          {
            offset: page * PAGE,
            limit: PAGE,
            sort: sort?.id,
            descending: sort === undefined ? undefined : String(sort.desc),
          },
          signal,
        ),
      enabled,
      placeholderData: (previous: Page | undefined) => previous,
    })),
  });
  const loaded = new Map(
    pages.map((page, index) => [page, results[index]?.isPlaceholderData ? undefined : results[index]?.data]),
  );
  const head = results.find((result) => result.data)?.data;
  const error = results.find((result) => result.error)?.error ?? null;
  // Until all are counted the list is as long as what was seen of it, and one row more behind a full page.
  const seen = Math.max(
    0,
    ...pages.map((page) => {
      const { length = 0 } = loaded.get(page)?.rows ?? [];
      return page * PAGE + length + (length === PAGE ? 1 : 0);
    }),
  );
  const virtual = useVirtualizer({
    count: counted ?? head?.total ?? seen,
    getScrollElement: () => box,
    estimateSize: () => rowHeight,
    overscan: 12,
    onChange: ({ range }) => {
      const first = Math.floor((range?.startIndex ?? 0) / PAGE);
      const last = Math.floor((range?.endIndex ?? 0) / PAGE);
      if (first !== sight.first || last !== sight.last) setSight({ first, last });
    },
  });
  return {
    rows: (index: number): Row | undefined => loaded.get(Math.floor(index / PAGE))?.rows[index % PAGE],
    head,
    error,
    setBox,
    height: virtual.getTotalSize(),
    shown: virtual.getVirtualItems(),
    show: (index: number) => virtual.scrollToIndex(index),
  };
}
