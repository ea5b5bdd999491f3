import type { CalendarDate } from "../calendar/date.ts";
import type { Circumstances } from "../model/circumstances.ts";
import { meets } from "../model/circumstances.ts";
import { ROUND_EACH_LINE } from "../model/rounding.ts";
import type { Direction, RateSchedules, TaxCode } from "../model/taxCode.ts";
import { add, compare, exactFromDecimal, ZERO } from "../money/exact.ts";
import { priceLine } from "../tax/priceLine.ts";
import { ratedComponents } from "../tax/ratedComponents.ts";
import { rowInForce } from "../tax/rateInForce.ts";

const ORDINARY = new Set(["standard", "reduced"]);

/** What a file tells of a line's tax: the amount it is on, the tax, by levy where told apart, the rate. Minor units. */
export interface ToldLine {
  amount: number;
  /** Whether the amount has the tax in it. */
  inclusive: boolean;
  tax: number | null;
  taxes: Readonly<Record<string, number>>;
  /** A percentage as printed: "20", "20 %", "0.2"; empty where it is not told. */
  rate: string;
}

/** Where and when the line was supplied, and which codes there are. */
export interface CodeSearch {
  direction: Direction;
  on: CalendarDate;
  circumstances: Circumstances;
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
}

/**
 * The ordinary codes that explain what a file tells of a line. Where it tells a rate, those of the rate; otherwise
 * those whose tax is the printed one, within a minor unit a hundred units of tax and never less than two (registers
 * hold invoices of several rounded lines), and, where levies are told apart, that bear just those levies.
 * @returns none where nothing fits, several where a person must choose
 */
export function codesByTax(told: ToldLine, search: CodeSearch): TaxCode[] {
  const bearing = bearingCodes(search);
  const rated =
    told.rate.trim() === "" ? [] : bearing.filter(({ components }) => hasRate(components, told.rate));
  const fitting =
    rated.length > 0
      ? rated
      : bearing.filter(({ components }) => bearsLevies(components, told) && givesTax(components, told));
  return fitting.map(({ code }) => code);
}

type Rated = ReturnType<typeof ratedComponents>;
interface Bearing {
  code: TaxCode;
  components: Rated;
}

type Remembered = Map<string, readonly Bearing[]>;
const remembered = new WeakMap<CodeSearch["codes"], WeakMap<RateSchedules, Remembered>>();

/** The ordinary codes that can be borne there and then; rows of a register share few days and circumstances. */
function bearingCodes(search: CodeSearch): readonly Bearing[] {
  const { codes, schedules, direction, on, circumstances } = search;
  const bySchedules = remembered.get(codes) ?? new WeakMap<RateSchedules, Remembered>();
  remembered.set(codes, bySchedules);
  const ofCodes = bySchedules.get(schedules) ?? (new Map() as Remembered);
  bySchedules.set(schedules, ofCodes);
  const key = JSON.stringify([direction, on, circumstances]);
  const known = ofCodes.get(key);
  if (known) return known;
  const bearing = [...codes.values()].flatMap((code) => {
    const components = ordinaryComponents(code, search);
    return components.length === 0 ? [] : [{ code, components }];
  });
  ofCodes.set(key, bearing);
  return bearing;
}

/** The components of a code that only charges percentages, as they apply here; none where it does anything else. */
function ordinaryComponents(code: TaxCode, { direction, on, circumstances, schedules }: CodeSearch): Rated {
  if (!ORDINARY.has(code.treatment)) return [];
  if (code.direction !== "both" && code.direction !== direction) return [];
  if ((code.from !== null && on < code.from) || (code.to !== null && on > code.to)) return [];
  const applying = code.components.filter(({ when }) => meets(when, circumstances));
  const plain = applying.every(
    ({ charged, rate, recoverable }) =>
      charged === "charged" && rate.kind === "percent" && (recoverable === "100" || recoverable === "0"),
  );
  if (!plain || !applying.some(({ recoverable }) => recoverable === "100")) return [];
  const inForce = applying.every(
    ({ rate }) => !("schedule" in rate) || rowInForce(schedules[rate.schedule], on) !== undefined,
  );
  return inForce ? ratedComponents(code, on, schedules, circumstances) : [];
}

/** Whether the rates of the components, one of them or all together, are the printed one. */
function hasRate(components: Rated, printed: string): boolean {
  const text = printed.replace(/[%\s]/g, "").replace(",", ".");
  if (!/^\d{1,3}(\.\d{1,6})?$/.test(text)) return false;
  const rates = components.map(({ rate }) => exactFromDecimal(rate ?? "0"));
  const all = rates.reduce(add, ZERO);
  const value = exactFromDecimal(text);
  const wanted = compare(value, { n: 1n, d: 1n }) < 0 ? { n: value.n * 100n, d: value.d } : value;
  return compare(all, wanted) === 0 || (rates.length === 1 && compare(all, value) === 0);
}

function bearsLevies(components: Rated, { taxes }: ToldLine): boolean {
  const told = Object.entries(taxes).filter(([, amount]) => amount !== 0);
  if (told.length === 0) return true;
  const borne = new Set(components.filter(({ rate }) => rate !== "0").map(({ component }) => component.levy));
  return borne.size === told.length && told.every(([levy]) => borne.has(levy));
}

function givesTax(components: Rated, { amount, inclusive, tax }: ToldLine): boolean {
  if (tax === null) return false;
  const mode = inclusive ? "inclusive" : "exclusive";
  const calculated = priceLine(amount, mode, components, ROUND_EACH_LINE).reduce(
    (sum, one) => sum + one.tax,
    0,
  );
  return Math.abs(calculated - tax) <= Math.max(2, Math.abs(tax) / 100);
}
