import { displayDate } from "../calendar/displayDate.ts";
import { addDays } from "../calendar/date.ts";
import type { DueRule } from "../calendar/dueDate.ts";
import { FiscalError, withinField } from "../errors.ts";
import { exactFromDecimal } from "../money/exact.ts";
import type { LawChange } from "../model/lawChange.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import type { RateRow } from "../model/taxCode.ts";
import { doubtOfBox, doubtOfCode, doubtOfDue, doubtOfRate, doubtsOf } from "./doubts.ts";
import type { Doubt } from "./doubts.ts";

type Change<K extends LawChange["kind"]> = Extract<LawChange, { kind: K }>;

/**
 * A jurisdiction as a practice has corrected it: the changes in their order, then without the doubts that were found
 * right. A confirmation of a figure that is another one by now is not heard.
 */
export function amendedPack(pack: JurisdictionPack, changes: readonly LawChange[]): JurisdictionPack {
  const mine = changes.filter((change) => change.pack === pack.id);
  if (mine.length === 0) return pack;
  const corrected = mine.reduce(corrections, pack);
  const confirmed = new Set(
    mine.flatMap((change) => (change.kind === "confirm" ? [`${change.subject} ${change.value}`] : [])),
  );
  return confirmed.size === 0 ? corrected : withoutDoubts(corrected, confirmed);
}

function corrections(pack: JurisdictionPack, change: LawChange): JurisdictionPack {
  switch (change.kind) {
    case "rate":
      return {
        ...pack,
        schedules: {
          ...pack.schedules,
          [change.schedule]: withRow(pack.schedules[change.schedule] ?? [], change),
        },
      };
    case "due":
      return { ...pack, due: [dueRule(change), ...pack.due] };
    case "title":
      return {
        ...pack,
        forms: pack.forms.map((form) =>
          form.id === change.form
            ? {
                ...form,
                boxes: form.boxes.map((box) =>
                  box.id === change.box ? { ...box, title: change.title } : box,
                ),
              }
            : form,
        ),
      };
    case "confirm":
      return pack;
  }
}

/** The rows of a schedule with a new one in its place: what stood on its days ends before it or begins after it. */
export function withRow(
  rows: readonly RateRow[],
  { from, to, rate, source }: Pick<RateRow, "from" | "to" | "rate" | "source">,
): RateRow[] {
  const kept = rows.flatMap((row) => [
    ...(row.from < from
      ? [{ ...row, to: row.to !== null && row.to < from ? row.to : addDays(from, -1) }]
      : []),
    ...(to !== null && (row.to === null || row.to > to)
      ? [{ ...row, from: row.from > to ? row.from : addDays(to, 1) }]
      : []),
  ]);
  return [...kept, { from, to, rate, source }].sort((a, b) => (a.from < b.from ? -1 : 1));
}

function dueRule({ frequency, levy, ends, months, day, shift, pay, source }: Change<"due">): DueRule {
  return {
    ...(frequency === null ? {} : { frequencies: [frequency] }),
    ...(levy === null ? {} : { levies: [levy] }),
    ends,
    months,
    day,
    shift,
    ...(pay === undefined ? {} : { pay }),
    source,
  };
}

function withoutDoubts(pack: JurisdictionPack, confirmed: ReadonlySet<string>): JurisdictionPack {
  const clear = <T extends { doubt?: string }>(carrier: T, [doubt]: Doubt[]): T => {
    if (!doubt || !confirmed.has(`${doubt.key} ${doubt.value}`)) return carrier;
    const { doubt: _doubt, ...rest } = carrier;
    return rest as T;
  };
  return {
    ...pack,
    schedules: Object.fromEntries(
      Object.entries(pack.schedules).map(([id, rows]) => [
        id,
        rows.map((row) => clear(row, doubtOfRate(id, id, row))),
      ]),
    ),
    codes: pack.codes.map((code) => clear(code, doubtOfCode(code))),
    forms: pack.forms.map((form) => ({
      ...form,
      boxes: form.boxes.map((box) => clear(box, doubtOfBox(form, box))),
    })),
    due: pack.due.map((rule) => clear(rule, doubtOfDue(rule))),
    ...(pack.law === undefined
      ? {}
      : {
          law: {
            ...pack.law,
            doubts: pack.law.doubts.filter(({ about, says }) => !confirmed.has(`other/${about} ${says}`)),
          },
        }),
  };
}

/**
 * Refuses a change that speaks of nothing the jurisdiction has.
 * @throws FiscalError `law/unknown` with its field, `money/not-a-number`, `law/dates`
 */
export function checkLawChange(pack: JurisdictionPack, change: LawChange): void {
  switch (change.kind) {
    case "confirm": {
      const there = doubtsOf(pack).some(({ key, value }) => key === change.subject && value === change.value);
      if (!there) throw unknown(pack, "doubt", change.subject, "subject");
      return;
    }
    case "rate":
      if (!pack.schedules[change.schedule]) throw unknown(pack, "schedule", change.schedule, "schedule");
      withinField("rate", () => exactFromDecimal(change.rate));
      inOrder(change.from, change.to, "to");
      return;
    case "due":
      if (change.levy !== null && !pack.levies.some(({ levy }) => levy === change.levy))
        throw unknown(pack, "levy", change.levy, "levy");
      inOrder(change.ends.from, change.ends.to, "ends.to");
      return;
    case "title": {
      const form = pack.forms.find(({ id }) => id === change.form);
      if (!form) throw unknown(pack, "form", change.form, "form");
      if (!form.boxes.some(({ id }) => id === change.box)) throw unknown(pack, "box", change.box, "box");
    }
  }
}

function unknown(pack: JurisdictionPack, what: string, id: string, field: string): FiscalError {
  return new FiscalError(
    "law/unknown",
    `${pack.name} has no ${what} "${id}". Choose one of the list.`,
    field,
  );
}

function inOrder(from: string, to: string | null, field: string): void {
  if (to === null || from <= to) return;
  throw new FiscalError(
    "law/dates",
    `It would end on ${displayDate(to)}, before it begins on ${displayDate(from)}.`,
    field,
  );
}
