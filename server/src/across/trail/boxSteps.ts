import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { amountOfBox } from "@fiscalon/core/returns/amountOfBox";
import { FiscalError } from "@fiscalon/core/errors";
import { displayAmount, displayDecimal } from "@fiscalon/core/money/amount";
import { boxDefinition } from "@fiscalon/core/returns/findBox";
import type { BoxResult, Contribution } from "@fiscalon/core/returns/evaluateReturn";
import type { BoxDefinition, FormulaBox } from "@fiscalon/core/model/returnForm";
import { boxTags, landed } from "@fiscalon/core/model/boxTags";
import type { BoxTag } from "@fiscalon/core/model/boxTags";
import type { Packs } from "@fiscalon/core/model/packs";
import { formulaWords } from "@fiscalon/core/returns/formulaWords";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import { registrationIn } from "../../books/loadSetup.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { returnRecord } from "../../books/returns/records.ts";
import {
  boxesOfYear,
  bucketsInReport,
  factsOfStretch,
  stretchOf,
  yearlyReportOf,
} from "../../books/returns/boxesOfYear.ts";
import type { YearStretch } from "../../books/returns/boxesOfYear.ts";
import { boxesNow, usedPeriodBefore } from "../../books/returns/evaluation.ts";
import { factLines } from "./factLines.ts";
import type { TrailScope } from "./trailScope.ts";

const MEASURE_SQL = {
  n: "f.net",
  t: "f.tax",
  r: "f.recoverable",
  u: "f.tax - f.recoverable",
  g: "f.net + f.tax",
  b: "f.base",
};
const MEASURE_WORDS = {
  n: "net",
  t: "tax",
  r: "recoverable tax",
  u: "tax that is not recoverable",
  g: "net and tax",
  b: "base of the tax",
};

/** A box of a return, or of a stretch of periods as if it were one: its rule in words, and what it is made of. */
export async function boxStep(scope: TrailScope, parts: string[], ref: string): Promise<TrailStep> {
  const { work, setup } = scope;
  const [rid = "", end = "", boxId = ""] = parts;
  const r = registrationIn(setup, rid);
  const stretch = stretchOf(end);
  const { form, boxes } = stretch ? await boxesOfYear(work, r, stretch) : await boxesNow(work, r, end);
  const now = boxes.find((box) => box.box === boxId);
  if (!now) throw new FiscalError("trail/not-found", `The form has no box ${boxId}.`, "ref");
  const before = stretch ? undefined : await usedPeriodBefore(work, r, periodEnding(r, end).from);
  const definition = boxDefinition(form, boxId);
  const sealed = stretch
    ? undefined
    : (await returnRecord(work, r.id, end))?.boxes?.find((box) => box.box === boxId);
  const { digits } = setup.plain;
  const isExact = stretch !== null && stretch.which !== "annual";
  return {
    ref,
    title: `Box ${boxId}: ${definition.short}`,
    amount: sealed?.amount ?? (isExact ? now.exact : now.amount),
    digits: isExact || definition.rounding.step === 1 ? digits : 0,
    words: [
      ...(stretch
        ? [
            `${STRETCH_WORDS[stretch.which]}, ${displayDate(stretch.from)} to ${displayDate(stretch.to)}, as one.`,
          ]
        : []),
      definition.words,
      roundingWords(definition, now.exact, digits),
      `Form: ${form.name} (${form.source}).`,
      ...(definition.doubt === undefined ? [] : [`To be looked up: ${definition.doubt}.`]),
    ],
    parts: now.contributions.map((part) => contributionPart(part, parts, before?.to, setup)),
    arithmetic: definition.kind === "formula" ? workedOut(definition, boxes, now, work.packs, digits) : [],
    ...(stretch ? {} : { open: { label: "Return", path: `return/${end}` } }),
  };
}

const STRETCH_WORDS: Record<YearStretch["which"], string> = {
  own: "Everything that belongs to the periods",
  earlier: "What belongs to earlier periods and is on returns of these",
  unreported: "What belongs to the periods and is on no return of them",
  annual: "Everything that belongs to the periods",
};

