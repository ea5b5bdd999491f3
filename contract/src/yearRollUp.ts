import type { BoxOnReturn } from "@fiscalon/core/agree/yearRollUp";
import type { BridgeCause } from "./bridge.ts";

/** A box over a year: the ledger against the returns. Minor units. */
export interface YearBox {
  box: string;
  title: string;
  ledger: number;
  declared: number;
  causes: BridgeCause[];
  rest: number;
  returns: (BoxOnReturn & { to: string; state: string })[];
}

/** The returns of a span against the ledger of it, box by box. */
export interface YearView {
  from: string;
  to: string;
  digits: number;
  form: string;
  boxes: YearBox[];
  /** Boxes of the report of the year, or of its form where that is another; and what has to tie with a box of the returns. */
  yearly: {
    form: string;
    boxes: { box: string; title: string; amount: number }[];
    ties: { says: string; report: number; returns: number }[];
  } | null;
}
