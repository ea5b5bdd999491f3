import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import { meets } from "../model/circumstances.ts";
import type { Circumstances } from "../model/circumstances.ts";
import type { RatedComponent } from "./levyStack.ts";
import { rateInForce, rowInForce } from "./rateInForce.ts";
import type { Component, RateSchedules, TaxCode } from "../model/taxCode.ts";

const remembered = new WeakMap<RateSchedules, WeakMap<TaxCode, Map<string, readonly RatedComponent[]>>>();

/**
 * The components of a code that apply in the circumstances, with the rates in force on a day. The same list comes
 * back for the same question, so that what is worked out from it is worked out once.
 * @throws FiscalError `tax/no-rate`; `tax/none-applies` where the code is for other circumstances
 */
export function ratedComponents(
  code: TaxCode,
  on: CalendarDate,
  schedules: RateSchedules,
  circumstances: Circumstances = {},
): readonly RatedComponent[] {
  const applying = code.components.filter((component) => meets(component.when, circumstances));
  if (applying.length === 0 && code.noneApplies !== undefined)
    throw new FiscalError("tax/none-applies", `${code.code}: ${code.noneApplies}`, "code");
  const key = `${on} ${applying.map((component) => code.components.indexOf(component)).join()}`;
  const ofCode = remembering(schedules, code);
  const known = ofCode.get(key);
  if (known) return known;
  const rated = applying.map((component): RatedComponent => ({
    component,
    rate: rateInForce(component, schedules, on)?.rate ?? null,
    ...ratesOfFormula(component, schedules, on),
  }));
  ofCode.set(key, rated);
  return rated;
}

function remembering(schedules: RateSchedules, code: TaxCode): Map<string, readonly RatedComponent[]> {
  const bySchedules =
    remembered.get(schedules) ?? new WeakMap<TaxCode, Map<string, readonly RatedComponent[]>>();
  remembered.set(schedules, bySchedules);
  const ofCode = bySchedules.get(code) ?? new Map<string, readonly RatedComponent[]>();
  bySchedules.set(code, ofCode);
  return ofCode;
}

function ratesOfFormula(
  { levy, rate }: Component,
  schedules: RateSchedules,
  on: CalendarDate,
): Pick<RatedComponent, "rates"> {
  if (rate.kind !== "formula") return {};
  const ids = [rate.formula, rate.base ?? "0"].flatMap((text) => parseFormula(text).rates);
  if (ids.length === 0) return {};
  return {
    rates: Object.fromEntries(
      ids.map((id) => {
        const row = rowInForce(schedules[id], on);
        if (row) return [id, row.rate];
        throw new FiscalError(
          "tax/no-rate",
          `No rate of ${levy} is in force on ${displayDate(on)} for this code. Check the tax point or add a rate for that day.`,
          "taxPoint",
          { levy, schedule: id, taxPoint: on },
        );
      }),
    ),
  };
}