function roundingWords({ rounding }: BoxDefinition, exact: number, digits: number): string {
  const how = {
    "half-up": "rounded half up",
    "half-even": "rounded half to even",
    down: "cut",
    up: "rounded up",
  };
  if (rounding.step === 1) return "Rounding: half up to the smallest unit.";
  return `Before rounding ${displayAmount(exact, digits)}; ${how[rounding.mode]} to whole units on the total of the box.`;
}

/** The formula in words, and with the figures in the place of the boxes. */
export function formulaLines(
  formula: string,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
  packs: Packs,
  digits: number,
): [words: string, figures: string] {
  const figure = (id: string) => displayAmount(amountOfBox(boxes, id), digits);
  return [formulaWords(formula, packs), formulaWords(formula, packs, figure)];
}

/** How a box is worked out from others: the formula, and what it comes to. */
function workedOut(
  { formula }: FormulaBox,
  boxes: readonly BoxResult[],
  result: BoxResult,
  packs: Packs,
  digits: number,
): string[] {
  const [words, figures] = formulaLines(formula, boxes, packs, digits);
  const exact = result.exact === result.amount ? "" : ` → ${displayAmount(result.amount, digits)}`;
  return [words, `${figures} = ${displayDecimal(result.exactText, digits)}${exact}`];
}

function contributionPart(
  part: Contribution,
  [rid = "", end = "", box = ""]: string[],
  endBefore: string | undefined,
  setup: TrailScope["setup"],
): TrailPart {
  if (part.kind === "box" || part.kind === "moved") {
    return {
      ref: `box/${rid}/${end}/${part.box}`,
      label: `Box ${part.box}`,
      detail: part.kind === "moved" ? "moved, because it must not be negative" : "",
      amount: part.amount,
    };
  }
  if (part.kind === "taxed") {
    return {
      ref: `box/${rid}/${end}/${part.box}`,
      label: `Box ${part.box} at ${part.rate} %`,
      detail: `${part.rate} % of ${displayAmount(part.base, setup.plain.digits)}`,
      amount: part.amount,
    };
  }
  if (part.kind === "carried") {
    const { amount } = part;
    return endBefore === undefined
      ? { ref: null, label: "Brought in", detail: "entered with the registration", amount }
      : {
          ref: `box/${rid}/${endBefore}/${part.box}`,
          label: `Box ${part.box}`,
          detail: "of the period before",
          amount,
        };
  }
  if (part.kind === "scheme") {
    return {
      ref: part.ref ?? `scheme/${rid}/${end}/${part.step}`,
      label: part.words,
      detail: part.arithmetic,
      amount: part.amount,
    };
  }
  if (part.kind === "adjustment") {
    return {
      ref: `adjustment/${part.adjustment}`,
      label: "Adjustment",
      detail: part.reason,
      amount: part.amount,
    };
  }
  const name = setup.effect.codes.get(part.code)?.name ?? part.code;
  const rate = part.rate === null ? "" : ` ${part.rate} %`;
  const what = part.credit
    ? `, ${part.direction === "sale" ? "sales" : "purchase"} credit notes`
    : part.direction === "sale"
      ? ", sales"
      : ", purchases";
  const key = [
    part.code,
    part.direction,
    part.rate ?? "-",
    part.measure,
    part.credit ? 1 : 0,
    part.late ? 1 : 0,
  ];
  return {
    ref: ["group", rid, end, box, ...key.map((one) => encodeURIComponent(String(one)))].join("/"),
    label: `${part.code}${rate}${what}${part.late ? ", late items" : ""}`,
    detail: `${name} · ${MEASURE_WORDS[part.measure]} of ${part.count} ${part.count === 1 ? "line" : "lines"}`,
    amount: part.amount,
  };
}

