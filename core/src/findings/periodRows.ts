import type { CalendarDate } from "../calendar/date.ts";
import type { Account } from "../model/account.ts";
import type { Basis } from "../model/basis.ts";
import type { YearEndRule } from "../model/yearEnd.ts";
import type { Treatment } from "../model/taxCode.ts";
import type { CorrectionAnswer } from "../returns/corrections.ts";
import type { BoxResult } from "../returns/evaluateReturn.ts";
import type { CheckedLine, LineContext } from "./checkedLine.ts";

/** Rows of the books that the checks of a period look at; amounts in minor units. */
export interface PeriodRows {
  /** Facts some check may speak about, all facts of a document or none. */
  lines: readonly CheckedLine[];
  uncoded: readonly { document: number; line: number; number: string; party: string; net: number }[];
  /** Documents no registration covers. */
  unregistered: readonly { document: number; number: string; taxPoint: CalendarDate; levy: string }[];
  /** Money that settles nothing. */
  unallocated: readonly { payment: number; number: string; party: string; amount: number }[];
  /** Purchases that look like one already entered. */
  twins: readonly {
    first: number;
    second: number;
    number: string;
    otherNumber: string;
    party: string;
    gross: number;
    sameNumber: boolean;
  }[];
  gaps: readonly {
    kind: string;
    series: string;
    first: string;
    count: number;
    after: string;
    before: string;
  }[];
  late: readonly CorrectionAnswer[];
  /** By how much the return is more than the ledger, and the most that rounding can explain. */
  apart: { difference: number; allowed: number };
  /** Income with tax of the twelve months to the end of the period, where a scheme in force has a limit of it. */
  schemeIncome: { scheme: string; income: number; above: number } | null;
  /** What is added back after a fiscal year, by rule and box, and what adjustments already put there. */
  yearEnd: readonly YearEndRow[];
  /** Income on no return that has no cause: how many rows, and what they come to. */
  withoutCause: { rows: number; amount: number } | null;
  /** Agreements that leave something unexplained, where nobody has accepted that. */
  agreementRests: readonly { id: string; name: string; rest: number; where: string }[];
  /** Lists of others for the period with lines nobody has decided. */
  undecided: readonly { statement: number; name: string; lines: number; apart: number }[];
  /** Sales on the margin whose piece lacks something, or is not in the stock book. */
  soldPieces: readonly SoldPieceRow[];
  /** Lines of a scheme that is not in force, or too dear for its pool. */
  schemeLines: readonly SchemeLineRow[];
  /** Stretches of capital items that this return adjusts and of whose use nothing is typed. */
  capitalShares: readonly { no: number; name: string; to: CalendarDate }[];
  /** Purchases that may belong on the list of capital items. */
  capitalUnlisted: readonly { document: number; line: number; number: string; net: number }[];
  /** Lines taxed on the average price of their item, with what the period's sales of it say. */
  averagePrices: readonly AveragePriceRow[];
  /** What rules about unpaid documents ask for that is not for the business to claim. */
  unpaid: readonly { name: string; count: number; owed: number; says: string }[];
  /** What was sold in the year, for each check of turnover, by its id. */
  sold: ReadonlyMap<string, SoldInYears>;
  /** Sales to consumers in other members of a union, where its limit matters to the registration. */
  distanceSales: DistanceSales | null;
  /** The boxes of the same period a year before; empty where nothing was in it. */
  yearBefore: readonly Pick<BoxResult, "box" | "amount">[];
}

/** What was sold in a calendar year up to the end of a period, in the year before, and what took it above a limit. */
export interface SoldInYears {
  year: number;
  sold: number;
  soldBefore: number;
  passedBy: { document: number; number: string } | null;
}

/** As SoldInYears, with how many lines of the period bear tax here although a limit is passed, and the first of them. */
export interface DistanceSales extends SoldInYears {
  taxedHere: number;
  first: { document: number; line: number; number: string } | null;
}

/**
 * A line taxed on the average price of its item. `typed`: minor units of a unit, as the line has it; `sold`: what the item
 * was sold for wholesale in the period, minor units, for `quantity` of `of` units sold in all; null where no item is named.
 */
export interface AveragePriceRow {
  document: number;
  line: number;
  number: string;
  item: string | null;
  typed: number;
  least: number;
  sold: number;
  quantity: number;
  of: number;
}

/** A sale on the margin: its piece where the line names one, what is not on record, and the tax without and with it. */
export interface SoldPieceRow {
  document: number;
  line: number;
  number: string;
  piece: number | null;
  missing: readonly string[];
  full: number;
  inside: number;
}

/** A line with a code of a scheme; what a piece of it cost, and the most it may, minor units. */
export interface SchemeLineRow {
  document: number;
  line: number;
  number: string;
  scheme: string;
  inForce: boolean;
  price: number;
  upTo: number;
}

/** A share of what a fiscal year deducted in full; minor units. */
export interface YearEndRow {
  rule: YearEndRule;
  /** Last day of the year. */
  year: CalendarDate;
  box: string;
  deducted: number;
  adjusted: number;
}

/** The period that is checked. */
export interface PeriodContext extends LineContext {
  client: string;
  levies: readonly string[];
  basis: Basis;
  accounts: readonly Account[];
  boxes: readonly BoxResult[];
  treatmentOf: (code: string) => Treatment | undefined;
  /** Regions the business has a place in. */
  regions: readonly string[];
  /** A scheme shares tax on mixed use. */
  sharesInput: boolean;
}
