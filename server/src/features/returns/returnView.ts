import { found } from "@fiscalon/core/at";
import { amountOfBox } from "@fiscalon/core/returns/amountOfBox";
import { boxDefinition } from "@fiscalon/core/returns/findBox";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { BoxDefinition, ReturnForm } from "@fiscalon/core/model/returnForm";
import type { AdjustmentView, BoxesBetween, BoxView, ReturnView } from "@fiscalon/contract/returns";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord, ReturnRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { findingsOf } from "../../books/findings/service.ts";
import { doubtsOfReturn } from "../../books/returns/doubts.ts";
import { dueDates, furtherDays } from "../../books/returns/dueDates.ts";
import { boxesNow, carriedInto, evaluated, figuresOf, formOf } from "../../books/returns/evaluation.ts";
import { schedulesOf } from "../../books/returns/schedules.ts";
import { contentBetween } from "../../books/returns/schemes.ts";
import { periodBefore, periodEnding } from "../../books/returns/periods.ts";
import { periodRule } from "../../books/returns/periodRule.ts";
import { correctionsOf, lateDocuments } from "../../books/returns/late.ts";
import { openFiling } from "../../books/returns/filings.ts";
import { adjustmentsOf } from "../../books/returns/queries.ts";
import { isOpen, returnRecord } from "../../books/returns/records.ts";

/**
 * Everything the Return station shows of a period. A sealed period shows what was sealed.
 * @param how whether its findings are wanted, which take longest, and whether it is filed to the simulator
 */
export async function returnView(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  how: { findings: boolean; simulated: boolean },
): Promise<ReturnView> {
  const period = periodEnding(r, end);
  const { form, boxes: now, factCount } = await boxesNow(work, r, end);
  const record = await returnRecord(work, r.id, end);
  const boxes = sealedBoxes(record, now);
  const pack = work.packs.byId(r.pack);
  const findings = how.findings ? await findingsOf(work, setup, r, period, now) : [];
  const late = await lateDocuments(work, r.id, end);
  return {
    registration: r.id,
    ...period,
    ...dueDates(work, r, end),
    further: furtherDays(work, r, end),
    state: record?.state ?? "open",
    formName: form.name,
    parts: [...(form.parts ?? [])],
    electronic: pack.electronic,
    families: familiesOf(form),
    boxes: boxViews(form, boxes, await previousBoxes(work, r, period), setup.plain.digits),
    previousPeriod: periodBefore(r, period)?.to ?? null,
    net: figuresOf(work, r, end, boxes).net,
    factCount: record?.facts ?? factCount,
    hash: record?.hash ?? null,
    adjustments: await adjustmentViews(work, r.id, end),
    findings: findings.filter(({ accepted }) => accepted !== null || isOpen(record)),
    declaration: pack.declaration,
    ...(await steps(work, record)),
    sentWithoutAnswer: (await openFiling(work, r.id, end))?.at ?? null,
    simulated: how.simulated && pack.electronic,
    drift: now
      .map((box) => ({
        box: box.box,
        sealed: amountOfBox(boxes, box.box),
        now: box.amount,
      }))
      .filter((one) => one.sealed !== one.now),
    late,
    corrections: await correctionsOf(work, r, end, boxes, late),
    doubts: await doubtsOfReturn(work, setup, r, end, boxes),
  };
}

/** The sealed amounts where there are any; the trail below them is the same facts, which cannot change any more. */
function familiesOf({ boxes }: ReturnForm): ReturnView["families"] {
  return boxes.flatMap(({ id, short, kind, members }) =>
    members && kind !== "formula" && kind !== "taxed" ? [{ id, short, members: [...members] }] : [],
  );
}

function sealedBoxes(record: ReturnRecord | undefined, now: readonly BoxResult[]): BoxResult[] {
  return now.map((box) => ({ ...box, ...record?.boxes?.find((sealed) => sealed.box === box.box) }));
}

