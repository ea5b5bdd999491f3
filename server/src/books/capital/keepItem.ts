import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { CapitalItem, CapitalItems } from "@fiscalon/core/model/capitalItem";
import { displayAmount, parseAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import { stretchesOf } from "@fiscalon/core/schemes/capitalItems";
import type { CapitalItemBody } from "@fiscalon/contract/capitalItems";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { capitalResult } from "../returns/capitalOnReturn.ts";
import { scopeOfPeriod } from "../returns/queries.ts";
import { aroundOf, capitalRuleOf, itemsOf } from "./items.ts";
import type { KeptItem } from "./items.ts";

/** The rule of a registration whose list is asked for. */
export function requireCapitalRule(work: Work, r: RegistrationRecord): CapitalItems {
  const rule = capitalRuleOf(work, r);
  if (rule) return rule;
  throw new FiscalError(
    "capital/no-rule",
    "The law of this registration adjusts no tax on capital items over years.",
  );
}

/**
 * Puts a new item on the list of a registration.
 * @returns its number
 */
export async function addItem(work: Writing, r: RegistrationRecord, body: CapitalItemBody): Promise<number> {
  const no = 1 + Math.max(0, ...(await itemsOf(work, r)).map((item) => item.no));
  await writeItem(work, r, no, body);
  return no;
}

/** Changes an item of the list. */
export async function changeItem(
  work: Writing,
  r: RegistrationRecord,
  no: number,
  body: CapitalItemBody,
): Promise<void> {
  if (!(await itemsOf(work, r)).some((item) => item.no === no)) throw notFound("This item");
  await writeItem(work, r, no, body);
}

/** Writes an item under its number, in the place of one that has it. */
export async function writeItem(
  work: Writing,
  r: RegistrationRecord,
  no: number,
  body: CapitalItemBody,
): Promise<void> {
  const rule = requireCapitalRule(work, r);
  const items = await itemsOf(work, r);
  const item = checkedItem(work, r, rule, no, body);
  await requireOpen(work, r, rule, items, [...items.filter((one) => one.no !== no), item]);
  await work.run("DELETE FROM capital_items WHERE registration_id = $1 AND no = $2", [r.id, no]);
  await work.run(
    `INSERT INTO capital_items (client_id, registration_id, no, name, kind, first_use, net, taxes, share, year_ends, uses,
       ended, evidence, created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)`,
    [
      r.clientId,
      r.id,
      no,
      item.name,
      item.kind,
      item.firstUse,
      item.net,
      JSON.stringify(item.taxes),
      item.share,
      item.yearEnds,
      JSON.stringify(item.uses),
      item.ended === null ? null : JSON.stringify(item.ended),
      item.evidence,
      work.at,
      work.person,
    ],
  );
}

/** Takes an item off the list. */
export async function removeItem(work: Writing, r: RegistrationRecord, no: number): Promise<void> {
  const items = await itemsOf(work, r);
  if (!items.some((item) => item.no === no)) throw notFound("This item");
  await requireOpen(
    work,
    r,
    requireCapitalRule(work, r),
    items,
    items.filter((item) => item.no !== no),
  );
  await work.run("DELETE FROM capital_items WHERE registration_id = $1 AND no = $2", [r.id, no]);
}

/** An item as the books hold it, where what was typed fits the rule. */
function checkedItem(
  work: Work,
  r: RegistrationRecord,
  rule: CapitalItems,
  no: number,
  { net, taxes, ...body }: CapitalItemBody,
): KeptItem {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  const kind = rule.kinds.find(({ id }) => id === body.kind);
  if (!kind) {
    const known = rule.kinds.map(({ id }) => id).join(", ");
    throw new FiscalError(
      "capital/kind",
      `There is no kind "${body.kind}" of capital items. Choose one of: ${known}.`,
      "kind",
    );
  }
  const levy = Object.keys(taxes).find((one) => !rule.levies.includes(one));
  if (levy !== undefined)
    throw new FiscalError("capital/levy", `No tax called ${levy} follows the use of capital items.`, "taxes");
  const amounts = Object.fromEntries(
    Object.entries(taxes).map(([one, amount]) => [one, parseAmount(amount, digits)]),
  );
  const cost = parseAmount(net, digits);
  if (cost < 0 || Object.values(amounts).some((amount) => amount < 0))
    throw new FiscalError("capital/amount", "The cost and the tax of an item are nought or more.", "net");
  const size = kind.of === "net" ? cost : Object.values(amounts).reduce((sum, amount) => sum + amount, 0);
  if (size < kind.from)
    throw new FiscalError(
      "capital/too-cheap",
      `An item of this kind has a ${kind.of === "net" ? "cost" : "tax"} of ${displayAmount(kind.from, digits)} or more; the tax of a smaller one is deducted once.`,
      kind.of === "net" ? "net" : "taxes",
    );
  const yearEnds = rule.yearEnds.fixed ? rule.yearEnds.usual : body.yearEnds;
  const item = { ...body, no, yearEnds, net: cost, taxes: amounts };
  requireStretches(work, r, rule, item);
  return item;
}

function requireStretches(work: Work, r: RegistrationRecord, rule: CapitalItems, item: CapitalItem): void {
  if (item.ended && item.ended.on < item.firstUse)
    throw new FiscalError("capital/ended", "An item ends on or after the day of its first use.", "ended");
  if (rule.share === "turnover") {
    if (Object.keys(item.uses).length === 0) return;
    throw new FiscalError(
      "capital/by-turnover",
      "The share of such an item is that of turnover; none is typed.",
      "uses",
    );
  }
  const known = new Set(stretchesOf(rule, item, aroundOf(work, r)).map(({ to }) => to));
  const other = Object.keys(item.uses).find((to) => !known.has(to));
  if (other === undefined) return;
  throw new FiscalError(
    "capital/uses",
    `No stretch of its time ends on ${displayDate(other)}: they end on ${[...known].slice(0, 3).map(displayDate).join(", ")} and so on.`,
    "uses",
  );
}

/** Refuses a change that a sealed return would have to hold. */
async function requireOpen(
  work: Work,
  r: RegistrationRecord,
  rule: CapitalItems,
  before: readonly CapitalItem[],
  after: readonly CapitalItem[],
): Promise<void> {
  const sealed = await work.rows<{ end: string }>(
    "SELECT period_end AS end FROM returns WHERE registration_id = $1 AND boxes IS NOT NULL ORDER BY period_end",
    [r.id],
  );
  for (const { end } of sealed) {
    const of = async (items: readonly CapitalItem[]) =>
      JSON.stringify(
        (await capitalResult(work, r, scopeOfPeriod(end), rule, items)).steps.map(({ box, amount }) => [
          box,
          amount,
        ]),
      );
    if ((await of(before)) === (await of(after))) continue;
    throw new FiscalError(
      "capital/sealed",
      `This changes what the sealed return to ${displayDate(end)} holds. Reopen it first, or put the adjustment on a later return with a document.`,
    );
  }
}
