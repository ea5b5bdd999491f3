import { correctionWay } from "@fiscalon/core/returns/correctionWay";
import { evaluateReturn, netOfReturn } from "@fiscalon/core/returns/evaluateReturn";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { formOn, packById } from "@fiscalon/core/jurisdictions/packs";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { ReturnForm } from "@fiscalon/core/returns/returnForm";
import type { AdjustmentView, BoxView, ReturnView } from "@fiscalon/contract/returns";
import type { Database, Tx } from "../../db/database.ts";
import type { RegistrationRecord, ReturnRecord } from "../../db/models.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";
import { findingsOf } from "../findings/service.ts";
import { dueDates, periodBefore, periodEnding, periodRule } from "./periods.ts";
import { adjustmentsOf, factGroups, factGroupsBetween, lateGroups } from "./queries.ts";
import { returnRecord } from "./records.ts";

/** The boxes of a period as they would be declared now. */
export async function boxesNow(
  db: Database,
  r: RegistrationRecord,
  periodEnd: string,
  tx?: Tx,
): Promise<{ form: ReturnForm; boxes: BoxResult[]; factCount: number }> {
  const form = formOn(packById(r.pack), periodEnd);
  const groups = await factGroups(db, r.id, periodEnd, tx);
  const boxes = evaluateReturn(form, groups, await adjustmentsOf(db, r.id, periodEnd, tx));
  return { form, boxes, factCount: groups.reduce((sum, group) => sum + group.count, 0) };
}

/** Everything the Return station shows of a period. A sealed period shows what was sealed. */
export async function returnView(
  db: Database,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<ReturnView> {
  const period = periodEnding(r, end);
  const { form, boxes: now, factCount } = await boxesNow(db, r, end);
  const record = await returnRecord(db, r.id, end);
  const boxes = sealedBoxes(record, now);
  const pack = packById(r.pack);
  const lateItems = await lateGroups(db, r.id, end);
  const lateNet = lateItems.reduce((sum, item) => sum + item.output - item.input, 0);
  const turnover = boxes.find((box) => box.box === pack.correction.turnoverBox)?.amount ?? 0;
  return {
    registration: r.id,
    ...period,
    ...dueDates(r, end),
    state: record?.state ?? "open",
    formName: form.name,
    boxes: boxViews(form, boxes, await previousBoxes(db, r, period), setup.plain.digits),
    previousPeriod: periodBefore(r, period)?.to ?? null,
    net: netOfReturn(form, boxes),
    factCount: record?.facts ?? factCount,
    hash: record?.hash ?? null,
    adjustments: await adjustmentViews(db, r.id, end),
    findings: await findingsOf(db, setup, r, period, now),
    declaration: pack.declaration,
    ...(await steps(db, record)),
    drift: now
      .map((box) => ({
        box: box.box,
        sealed: boxes.find((b) => b.box === box.box)?.amount ?? 0,
        now: box.amount,
      }))
      .filter((one) => one.sealed !== one.now),
    lateItems,
    correction:
      lateItems.length === 0
        ? null
        : {
            ...correctionWay(lateNet, turnover, pack.correction, setup.plain.digits),
            source: pack.correction.source,
          },
  };
}

/** The sealed amounts where there are any; the trail below them is the same facts, which cannot change any more. */
function sealedBoxes(record: ReturnRecord | undefined, now: readonly BoxResult[]): BoxResult[] {
  return now.map((box) => ({ ...box, ...record?.boxes?.find((sealed) => sealed.box === box.box) }));
}

function boxViews(
  form: ReturnForm,
  boxes: readonly BoxResult[],
  previous: ReadonlyMap<string, number>,
  digits: number,
): BoxView[] {
  return form.boxes.map((definition, index) => {
    const result = boxes[index];
    const { id, title, short, kind, holds, words, rounding } = definition;
    return {
      id,
      title,
      short,
      kind,
      holds,
      words,
      formula: definition.kind === "formula" ? definition.formula : null,
      digits: rounding.step === 1 ? digits : 0,
      amount: result?.amount ?? 0,
      exact: result?.exact ?? 0,
      previous: previous.get(id) ?? null,
      contributions: result?.contributions ?? [],
    };
  });
}

async function previousBoxes(
  db: Database,
  r: RegistrationRecord,
  period: FilingPeriod,
): Promise<Map<string, number>> {
  const before = periodBefore(r, period);
  if (!before) return new Map();
  const record = await returnRecord(db, r.id, before.to);
  const boxes = record?.boxes ?? (await boxesNow(db, r, before.to)).boxes;
  return new Map(boxes.map((box) => [box.box, box.amount]));
}

async function adjustmentViews(db: Database, registrationId: number, end: string): Promise<AdjustmentView[]> {
  return db.rows(
    `SELECT a.id, a.box, a.amount, a.reason, a.evidence, p.name AS "by", a.created_at AS at
     FROM adjustments a JOIN people p ON p.id = a.created_by WHERE a.registration_id = $1 AND a.period_end = $2 ORDER BY a.id`,
    [registrationId, end],
  );
}

async function steps(
  db: Database,
  record: ReturnRecord | undefined,
): Promise<Pick<ReturnView, "sealed" | "filed" | "settled">> {
  const people = await db.rows<{ id: number; name: string }>("SELECT id, name FROM people");
  const nameOf = (id: number | null) => people.find((person) => person.id === id)?.name ?? "";
  return {
    sealed: record?.sealedAt ? { at: record.sealedAt, by: nameOf(record.sealedBy) } : null,
    filed: record?.filedAt
      ? { at: record.filedAt, by: nameOf(record.filedBy), receipt: record.receipt ?? {} }
      : null,
    settled: record?.settledAt ? { at: record.settledAt, by: nameOf(record.settledBy) } : null,
  };
}

/** Any stretch of time as boxes, sealed or not, amounts in major units (the public seam of the book format). */
export async function boxesBetween(
  db: Database,
  setup: ClientSetup,
  r: RegistrationRecord,
  from: string,
  to: string,
) {
  const rule = periodRule(r);
  const startsPeriod = filingPeriodOn(rule, from)?.from === from || from <= r.validFrom;
  const byPeriod = startsPeriod && filingPeriodOn(rule, to)?.to === to;
  const groups = await factGroupsBetween(db, r.id, from, to, byPeriod);
  const adjustments = (await adjustmentsOf(db, r.id, null)).filter(
    (a) => a.periodEnd >= from && a.periodEnd <= to,
  );
  const form = formOn(packById(r.pack), to);
  const digits = setup.plain.digits;
  const boxes = evaluateReturn(form, groups, adjustments).map((box, index) => {
    const whole = form.boxes[index]?.rounding.step === 100;
    return {
      id: box.box,
      title: form.boxes[index]?.title ?? "",
      amount: whole ? String(box.amount / 100) : formatAmount(box.amount, digits),
      exact: formatAmount(box.exact, digits),
      contributions: box.contributions.map((part) => ({
        ...part,
        amount: formatAmount(part.amount, digits),
      })),
    };
  });
  return { from, to, form: form.id, boxes };
}
