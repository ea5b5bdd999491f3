import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRule } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { SchemeDefinition, SchemeInForce } from "@fiscalon/core/model/scheme";
import { excludeEachOther, schemesOf } from "@fiscalon/core/model/scheme";

/**
 * Schemes of a registration in order of time: those the law there has for its levies, with answers to what each asks, from
 * the first day of a filing period to the last day of one, none beside another that excludes it.
 */
export function checkedSchemes(
  pack: JurisdictionPack,
  levies: readonly string[],
  rule: PeriodRule,
  schemes: readonly SchemeInForce[],
): SchemeInForce[] {
  const known = schemesOf(pack).filter((one) => one.levies.some((levy) => levies.includes(levy)));
  const sorted = [...schemes].sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0));
  return sorted.map((one, index) =>
    withinField(`schemes[${index}]`, () => {
      const after = sorted.slice(index + 1);
      return checked(pack, known, rule, one, after);
    }),
  );
}

function checked(
  pack: JurisdictionPack,
  known: readonly SchemeDefinition[],
  rule: PeriodRule,
  one: SchemeInForce,
  after: readonly SchemeInForce[],
): SchemeInForce {
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
      `${definition.name} begins with a filing period; ${displayDate(one.from)} is not the first day of one.`,
      "from",
    );
  }
  if (one.to !== null && (one.to < one.from || filingPeriodOn(rule, one.to)?.to !== one.to)) {
    throw new FiscalError(
      "scheme/end",
      `${definition.name} ends with a filing period; ${displayDate(one.to)} is not the last day of one after it began.`,
      "to",
    );
  }
  for (const next of after) {
    const other = known.find(({ id }) => id === next.scheme);
    const meet = one.to === null || next.from <= one.to;
    if (!other || !meet || !excludeEachOther(definition, other)) continue;
    throw new FiscalError(
      "scheme/overlap",
      `From ${displayDate(next.from)} on ${other.name} is in force, which excludes it. Let ${definition.name} end on ${displayDate(addDays(next.from, -1))} or before.`,
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
