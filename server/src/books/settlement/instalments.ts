import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { addDays, daysBetween } from "@fiscalon/core/calendar/date";
import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError } from "@fiscalon/core/errors";
import { instalmentRuleOf } from "@fiscalon/core/model/instalments";
import type { InstalmentRule } from "@fiscalon/core/model/instalments";
import { optionsOn } from "@fiscalon/core/model/registration";
import { displayAmount, formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { daysOf, instalmentEnds, instalmentsOf } from "@fiscalon/core/returns/instalments";
import type { Instalment, InstalmentTold } from "@fiscalon/core/returns/instalments";
import type { InstalmentBody, InstalmentsView } from "@fiscalon/contract/settlement";
import { headFigures } from "./headFigures.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { dueDayBy } from "../returns/dueDates.ts";
import { boxesNow, carriedInto, digitsOf, evaluated, figuresOf, formOf } from "../returns/evaluation.ts";
import { periodBefore, periodEnding, requireOpen } from "../returns/periods.ts";
import { periodRule } from "../returns/periodRule.ts";
import { returnRecord } from "../returns/records.ts";
import { schedulesOf } from "../returns/schedules.ts";
import { contentBetween } from "../returns/schemes.ts";

/** The rule by which a registration pays during the period that ends on a day, where it does. */
export function ruleOfPeriod(
  { packs }: Pick<Work, "packs">,
  r: RegistrationRecord,
  end: string,
): InstalmentRule | undefined {
  const pack = packs.byId(r.pack);
  return instalmentRuleOf(pack.instalments, {
    frequency: rhythmOn(periodRule(r), end).frequency,
    levies: r.levies,
    options: optionsOn(pack, r, end),
  });
}

interface ToldRow extends InstalmentTold {
  no: number;
  reason: string;
}

/** The payments of a period against its one return, what is paid of each, and what is late. */
export async function instalmentsView(
  work: Work,
  r: RegistrationRecord,
  end: string,
): Promise<InstalmentsView | null> {
  const rule = ruleOfPeriod(work, r, end);
  if (!rule) return null;
  const period = periodEnding(r, end);
  const told = await toldOf(work, r, end);
  const instalments = await worked(work, r, period, rule, told);
  let left = await paidBefore(work, r, end);
  const options = { packs: work.packs, r };
  const rows = instalments.map((one) => {
    const of = told.find(({ no }) => no === one.no);
    const due = dueDayBy(options, rule.due, one.to);
    const paid = Math.min(left, one.amount ?? left);
    left -= paid;
    const open = one.amount !== null && paid < one.amount && due < work.today;
    return {
      ...one,
      due,
      asked: of?.asked ?? null,
      estimate: of?.estimate ?? null,
      reason: of?.reason ?? "",
      paid,
      late: open ? daysBetween(due, work.today) : 0,
    };
  });
  const { name, says, source, labels } = rule;
  return {
    name,
    says,
    source,
    labels: labels ?? null,
    told: rule.way !== "actual",
    rows,
    warning: await variedTooLow(work, r, period, rule, told, instalments),
  };
}

async function worked(
  work: Work,
  r: RegistrationRecord,
  period: FilingPeriod,
  rule: InstalmentRule,
  rows: readonly ToldRow[],
): Promise<Instalment[]> {
  const ends = instalmentEnds(rule, period);
  const told = ends.map((_, index) => {
    const row = rows.find(({ no }) => no === index + 1);
    return { asked: row?.asked ?? null, estimate: row?.estimate ?? null };
  });
  const actual: { head: string; amount: number }[][] = [];
  if (rule.way === "actual") {
    for (const to of ends)
      actual.push(headFigures(work, r, period.to, rule.before ?? {}, await boxesUpTo(work, r, period, to)));
  }
  return instalmentsOf(rule, {
    period,
    before: rule.way === "actual" ? undefined : await beforeOf(work, r, period, rule),
    told,
    actual,
    digits: digitsOf(work, r),
  });
}

/** What the period before came to, sealed or as it stands. */
async function beforeOf(work: Work, r: RegistrationRecord, period: FilingPeriod, rule: InstalmentRule) {
  const before = periodBefore(r, period);
  if (!before) return undefined;
  const boxes =
    (await returnRecord(work, r.id, before.to))?.boxes ?? (await boxesNow(work, r, before.to)).boxes;
  return { heads: headFigures(work, r, before.to, rule.before ?? {}, boxes), days: daysOf(before) };
}

/** What the period comes to from its first day up to a day. */
async function boxesUpTo(work: Work, r: RegistrationRecord, { from, to: end }: FilingPeriod, to: string) {
  const content = await contentBetween(work, r, { by: "tax_point", from, to });
  const previous = await carriedInto(work, r, formOf(work, r, end), from);
  return evaluated(work, await schedulesOf(work, r), r, end, { ...content, adjustments: [], previous });
}

/** Whether instalments were varied so low that it costs interest, once the period is over. */
async function variedTooLow(
  work: Work,
  r: RegistrationRecord,
  { to }: FilingPeriod,
  { warnBelow, parts }: InstalmentRule,
  told: readonly ToldRow[],
  instalments: readonly Instalment[],
): Promise<string | null> {
  if (warnBelow === undefined || to >= work.today || !told.some(({ estimate }) => estimate !== null))
    return null;
  const digits = digitsOf(work, r);
  const record = await returnRecord(work, r.id, to);
  const net = record?.net ?? figuresOf(work, r, to, (await boxesNow(work, r, to)).boxes).net;
  let asked = 0;
  let share = 0;
  for (const [index, { amount, varied, no }] of instalments.entries()) {
    asked += amount ?? 0;
    share += Number(parts[index]?.share ?? 0);
    const least = Math.round((net * share * Number(warnBelow)) / 10_000);
    if (varied === null || asked >= least) continue;
    return `Varied too low: up to instalment ${no} ${displayAmount(asked, digits)} was paid in, and ${warnBelow} % of what the period came to would have been ${displayAmount(least, digits)}. The authority may charge interest.`;
  }
  return null;
}

async function toldOf(work: Work, r: RegistrationRecord, end: string): Promise<ToldRow[]> {
  return work.rows<ToldRow>(
    `SELECT no, asked, estimate, reason FROM instalments
     WHERE registration_id = $1 AND period_end = $2 ORDER BY no`,
    [r.id, end],
  );
}

async function paidBefore(work: Work, r: RegistrationRecord, end: string): Promise<number> {
  const { paid } = await work.one<{ paid: number }>(
    `SELECT coalesce(sum(amount), 0) AS paid FROM tax_payments
     WHERE registration_id = $1 AND period_end = $2 AND kind = 'instalment'`,
    [r.id, end],
  );
  return paid;
}

/**
 * Keeps what a person says of one payment of an open period.
 * @throws FiscalError `settle/no-instalments`, `settle/amount`, `returns/sealed`
 */
export async function keepInstalment(
  work: Writing,
  clientId: number,
  r: RegistrationRecord,
  end: string,
  no: number,
  { asked, estimate, reason }: InstalmentBody,
): Promise<void> {
  const rule = ruleOfPeriod(work, r, end);
  if (!rule || no < 1 || no > instalmentEnds(rule, periodEnding(r, end)).length) throw noInstalments(end);
  await requireOpen(work, r.id, end);
  const digits = digitsOf(work, r);
  const minor = (text: string, field: string) => {
    if (text === "") return null;
    const amount = parseAmount(text, digits);
    if (amount >= 0) return amount;
    throw new FiscalError(
      "settle/amount",
      "Type the amount without a sign; the kind says the direction.",
      field,
    );
  };
  const figures = [minor(asked, "asked"), minor(estimate, "estimate")];
  const { createdAt, createdBy } = work.made;
  const before = (await toldOf(work, r, end)).find((row) => row.no === no);
  await work.run("DELETE FROM instalments WHERE registration_id = $1 AND period_end = $2 AND no = $3", [
    r.id,
    end,
    no,
  ]);
  if (figures.some((one) => one !== null) || reason !== "")
    await work.run(
      `INSERT INTO instalments (client_id, registration_id, period_end, no, asked, estimate, reason, created_at, created_by)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
      [clientId, r.id, end, no, ...figures, reason, createdAt, createdBy],
    );
  await work.record({
    action: "change",
    entity: "return",
    id: r.id,
    before: before && { period: end, instalment: no, ...shown(before, digits) },
    after: { period: end, instalment: no, asked, estimate, reason },
  });
}

function shown({ asked, estimate, reason }: ToldRow, digits: number) {
  const text = (amount: number | null) => (amount === null ? "" : formatAmount(amount, digits));
  return { asked: text(asked), estimate: text(estimate), reason };
}

export function noInstalments(end: string): FiscalError {
  return new FiscalError(
    "settle/no-instalments",
    `This registration pays no instalments for the period to ${displayDate(end)}. Set them up under Places & registrations first.`,
    "kind",
  );
}

/** Instalments of open periods that fall due up to a month from today and are not paid; minor units. */
export async function instalmentsToPay(
  work: Work,
  r: RegistrationRecord,
  ends: readonly string[],
): Promise<{ period: string; amount: number }[]> {
  const open: { period: string; amount: number }[] = [];
  for (const period of ends) {
    const view = await instalmentsView(work, r, period);
    for (const { amount, paid, due } of view?.rows ?? []) {
      if (amount !== null && amount > paid && due <= addDays(work.today, 31))
        open.push({ period, amount: amount - paid });
    }
  }
  return open;
}
