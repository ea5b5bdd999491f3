import type { Around } from "./work.ts";

/** Who does something, when, and what goes with every change of it. */
export interface Begun {
  person?: number;
  at?: string;
  around?: Around;
  /** Whoever asked is gone: what is read is given up. */
  signal?: AbortSignal;
  /** Somebody waits: a read that takes too long is stopped. */
  limited?: boolean;
}
