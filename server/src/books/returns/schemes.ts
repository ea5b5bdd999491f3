import type { RatioCredit } from "@fiscalon/core/model/ratioCredit";
import type {
  SchemeDefinition,
  SchemeInForce,
  SchemeResult,
  SchemeStep,
  TurnoverRate,
} from "@fiscalon/core/model/scheme";
import { replacesFacts, schemeOn, schemesOf } from "@fiscalon/core/model/scheme";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { byScheme, dayGroups } from "./dayGroups.ts";
import type { DayGroup } from "./dayGroups.ts";
import { capitalOnReturn } from "./capitalOnReturn.ts";
import { addBackOnReturn } from "./addBackOnReturn.ts";
import { attributionOnReturn } from "./attributionOnReturn.ts";
import { instalmentSteps } from "./instalmentSteps.ts";
import { poolOnReturn, splitOnReturn } from "./poolOnReturn.ts";
import { describedGroups, factGroups, factGroupsBetween, levySpans, scopeOfPeriod } from "./queries.ts";
import type { DescribedGroup, ReturnScope } from "./queries.ts";
import type { SchemeOnReturn } from "./schemeOnReturn.ts";
import { resaleOnReturn } from "./resaleOnReturn.ts";
import { retailOnReturn } from "./retailOnReturn.ts";
import { rebateOnReturn } from "./rebateOnReturn.ts";
import { ratioOnReturn } from "./ratioOnReturn.ts";
import { turnoverOnReturn } from "./turnoverOnReturn.ts";

/** What of the facts of a return is on it, and what schemes put there in the place of the rest. */
export interface ReturnContent {
  groups: readonly FactGroup[];
  /** All of them, also those that are set aside. */
  all: readonly FactGroup[];
  steps: readonly SchemeStep[];
  /** By how much schemes make more owed than what they set aside; minor units. */
  gain: number;
  schemes: readonly SchemeOnReturn[];
}

/** The facts of a period as its return holds them. */
export async function contentOfPeriod(
  work: Work,
  r: RegistrationRecord,
  end: string,
  known?: readonly FactGroup[],
): Promise<ReturnContent> {
  const scope = scopeOfPeriod(end);
  const content = await withCapital(
    work,
    r,
    scope,
    r.schemes.length === 0
      ? plainContent(known ?? (await factGroups(work, r.id, end)))
      : await underSchemes(work, r, scope),
  );
  const paid = await instalmentSteps(work, r, end);
  return paid.length === 0 ? content : { ...content, steps: [...content.steps, ...paid] };
}

/** The same of whole periods, or of any stretch of days. */
export async function contentBetween(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
): Promise<ReturnContent> {
  return withCapital(
    work,
    r,
    scope,
    r.schemes.length > 0
      ? await underSchemes(work, r, scope)
      : plainContent(await plainGroups(work, r, scope)),
  );
}

/** With what the list of capital items adds. */
async function withCapital(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  content: ReturnContent,
): Promise<ReturnContent> {
  const capital = await capitalOnReturn(work, r, scope);
  if (!capital) return content;
  return {
    ...content,
    steps: [...content.steps, ...capital.result.steps],
    gain: content.gain + capital.gain,
    schemes: [...content.schemes, capital],
  };
}

/** The facts of a scope that no scheme sets aside. */
function plainGroups(
  work: Work,
  { id }: RegistrationRecord,
  { by, from, to }: ReturnScope,
): Promise<FactGroup[]> {
  return by === "period_end" && from === to
    ? factGroups(work, id, to)
    : factGroupsBetween(work, id, from, to, by === "period_end");
}

function plainContent(groups: readonly FactGroup[]): ReturnContent {
  return { groups, all: groups, steps: [], gain: 0, schemes: [] };
}

