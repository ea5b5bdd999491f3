import { textAt, valueAt } from "@fiscalon/core/at";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeDefinition, SchemeInForce, Turnover } from "@fiscalon/core/model/scheme";
import { excludeEachOther, replacesFacts, schemeOn, schemesOf } from "@fiscalon/core/model/scheme";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { MethodComparison, MethodView } from "@fiscalon/contract/compareMethods";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { boxesNow, figuresOf } from "../../books/returns/evaluation.ts";
import type { SchemeOnReturn } from "../../books/returns/schemeOnReturn.ts";
import { periodRule } from "../../books/returns/periodRule.ts";

/**
 * What the last twelve months would have come to by every method the law there has: the ordinary one, and each scheme with
 * the answers given. Nothing is written.
 */
export async function compareMethods(
  work: Work,
  { plain }: ClientSetup,
  r: RegistrationRecord,
  answers: Readonly<Record<string, string>>,
): Promise<MethodComparison> {
  const periods = lastYear(work, r);
  const turnover = await turnoverOf(work, r, periods);
  const last = periods.at(-1)?.to ?? work.today;
  // A pool is part of what is done, whatever the method.
  const offered = methodsOf(work, r);
  const methodOf = (one: SchemeInForce) => offered.find(({ id }) => id === one.scheme);
  const [pools, own] = [
    r.schemes.filter((one) => methodOf(one) === undefined),
    r.schemes.filter((one) => methodOf(one) !== undefined),
  ];
  const inForce = (id: string) =>
    schemeOn(
      own.filter(({ scheme }) => scheme === id),
      last,
    );
  const methods: MethodView[] = [
    {
      id: "ordinary",
      name: "Output tax less input tax",
      settings: [],
      ...(await figures(work, { ...r, schemes: pools }, periods)),
      bar: null,
      now: schemeOn(own, last) === undefined,
    },
  ];
  for (const definition of offered) {
    const now = inForce(definition.id);
    const chosen = answersOf(definition, now, answers);
    // What is in force beside it stays: a method of another levy, or a pool.
    const beside = r.schemes.filter((one) => {
      const other = schemesOf(work.packs.byId(r.pack)).find(({ id }) => id === one.scheme);
      return other !== undefined && !excludeEachOther(definition, other);
    });
    const spans = own.filter(({ scheme }) => scheme === definition.id);
    const schemes = [
      ...beside,
      ...throughout(spans, periods, now, { scheme: definition.id, settings: chosen }),
    ];
    methods.push({
      id: definition.id,
      name: definition.name,
      settings: definition.settings.map(({ id, name, values }) => ({
        id,
        name,
        chosen: valueAt(new Map(Object.entries(chosen)), id),
        values: [...values],
      })),
      ...(await figures(work, { ...r, schemes }, periods)),
      bar: barOf(definition, turnover, plain.digits),
      now: now !== undefined,
    });
  }
  return { digits: plain.digits, periods, turnover, methods };
}

/**
 * A scheme in force in all of the periods: as it was, where it was, so that what it carries from before is not lost, with
 * these answers in its last time; otherwise from their first day on.
 */
function throughout(
  spans: readonly SchemeInForce[],
  periods: readonly FilingPeriod[],
  now: SchemeInForce | undefined,
  asked: Pick<SchemeInForce, "scheme" | "settings">,
): SchemeInForce[] {
  const covered = periods.every(({ to }) => schemeOn(spans, to) !== undefined);
  if (now && covered) return spans.map((span) => (span === now ? { ...span, ...asked } : span));
  return periods.slice(0, 1).map(({ from }) => ({ ...asked, from, to: null }));
}

/** The schemes that work tax out another way from the same books. */
function methodsOf({ packs }: Work, r: RegistrationRecord): SchemeDefinition[] {
  return schemesOf(packs.byId(r.pack)).flatMap((definition) =>
    replacesFacts(definition.rule) &&
    !definition.byStatus &&
    definition.levies.some((levy) => r.levies.includes(levy))
      ? [definition]
      : [],
  );
}

/** Whole periods that ended in the last twelve months. */
export function lastYear(work: Work, r: RegistrationRecord): FilingPeriod[] {
  const from = addMonths(work.today, -15);
  const ended = filingPeriods(periodRule(r), from, work.today).filter(({ to }) => to < work.today);
  const last = ended.at(-1);
  if (!last) return [];
  const first = addMonths(addDays(last.to, 1), -12);
  return ended.filter((period) => period.from >= first);
}

function answersOf(
  { id: scheme, settings }: SchemeDefinition,
  now: SchemeInForce | undefined,
  answers: Readonly<Record<string, string>>,
): Record<string, string> {
  return Object.fromEntries(
    settings.map(({ id, values, holds }) => {
      const known = [answers[id], now?.scheme === scheme ? now.settings[id] : undefined];
      const fits = (one: string | undefined) =>
        holds === "amount" ? one !== undefined : values.some(({ value }) => value === one);
      return [
        id,
        known.find(fits) ??
          textAt(
            values.map(({ value }) => value),
            0,
          ),
      ];
    }),
  );
}

