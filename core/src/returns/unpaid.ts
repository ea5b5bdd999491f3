import { addDays, addMonths } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import type { UnpaidRule } from "../model/unpaidRule.ts";
import { roundExact } from "../money/roundExact.ts";

/** A document that was on a return and is not wholly paid, or was not when something was last done about it. */
export interface UnpaidItem {
  date: CalendarDate;
  supply: CalendarDate;
  due: CalendarDate | null;
  /** End of the period whose return has it. */
  reported: CalendarDate;
  /** In the money of the document, minor units. */
  gross: number;
  unpaid: number;
  /** Tax that was declared or deducted, and how much of it relief was taken for or was repaid; by levy, minor units. */
  taxes: readonly { levy: string; tax: number; done: number }[];
}

/** What belongs on a return: relief or repayment of the unpaid part, or that taken back. */
export interface UnpaidProposal {
  way: "relief" | "back";
  /** First day on which time was over. */
  over: CalendarDate;
  /** Without sign, minor units. */
  taxes: readonly { levy: string; amount: number }[];
}

/** What a proposal makes owed more (positive) or less; minor units. */
export function owedBy({ direction }: Pick<UnpaidRule, "direction">, { way, taxes }: UnpaidProposal): number {
  const sum = taxes.reduce((total, { amount }) => total + amount, 0);
  return (direction === "purchase") === (way === "relief") ? sum : -sum;
}

/** The first day on which the time of a rule is over. */
export function timeOver(
  rule: Pick<UnpaidRule, "from" | "after" | "reached">,
  item: UnpaidItem,
): CalendarDate {
  const start = startOf(rule, item);
  const last = "months" in rule.after ? addMonths(start, rule.after.months) : addDays(start, rule.after.days);
  return rule.reached ? last : addDays(last, 1);
}

function startOf(
  { from }: Pick<UnpaidRule, "from">,
  { date, supply, due, reported }: UnpaidItem,
): CalendarDate {
  if (from === "supply") return supply;
  if (from === "period") return reported;
  const agreed = due ?? date;
  return from === "due-or-supply" && supply > agreed ? supply : agreed;
}

/**
 * What a rule asks of a document on the return of a period, as money stands on its last day: the tax of the unpaid part,
 * less what was done already. Each levy is rounded half up, once.
 */
export function unpaidProposal(
  rule: UnpaidRule,
  item: UnpaidItem,
  { from, to }: FilingPeriod,
): UnpaidProposal | undefined {
  const over = timeOver(rule, item);
  const isOver = rule.falls === "containing" ? over <= to : over < from;
  const tooLate = rule.until !== undefined && addMonths(startOf(rule, item), rule.until) < from;
  const open = item.taxes.map(({ levy, tax, done }) => {
    const share = { n: BigInt(tax) * BigInt(item.unpaid), d: BigInt(item.gross) };
    return { levy, amount: (isOver ? roundExact(share) : 0) - done };
  });
  const way = open.some(({ amount }) => amount < 0) ? "back" : "relief";
  if (way === "relief" && tooLate) return undefined;
  const taxes = open
    .filter(({ amount }) => (way === "back" ? amount < 0 : amount > 0))
    .map(({ levy, amount }) => ({ levy, amount: Math.abs(amount) }));
  return taxes.length === 0 ? undefined : { way, over, taxes };
}
