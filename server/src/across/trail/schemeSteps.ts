import { FiscalError } from "@fiscalon/core/errors";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import { registrationIn } from "../../books/loadSetup.ts";
import { factGroups } from "../../books/returns/queries.ts";
import { schemeContent } from "../../books/returns/schemes.ts";
import { factLines } from "./factLines.ts";
import type { FactLines } from "./factLines.ts";
import type { TrailScope } from "./trailScope.ts";

const OF_SCHEME =
  "f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.levy = $3 AND f.tax_point >= $4";

/** A step of a scheme's workpaper, with the documents it comes from: `registration/period/step`. */
export async function schemeStep(scope: TrailScope, parts: string[], ref: string): Promise<TrailStep> {
  const [rid = "", end = "", id = ""] = parts;
  const { work, setup } = scope;
  const r = registrationIn(setup, rid);
  const { scheme } = await schemeContent(work, r, end, await factGroups(work, r.id, end));
  const step = scheme?.result.steps.find((one) => one.id === id);
  if (!scheme || !step) {
    throw new FiscalError("trail/not-found", "No scheme of this period has such a step any more.", "ref");
  }
  const { definition, inForce } = scheme;
  const { rule } = definition;
  const bind = [r.id, end, definition.levy, inForce.from];
  const [, document, line] = /^capital(?:-net)?-(\d+)-(\d+)$/.exec(id) ?? [];
  const lines: FactLines =
    document !== undefined
      ? {
          parts: [lineOf(document, line ?? "1", step.amount)],
          total: 1,
          sum: step.amount,
        }
      : id === "limited-cost"
        ? { parts: [], total: 0, sum: step.amount }
        : await factLines(work, {
            amount: "f.net + f.tax",
            where: `${OF_SCHEME} AND f.direction = 'sale' AND f.treatment IN (SELECT value FROM json_each($5))
              AND f.code NOT IN (SELECT value FROM json_each($6))`,
            bind: [...bind, JSON.stringify(rule.takes), JSON.stringify(rule.outside)],
          });
  return {
    ref,
    title: `${definition.name}: ${step.box === undefined ? "test" : `box ${step.box}`}`,
    amount: step.amount,
    digits: setup.plain.digits,
    words: [step.words, `${definition.note} (${definition.source})`],
    parts: lines.parts,
    arithmetic: [step.arithmetic],
    total: lines.total,
  };
}

function lineOf(document: string, line: string, amount: number): TrailPart {
  return { ref: `line/${document}/${line}`, label: `Line ${line}`, detail: "of the bill", amount };
}

/** What a scheme keeps off the return of a code: `registration/period/code/direction`. */
export async function asideStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const [rid = "", end = "", code = "", direction = ""] = parts;
  const r = registrationIn(setup, rid);
  const { scheme } = await schemeContent(work, r, end, await factGroups(work, r.id, end));
  if (!scheme) throw new FiscalError("trail/not-found", "No scheme is in force in this period.", "ref");
  const figure = direction === "sale" ? "f.tax" : "f.recoverable";
  const {
    parts: lines,
    total,
    sum,
  } = await factLines(work, {
    amount: figure,
    where: `${OF_SCHEME} AND f.code = $5 AND f.direction = $6`,
    bind: [r.id, end, scheme.definition.levy, scheme.inForce.from, code, direction],
  });
  return {
    ref,
    title: `${code}: set aside by the scheme`,
    amount: sum,
    digits: setup.plain.digits,
    words: [
      direction === "sale"
        ? "Tax charged to customers. The return holds the rate of the turnover in its place."
        : "Tax that would be deducted without the scheme.",
    ],
    parts: lines,
    arithmetic: [],
    total,
  };
}