/** The documents behind one code and rate of a box, largest first. */
export async function groupStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const [
    rid = "",
    end = "",
    box = "",
    code = "",
    direction = "",
    rate = "",
    measure = "",
    credit = "0",
    late = "0",
  ] = parts;
  const r = registrationIn(setup, rid);
  const amount = MEASURE_SQL[measure as keyof typeof MEASURE_SQL];
  if (amount === undefined)
    throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  const stretch = stretchOf(end);
  const when = stretch ? `f.held = 0 AND ${factsOfStretch(stretch)}` : "f.period_end BETWEEN $2 AND $3";
  const where = `f.registration_id = $1 AND ${when} AND f.live = 1 AND f.code = $4 AND f.direction = $5
       AND coalesce(f.rate, '-') = $6 AND f.credit = $7 AND f.late = $8`;
  const { from, to } = stretch ?? { from: end, to: end };
  const bind = [r.id, from, to, code, direction, rate, Number(credit), Number(late)];
  const report = stretch?.which === "annual" ? yearlyReportOf(work, r, stretch.to) : undefined;
  const { tags, tag } = report
    ? { tags: [], tag: undefined }
    : await tagsInto(work, where, bind, box, measure);
  const landing =
    stretch && report
      ? { of: "bucket", list: await bucketsInReport(work, r, stretch, report, box) }
      : { of: "tags", list: tags };
  const inBox = (sum: number) =>
    tag ? landed({ net: sum, tax: sum, recoverable: sum, base: sum }, asNet(tag)) : sum;
  const {
    parts: lines,
    total,
    sum,
  } = await factLines(
    work,
    {
      amount,
      where: `${where} AND f.${landing.of} IN (SELECT value FROM json_each($9))`,
      bind: [...bind, JSON.stringify(landing.list)],
    },
    inBox,
  );
  const definition = setup.effect.codes.get(code);
  return {
    ref,
    title: `${code}${rate === "-" ? "" : ` ${rate} %`}, ${direction === "sale" ? "sales" : "purchases"}${credit === "1" ? ", credit notes" : ""}`,
    amount: sum,
    digits: setup.plain.digits,
    words: [
      `${definition?.name ?? code}: the ${MEASURE_WORDS[measure as keyof typeof MEASURE_WORDS]} of each line, in box ${box}.`,
      ...(definition?.source ? [`Source: ${definition.source}`] : []),
    ],
    parts: lines,
    arithmetic: [],
    total,
  };
}

/** The ways these facts land in a box by a measure: their tags, and the tag itself. */
async function tagsInto(
  work: TrailScope["work"],
  where: string,
  bind: readonly unknown[],
  box: string,
  measure: string,
): Promise<{ tags: string[]; tag: BoxTag | undefined }> {
  const rows = await work.rows<{ tags: string }>(`SELECT DISTINCT f.tags FROM facts f WHERE ${where}`, [
    ...bind,
  ]);
  const found = rows.flatMap(({ tags }) => {
    const tag = boxTags(tags).find((one) => one.box === box && one.measure === measure);
    return tag ? [{ tags, tag }] : [];
  });
  return { tags: found.map((one) => one.tags), tag: found[0]?.tag };
}

/** A tag that takes its sign and factor to whatever is given as net. */
function asNet(tag: BoxTag): BoxTag {
  return { ...tag, measure: "n" };
}

export async function adjustmentStep(
  { work, setup }: TrailScope,
  [id = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const row = await work.row<{
    box: string;
    amount: number;
    reason: string;
    evidence: string;
    by: string;
    at: string;
    end: string;
  }>(
    `SELECT a.box, a.amount, a.reason, a.evidence, p.name AS "by", a.created_at AS at, a.period_end AS end
     FROM adjustments a JOIN people p ON p.id = a.created_by WHERE a.id = $1 AND a.client_id = $2`,
    [Number(id), setup.client.id],
  );
  if (!row) throw new FiscalError("trail/not-found", "This adjustment was taken back.", "ref");
  return {
    ref,
    title: `Adjustment of box ${row.box}`,
    amount: row.amount,
    digits: setup.plain.digits,
    words: [
      row.reason,
      ...(row.evidence === "" ? [] : [`Evidence: ${row.evidence}`]),
      `By ${row.by}, ${displayDate(row.at)}.`,
    ],
    parts: [],
    arithmetic: [],
    open: { label: "Return", path: `return/${row.end}` },
  };
}
