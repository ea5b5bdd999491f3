import type { CalendarDate } from "../calendar/date.ts";
import type { DueRule } from "../calendar/dueDate.ts";
import { dueInWords } from "../calendar/dueInWords.ts";
import type { JurisdictionPack, LawKnown } from "../model/pack.ts";
import type { BoxDefinition, ReturnForm } from "../model/returnForm.ts";
import type { RateRow, TaxCode } from "../model/taxCode.ts";

/**
 * Something of a jurisdiction that should be looked up before it is relied on.
 * - `key` names it over updates of the application; `value` is the figure as it stands, so that who found it right has
 *   found this one right and not the next.
 * - `about`, `figure`, `says`, `source`: for people: what it is, how it stands, why it is doubtful, where to look.
 */
export interface Doubt {
  key: string;
  kind: "rate" | "code" | "box" | "due" | "other";
  value: string;
  about: string;
  /** The days of a rate. */
  days?: { from: CalendarDate; to: CalendarDate | null };
  figure: string;
  says: string;
  source: string;
}

/** What of a jurisdiction may carry a doubt. */
type Doubtful = Pick<JurisdictionPack, "schedules" | "rateNames" | "codes" | "forms" | "due" | "law">;

/** Every doubt of a jurisdiction, in the order rates, codes, boxes, due days, the rest. */
export function doubtsOf(pack: Doubtful): Doubt[] {
  return distinctDoubts([
    ...Object.entries(pack.schedules).flatMap(([id, rows]) =>
      rows.flatMap((row) => doubtOfRate(id, pack.rateNames[id] ?? id, row)),
    ),
    ...pack.codes.flatMap(doubtOfCode),
    ...pack.forms.flatMap((form) => form.boxes.flatMap((box) => doubtOfBox(form, box))),
    ...pack.due.flatMap(doubtOfDue),
    ...(pack.law?.doubts ?? []).map(otherDoubt),
  ]);
}

/** Each doubt once, also where two versions of a form have it. */
export function distinctDoubts(doubts: readonly Doubt[]): Doubt[] {
  return [...new Map(doubts.map((doubt) => [doubt.key, doubt])).values()];
}

export function rateKey(schedule: string, { from }: Pick<RateRow, "from">): string {
  return `rate/${schedule}/${from}`;
}

export function doubtOfRate(schedule: string, name: string, row: RateRow): Doubt[] {
  if (row.doubt === undefined) return [];
  return [
    {
      key: rateKey(schedule, row),
      kind: "rate",
      value: row.rate,
      about: name,
      days: { from: row.from, to: row.to },
      figure: row.rate,
      says: row.doubt,
      source: row.source,
    },
  ];
}

export function doubtOfCode({ code, name, doubt, source, components }: TaxCode): Doubt[] {
  if (doubt === undefined) return [];
  const value = JSON.stringify(components.map(({ boxes, recoverable }) => ({ boxes, recoverable })));
  return [
    { key: `code/${code}`, kind: "code", value, about: `Code ${code}`, figure: name, says: doubt, source },
  ];
}

export function doubtOfBox(form: Pick<ReturnForm, "id" | "name" | "source">, box: BoxDefinition): Doubt[] {
  if (box.doubt === undefined) return [];
  return [
    {
      key: `box/${form.id}/${box.id}`,
      kind: "box",
      value: box.kind === "formula" ? box.formula : `${box.kind} ${box.rounding.mode} ${box.rounding.step}`,
      about: `Box ${box.id} of ${form.name}`,
      figure: box.title,
      says: box.doubt,
      source: form.source,
    },
  ];
}

/** The conditions of a rule name it: of two with the same ones the second never applies. */
export function dueKey({ frequencies, endMonths, levies, regions, option, ends }: DueRule): string {
  const conditions = [frequencies, levies, option, endMonths, regions?.length, ends?.from];
  return `due/${conditions.map((one) => (one === undefined ? "" : String(one))).join("/")}`;
}

export function doubtOfDue(rule: DueRule): Doubt[] {
  if (rule.doubt === undefined) return [];
  const whose = [rule.frequencies?.join(", "), rule.levies?.join(", "), rule.option?.join(" ")].filter(
    (one) => one !== undefined,
  );
  return [
    {
      key: dueKey(rule),
      kind: "due",
      value: dueInWords(rule),
      about: `Due day${whose.length === 0 ? "" : ` (${whose.join("; ")})`}`,
      figure: dueInWords(rule),
      says: rule.doubt,
      source: rule.source,
    },
  ];
}

function otherDoubt({ about, says, where }: LawKnown["doubts"][number]): Doubt {
  return { key: `other/${about}`, kind: "other", value: says, about, figure: "", says, source: where };
}
