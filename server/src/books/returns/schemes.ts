import { found } from "@fiscalon/core/at";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeDefinition, SchemeInForce, SchemeStep } from "@fiscalon/core/model/scheme";
import { schemeOn } from "@fiscalon/core/model/scheme";
import type { Direction, Treatment } from "@fiscalon/core/model/taxCode";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import { setAside, turnoverRateScheme } from "@fiscalon/core/schemes/turnoverRate";
import type { CapitalLine, SchemeFact, SchemeResult } from "@fiscalon/core/schemes/turnoverRate";
import { without } from "@fiscalon/core/schemes/movementsUnder";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { lateGroups } from "./queries.ts";
import { periodRule } from "./periodRule.ts";
import { schedulesOf } from "./schedules.ts";

/** A scheme in force in a period, with its rule. */
export interface PeriodScheme {
  definition: SchemeDefinition;
  inForce: SchemeInForce;
  period: FilingPeriod;
}

/** What of a period's facts is on its return, and what its scheme puts there in the place of the rest. */
export interface SchemeContent {
  groups: FactGroup[];
  /** All of them, also those that are set aside. */
  all: readonly FactGroup[];
  steps: SchemeStep[];
  /** By how much the scheme makes more owed than what it sets aside; minor units. */
  gain: number;
  scheme: (PeriodScheme & { result: SchemeResult; setAside: SetAside[] }) | null;
}

/** Facts of a code that are on no return because of a scheme; minor units. */
export interface SetAside {
  code: string;
  direction: Direction;
  count: number;
  net: number;
  tax: number;
  /** What of it would be deducted. */
  recoverable: number;
}

/** The scheme of a registration in the period that ends on a day. */
export function schemeOf({ packs }: Work, r: RegistrationRecord, end: string): PeriodScheme | undefined {
  const inForce = schemeOn(r.schemes, end);
  const period = filingPeriodOn(periodRule(r), end);
  if (!inForce || !period) return undefined;
  const definition = found(
    packs.byId(r.pack).schemes ?? [],
    ({ id }) => id === inForce.scheme,
    inForce.scheme,
  );
  return { definition, inForce, period };
}

/** The facts of a period as its return holds them, with what its scheme puts in the place of those it sets aside. */
export async function schemeContent(
  work: Work,
  r: RegistrationRecord,
  end: string,
  groups: readonly FactGroup[],
): Promise<SchemeContent> {
  const own = schemeOf(work, r, end);
  if (!own) return { groups: [...groups], all: groups, steps: [], gain: 0, scheme: null };
  const { rule } = own.definition;
  const treatments = new Map<string, Treatment>();
  const facts = await schemeFacts(work, r, own, treatments);
  const result = turnoverRateScheme(rule, {
    period: own.period,
    inForce: own.inForce,
    registered: r.validFrom,
    facts,
    capital: await capitalLines(work, r, own),
    schedules: await schedulesOf(work, r),
    digits: minorDigits(work.packs.byId(r.pack).currency),
  });
  const aside: SetAside[] = [];
  // What turned up of the time before the scheme is taxed as it was then.
  const late = groups.some((group) => group.late)
    ? await lateGroups(work, r.id, end, own.inForce.from)
    : { inside: [], before: [] };
  const inside = [...groups.filter((group) => !group.late), ...late.inside];
  const kept = inside.flatMap((group): FactGroup[] => {
    const treatment = treatments.get(group.code);
    if (treatment === undefined) return [group];
    const way = setAside(rule, { ...group, treatment });
    if (way === "nothing") return [group];
    const { code, direction, count, net, tax, recoverable } = group;
    aside.push({ code, direction, count, net, tax: way === "all" ? tax : 0, recoverable });
    // An import under a scheme: what is due stays, what would be deducted does not.
    const { input, purchases } = rule.boxes;
    return way === "all" ? [] : [{ ...group, tags: without(group.tags, [input, purchases]) }];
  });
  const declared = aside.reduce(
    (sum, { direction, tax, recoverable }) => sum + (direction === "sale" ? tax : 0) - recoverable,
    0,
  );
  return {
    groups: [...late.before, ...kept],
    all: groups,
    steps: result.steps,
    gain: result.owed - declared,
    scheme: { ...own, result, setAside: aside },
  };
}

/** What a scheme is worked out from; facts of the time before it are left out. */
async function schemeFacts(
  work: Work,
  r: RegistrationRecord,
  { definition, inForce, period }: PeriodScheme,
  treatments: Map<string, Treatment>,
): Promise<SchemeFact[]> {
  const rows = await work.rows<SchemeFact>(
    `SELECT f.code, f.treatment, f.direction, f.charged, coalesce(l.supply, '') AS supply, a.topic,
       f.tax_point AS taxPoint, sum(f.net) AS net, sum(f.tax) AS tax, sum(f.recoverable) AS recoverable
     FROM facts f JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       LEFT JOIN accounts a ON a.client_id = f.client_id AND a.code = l.account
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.levy = $3
       AND f.tax_point >= $4
     GROUP BY f.code, f.treatment, f.direction, f.charged, l.supply, a.topic, f.tax_point ORDER BY f.tax_point`,
    [r.id, period.to, definition.levy, inForce.from],
  );
  const supplies = new Map(
    work.packs
      .byId(r.pack)
      .codes.flatMap(expandCode)
      .map(({ code, supply }) => [code, supply]),
  );
  return rows.map((row) => {
    treatments.set(row.code, row.treatment);
    const ofCode = supplies.get(row.code);
    return row.supply === "" && ofCode !== undefined && ofCode !== "both" ? { ...row, supply: ofCode } : row;
  });
}

async function capitalLines(
  work: Work,
  r: RegistrationRecord,
  { definition: { rule, levy }, inForce, period }: PeriodScheme,
): Promise<CapitalLine[]> {
  return work.rows<CapitalLine>(
    `SELECT f.code, f.document_id AS document, d.number, f.line, sum(f.net) AS net, sum(f.tax) AS tax,
       sum(f.recoverable) AS recoverable
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.levy = $3
       AND f.tax_point >= $4 AND f.code IN (SELECT value FROM json_each($5))
     GROUP BY f.code, f.document_id, f.line ORDER BY f.document_id, f.line`,
    [r.id, period.to, levy, inForce.from, JSON.stringify(rule.capital?.codes ?? [])],
  );
}
