import { boxTags } from "@fiscalon/core/model/boxTags";
import type { YearlyReport } from "@fiscalon/core/model/yearlyReport";
import { yearlyTags } from "@fiscalon/core/model/yearlyReport";
import { minorDigits } from "@fiscalon/core/money/currency";
import { optionsOn } from "@fiscalon/core/model/registration";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import { formOn } from "@fiscalon/core/returns/formOn";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { formOf } from "./evaluation.ts";
import { lateFactGroups, ownFactGroups } from "./queries.ts";
import type { DescribedGroup } from "./queries.ts";
import { schedulesOf } from "./schedules.ts";

/**
 * Which facts of a stretch of whole periods, as SQL over `f` with its days in $2 and $3: of its own periods; those of
 * earlier ones that its returns report; those that no return of it does: only what is late is reported elsewhere.
 */
const FACTS = {
  own: "f.own_end BETWEEN $2 AND $3",
  earlier: "f.late = 1 AND f.own_end < $2 AND f.period_end BETWEEN $2 AND $3",
  unreported: "f.late = 1 AND f.own_end BETWEEN $2 AND $3 AND (f.period_end IS NULL OR f.period_end > $3)",
} as const;

type FactsOfYear = keyof typeof FACTS;

/** Facts of a stretch on the form of its returns, or its own facts on the form of a whole year. */
export interface YearStretch {
  which: FactsOfYear | "annual";
  from: string;
  to: string;
}

const WRITTEN = /^(own|earlier|unreported|annual)\.(\d{4}-\d\d-\d\d)\.(\d{4}-\d\d-\d\d)$/;

/** A stretch as refs of the trail name it, in the place of the end of a period. */
export function stretchOf(text: string): YearStretch | null {
  const [, which, from, to] = WRITTEN.exec(text) ?? [];
  return which && from && to ? { which: which as YearStretch["which"], from, to } : null;
}

/** The facts of a stretch, as SQL over `f` with its days in $2 and $3. */
export function factsOfStretch({ which }: Pick<YearStretch, "which">): string {
  return FACTS[which === "annual" ? "own" : which];
}

function groupsOfStretch(
  work: Work,
  { id }: RegistrationRecord,
  { which, from, to }: YearStretch,
): Promise<DescribedGroup[]> {
  return which === "own" || which === "annual"
    ? ownFactGroups(work, id, from, to)
    : lateFactGroups(work, id, from, to, FACTS[which]);
}

/** The boxes that facts of a stretch alone come to, as if they were one return; or the report of the year. */
export async function boxesOfYear(
  work: Work,
  r: RegistrationRecord,
  stretch: YearStretch,
): Promise<{ form: ReturnForm; boxes: BoxResult[] }> {
  const { which, to } = stretch;
  const pack = work.packs.byId(r.pack);
  const groups = await groupsOfStretch(work, r, stretch);
  const context = { digits: minorDigits(pack.currency), on: to, schedules: await schedulesOf(work, r) };
  const report = which === "annual" ? yearlyReportOf(work, r, to) : undefined;
  if (report) {
    const own = groups.map((group) => ({ ...group, tags: yearlyTags(report, group) }));
    return { form: report.form, boxes: evaluateReturn(report.form, own, [], context) };
  }
  const form = which === "annual" ? annualForm(work, r, to) : formOf(work, r, to);
  return { form, boxes: evaluateReturn(form, groups, [], context) };
}

/** Whether a year has a report, or a form, beside the returns of its periods. */
export function hasYearlyForm(work: Work, r: RegistrationRecord, to: string): boolean {
  return yearlyReportOf(work, r, to) !== undefined || annualForm(work, r, to).id !== formOf(work, r, to).id;
}

/** The report of a year beside the returns of a registration, where there is one. */
export function yearlyReportOf(work: Work, r: RegistrationRecord, to: string): YearlyReport | undefined {
  const report = work.packs.byId(r.pack).yearly;
  return report?.beside.includes(formOf(work, r, to).id) ? report : undefined;
}

/** Facts of a stretch that land in a box of the report of the year, by their bucket. */
export async function bucketsInReport(
  work: Work,
  r: RegistrationRecord,
  stretch: YearStretch,
  report: YearlyReport,
  box: string,
): Promise<string[]> {
  const groups = await groupsOfStretch(work, r, stretch);
  return groups
    .filter((group) => boxTags(yearlyTags(report, group)).some((tag) => tag.box === box))
    .map(({ bucket }) => bucket);
}

/** The form of who files once a year. */
function annualForm(work: Work, r: RegistrationRecord, to: string): ReturnForm {
  const pack = work.packs.byId(r.pack);
  return formOn(pack, to, { levies: r.levies, options: optionsOn(pack, r, to), frequency: "annual" });
}
