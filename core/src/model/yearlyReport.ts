import type { FactGroup } from "../returns/evaluateReturn.ts";
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
  /** In the notation of box tags; `{rate}` stands for the rate, and what has none, or nought, does not land. */
  tags: string;
}

/** A report of a whole year beside the returns of its periods, filled from the same facts in boxes of its own. */
export interface YearlyReport {
  form: ReturnForm;
  rules: readonly YearlyRule[];
  /** What it has to agree with: a formula over its boxes, and the box of the returns whose year it comes to. */
  ties: readonly { says: string; formula: string; box: string }[];
}

/** What a rule asks of facts that differ in nothing else. */
export type ReportedGroup = Pick<FactGroup, "code" | "direction" | "rate" | "recoverable"> & {
  treatment: Treatment;
  charged: Component["charged"];
};

/** Where facts land in the report of a year, as box tags; empty where they do not. */
export function yearlyTags({ rules }: Pick<YearlyReport, "rules">, group: ReportedGroup): string {
  return rules.flatMap((rule) => (fits(rule, group) ? tagsAt(rule, group) : [])).join(", ");
}

function fits(
  { direction, treatments, codes, notCodes, charged, deducted }: YearlyRule,
  group: ReportedGroup,
): boolean {
  return (
    direction === group.direction &&
    (treatments?.includes(group.treatment) ?? true) &&
    (codes?.includes(group.code) ?? true) &&
    !(notCodes?.includes(group.code) ?? false) &&
    (charged === undefined || charged === group.charged) &&
    (deducted !== true || group.recoverable !== 0)
  );
}

function tagsAt({ tags }: YearlyRule, { rate }: ReportedGroup): string[] {
  if (!tags.includes("{rate}")) return [tags];
  return rate === null || Number(rate) === 0 ? [] : [tags.replaceAll("{rate}", rate)];
}
