import type { DueRule } from "./dueDate.ts";

/**
 * When a return is due, as people say it: "day 7 of the 2nd month after the period", and when the money is, where that
 * is another day.
 */
export function dueInWords(rule: Pick<DueRule, "months" | "day" | "days" | "pay">): string {
  const filed = daysInWords(rule);
  return rule.pay === undefined ? filed : `${filed}; the money ${daysInWords(rule.pay)}`;
}

function daysInWords({ months, day, days }: Pick<DueRule, "months" | "day" | "days">): string {
  const within = day === "end" ? "the last day" : `day ${day}`;
  const month = months === 0 ? "its last month" : `the ${ordinal(months)} month after the period`;
  return `${within} of ${month}${days === undefined ? "" : ` and ${days} days`}`;
}

function ordinal(number: number): string {
  const ending = { 1: "st", 2: "nd", 3: "rd" }[number % 100 > 10 && number % 100 < 14 ? 0 : number % 10];
  return `${number}${ending ?? "th"}`;
}