async function figures(
  work: Work,
  r: RegistrationRecord,
  periods: readonly FilingPeriod[],
): Promise<Pick<MethodView, "output" | "input" | "causes">> {
  const output: number[] = [];
  const input: number[] = [];
  const causes = new Map<string, number>();
  for (const { to } of periods) {
    const { boxes, content } = await boxesNow(work, r, to);
    const sums = figuresOf(work, r, to, boxes);
    output.push(sums.output);
    input.push(sums.input);
    for (const [words, amount] of content.schemes.flatMap(causesOf))
      causes.set(words, (causes.get(words) ?? 0) + amount);
  }
  return { output, input, causes: largest(causes) };
}

/** By how much what a scheme does makes more owed than output tax less input tax. */
function causesOf({
  definition: { rule },
  result,
  setAside,
}: SchemeOnReturn): [words: string, amount: number][] {
  if (rule.kind === "capital-items" || !replacesFacts(rule)) return [];
  const { tax, input, credit } = ownBoxes(rule);
  return [
    ...setAside.map(({ code, direction, tax: charged, recoverable }): [string, number] =>
      direction === "sale"
        ? [`Tax charged with ${code}, not declared`, -charged]
        : [`Tax on purchases with ${code}, not deducted`, recoverable],
    ),
    ...result.steps.flatMap(({ box, amount }): [string, number][] => {
      if (box === undefined) return [];
      if (box === tax) return [["Tax at the rates of the scheme", amount]];
      if (box === input) return [["Tax that stays deductible", -amount]];
      return box === credit ? [["Given back by the scheme", -amount]] : [];
    }),
  ];
}

/** Where a scheme that replaces facts puts tax, what is deducted, and what it gives back. */
function ownBoxes(rule: SchemeDefinition["rule"]): { tax?: string; input?: string; credit?: string } {
  if (rule.kind === "turnover-rate") return rule.boxes;
  return rule.kind === "ratio-credit" ? rule.boxes : {};
}

/** How many causes are told apart. */
const TOLD = 3;

/** The largest causes; the others in one. */
function largest(causes: ReadonlyMap<string, number>): MethodView["causes"] {
  const sorted = [...causes]
    .map(([words, amount]) => ({ words, amount }))
    .filter(({ amount }) => amount !== 0)
    .sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount));
  const rest = sorted.slice(TOLD);
  if (rest.length === 0) return sorted;
  const amount = rest.reduce((sum, one) => sum + one.amount, 0);
  return [...sorted.slice(0, TOLD), { words: `${rest.length} others`, amount }];
}

function barOf({ name, conditions }: SchemeDefinition, turnover: Turnover, digits: number): string | null {
  const passed = conditions.flatMap(({ limit }) => limit ?? []).find(({ upTo, of }) => turnover[of] > upTo);
  if (!passed) return null;
  const { upTo, of } = passed;
  const what =
    of === "purchases"
      ? "taxable purchases without tax were"
      : `taxable turnover ${of === "net" ? "without" : "with"} tax was`;
  return `${name}: ${what} ${displayAmount(turnover[of], digits)} in these periods; ${displayAmount(upTo, digits)} is the most that may be expected.`;
}

/** Taxable turnover and purchases of periods. What bears taxes of several levies counts once. */
export async function turnoverOf(
  work: Work,
  r: RegistrationRecord,
  periods: readonly FilingPeriod[],
): Promise<Turnover> {
  const [first, last] = [periods[0], periods.at(-1)];
  if (!first || !last) return { net: 0, withTax: 0, purchases: 0 };
  return work.one<Turnover>(
    `SELECT coalesce(sum(CASE direction WHEN 'sale' THEN net END), 0) AS net,
       coalesce(sum(CASE direction WHEN 'sale' THEN net + tax END), 0) AS withTax,
       coalesce(sum(CASE WHEN direction = 'purchase' AND taxed THEN net END), 0) AS purchases FROM (
       SELECT direction, max(net) AS net, sum(tax) AS tax, max(treatment IN ('standard', 'reduced')) AS taxed FROM (
         SELECT document_id, line, levy, direction, treatment, sum(net) AS net, sum(tax) AS tax FROM facts
         WHERE registration_id = $1 AND live = 1 AND held = 0
           AND treatment IN ('standard', 'reduced', 'zero', 'export') AND tax_point BETWEEN $2 AND $3
         GROUP BY document_id, line, levy)
       GROUP BY document_id, line)`,
    [r.id, first.from, last.to],
  );
}
