import { useCallback, useMemo, useState } from "react";
import type { ReactNode } from "react";
import { TrailContext } from "./trailContext.ts";
import type { Trail, TrailTarget } from "./trailContext.ts";

interface History {
  chains: TrailTarget[][];
  at: number;
}

/** Remembers which trails were opened, so that one can go back and forward. */
export function TrailProvider({ children }: { children: ReactNode }) {
  const [history, setHistory] = useState<History>({ chains: [[]], at: 0 });
  const push = useCallback((next: (chain: TrailTarget[]) => TrailTarget[]) => {
    setHistory(({ chains, at }) => {
      const kept = chains.slice(Math.max(0, at - 49), at + 1);
      return { chains: [...kept, next(chains[at] ?? [])], at: kept.length };
    });
  }, []);
  const go = useCallback((by: number) => setHistory(({ chains, at }) => ({ chains, at: at + by })), []);
  const trail = useMemo<Trail>(
    () => ({
      chain: history.chains[history.at] ?? [],
      open: (target) => push(() => [target]),
      follow: (depth, target) => push((chain) => [...chain.slice(0, depth + 1), target]),
      back: history.at > 0 ? () => go(-1) : null,
      forward: history.at < history.chains.length - 1 ? () => go(1) : null,
      close: () => push(() => []),
    }),
    [history, push, go],
  );
  return <TrailContext value={trail}>{children}</TrailContext>;
}
