import type { LateKind } from "@fiscalon/core/model/correction";

/** What a late item is, in words. */
export const LATE_WORDS: Readonly<Record<LateKind, string>> = {
  "late-claim": "claimed late",
  "credit-note": "change of price",
  error: "error",
  judgement: "error of judgement",
  deliberate: "deliberate error",
};
