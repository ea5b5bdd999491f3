/** A figure of a scheme period by period: hundredths of a percent, or minor units. */
export interface SchemeCourse {
  title: string;
  unit: "percent" | "amount";
  points: { from: string; to: string; value: number }[];
}

/** The workpaper of a scheme in a period; amounts in minor units. */
export interface SchemeView {
  id: string;
  name: string;
  note: string;
  source: string;
  digits: number;
  from: string;
  to: string | null;
  settings: { name: string; value: string }[];
  /** What its lines make owed, less what they deduct. */
  owed: number;
  steps: { id: string; words: string; arithmetic: string; amount: number; box: string | null }[];
  /** Facts that are on no return because of it, by code. */
  setAside: {
    code: string;
    direction: "sale" | "purchase";
    count: number;
    net: number;
    tax: number;
    recoverable: number;
  }[];
  /** By how much more is owed than without it; negative where it is a gain. */
  gain: number;
  /** Over the last year, where looking at it tells something. */
  course: SchemeCourse | null;
}
