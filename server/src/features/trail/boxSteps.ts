import { FiscalError } from "@fiscalon/core/errors";
import { formOn, packById } from "@fiscalon/core/jurisdictions/packs";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { Contribution } from "@fiscalon/core/returns/evaluateReturn";
import type { BoxDefinition } from "@fiscalon/core/returns/returnForm";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import { registrationIn } from "../clients/loadSetup.ts";
import { periodEnding } from "../returns/periods.ts";
import { returnRecord } from "../returns/records.ts";
import { boxesNow } from "../returns/returnView.ts";
import type { TrailScope } from "./service.ts";

const MEASURE_SQL = { n: "f.net", t: "f.tax", r: "f.recoverable", g: "f.net + f.tax" };
const MEASURE_WORDS = { n: "net", t: "tax", r: "recoverable tax", g: "net and tax" };
const LISTED = 200;

/** A box of a return: its rule in words, and what it is made of. */
export async function boxStep({ db, setup }: TrailScope, parts: string[], ref: string): Promise<TrailStep> {
  const [rid = "", end = "", boxId = ""] = parts;
  const r = registrationIn(setup, rid);
  periodEnding(r, end);
  const { boxes } = await boxesNow(db, r, end);
  const definition = formOn(packById(r.pack), end).boxes.find((box) => box.id === boxId);
  const now = boxes.find((box) => box.box === boxId);
  if (!definition || !now) throw new FiscalError("trail/not-found", `The form has no box ${boxId}.`, "ref");
  const sealed = (await returnRecord(db, r.id, end))?.boxes?.find((box) => box.box === boxId);
  const { digits } = setup.plain;
  return {
    ref,
    title: `Box ${boxId}: ${definition.short}`,
    amount: sealed?.amount ?? now.amount,
    digits: definition.rounding.step === 1 ? digits : 0,
    words: [definition.words, roundingWords(definition, now.exact, digits)],
    parts: now.contributions.map((part) => contributionPart(part, parts, setup)),
    arithmetic:
      definition.kind === "formula" ? [formulaText(definition, now.contributions, now.amount, digits)] : [],
    open: { label: "Return", path: `return/${end}` },
  };
}

function roundingWords(definition: BoxDefinition, exact: number, digits: number): string {
  if (definition.rounding.step === 1) return "Rounding: to the smallest unit, none needed on a sum.";
  return `Before rounding ${displayAmount(exact, digits)}; the pence are left out on the total of the box.`;
}

function formulaText(
  definition: Extract<BoxDefinition, { kind: "formula" }>,
  contributions: readonly Contribution[],
  amount: number,
  digits: number,
): string {
  const terms = contributions.map((part, index) => {
    const sign = definition.terms[index]?.sign === -1 ? "− " : index === 0 ? "" : "+ ";
    return `${sign}${displayAmount(part.amount * (definition.terms[index]?.sign ?? 1), digits)}`;
  });
  const sum = contributions.reduce((total, part) => total + part.amount, 0);
  const dropped = definition.absolute && sum < 0 ? ", the sign left out" : "";
  return `${terms.join(" ")} = ${displayAmount(amount, digits)}${dropped}`;
}

function contributionPart(
  part: Contribution,
  [rid = "", end = "", box = ""]: string[],
  setup: TrailScope["setup"],
): TrailPart {
  if (part.kind === "box") {
    return {
      ref: `box/${rid}/${end}/${part.box}`,
      label: `Box ${part.box}`,
      detail: "",
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
export async function groupStep({ db, setup }: TrailScope, parts: string[], ref: string): Promise<TrailStep> {
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
  const sign = tagSign(setup, code, direction, box, measure);
  const rows = await db.rows<{
    document: number;
    line: number;
    number: string;
    party: string;
    date: string;
    amount: number;
    all: number;
    total: number;
  }>(
    `SELECT f.document_id AS document, f.line, d.number, coalesce(c.name, '') AS party, f.tax_point AS date,
       $8 * (${amount}) AS amount, count(*) OVER () AS "all", sum($8 * (${amount})) OVER () AS total
     FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.code = $3 AND f.direction = $4
       AND coalesce(f.rate, '-') = $5 AND f.credit = $6 AND f.late = $7
     ORDER BY abs(${amount}) DESC, f.id LIMIT ${LISTED}`,
    [r.id, end, code, direction, rate, Number(credit), Number(late), sign],
  );
  const definition = setup.effect.codes.get(code);
  return {
    ref,
    title: `${code}${rate === "-" ? "" : ` ${rate} %`}, ${direction === "sale" ? "sales" : "purchases"}${credit === "1" ? ", credit notes" : ""}`,
    amount: rows[0]?.total ?? 0,
    digits: setup.plain.digits,
    words: [
      `${definition?.name ?? code}: the ${MEASURE_WORDS[measure as keyof typeof MEASURE_WORDS]} of each line, in box ${box}.`,
      ...(definition?.source ? [`Source: ${definition.source}`] : []),
    ],
    parts: rows.map((row) => ({
      ref: `line/${row.document}/${row.line}`,
      label: `${row.number}${row.party === "" ? "" : ` · ${row.party}`}`,
      detail: row.date,
      amount: row.amount,
    })),
    arithmetic: [],
    total: rows[0]?.all ?? 0,
  };
}

function tagSign(
  setup: TrailScope["setup"],
  code: string,
  direction: string,
  box: string,
  measure: string,
): number {
  const boxes =
    setup.effect.codes.get(code)?.components[0]?.boxes[direction === "sale" ? "sale" : "purchase"] ?? "";
  return boxes.includes(`${box} -${measure}`) ? -1 : 1;
}

export async function adjustmentStep(
  { db, setup }: TrailScope,
  [id = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const row = await db.row<{
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
      `By ${row.by}, ${row.at.slice(0, 10)}.`,
    ],
    parts: [],
    arithmetic: [],
    open: { label: "Return", path: `return/${row.end}` },
  };
}
