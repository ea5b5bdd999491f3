import type { DueRule } from "../calendar/dueDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { DateOrder } from "../calendar/parseDate.ts";
import type { Frequency } from "../calendar/filingPeriods.ts";
import type { Account } from "./account.ts";
import type { CapitalItems } from "./capitalItem.ts";
import type { CollectionRule } from "./collection.ts";
import type { CorrectionRule } from "./correction.ts";
import type { BasisOffer } from "./basis.ts";
import type { GoodsShareRule } from "./goodsShare.ts";
import type { SchemeDefinition } from "./scheme.ts";
import type { LateCharge } from "./lateCharge.ts";
import type { InstalmentRule } from "./instalments.ts";
import type { StockBookRule } from "./stockBook.ts";
import type { YearlyReport } from "./yearlyReport.ts";
import type { YearEndRule } from "./yearEnd.ts";
import type { UnpaidRule } from "./unpaidRule.ts";
import type { RateChangeRule, RateMove } from "./rateChange.ts";
import type { ReturnForm } from "./returnForm.ts";
import type { ReturnRegister } from "./returnRegister.ts";
import type { Rounding } from "./rounding.ts";
import type { StatementKind } from "./statement.ts";
import type { SupplyRule } from "./supplyRule.ts";
import type { Direction, RateSchedules, TaxCode, Treatment } from "./taxCode.ts";

/**
 * A rhythm of filing as the authority offers it. `anchor` is any month end on which a period ends. `levies`: what is
 * registered for one of these files in such rhythms only.
 */
export interface FilingRhythm {
  id: string;
  name: string;
  frequency: Frequency;
  anchor: CalendarDate;
  levies?: readonly string[];
}

export type NumberCheck = { ok: true; number: string } | { ok: false; message: string };

/**
 * What the checks before filing need to know of the law.
 * - `numberAbove`: gross amount in minor units above which tax is not deducted without a look at the supplier's number.
 * - `sources`: by check, where its rule stands; a check that is not named is common practice.
 */
export interface ClaimRules {
  numberAbove: number;
  numberSource: string;
  sources: Readonly<Record<string, string>>;
}

/** Limits of a year's sales, minor units, for years from `from` on: of the year itself, and of the one before it. */
export interface TurnoverLimit {
  from: number;
  year: number;
  yearBefore: number;
}

/**
 * How a registration treats the boxes the law gives to credit notes: always uses them (`statutory`), never
 * (`netted`: the boxes of the invoice with the opposite sign), or only where the document that is corrected belongs
 * to an earlier filing period (`later-period`).
 */
export type CreditNoteWay = "statutory" | "netted" | "later-period";

/**
 * A check before filing that only some places need, by its id in the catalogue of checks. `says` is the sentence;
 * braces are filled in with what is found.
 * - `both-sides`: a self-assessed tax must land as tax due and, as far as it is deducted, as tax deducted.
 * - `not-in-box`: facts of this kind do not belong in a box.
 * - `attribute`: lines with one of some codes carry an attribute.
 * - `only-from`: boxes that only a business in a region of the country uses.
 * - `average-price`: lines with some codes carry the weighted average price at which the same item was sold with the
 *   codes `wholesale` in the period; open to items of which at least `least` percent were sold so.
 * - `turnover`: what is sold with some codes in a calendar year, and was in the one before, stays within limits.
 * - `distance-sales`: what consumers in other members of the union buy, goods and what is of some tax classes, bears the
 *   tax of this country only within a limit of this year and the one before; above it the codes of `levy` are due.
 */
export type PackCheck = { id: string; says: string } & (
  | { kind: "both-sides" }
  | { kind: "not-in-box"; direction: Direction; treatment: Treatment; box: string }
  | { kind: "attribute"; codes: readonly string[]; attribute: string }
  | { kind: "only-from"; boxes: readonly string[]; region: string }
  | {
      kind: "average-price";
      codes: readonly string[];
      attribute: string;
      wholesale: readonly string[];
      least: number;
    }
  | { kind: "turnover"; codes: readonly string[]; limits: readonly TurnoverLimit[] }
  | { kind: "distance-sales"; levy: string; classes: readonly string[]; limits: readonly TurnoverLimit[] }
);