/** The schemes of a registration that hold on a day, by their definition. */
export function schemesAt(
  { packs }: Work,
  r: Pick<RegistrationRecord, "schemes" | "pack">,
  day: string,
): SchemeDefinition[] {
  const offered = schemesOf(packs.byId(r.pack));
  return offered.filter(({ id }) => schemeOn(spansOf(r, id), day) !== undefined);
}

function spansOf({ schemes }: Pick<RegistrationRecord, "schemes">, id: string): SchemeInForce[] {
  return schemes.filter(({ scheme }) => scheme === id);
}

async function underSchemes(work: Work, r: RegistrationRecord, scope: ReturnScope): Promise<ReturnContent> {
  const offered = schemesOf(work.packs.byId(r.pack));
  // Others than these leave all facts where they are.
  const replacing = offered.filter(({ id, rule }) => replacesFacts(rule) && spansOf(r, id).length > 0);
  const days = replacing.length === 0 ? [] : await dayGroups(work, r.id, scope);
  const isReturn = scope.by === "period_end" && scope.from === scope.to;
  const known = replacing.length === 0 && isReturn ? await describedGroups(work, r.id, scope.to) : [];
  const all =
    replacing.length === 0
      ? (isReturn ? known : await plainGroups(work, r, scope)).map((group) => ({ scheme: null, group }))
      : byScheme(
          days,
          replacing.flatMap(({ id, levies }) => levySpans(levies, spansOf(r, id))),
        );
  const groupsOf = (id: string | null) => all.filter(({ scheme }) => scheme === id).map(({ group }) => group);
  const groups: FactGroup[] = groupsOf(null);
  const schemes: SchemeOnReturn[] = [];
  for (const definition of offered) {
    const spans = spansOf(r, definition.id);
    if (spans.length === 0) continue;
    const own = groupsOf(definition.id);
    if (own.length === 0 && !schemeOn(spans, scope.to)) continue;
    const { kept, ...scheme } = await onReturn(work, r, scope, definition, spans, own, { days, known });
    groups.push(...kept);
    schemes.push(scheme);
  }
  return {
    groups,
    all: all.map(({ group }) => group),
    steps: schemes.flatMap(({ result }) => result.steps),
    gain: schemes.reduce((sum, { gain }) => sum + gain, 0),
    schemes,
  };
}

async function onReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  definition: SchemeDefinition,
  spans: readonly SchemeInForce[],
  groups: readonly FactGroup[],
  { days, known }: { days: readonly DayGroup[]; known: readonly DescribedGroup[] },
): Promise<SchemeOnReturn & { kept: readonly FactGroup[] }> {
  const { rule } = definition;
  if (rule.kind === "turnover-rate")
    return turnoverOnReturn(work, r, scope, { ...definition, rule }, spans, groups, days);
  if (rule.kind === "ratio-credit")
    return ratioOnReturn(work, r, scope, { ...definition, rule }, spans, groups);
  const result = await addedBy(work, r, scope, rule, spans, known);
  return { definition, spans, facts: [], result, setAside: [], gain: result.owed, kept: groups };
}

/** What a scheme adds that leaves all facts where they are. */
async function addedBy(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: Exclude<SchemeDefinition["rule"], TurnoverRate | RatioCredit>,
  spans: readonly SchemeInForce[],
  known: readonly DescribedGroup[],
): Promise<SchemeResult> {
  switch (rule.kind) {
    case "margin-pool":
      return poolOnReturn(work, r, scope, rule, spans);
    case "percentage-split":
      return splitOnReturn(work, r, scope, rule, spans);
    case "attribution":
      return attributionOnReturn(work, r, scope, rule, spans, known);
    case "retail-takings":
      return retailOnReturn(work, r, scope, rule, spans);
    case "resale-credit":
      return resaleOnReturn(work, r, scope, rule, spans);
    case "yearly-rebate":
      return rebateOnReturn(work, r, scope, rule, spans);
    case "yearly-add-back":
      return addBackOnReturn(work, r, scope, rule, spans);
  }
}
