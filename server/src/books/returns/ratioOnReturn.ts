import type { RatioCredit } from "@fiscalon/core/model/ratioCredit";
import type { SchemeDefinition, SchemeInForce } from "@fiscalon/core/model/scheme";
import type { Component, Treatment } from "@fiscalon/core/model/taxCode";
import { groupBy } from "@fiscalon/core/groupBy";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import { without } from "@fiscalon/core/schemes/movementsUnder";
import { countsInTotals, ratioCredit } from "@fiscalon/core/schemes/ratioCredit";
import type { BilledTotal } from "@fiscalon/core/schemes/ratioCredit";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { inScope, inSpan, levySpans } from "./queries.ts";
import type { ReturnScope } from "./queries.ts";
import type { SchemeOnReturn, SetAside } from "./schemeOnReturn.ts";

/** The line of a fact `f`, with its tax and what of other taxes is cost. */
const GROSS = `(f.net + f.tax + coalesce((SELECT sum(o.tax) FROM facts o WHERE o.document_id = f.document_id AND o.line = f.line
  AND o.levy <> f.levy AND o.charged = 'charged' AND o.recoverable = 0 AND o.live = 1), 0))`;

/**
 * What the line of a fact `f` counts in the totals: the share of it whose tax is deductible. That is the percentage of its
 * code (in a parameter of JSON) or the line's own; where a cap decides, what of the tax it leaves.
 */
export function billed(shares: string): string {
  const own = `(SELECT CAST(l.attributes ->> '$.recoverable' AS REAL) FROM lines l WHERE l.document_id = f.document_id AND l.no = f.line)`;
  const share = `min(coalesce(CAST((SELECT value FROM json_each(${shares}) WHERE key = f.code) AS REAL), 100), coalesce(${own}, 100))`;
  return `CASE f.recoverable WHEN 0 THEN 0 WHEN f.tax THEN ${GROSS} ELSE
    CAST(round(CASE WHEN abs(f.tax * ${share} / 100 - f.recoverable) <= 0.5 THEN ${GROSS} * ${share} / 100
      ELSE CAST(${GROSS} * f.recoverable AS REAL) / f.tax END) AS INTEGER) END`;
}

/** The codes of which less than all is deducted, with the percentage, as JSON. */
export function sharesOf({ packs }: Work, r: Pick<RegistrationRecord, "pack">): string {
  const parts = packs
    .byId(r.pack)
    .codes.flatMap(expandCode)
    .flatMap(({ code, components }) => {
      const [part] = components.filter(({ recoverable }) => recoverable !== "0" && recoverable !== "100");
      return part ? [[code, part.recoverable]] : [];
    });
  return JSON.stringify(Object.fromEntries(parts));
}

interface BilledRow {
  code: string;
  treatment: Treatment;
  charged: Component["charged"];
  rate: string | null;
  total: number;
}

/** What a scheme that takes input tax from totals puts on a return in the place of bills, and the facts it leaves. */
export async function ratioOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  definition: SchemeDefinition & { rule: RatioCredit },
  spans: readonly SchemeInForce[],
  groups: readonly FactGroup[],
): Promise<SchemeOnReturn & { kept: FactGroup[] }> {
  const { rule, levies } = definition;
  const times = levySpans(levies, spans);
  const rows = await work.rows<BilledRow>(
    `SELECT f.code, f.treatment, f.charged, f.rate, sum(${billed("$5")}) AS total FROM facts f
     WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.direction = 'purchase'
       AND ${inSpan("$2", "from", times.length)} IS NOT NULL AND ${inScope(scope, "$3", "$4")}
     GROUP BY f.code, f.treatment, f.charged, f.rate`,
    [r.id, JSON.stringify(times), scope.from, scope.to, sharesOf(work, r)],
  );
  const counted = rows.filter((row) => countsInTotals(rule, { ...row, direction: "purchase" }));
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  const result = ratioCredit(rule, totalsOf(counted), scope.to, digits);
  const keys = new Set(counted.map(({ code, rate }) => `${code} ${rate}`));
  const setAside: SetAside[] = [];
  const kept = groups.flatMap((group): FactGroup[] => {
    const { code, direction, rate, count, net, recoverable } = group;
    if (direction === "sale" || !keys.has(`${code} ${rate}`)) return [group];
    setAside.push({ code, direction, count, net, tax: 0, recoverable });
    const tags = without(group.tags, rule.drops);
    return tags === "" ? [] : [{ ...group, tags }];
  });
  const deducted = setAside.reduce((sum, { recoverable }) => sum + recoverable, 0);
  return { definition, spans, facts: [], result, setAside, gain: result.owed + deducted, kept };
}

function totalsOf(rows: readonly BilledRow[]): BilledTotal[] {
  const byRate = groupBy(rows, ({ rate }) => rate ?? "");
  return [...byRate]
    .map(([rate, ofRate]) => ({ rate, total: ofRate.reduce((sum, { total }) => sum + total, 0) }))
    .filter(({ rate, total }) => rate !== "" && total !== 0)
    .sort((a, b) => Number(a.rate) - Number(b.rate));
}