/** What a sales document of a place must call itself and say, by the law of that place. */
export interface PaperWords {
  invoice: string;
  creditNote: string;
  /** Sentences by treatment of a line; they stand once on the document. */
  statements: Partial<Record<Treatment, string>>;
  /** Whether tax in another currency is also told in that of the place. */
  taxInHomeCurrency: boolean;
  source: string;
}

/** Countries that trade with each other under rules of their own; how their tax numbers are checked. */
export interface CountryUnion {
  name: string;
  members: ReadonlyMap<string, string>;
  checkNumber: (country: string, text: string) => NumberCheck;
}

/** A trade that needs tax classes of its own; asked when a business is set up. */
export interface Activity {
  id: string;
  name: string;
  classes: readonly string[];
}

/**
 * A levy of a jurisdiction.
 * - `short`: what it is called on papers and in tables, where that is not its id.
 * - `onlyFor`: proposed only to who does one of these activities.
 * - `regions`: where it is charged, where that is not the whole country.
 * - `with`: levies that come with it in one registration.
 * - `deducted`: whether a registered business gets it back on what it buys.
 * - `creditNotes`, `correction`: for registrations for it, where they differ from the rest of the jurisdiction.
 */
export interface Levy {
  levy: string;
  name: string;
  short?: string;
  authority?: string;
  /** Other ways in which papers write it. */
  written?: readonly string[];
  onlyFor?: readonly string[];
  regions?: readonly string[];
  with?: readonly string[];
  deducted: boolean;
  creditNotes?: CreditNoteWay;
  correction?: CorrectionRule;
}

/** A region of a country. `tag`: how boxes name it; `aliases`: other ways to write its code, in capitals. */
export interface Region {
  code: string;
  name: string;
  aliases?: readonly string[];
  tag?: string;
}

/** What an item can be for tax in a jurisdiction, before place and customer turn it into a code. */
export interface TaxClass {
  id: string;
  name: string;
}

/**
 * Why tax on a purchase is not deducted yet although it is charged: a paper or a fact of the other side is missing.
 * - `waitsFor`: what ends it, for a sentence. `above`: gross in minor units up to which nothing is missing.
 * - `byPaper`: a paper put beside the document ends it on that day.
 */
export interface CreditHold {
  id: string;
  name: string;
  waitsFor: string;
  above?: number;
  byPaper: boolean;
  source: string;
}

/**
 * A choice a registration makes, first value the usual one. `levies`: it matters to registrations for one of these only.
 * `engaged`: regions a choice makes the business at home in, a star after the dash for all of a state.
 */
export interface PackOption {
  id: string;
  name: string;
  levies?: readonly string[];
  values: readonly { value: string; name: string; engaged?: readonly string[] }[];
  source: string;
}

/** A further day of a period beside that of the return: of a statement or a deposit that belongs to it. */
export interface FurtherDay extends Pick<DueRule, "frequencies" | "option" | "day" | "shift" | "source"> {
  name: string;
  /** Months after the one the period ends in; below zero inside the period. */
  months: number;
}

/** Where public holidays come from: a country of the holiday calendar, its regions, and days it does not know. */
export interface HolidayCalendar {
  country: string;
  regions?: readonly string[];
  /** Rules in the calendar's own notation, such as `09-30` or `easter 1`. */
  extra?: readonly string[];
  /** Weekdays off until a day, where the weekend was another one (0 Sunday to 6 Saturday). */
  weekendUntil?: { day: CalendarDate; weekdays: readonly number[] };
}

/**
 * How far the law of a jurisdiction is known here.
 * - `asOf`: the month up to which it was followed, `YYYY-MM`; `checked`: by whom and how, for a sentence.
 * - `leftOut`: what of it is not worked out; it is kept by hand.
 * - `doubts`: what should be looked up and hangs on no single rate, code, box or day; `where` says where to look.
 */
export interface LawKnown {
  asOf: string;
  checked: string;
  leftOut: readonly string[];
  doubts: readonly { about: string; says: string; where: string }[];
}

