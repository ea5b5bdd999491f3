import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { Attribution } from "@fiscalon/core/model/attribution";
import type { CapitalItem, CapitalItems } from "@fiscalon/core/model/capitalItem";
import type { SchemeResult } from "@fiscalon/core/model/scheme";
import { capitalOnReturns, monthlyParts, monthlyReversal } from "@fiscalon/core/schemes/capitalItems";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { aroundOf, capitalRuleOf, itemsOf } from "../capital/items.ts";
import { attributedPeriods } from "./attributionOnReturn.ts";
import { periodRule } from "./periodRule.ts";
import { endsInScope } from "./poolOnReturn.ts";
import type { ReturnScope } from "./queries.ts";
import type { SchemeOnReturn } from "./schemeOnReturn.ts";

/** What the list of capital items puts on the return of a scope; nothing where no item changes anything. */
export async function capitalOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
): Promise<SchemeOnReturn | undefined> {
  const rule = capitalRuleOf(work, r);
  const items = rule ? await itemsOf(work, r) : [];
  if (!rule || items.length === 0) return undefined;
  const result = await capitalResult(work, r, scope, rule, items);
  if (result.steps.length === 0) return undefined;
  const { says: note, source, levies } = rule;
  return {
    definition: { id: "capital-items", name: "Capital items", levies, settings: [], note, source, rule },
    spans: [{ scheme: "capital-items", from: r.validFrom, to: r.validTo, settings: {} }],
    facts: [],
    result,
    setAside: [],
    gain: result.owed,
  };
}

/** The same of any items, also of such as are not kept yet. */
export async function capitalResult(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: CapitalItems,
  items: readonly CapitalItem[],
): Promise<SchemeResult> {
  const around = aroundOf(work, r);
  const periods = filingPeriods(periodRule(r), scope.from, scope.to);
  const ends = endsInScope(scope, periods);
  const { ratio } = rule;
  if (!ratio) return capitalOnReturns(rule, items, ends, around);
  const results = [];
  for (const period of periods.filter(({ to }) => ends.has(to))) {
    const turnover = await turnoverFor(work, r, ratio, period);
    const parts = monthlyParts(rule, items, period, around);
    results.push(monthlyReversal(rule, parts, turnover, period.to, around.digits));
  }
  return {
    steps: results.flatMap(({ steps }) => steps),
    owed: results.reduce((sum, { owed }) => sum + owed, 0),
  };
}

/** The turnover of a period; of one without any that of the last period before it that had some. */
async function turnoverFor(
  work: Work,
  r: RegistrationRecord,
  ratio: Attribution["ratio"],
  { from, to }: FilingPeriod,
): Promise<{ exempt: number; all: number; of: string }> {
  const between = async (first: string) =>
    (await attributedPeriods(work, r, { ratio, residual: [], exempt: [] }, first, to))
      .map(({ taxable, exempt, to: of }) => ({ exempt, all: taxable + exempt, of }))
      .findLast(({ all }) => all !== 0);
  return (await between(from)) ?? (await between(r.validFrom)) ?? { exempt: 0, all: 0, of: to };
}
