import type { CalendarDate } from "../calendar/date.ts";
import type { Frequency } from "../calendar/filingPeriods.ts";
import type { RoundingMode } from "../money/roundExact.ts";

interface BoxBase {
  /** The form's own number or letter. A star in it stands for what the facts say: a family of boxes. */
  id: string;
  /** What a star in the id may stand for, where that is a closed list. */
  members?: readonly string[];
  /** The official title, and a shorter one for narrow places. */
  title: string;
  short: string;
  holds: "tax" | "value";
  /** `step` in minor units: 100 for whole units of a two-digit currency. */
  rounding: { mode: RoundingMode; step: number };
  /** What the box holds, in a sentence for the trail. */
  words: string;
  /** The part of the form it stands in, by the part's id. */
  part?: string;
  /** A step of the computation that the official form does not have. */
  helper?: boolean;
  /** Why what stands in it should be looked up before it is relied on. */
  doubt?: string;
}

/** A box that sums the facts tagged with its id. Where it must not be negative, the other sign goes to `negativeTo`. */
export type SumBox = BoxBase & { kind: "sum"; negativeTo?: string };

/**
 * A box worked out from others by a formula over boxes and rates, in major units; see parseFormula. In a family it reads
 * of other families the same member; any other box that reads a family reads the sum of it.
 */
export type FormulaBox = BoxBase & { kind: "formula"; formula: string };

/** A box typed in: it holds what adjustments with their reasons put there, and what was paid during the period. */
export type TypedBox = BoxBase & { kind: "typed" };

/** A box that takes over another one of the period before. */
export type CarriedBox = BoxBase & { kind: "carried"; of: string };

/**
 * The tax on what box `of` holds: what came in at each rate times that rate, rounded for each rate. What has no rate
 * of its own, adjustments, takes the one of `schedule` on the last day of the period.
 */
export type TaxedBox = BoxBase & { kind: "taxed"; of: string; schedule: string };

export type BoxDefinition = SumBox | FormulaBox | TypedBox | CarriedBox | TaxedBox;

/**
 * A table of a form as its authority draws it. The official form stands under `heading`, where one return holds several.
 */
export interface FormTable {
  heading?: string;
  title: string;
  /** Titles of its columns; of one column it may be empty. */
  columns: readonly string[];
  rows: readonly FormRow[];
}

/**
 * A row of a table: by column the id of the box that stands there, null where the authority leaves no field. A row
 * without cells is a heading. Where ids have a star, the row repeats for each member of which anything is told.
 * `level`: a sum under a line, or what the form comes to.
 */
export interface FormRow {
  number: string;
  title: string;
  cells: readonly (string | null)[];
  level?: "sum" | "result";
}

/**
 * What a return comes to, as formulas over its boxes. `due` is what is owed (positive) or refunded (negative),
 * `output` and `input` what it is made of for the position; `shown` is the box that shows it, `repaid` the one that
 * shows it where it comes back, if that is another. `allowance`: what the business keeps of the tax for filing in time;
 * `carried`: credit that stays with the authority for later; `scheme`: the part of `due` that a scheme works out from
 * turnover and no document bears, cost of the business.
 */
export interface ReturnTotals {
  output: string;
  input: string;
  due: string;
  shown: string;
  repaid?: string;
  allowance?: string;
  carried?: string;
  scheme?: string;
}

/**
 * A return form as data, valid for periods that end between `from` and `to`. `levies`: the form is for
 * registrations that hold them all; of several the one with most levies is taken.
 */
export interface ReturnForm {
  id: string;
  name: string;
  levies: readonly string[];
  /** The rhythms it is for, where there is another form for others. */
  frequencies?: readonly Frequency[];
  /** The form is only for registrations that chose this value of an option. */
  option?: readonly [id: string, value: string];
  from: CalendarDate;
  to: CalendarDate | null;
  parts?: readonly { id: string; name: string }[];
  boxes: readonly BoxDefinition[];
  /** The form as its authority draws it, where that is more than one box under the other. */
  tables?: readonly FormTable[];
  net: ReturnTotals;
  /** The boxes that together hold turnover, for what is compared with income; left out where the form has none. */
  turnover?: readonly string[];
  /** The boxes that together hold the value of purchases, for what is compared with costs. */
  purchases?: readonly string[];
  /** The field of the authority's electronic return that carries each box, where it takes one. */
  fields?: Readonly<Record<string, string>>;
  /** Rules of the authority that must hold, as formulas that give other than 0, each with what it says otherwise. */
  rules?: readonly { formula: string; says: string }[];
  /** Where figures stand that an earlier return already held otherwise: in `to` in place of any of `from`. */
  amended?: readonly { from: readonly string[]; to: string }[];
  source: string;
}
