import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRule } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import { schemesOf } from "@fiscalon/core/model/scheme";

/**
 * Schemes of a registration in order of time: those the law there has, with answers to what each asks, from the first day
 * of a filing period to the last day of one, one at a time.
 */
export function checkedSchemes(
  pack: JurisdictionPack,
  rule: PeriodRule,
  schemes: readonly SchemeInForce[],
): SchemeInForce[] {
  const sorted = [...schemes].sort((a, b) => (a.from < b.from ? -1 : 1));
  return sorted.map((one, index) =>
    withinField(`schemes[${index}]`, () => checked(pack, rule, one, sorted[index + 1])),
  );
}

function checked(
  pack: JurisdictionPack,
  rule: PeriodRule,
  one: SchemeInForce,
  next: SchemeInForce | undefined,
): SchemeInForce {
  const known = schemesOf(pack);
  const definition = known.find(({ id }) => id === one.scheme);
  if (!definition) {
    const names = known.map(({ id }) => id).join(", ") || "none";
    throw new FiscalError(
      "scheme/unknown",
      `${pack.name} has no scheme "${one.scheme}". Known: ${names}.`,
      "scheme",
    );
  }
  if (filingPeriodOn(rule, one.from)?.from !== one.from) {
    throw new FiscalError(
      "scheme/start",
      `${definition.name} begins with a filing period; ${one.from} is not the first day of one.`,
      "from",
    );
  }
  if (one.to !== null && (one.to < one.from || filingPeriodOn(rule, one.to)?.to !== one.to)) {
    throw new FiscalError(
      "scheme/end",
      `${definition.name} ends with a filing period; ${one.to} is not the last day of one after it began.`,
      "to",
    );
  }
  if (next && (one.to === null || next.from <= one.to)) {
    throw new FiscalError(
      "scheme/overlap",
      `From ${next.from} on another scheme is in force. Let this one end on ${addDays(next.from, -1)} or before.`,
      "to",
    );
  }
  const settings = definition.settings.map(({ id, name, values, holds }): [string, string] => {
    const answer = one.settings[id];
    if (holds === "amount") return [id, checkedAmount(name, answer)];
    if (answer !== undefined && values.some(({ value }) => value === answer)) return [id, answer];
    throw new FiscalError(
      "scheme/setting",
      `${definition.name} asks for "${name}". Choose one of: ${values.map(({ value }) => value).join(", ")}.`,
      "settings",
    );
  });
  return { scheme: one.scheme, from: one.from, to: one.to, settings: Object.fromEntries(settings) };
}

/** An amount that is asked for; nothing is nought. */
function checkedAmount(name: string, answer: string | undefined): string {
  if (answer === undefined || answer === "") return "";
  if (/^\d{1,13}(\.\d{1,3})?$/.test(answer)) return answer;
  throw new FiscalError(
    "scheme/amount",
    `"${name}" is an amount of nought or more, such as 1250.00, and not ${answer}.`,
    "settings",
  );
}
