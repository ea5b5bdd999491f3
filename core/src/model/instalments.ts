import type { DueRule } from "../calendar/dueDate.ts";
import type { Frequency } from "../calendar/filingPeriods.ts";
import type { BoxDefinition } from "./returnForm.ts";

/**
 * One of the payments of a period: it belongs to the months up to the end of the `months`th of the period, and asks for
 * `share` percent, a decimal or a fraction, of what the period is expected to come to.
 */
export interface InstalmentPart {
  months: number;
  share: string;
}

/**
 * Payments during a period against its one return.
 * - `options`: the choices a registration it holds for has made, all of them.
 * - `due`: when, counted from the end of the months a part belongs to; the first rule that fits.
 * - `before`: what the return of the period before came to, as formulas over its boxes by the name of the head it is paid
 *   under (empty where there is only one). Left out where the authority alone knows it.
 * - `way`: `fixed` a share of the period before, or of an estimate in its place; `lesser` of the two; `varied` what the
 *   authority asks for, or the estimate up to then less what was asked for earlier; `actual` what the period comes to up
 *   to then less what was paid for it earlier.
 * - `shorter`: the share where the period before was a shorter one.
 * - `rounding`: of an estimate's share, where that is not the minor unit.
 * - `least`: minor units; where the period before or the estimate is below, nothing is to be paid.
 * - `paidIn`: the box of the return that holds what was paid, by levies of the registration's form.
 * - `labels`: the official labels of a statement, where there is one.
 * - `warnBelow`: percent of what the period came to, below which a variation costs interest.
 */
export interface InstalmentRule {
  id: string;
  name: string;
  options?: readonly (readonly [id: string, value: string])[];
  frequency: Frequency;
  levies?: readonly string[];
  parts: readonly InstalmentPart[];
  due: readonly DueRule[];
  before?: Readonly<Record<string, string>>;
  way: "fixed" | "lesser" | "varied" | "actual";
  shorter?: string;
  rounding?: BoxDefinition["rounding"];
  least?: number;
  paidIn?: string;
  labels?: { asked: string; estimate: string; varied: string; reason: string; due: string };
  warnBelow?: string;
  says: string;
  source: string;
}

/** The instalment rule of a registration, by its rhythm, levies and choices. */
export function instalmentRuleOf(
  rules: readonly InstalmentRule[] | undefined,
  {
    frequency,
    levies,
    options,
  }: { frequency: Frequency; levies: readonly string[]; options: Readonly<Record<string, string>> },
): InstalmentRule | undefined {
  return rules?.find(
    (rule) =>
      rule.frequency === frequency &&
      (rule.levies?.every((levy) => levies.includes(levy)) ?? true) &&
      (rule.options?.every(([id, value]) => options[id] === value) ?? true),
  );
}