/** A jurisdiction as data. Every pack has this shape; adding a country adds a folder, never code to the engine. */
export interface JurisdictionPack {
  id: string;
  /** Other names under which it is asked for. */
  aliases?: readonly string[];
  country: string;
  name: string;
  currency: string;
  authority: string;
  numberName: string;
  /** What a number looks like, for the hint beside the field. */
  numberHint: string;
  levies: readonly Levy[];
  /** The levies of a registration that does not say its own; all of them where left out. */
  defaultLevies?: readonly string[];
  regions?: readonly Region[];
  schedules: RateSchedules;
  /** What each schedule is called, by its id. */
  rateNames: Readonly<Record<string, string>>;
  codes: readonly TaxCode[];
  accounts: readonly Account[];
  classes: readonly TaxClass[];
  rules: readonly SupplyRule[];
  forms: readonly ReturnForm[];
  rhythms: readonly FilingRhythm[];
  roundings: readonly { id: string; name: string; rounding: Rounding; source: string }[];
  /** How it may report, the usual way first. */
  bases: readonly BasisOffer[];
  due: readonly DueRule[];
  furtherDays?: readonly FurtherDay[];
  holidays: HolidayCalendar;
  correction: CorrectionRule;
  claims?: ClaimRules;
  /** Choices of a registration under which nothing is deducted: tax on purchases is cost. */
  noCredit?: { option: string; values: readonly string[]; source: string };
  /** Why tax on a purchase may have to wait before it is deducted. */
  creditHolds?: readonly CreditHold[];
  creditNotes: CreditNoteWay;
  /** What the law says of supplies on both sides of a change of rate. */
  rateChanges?: readonly RateChangeRule[];
  /** Days on which supplies went to another code, where each rate has one of its own. */
  rateMoves?: readonly RateMove[];
  /** Special schemes a registration can be on. */
  schemes?: readonly SchemeDefinition[];
  /** The book of pieces sold on the margin. */
  stockBook?: StockBookRule;
  /** What is reported once a year beside the returns, where something is. */
  yearly?: YearlyReport;
  /** A tax beside these that sellers of goods collect from customers. */
  collection?: CollectionRule;
  capitalItems?: CapitalItems;
  /** What is paid during a period against its one return. */
  instalments?: readonly InstalmentRule[];
  /** What the law charges for filing or paying late. */
  late?: readonly LateCharge[];
  /** Lists of others that tell of our documents, beside those any party sends. */
  statements?: readonly StatementKind[];
  /** What is added back once a fiscal year is over. */
  yearEnd?: readonly YearEndRule[];
  /** What becomes of the tax of documents that stay unpaid. */
  unpaid?: readonly UnpaidRule[];
  /** What the law says of goods and a service at one price. */
  goodsShare?: GoodsShareRule;
  options?: readonly PackOption[];
  /** Standings a contact can have beside registered and not registered. `crosses`: a supply to it counts as one across a border. */
  standings?: readonly { id: string; name: string; needs?: string; crosses?: boolean }[];
  /** Activities asked for at set-up beside those every place has. */
  activities?: readonly Activity[];
  /** The country's own union with others, where it is in one or has rules for it. */
  union?: CountryUnion;
  /** What a place in no region is called, where regions are only part of the country. */
  elsewhere?: string;
  /** The attribute of a line that names the region it is supplied from, in place of that of the site. */
  placeAttribute?: string;
  /** How dates are written, where a file leaves it open. */
  dateOrder: DateOrder;
  /** Words a payment to or from the authority carries on a bank line, small letters. */
  bankNames: readonly string[];
  /** Boxes watched from year to year: turnover and input tax. */
  watched: readonly string[];
  words: PaperWords;
  checks?: readonly PackCheck[];
  /** The declaration that must be on screen before a return is sent. */
  declaration: string;
  law?: LawKnown;
  /** Lists that go with its returns, beside the boxes. */
  registers?: readonly ReturnRegister[];
  /** Facts without a figure of their own that a practitioner should know, with where they come from. */
  notes: readonly { text: string; source: string }[];
  /** Whether the simulated authority takes its returns; others are keyed into the authority's own pages. */
  electronic: boolean;
  checkNumber: (text: string) => NumberCheck;
  /** The region a tax number names, where it does. */
  regionOfNumber?: (number: string) => string | undefined;
  /**
   * Which region's levies a supply bears, from our region, the other side's and those we are engaged in; the other
   * side's where left out.
   */
  sourcing?: (place: string, there: string, engaged: readonly string[]) => string;
}
