import { createContext, useContext } from "react";
import type { TrailStep } from "@fiscalon/contract/trail";

/** A step to look up by its ref, or one worked out in the browser for what is not posted yet. */
export type TrailTarget = string | TrailStep;

export interface Trail {
  /** From the figure that was opened down to the last step. */
  chain: TrailTarget[];
  open: (target: TrailTarget) => void;
  /** Goes one step further down from the step at `depth`. */
  follow: (depth: number, target: TrailTarget) => void;
  back: (() => void) | null;
  forward: (() => void) | null;
  close: () => void;
}

export const TrailContext = createContext<Trail>({
  chain: [],
  open: () => undefined,
  follow: () => undefined,
  back: null,
  forward: null,
  close: () => undefined,
});

export function useTrail(): Trail {
  return useContext(TrailContext);
}
