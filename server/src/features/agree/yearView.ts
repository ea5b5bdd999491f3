import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { YEAR_CAUSES, yearRollUp } from "@fiscalon/core/agree/yearRollUp";
import { minorDigits } from "@fiscalon/core/money/currency";
import { figureOfBoxes } from "@fiscalon/core/returns/returnFigures";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import type { RateSchedules } from "@fiscalon/core/model/taxCode";
import type { BoxDefinition, ReturnForm } from "@fiscalon/core/model/returnForm";
import type { YearBox, YearView } from "@fiscalon/contract/yearRollUp";
import type { Work } from "../../base/work.ts";
import type { Span } from "../../books/agree/turnover/apartRows.ts";
import { boxesOfYear, hasYearlyForm, yearlyReportOf } from "../../books/returns/boxesOfYear.ts";
import type { YearStretch } from "../../books/returns/boxesOfYear.ts";
import { boxesNow, evaluated, formOf } from "../../books/returns/evaluation.ts";
import type { PeriodContent } from "../../books/returns/evaluation.ts";
import { adjustmentsOf, factGroups } from "../../books/returns/queries.ts";
import { returnRecord } from "../../books/returns/records.ts";
import { schedulesOf } from "../../books/returns/schedules.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ReportTable } from "../../exports/reportTable.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { requireWhole } from "../../books/agree/turnover/bridge.ts";

type Amounts = ReadonlyMap<string, number>;

/** A return of the year: what it declares, and what its parts come to by box. */
interface YearReturn {
  to: string;
  state: string;
  declared: Amounts;
  exact: Amounts;
  ofFacts: Amounts;
  byHand: Amounts;
}

/** Nothing in a box. */
const NONE = 0;

/**
 * The returns of a stretch of whole periods against its ledger, box by box, with what stands between.
 * @throws FiscalError `agree/span`
 */
export function yearView(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  { from, to }: Span,
): Promise<YearView> {
  const span = { from, to };
  return work.remembered("year", [r, span], (work) => rolledUp(work, setup, r, span));
}

async function rolledUp(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  span: Span,
): Promise<YearView> {
  const periods = requireWhole(r, span);
  const { from, to } = span;
  const form = formOf(work, r, to);
  const schedules = await schedulesOf(work, r);
  const of = async (which: YearStretch["which"]) =>
    exactOf((await boxesOfYear(work, r, { which, ...span })).boxes);
  const [ledger, earlier, unreported] = [await of("own"), await of("earlier"), await of("unreported")];
  const returns: YearReturn[] = [];
  for (const period of periods) returns.push(await yearReturn(work, r, period.to, schedules));
  const boxes = form.boxes.flatMap((box): YearBox[] => {
    const { id, title } = box;
    const at = (amounts: Amounts) => amounts.get(id) ?? NONE;
    const onReturns = returns.map(({ to, state, declared, exact, ofFacts, byHand }) => ({
      to,
      state,
      declared: at(declared),
      exact: at(exact),
      ofFacts: at(ofFacts),
      byHand: at(byHand),
    }));
    const rolled = yearRollUp({
      ledger: at(ledger),
      lateIn: at(earlier),
      lateOut: at(unreported),
      isWorkedOut: isWorkedOut(box, form),
      returns: onReturns,
    });
    if (rolled.left === 0 && onReturns.every(({ declared }) => declared === 0)) return [];
    return [
      {
        box: id,
        title,
        ledger: rolled.left,
        declared: rolled.right,
        causes: rolled.causes.map((cause) => ({ ...cause })),
        rest: rolled.rest,
        returns: onReturns,
      },
    ];
  });
  return {
    from,
    to,
    digits: setup.plain.digits,
    form: form.name,
    boxes,
    yearly: await yearlyForm(work, r, boxes, span),
  };
}

/** Whether a box is more than the sum of facts: a formula, or one that gives what is negative to another. */
function isWorkedOut(box: BoxDefinition, { boxes }: ReturnForm): boolean {
  const gives = (one: BoxDefinition) => (one.kind === "sum" ? one.negativeTo : undefined);
  return box.kind !== "sum" || gives(box) !== undefined || boxes.some((one) => gives(one) === box.id);
}

