import type { ReturnForm } from "./returnForm.ts";
import type { Component, Direction, Treatment } from "./taxCode.ts";

/** Which facts of a year land where in its report. Every rule that fits a fact counts. */
export interface YearlyRule {
  direction: Direction;
  treatments?: readonly Treatment[];
  codes?: readonly string[];
  notCodes?: readonly string[];
  charged?: Component["charged"];
  /** Only where some of the tax is deducted. */
  deducted?: boolean;
  /** Only credit notes, or none of them. */
  credit?: boolean;
  /** A box of the returns in which the facts land, or do not. */
  lands?: string;
  landsNot?: string;
  /** In the notation of box tags; `{rate}` stands for the rate, and what has none, or nought, does not land. */
  tags?: string;
  /** What lands in boxes of one row of the returns lands in the same columns of another row of the report. */
  moves?: readonly [from: string, to: string];
}

/** A report of a whole year beside the returns of its periods, filled from the same facts in boxes of its own. */
export interface YearlyReport {
  form: ReturnForm;
  /** The forms of the returns beside which it is reported. */
  beside: readonly string[];
  rules: readonly YearlyRule[];
  /** What has to agree: a formula over its boxes, and one over the boxes of the returns, added up over the year. */
  ties: readonly { says: string; report: string; returns: string }[];
}

/** What a rule asks of facts that differ in nothing else. */
export interface ReportedGroup {
  code: string;
  direction: Direction;
  treatment: Treatment;
  charged: Component["charged"];
  /** Percent as decimal text. */
  rate: string | null;
  /** Minor units. */
  recoverable: number;
  credit: boolean;
  /** Where they land on the returns, in the notation of box tags. */
  tags: string;
}

/** Where facts land in the report of a year, as box tags; empty where they do not. */
export function yearlyTags({ rules }: Pick<YearlyReport, "rules">, group: ReportedGroup): string {
  return rules.flatMap((rule) => (fits(rule, group) ? tagsAt(rule, group) : [])).join(", ");
}

function fits(rule: YearlyRule, group: ReportedGroup): boolean {
  const { direction, treatments, codes, notCodes, charged, deducted, credit, lands, landsNot } = rule;
  const boxes = partsOf(group.tags).map((tag) => tag.split(" ")[0]);
  return (
    direction === group.direction &&
    (treatments?.includes(group.treatment) ?? true) &&
    (codes?.includes(group.code) ?? true) &&
    !(notCodes?.includes(group.code) ?? false) &&
    (charged === undefined || charged === group.charged) &&
    (deducted !== true || group.recoverable !== 0) &&
    (credit === undefined || credit === group.credit) &&
    (lands === undefined || boxes.includes(lands)) &&
    (landsNot === undefined || !boxes.includes(landsNot))
  );
}

function tagsAt({ tags, moves }: YearlyRule, group: ReportedGroup): string[] {
  if (moves) {
    const [from, to] = moves;
    return partsOf(group.tags)
      .filter((tag) => tag.startsWith(`${from}.`))
      .map((tag) => to + tag.slice(from.length));
  }
  if (tags === undefined) return [];
  if (!tags.includes("{rate}")) return [tags];
  return group.rate === null || Number(group.rate) === 0 ? [] : [tags.replaceAll("{rate}", group.rate)];
}

function partsOf(tags: string): string[] {
  return tags === "" ? [] : tags.split(",").map((tag) => tag.trim());
}
