/**
 * How a figure came about, one step of it. Every figure on screen names a step by `ref`; the parts of a step name
 * further ones, down to the line of a document and the row of the file it came from.
 */
export interface TrailStep {
  ref: string;
  title: string;
  /** Minor units; null where the step has no single amount. */
  amount: number | null;
  digits: number;
  /** The rule in words, and other things to know. */
  words: string[];
  parts: TrailPart[];
  /** Arithmetic written out, one line each. */
  arithmetic: string[];
  /** How many parts there are in all when not all are listed. */
  total?: number;
  /** Where the step can be opened in full, as a path of the application. */
  open?: { label: string; path: string };
}

export interface TrailPart {
  ref: string | null;
  label: string;
  detail: string;
  amount: number | null;
}
