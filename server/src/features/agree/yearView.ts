import { YEAR_CAUSES, yearRollUp } from "@fiscalon/core/agree/yearRollUp";
import type { BoxOnReturn } from "@fiscalon/core/agree/yearRollUp";
import { optionsOn } from "@fiscalon/core/model/registration";
import { formOn } from "@fiscalon/core/returns/formOn";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import type { RateSchedules } from "@fiscalon/core/model/taxCode";
import type { BoxDefinition, ReturnForm } from "@fiscalon/core/model/returnForm";
import type { YearBox, YearView } from "@fiscalon/contract/yearRollUp";
import type { Work } from "../../base/work.ts";
import type { Span } from "../../books/agree/apartRows.ts";
import { boxesNow, evaluated, formOf } from "../../books/returns/evaluation.ts";
import { adjustmentsOf, factGroups, factGroupsOfYear } from "../../books/returns/queries.ts";
import { returnRecord } from "../../books/returns/records.ts";
import { schedulesOf } from "../../books/returns/schedules.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ReportTable } from "../../exports/reportTable.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { requireWhole } from "./turnover/bridge.ts";

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
export async function yearView(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  span: Span,
): Promise<YearView> {
  const periods = requireWhole(r, span);
  const { from, to } = span;
  const form = formOf(work, r, to);
  const schedules = await schedulesOf(work, r);
  const exactOf = (groups: readonly FactGroup[], on = to): Amounts =>
    new Map(
      evaluated(work, schedules, r, on, { groups, adjustments: [] }).map(({ box, exact }) => [box, exact]),
    );
  const of = async (which: Parameters<typeof factGroupsOfYear>[4]) =>
    exactOf(await factGroupsOfYear(work, r.id, from, to, which));
  const [ledger, earlier, unreported] = [await of("own"), await of("earlier"), await of("unreported")];
  const returns: YearReturn[] = [];
  for (const period of periods) returns.push(await yearReturn(work, r, period.to, schedules, exactOf));
  const boxes = form.boxes.flatMap((box): YearBox[] => {
    const { id, title } = box;
    const at = (amounts: Amounts) => amounts.get(id) ?? NONE;
    const onReturns = returns.map(({ declared, exact, ofFacts }): BoxOnReturn => ({
      declared: at(declared),
      exact: at(exact),
      ofFacts: at(ofFacts),
    }));
    const rolled = yearRollUp({
      ledger: at(ledger),
      lateIn: at(earlier),
      lateOut: at(unreported),
      byHand: returns.reduce((sum, one) => sum + at(one.byHand), 0),
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
        returns: returns.map(({ to: end, state, declared }) => ({ to: end, state, amount: at(declared) })),
      },
    ];
  });
  const own = await factGroupsOfYear(work, r.id, from, to, "own");
  return {
    from,
    to,
    digits: setup.plain.digits,
    form: form.name,
    boxes,
    yearly: yearlyForm(work, r, form, to, own),
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
  exactOf: (groups: readonly FactGroup[], on: string) => Amounts,
): Promise<YearReturn> {
  const record = await returnRecord(work, r.id, end);
  const boxes = record?.boxes ?? (await boxesNow(work, r, end)).boxes;
  const adjustments = await adjustmentsOf(work, r.id, end);
  const byHand = evaluated(work, schedules, r, end, { groups: [], adjustments });
  return {
    to: end,
    state: record?.state ?? "open",
    declared: new Map(boxes.map(({ box, amount }) => [box, amount])),
    exact: new Map(boxes.map(({ box, exact }) => [box, exact])),
    ofFacts: exactOf(await factGroups(work, r.id, end), end),
    byHand: new Map(byHand.map(({ box, exact }) => [box, exact])),
  };
}

/** The boxes of the form for a whole year, where the country has one beside that of the periods. */
function yearlyForm(
  work: Work,
  r: RegistrationRecord,
  form: ReturnForm,
  to: string,
  groups: readonly FactGroup[],
): YearView["yearly"] {
  const pack = work.packs.byId(r.pack);
  const yearly = formOn(pack, to, { levies: r.levies, options: optionsOn(pack, r, to), frequency: "annual" });
  if (yearly.id === form.id) return null;
  const boxes = evaluateReturn(yearly, groups, [], { on: to, schedules: pack.schedules });
  const titles = new Map(yearly.boxes.map(({ id, title }) => [id, title]));
  return {
    form: yearly.name,
    boxes: boxes
      .filter(({ amount }) => amount !== 0)
      .map(({ box, amount }) => ({ box, title: titles.get(box) ?? box, amount })),
  };
}

/** The roll-up as a table: a row a box, a column a cause. */
export function yearTable(setup: ClientSetup, { from, to, digits, form, boxes }: YearView): ReportTable {
  const causes = Object.entries(YEAR_CAUSES);
  return {
    title: "Year roll-up",
    about: `${setup.client.name}, ${form}, ${from} to ${to}`,
    digits,
    columns: [
      { name: "Box", width: 40 },
      { name: "Title", width: 150 },
      { name: "Ledger of the year", amount: true },
      ...causes.map(([, name]) => ({ name, amount: true })),
      { name: "Declared", amount: true },
      { name: "Left", amount: true },
    ],
    rows: boxes.map((box) => ({
      cells: [
        box.box,
        box.title,
        box.ledger,
        ...causes.map(([id]) => box.causes.find((cause) => cause.id === id)?.amount ?? NONE),
        box.declared,
        box.rest,
      ],
    })),
  };
}
