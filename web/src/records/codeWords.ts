import { exactToText, multiply } from "@fiscalon/core/money/exact";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { effectiveRate } from "@fiscalon/core/tax/levyStack";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import { boxTags } from "@fiscalon/core/model/boxTags";
import type { Boxes, Component, RateSchedules, TaxCode } from "@fiscalon/core/model/taxCode";
import { today } from "../kit/format.ts";
import type { StackPart } from "./LevyStack.tsx";

/** The member of a family a list shows as an example: the one with the middle rate. */
export function exampleOf(code: TaxCode): TaxCode {
  const members = expandCode({ ...code, variants: [] });
  return members[Math.floor(members.length / 2)] ?? code;
}

/** The levies of a code with their rates as a stack shows them. Families show one example. */
export function stackParts(
  code: TaxCode,
  schedules: RateSchedules,
  levies: ReadonlySet<string> = new Set(),
): StackPart[] {
  return shownComponents(exampleOf(code), levies).map((component) => {
    const rate = rateToday(code, component, schedules);
    return {
      component,
      rate: rateWords(component, rate, code.family !== undefined),
      width: Math.min(120, Number(rate ?? 0) * 2),
    };
  });
}

/** Components that depend on the place are many: a row shows those that do not, or some of the levies we charge. */
function shownComponents(code: TaxCode, levies: ReadonlySet<string>): readonly Component[] {
  if (code.components.length <= 4) return code.components;
  const everywhere = code.components.filter(({ when }) => when === undefined);
  if (everywhere.length > 0) return everywhere;
  const ours = code.components.filter(({ levy }) => levies.has(levy));
  return (ours.length > 0 ? ours : code.components).slice(0, 4);
}

function rateWords({ rate }: Component, value: string | undefined, family: boolean): string {
  if (family) return "by slab";
  switch (rate.kind) {
    case "percent":
      return value === undefined ? "no rate today" : `${value} %`;
    case "per-unit":
      return `${value ?? "?"} a unit`;
    case "per-document":
      return `${value ?? "?"} a document`;
    case "formula":
      return "by formula";
    case "typed":
      return "typed";
    default:
      return "no tax";
  }
}

function rateToday(code: TaxCode, { rate }: Component, schedules: RateSchedules): string | undefined {
  if (!("schedule" in rate)) return undefined;
  const on = code.to !== null && code.to < today() ? code.to : today();
  return rowInForce(schedules[rate.schedule], on)?.rate;
}

/** What all charged percentages add to a price, tax on tax included, or the empty string. */
export function effectiveWords(code: TaxCode, schedules: RateSchedules): string {
  if (code.family || code.components.some(({ when }) => when !== undefined)) return "by place";
  const percents = code.components.every(({ rate }) => rate.kind === "percent" || rate.kind === "none");
  if (!percents) return "";
  const rated = code.components.map((component) => ({
    component,
    rate: rateToday(code, component, schedules) ?? null,
  }));
  const factor = effectiveRate(rated);
  return factor.n === 0n ? "–" : `${exactToText(multiply(factor, { n: 100n, d: 1n }), 4)} %`;
}

/** The boxes a code lands in on a side, each once; `*` stands for the part that the place of a document fills in. */
export function boxesOf(code: TaxCode, side: "sale" | "purchase"): string {
  if (code.direction !== "both" && code.direction !== side) return "";
  const boxes = code.components.flatMap((component) => allTags(component.boxes[side]).map((tag) => tag.box));
  const each = [...new Set(boxes)];
  if (each.length === 0) return "none";
  return each.length > 4 ? `${each.slice(0, 3).join(" ")} and ${each.length - 3} more` : each.join(" ");
}

/** What a tag leaves open: a factor in front of a measure, or a part of the box that a document's place fills in. */
const FACTOR = /(?<=[+-])\{\w+\}/g;
const PLACE = /\{@?\w+\}/g;

function allTags(boxes: Boxes | undefined) {
  if (boxes === undefined) return [];
  const texts = typeof boxes === "string" ? [boxes] : boxes.map((route) => route.tags);
  return texts.flatMap((text) => boxTags(text.replace(FACTOR, "1").replace(PLACE, "*")));
}

/** The code as it is written on a line; a family by its first and last member. */
export function writtenCode(code: TaxCode): string {
  const members = expandCode({ ...code, variants: [] });
  const [first, last] = [members[0]?.code ?? code.code, members.at(-1)?.code ?? code.code];
  return first === last ? first : `${first} … ${last}`;
}
