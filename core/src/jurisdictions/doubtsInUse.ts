import { addDays } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import type { Packs } from "../model/packs.ts";
import type { ReturnForm } from "../model/returnForm.ts";
import type { Component, RateSchedules, TaxCode } from "../model/taxCode.ts";
import { expandCode } from "../tax/expandCode.ts";
import { distinctDoubts, doubtOfBox, doubtOfCode, doubtOfRate } from "./doubts.ts";
import type { Doubt } from "./doubts.ts";

/** A code as it was used: the levies it bore, between two days, both included. */
export interface CodeUse {
  code: TaxCode;
  levies?: readonly string[];
  from: CalendarDate;
  to: CalendarDate;
}

/** Where rates stand and what they are called. */
export interface RateBook {
  schedules: RateSchedules;
  rateName: (id: string) => string;
}

/**
 * The doubts codes rest on as they were used: their own, and those of the rates in force on these days.
 * @param packs where codes come from; the codes of a client are copies and know nothing of what was found out since
 */
export function doubtsOfUses(uses: readonly CodeUse[], packs: Packs, book: RateBook): Doubt[] {
  return distinctDoubts(
    uses.flatMap(({ code, levies, from, to }) => [
      ...doubtsOfCode(code, packs),
      ...schedulesOfCode(code, levies).flatMap((id) => doubtsOfSchedule(id, from, to, book)),
    ]),
  );
}

/** The doubts a return rests on beside those of its lines: of boxes that hold something, and of the rates in them. */
export function doubtsOfBoxes(
  form: ReturnForm,
  boxes: readonly { box: string; amount: number }[],
  on: CalendarDate,
  book: RateBook,
): Doubt[] {
  const filled = new Set(boxes.flatMap(({ box, amount }) => (amount === 0 ? [] : [box])));
  return distinctDoubts(
    form.boxes
      .filter(({ id }) => filled.has(id))
      .flatMap((box) => [
        ...doubtOfBox(form, box),
        ...(box.kind === "formula" ? parseFormula(box.formula).rates : []).flatMap((id) =>
          doubtsOfSchedule(id, on, on, book),
        ),
      ]),
  );
}

function doubtsOfCode(code: TaxCode, packs: Packs): Doubt[] {
  if (code.pack === undefined || !packs.has(code.pack)) return [];
  return packs
    .byId(code.pack)
    .codes.filter(({ doubt }) => doubt !== undefined)
    .filter((one) => expandCode(one).some((member) => member.code === code.code))
    .flatMap(doubtOfCode);
}

function doubtsOfSchedule(
  id: string,
  from: CalendarDate,
  to: CalendarDate,
  { schedules, rateName }: RateBook,
): Doubt[] {
  return (schedules[id] ?? [])
    .filter((row) => row.from <= to && (row.to === null || row.to >= from))
    .flatMap((row) => doubtOfRate(id, rateName(id), row));
}

/** The schedules a code reads: of the rates of its levies, of its caps and of its limit. */
export function schedulesOfCode(code: TaxCode, levies?: readonly string[]): string[] {
  const components = code.components.filter(({ levy }) => levies?.includes(levy) ?? true);
  return [
    ...new Set([
      ...components.flatMap(schedulesOfComponent),
      ...(code.limit === undefined ? [] : [code.limit]),
    ]),
  ];
}

function schedulesOfComponent({ rate, cap }: Component): string[] {
  const capped = cap === undefined ? [] : [cap.schedule];
  if ("schedule" in rate) return [rate.schedule, ...capped];
  if (rate.kind !== "formula") return capped;
  return [...parseFormula(rate.formula).rates, ...parseFormula(rate.base ?? "0").rates, ...capped];
}

/** The next change of a code's rates up to a day: the first day of the new one, which is null where none follows. */
export function rateChangeAhead(
  code: TaxCode,
  { schedules, rateName }: RateBook,
  today: CalendarDate,
  until: CalendarDate,
): { on: CalendarDate; name: string; from: string; to: string | null } | undefined {
  const changes = schedulesOfCode(code).flatMap((id) => {
    const rows = schedules[id] ?? [];
    const now = rows.find((row) => row.from <= today && (row.to === null || today <= row.to));
    if (!now || now.to === null || now.to >= until) return [];
    const next = rows.find((row) => row.from > today);
    const on = addDays(now.to, 1);
    return [{ on, name: rateName(id), from: now.rate, to: next?.from === on ? next.rate : null }];
  });
  return changes.sort((a, b) => (a.on < b.on ? -1 : 1))[0];
}
