import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
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
  const asked = periods.filter(({ to }) => ends.has(to));
  const [first, last] = [asked[0], asked.at(-1)];
  if (!first || !last) return { steps: [], owed: 0 };
  const turnover = await attributedPeriods(work, r, { ratio, residual: [], exempt: [] }, first.from, last.to);
  const results = turnover.map(({ taxable, exempt, ...period }) =>
    monthlyReversal(
      rule,
      monthlyParts(rule, items, period, around),
      { exempt, all: taxable + exempt },
      period.to,
      around.digits,
    ),
  );
  return {
    steps: results.flatMap(({ steps }) => steps),
    owed: results.reduce((sum, { owed }) => sum + owed, 0),
  };
}
