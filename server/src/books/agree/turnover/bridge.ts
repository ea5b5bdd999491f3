import { turnoverBridge } from "@fiscalon/core/agree/turnoverBridge";
import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeOf, CodeOnReturn, TurnoverOnReturns } from "@fiscalon/core/agree/turnoverBridge";
import type { Agreement } from "@fiscalon/core/agree/agreement";
import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError } from "@fiscalon/core/errors";
import { groupBy } from "@fiscalon/core/groupBy";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import type { BridgeView } from "@fiscalon/contract/bridge";
import type { Work } from "../../../base/work.ts";
import { boxesNow } from "../../returns/evaluation.ts";
import { periodRule } from "../../returns/periodRule.ts";
import { returnRecord } from "../../returns/records.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import { amountOn, apartGroups } from "./apartRows.ts";
import { valueByCode } from "./valueByCode.ts";
import type { CodeValue } from "./valueByCode.ts";
import type { Span, TraitGroup } from "./apartRows.ts";
import { turnoverBoxes } from "./turnoverBoxes.ts";

/** A bridge with everything it is made of. */
export interface Bridge {
  of: BridgeOf;
  span: Span;
  agreement: Agreement;
  accounts: BridgeView["accounts"];
  declared: BridgeView["declared"];
  apart: TraitGroup[];
  codes: readonly CodeOnReturn[];
  form: ReturnForm;
}

/**
 * From income in the profit and loss account to the turnover boxes of the returns of a span.
 * @param span whole filing periods
 * @throws FiscalError `agree/span`
 */
export function bridgeOver(
  work: Work,
  r: RegistrationRecord,
  { from, to }: Span,
  of: BridgeOf = "turnover",
): Promise<Bridge> {
  const span = { from, to };
  return work.remembered("bridge", [r, span, of], (work) => bridged(work, r, span, of));
}

async function bridged(work: Work, r: RegistrationRecord, span: Span, of: BridgeOf): Promise<Bridge> {
  const periods = requireWhole(r, span);
  const accounts = await work.rows<BridgeView["accounts"][number]>(
    `SELECT a.code, a.name, sum(${amountOn(of)}) AS amount FROM accounts a
       CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $2 AND $3
     WHERE a.client_id = $1 AND a.type = '${BRIDGES[of].accounts}' GROUP BY a.id ORDER BY a.code`,
    [r.clientId, span.from, span.to],
  );
  const income = accounts.reduce((sum, { amount }) => sum + amount, 0);
  const apart = await apartGroups(work, r, span, of);
  const ends = periods.map(({ to }) => to);
  const sold = await valueByCode(work, r, ends, of);
  const returns: OnReturn[] = [];
  for (const { to } of periods) returns.push(await onReturn(work, r, to, of));
  const form = returns.at(-1)?.form;
  if (!form) throw new RangeError("A span of whole periods holds one.");
  const { declared, ...content } = together(returns, sold, of);
  return {
    of,
    span,
    agreement: turnoverBridge(income, declared, apart, content, of),
    accounts,
    declared: returns.flatMap((one) => one.held),
    apart,
    codes: content.codes,
    form,
  };
}

/**
 * The filing periods of a span that is made of whole ones.
 * @throws FiscalError `agree/span`
 */
export function requireWhole(r: RegistrationRecord, { from, to }: Span) {
  const periods = filingPeriods(periodRule(r), from, to);
  const [first, last] = [periods[0], periods.at(-1)];
  if (first?.from === from && last?.to === to) return periods;
  throw new FiscalError(
    "agree/span",
    "A bridge is of whole filing periods. Begin with the first day of one and end with the last day of one.",
    "from",
  );
}

/** What a return holds of turnover. */
interface OnReturn {
  form: ReturnForm;
  boxes: readonly BoxResult[];
  aside: readonly { code: string; net: number }[];
  sinceSealed: number;
  /** The boxes as they are filed, or would be. */
  held: BridgeView["declared"];
}

async function onReturn(work: Work, r: RegistrationRecord, end: string, of: BridgeOf): Promise<OnReturn> {
  const { form, boxes, content } = await boxesNow(work, r, end);
  const own = turnoverBoxes(form, boxes, of);
  const sealed = (await returnRecord(work, r.id, end))?.boxes ?? null;
  const held = (sealed ? turnoverBoxes(form, sealed, of) : own).map(({ box, amount }) => ({
    to: end,
    box,
    amount,
  }));
  return {
    form,
    boxes: own,
    aside: content.schemes.flatMap(({ setAside }) =>
      setAside
        .filter(({ direction }) => direction === BRIDGES[of].direction)
        .map(({ code, net }) => ({ code, net })),
    ),
    sinceSealed: sumOf(held) - sumOf(own),
    held,
  };
}

function sumOf(list: readonly { amount: number }[]): number {
  return list.reduce((total, { amount }) => total + amount, 0);
}

/** The returns of a span as one; where the form has no turnover boxes, the value of sales stands in their place. */
function together(
  returns: readonly OnReturn[],
  sold: readonly CodeValue[],
  of: BridgeOf,
): TurnoverOnReturns & { declared: number } {
  const own = BRIDGES[of].direction;
  const bare = returns.every(({ form }) => form[of] === undefined);
  const boxes = returns.flatMap((one) => one.boxes);
  const parts = boxes.flatMap(({ contributions }) => contributions);
  const facts = groupBy(
    parts.filter((part) => part.kind === "facts"),
    ({ code, direction }) => `${direction} ${code}`,
  );
  const aside = groupBy(
    returns.flatMap((one) => one.aside),
    ({ code }) => code,
  );
  const codes = sold.map(({ code, treatment, net, tax, rows }): CodeOnReturn => {
    const inBoxes = facts.get(`${own} ${code}`) ?? [];
    const off = (aside.get(code) ?? []).reduce((sum, one) => sum + one.net, 0);
    const landed = inBoxes.reduce((sum, { amount }) => sum + amount, 0);
    return {
      code,
      direction: own,
      treatment,
      net,
      tax,
      rows,
      aside: bare ? 0 : off,
      boxes: bare ? net : landed,
    };
  });
  const bought = [...facts.values()].flat().filter(({ direction }) => direction !== own);
  const byHand = parts.filter((part) => part.kind === "adjustment");
  return {
    codes: [
      ...codes,
      ...bought.map(({ code, direction, amount, count }): CodeOnReturn => ({
        code,
        direction,
        treatment: "reverse-charge",
        net: 0,
        tax: 0,
        aside: 0,
        boxes: amount,
        rows: count,
      })),
    ],
    schemes: sumOf(parts.filter((part) => part.kind === "scheme")),
    byHand: { amount: sumOf(byHand), rows: byHand.length },
    rounding: boxes.reduce((total, { amount, exact }) => total + amount - exact, 0),
    sinceSealed: bare ? 0 : returns.reduce((total, one) => total + one.sinceSealed, 0),
    declared: bare
      ? sold.reduce((total, { net }) => total + net, 0)
      : sumOf(returns.flatMap(({ held }) => held)),
  };
}

/** Names and amounts of a bridge, in the order of the bridge. */
export function figuresOf({ left, right, causes, open, rest }: Agreement, of: BridgeOf): [string, number][] {
  return [
    [of === "turnover" ? "Income" : "Costs", left],
    ...causes.map(({ name, amount }): [string, number] => [name, amount]),
    ["Without a cause", open.amount],
    ["Rest", rest - open.amount],
    ["Declared", right],
  ];
}