async function yearReturn(
  work: Work,
  r: RegistrationRecord,
  end: string,
  schedules: RateSchedules,
): Promise<YearReturn> {
  const record = await returnRecord(work, r.id, end);
  const boxes = record?.boxes ?? (await boxesNow(work, r, end)).boxes;
  const adjustments = await adjustmentsOf(work, r.id, end);
  const parts = (content: Pick<PeriodContent, "groups" | "adjustments">) =>
    exactOf(evaluated(work, schedules, r, end, content));
  return {
    to: end,
    state: record?.state ?? "open",
    declared: new Map(boxes.map(({ box, amount }) => [box, amount])),
    exact: exactOf(boxes),
    ofFacts: parts({ groups: await factGroups(work, r.id, end), adjustments: [] }),
    byHand: parts({ groups: [], adjustments }),
  };
}

function exactOf(boxes: readonly Pick<BoxResult, "box" | "exact">[]): Amounts {
  return new Map(boxes.map(({ box, exact }) => [box, exact]));
}

/** The boxes of the report or the form of a whole year, where there is one, and whether it ties with the returns. */
async function yearlyForm(
  work: Work,
  r: RegistrationRecord,
  boxes: readonly YearBox[],
  span: Span,
): Promise<YearView["yearly"]> {
  if (!hasYearlyForm(work, r, span.to)) return null;
  const { form, boxes: own } = await boxesOfYear(work, r, { which: "annual", ...span });
  const pack = work.packs.byId(r.pack);
  const digits = minorDigits(pack.currency);
  const declared = formOf(work, r, span.to).boxes.map(({ id }) => ({
    box: id,
    amount: boxes.find(({ box }) => box === id)?.declared ?? NONE,
  }));
  const definitions = new Map(form.boxes.map((box) => [box.id, box]));
  return {
    form: form.name,
    boxes: own
      .filter(({ box, amount }) => amount !== 0 && definitions.get(box)?.helper !== true)
      .map(({ box, amount }) => ({ box, title: definitions.get(box)?.title ?? box, amount })),
    ties: (yearlyReportOf(work, r, span.to)?.ties ?? []).map(({ says, report, returns }) => ({
      says,
      report: figureOfBoxes(report, exactly(own), digits),
      returns: figureOfBoxes(returns, declared, digits),
    })),
  };
}

/** Boxes before they are rounded: what is worked out from them is not rounded twice. */
function exactly(boxes: readonly BoxResult[]): { box: string; amount: number }[] {
  return boxes.map(({ box, exact }) => ({ box, amount: exact }));
}

/** The roll-up as a table: a row a box, a column a cause. */
export function yearTable(
  setup: ClientSetup,
  { from, to, digits, form, boxes, yearly }: YearView,
): ReportTable {
  const causes = Object.entries(YEAR_CAUSES);
  return {
    title: "Year roll-up",
    about: `${setup.client.name}, ${form}, ${displayDate(from)} to ${displayDate(to)}`,
    digits,
    columns: [
      { name: "Box", width: 40 },
      { name: "Title", width: 150 },
      { name: "Ledger of the year", amount: true },
      ...causes.map(([, name]) => ({ name, amount: true })),
      { name: "Declared", amount: true },
      { name: "Left", amount: true },
    ],
    rows: [
      ...boxes.map((box) => ({
        cells: [
          box.box,
          box.title,
          box.ledger,
          ...causes.map(([id]) => box.causes.find((cause) => cause.id === id)?.amount ?? NONE),
          box.declared,
          box.rest,
        ],
      })),
      ...(yearly === null
        ? []
        : [
            { cells: ["", yearly.form, "", ...causes.map(() => ""), "", ""], total: true },
            ...yearly.boxes.map(({ box, title, amount }) => ({
              cells: [box, title, amount, ...causes.map(() => ""), "", ""],
            })),
          ]),
    ],
  };
}