function boxViews(
  form: ReturnForm,
  boxes: readonly BoxResult[],
  previous: ReadonlyMap<string, number>,
  digits: number,
): BoxView[] {
  return boxes.map((result) => {
    const definition = boxDefinition(form, result.box);
    const { id, title, short, kind, holds, words, rounding } = definition;
    return {
      id,
      title,
      short,
      kind,
      holds,
      words,
      part: definition.part ?? null,
      helper: definition.helper ?? false,
      formula: formulaShown(definition),
      digits: rounding.step === 1 ? digits : 0,
      amount: result.amount,
      exact: result.exact,
      previous: previous.get(id) ?? null,
      contributions: result.contributions,
    };
  });
}

function formulaShown(box: BoxDefinition): string | null {
  if (box.kind === "formula") return box.formula;
  return box.kind === "taxed" ? `[${box.of}] * {${box.schedule}} / 100` : null;
}

async function previousBoxes(
  work: Work,
  r: RegistrationRecord,
  period: FilingPeriod,
): Promise<Map<string, number>> {
  const before = periodBefore(r, period);
  if (!before) return new Map();
  const record = await returnRecord(work, r.id, before.to);
  const boxes = record?.boxes ?? (await boxesNow(work, r, before.to)).boxes;
  return new Map(boxes.map((box) => [box.box, box.amount]));
}

async function adjustmentViews(work: Work, registrationId: number, end: string): Promise<AdjustmentView[]> {
  return work.rows(
    `SELECT a.id, a.box, a.amount, a.reason, a.evidence, p.name AS "by", a.created_at AS at
     FROM adjustments a JOIN people p ON p.id = a.created_by WHERE a.registration_id = $1 AND a.period_end = $2 ORDER BY a.id`,
    [registrationId, end],
  );
}

async function steps(
  work: Work,
  record: ReturnRecord | undefined,
): Promise<Pick<ReturnView, "sealed" | "filed" | "settled">> {
  const people = await work.rows<{ id: number; name: string }>("SELECT id, name FROM people");
  const nameOf = (id: number | null) => found(people, (person) => person.id === id, `person ${id}`).name;
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
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  from: string,
  to: string,
): Promise<BoxesBetween> {
  const rule = periodRule(r);
  const startsPeriod = filingPeriodOn(rule, from)?.from === from || from <= r.validFrom;
  const byPeriod = startsPeriod && filingPeriodOn(rule, to)?.to === to;
  const content = await contentBetween(work, r, { by: byPeriod ? "period_end" : "tax_point", from, to });
  const adjustments = (await adjustmentsOf(work, r.id, null)).filter(
    (a) => a.periodEnd >= from && a.periodEnd <= to,
  );
  const form = formOf(work, r, to);
  const digits = setup.plain.digits;
  const schedules = await schedulesOf(work, r);
  const previous = await carriedInto(work, r, form, from);
  const boxes = evaluated(work, schedules, r, to, { ...content, adjustments, previous }).map((box) => {
    const definition = boxDefinition(form, box.box);
    const whole = definition.rounding.step === 10 ** digits;
    return {
      id: box.box,
      title: definition.title,
      amount: whole ? String(box.amount / 10 ** digits) : formatAmount(box.amount, digits),
      exact: withDecimals(box.exactText, digits),
      contributions: box.contributions.map((part) => {
        const amount = formatAmount(part.amount, digits);
        return part.kind === "taxed"
          ? { ...part, amount, base: formatAmount(part.base, digits) }
          : { ...part, amount };
      }),
    };
  });
  return { from, to, form: form.id, boxes };
}

/** A decimal with at least the currency's decimals: "3" is "3.00". */
function withDecimals(text: string, digits: number): string {
  const [whole = "0", fraction = ""] = text.split(".");
  return digits === 0 && fraction === "" ? whole : `${whole}.${fraction.padEnd(digits, "0")}`;
}
