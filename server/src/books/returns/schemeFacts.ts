import { valueAt } from "@fiscalon/core/at";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeDefinition, SchemeInForce, TurnoverRate } from "@fiscalon/core/model/scheme";
import type { Direction } from "@fiscalon/core/model/taxCode";
import type { SchemeFact } from "@fiscalon/core/schemes/turnoverRate";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { inScope, inSpan, levySpans } from "./queries.ts";
import type { DescribedGroup, ReturnScope } from "./queries.ts";

/** What a scheme is worked out from: what it holds of a return, and what else was in the own periods of that. */
export async function schemeFacts(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  { levies }: SchemeDefinition,
  spans: readonly SchemeInForce[],
): Promise<SchemeFact[]> {
  const ends = await ownEnds(work, r, scope);
  const times = levySpans(levies, spans);
  const bind = [r.id, JSON.stringify(ends), JSON.stringify(times), scope.from, scope.to];
  const facts = (direction: Direction, [supply, topic]: [string, string], joins: string) =>
    work.rows<Omit<SchemeFact, "reported"> & { reported: number }>(
      `SELECT f.code, f.treatment, f.direction, f.charged, f.rate, ${supply} AS supply, ${topic} AS topic,
         f.tax_point AS taxPoint, f.own_end AS ownEnd, (${inScope(scope, "$4", "$5")}) AS reported,
         sum(f.net) AS net, sum(f.tax) AS tax, sum(f.recoverable) AS recoverable
       FROM (${OF_OWN_PERIODS}) f ${joins}
       WHERE f.held = 0 AND f.direction = '${direction}' AND ${inSpan("$3", "from", times.length)} IS NOT NULL
       GROUP BY f.code, f.treatment, f.charged, f.rate, supply, topic, f.tax_point, f.own_end, reported
       ORDER BY f.tax_point`,
      bind,
    );
  // Only of purchases it matters what they are for.
  const rows = [
    ...(await facts("sale", ["''", "NULL"], "")),
    ...(await facts(
      "purchase",
      ["coalesce(l.supply, '')", "a.topic"],
      `JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
         LEFT JOIN accounts a ON a.client_id = f.client_id AND a.code = l.account`,
    )),
  ];
  return told(work, r, rows).map((row) => ({ ...row, reported: row.reported === 1 }));
}

/** Facts of registration $1 whose own period is one of $2, on whatever return they are. */
const OF_OWN_PERIODS = [
  "period_end IN (SELECT value FROM json_each($2))",
  "late = 1 AND period_end NOT IN (SELECT value FROM json_each($2))",
]
  .map(
    (
      where,
    ) => `SELECT client_id, document_id, line, levy, code, treatment, direction, charged, held, rate, net, tax, recoverable,
      tax_point, own_end, period_end FROM facts
    WHERE registration_id = $1 AND live = 1 AND own_end IN (SELECT value FROM json_each($2)) AND ${where}`,
  )
  .join(" UNION ALL ");

/** The own periods of what is in a scope. */
async function ownEnds(work: Work, r: RegistrationRecord, scope: ReturnScope): Promise<string[]> {
  const rows = await work.rows<{ end: string }>(
    `SELECT DISTINCT f.own_end AS end FROM facts f
     WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND ${inScope(scope, "$2", "$3")}`,
    [r.id, scope.from, scope.to],
  );
  return rows.map(({ end }) => end);
}

/** The same of a whole period in which nothing changes: sums as the boxes are made of; see wholePeriod.ts. */
export async function factsOfWhole(
  work: Work,
  r: RegistrationRecord,
  { to }: FilingPeriod,
  { limitedCost }: TurnoverRate,
  groups: readonly DescribedGroup[],
): Promise<SchemeFact[]> {
  const all = { taxPoint: to, ownEnd: to, reported: true };
  const facts = groups
    .filter(({ direction }) => direction === "sale" || limitedCost === undefined)
    .map(({ code, treatment, direction, charged, rate, net, tax, recoverable }): SchemeFact => ({
      code,
      treatment,
      direction,
      charged,
      rate,
      supply: "",
      topic: null,
      net,
      tax,
      recoverable,
      ...all,
    }));
  if (!limitedCost) return facts;
  const bought = groups.filter(({ direction }) => direction === "purchase");
  return [...facts, ...(await purchasesByUse(work, r, to, bought)).map((one) => ({ ...one, ...all }))];
}

/** What was bought in a period, by what it is and what it is for. */
async function purchasesByUse(
  work: Work,
  r: RegistrationRecord,
  end: string,
  groups: readonly DescribedGroup[],
): Promise<Omit<SchemeFact, "taxPoint" | "ownEnd" | "reported">[]> {
  const rows = await work.rows<
    Pick<SchemeFact, "supply" | "net" | "tax" | "recoverable"> & { bucket: string; account: string | null }
  >(
    `SELECT f.bucket, coalesce(l.supply, '') AS supply, l.account, sum(f.net) AS net, sum(f.tax) AS tax,
       sum(f.recoverable) AS recoverable
     FROM (SELECT value ->> 0 AS place, value ->> 1 AS bucket FROM json_each($3)) w
       CROSS JOIN facts f ON f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.bucket = w.bucket
       JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
     GROUP BY w.place, l.supply, l.account`,
    [r.id, end, JSON.stringify(groups.map(({ bucket }, place) => [place, bucket]))],
  );
  const accounts = await work.rows<{ code: string; topic: string | null }>(
    "SELECT code, topic FROM accounts WHERE client_id = $1",
    [r.clientId],
  );
  const topics = new Map(accounts.map(({ code, topic }) => [code, topic]));
  const known = new Map(groups.map((group) => [group.bucket, group]));
  return told(
    work,
    r,
    rows.map(({ bucket, account, ...sums }) => {
      const { code, treatment, direction, charged, rate } = valueAt(known, bucket);
      const topic = account === null ? null : (topics.get(account) ?? null);
      return { code, treatment, direction, charged, rate, topic, ...sums };
    }),
  );
}

/** With what a line leaves to its code: whether it is goods or services. */
function told<Row extends Pick<SchemeFact, "code" | "supply">>(
  { packs }: Work,
  r: RegistrationRecord,
  rows: readonly Row[],
): Row[] {
  const supplies = new Map(
    packs
      .byId(r.pack)
      .codes.flatMap(expandCode)
      .map(({ code, supply }) => [code, supply]),
  );
  return rows.map((row) => {
    const ofCode = supplies.get(row.code);
    const says = row.supply === "" && ofCode !== undefined && ofCode !== "both" ? ofCode : row.supply;
    return { ...row, supply: says };
  });
}
