import { FiscalError, withinField } from "../errors.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import { bears } from "../model/account.ts";
import type { Account, AccountRole } from "../model/account.ts";
import { add, compare, exactFromDecimal, exactFromInteger, ZERO } from "../money/exact.ts";
import { boxTags } from "../model/boxTags.ts";
import { expandCode } from "./expandCode.ts";
import type { Boxes, Component, RateSchedules, Split, TaxCode } from "../model/taxCode.ts";

/** What a code is checked against. */
export interface CodeSurroundings {
  levies: ReadonlySet<string>;
  schedules: RateSchedules;
  accounts: readonly Account[];
  /** Whether a form in use has a box; a code may also land nowhere. */
  hasBox: (box: string) => boolean;
}

const FORMULA_NAMES = new Set(["net", "gross", "quantity", "unitPrice", "prior"]);

/**
 * Refuses a code that could not be computed or posted, before it is kept.
 * @throws FiscalError with the path of the field: `tax/unknown-levy`, `tax/unknown-schedule`, `tax/no-account`,
 *   `tax/shares`, `tax/unknown-box`, `tax/bad-box-tag`, `formula/…`, `tax/share-range`
 */
export function checkCode(code: TaxCode, around: CodeSurroundings): void {
  for (const member of expandCode(code)) {
    member.components.forEach((component, index) =>
      withinField(`components[${index}]`, () => checkComponent(member, component, around)),
    );
  }
}

function checkComponent(code: TaxCode, component: Component, around: CodeSurroundings): void {
  if (!around.levies.has(component.levy)) {
    throw new FiscalError(
      "tax/unknown-levy",
      `There is no levy ${component.levy}. Choose one of the list.`,
      "levy",
    );
  }
  withinField("rate", () => checkRate(code, component, around));
  checkShare(component.recoverable, "recoverable");
  if (component.cap) requireSchedule(component.cap.schedule, around.schedules, "cap.schedule");
  if (component.base?.share !== undefined) checkShare(component.base.share, "base.share");
  checkSplits(component, around.accounts);
  if (!component.splits) requireAccounts(code, component, around.accounts);
  for (const [side, boxes] of Object.entries(component.boxes)) {
    withinField(`boxes.${side}`, () => checkBoxes(boxes, around));
  }
}

function checkRate(code: TaxCode, { rate }: Component, { schedules }: CodeSurroundings): void {
  if ("schedule" in rate) return requireSchedule(rate.schedule, schedules, "schedule");
  if (rate.kind !== "formula") return;
  const allowed = new Set([...FORMULA_NAMES, ...(code.inputs ?? [])]);
  for (const [field, text] of [
    ["formula", rate.formula],
    ["base", rate.base],
  ] as const) {
    if (text === undefined) continue;
    withinField(field, () => {
      const formula = parseFormula(text);
      for (const id of formula.rates) requireSchedule(id, schedules, undefined);
      const unknown = formula.names.find((name) => !allowed.has(name));
      if (unknown === undefined && formula.boxes.length === 0) return;
      throw new FiscalError(
        "formula/unknown-name",
        `"${text}" reads ${unknown ?? `box ${formula.boxes[0]}`}. A code may read ${[...allowed].join(", ")} and rates in braces.`,
      );
    });
  }
}

function requireSchedule(id: string, schedules: RateSchedules, field: string | undefined): void {
  if (schedules[id]) return;
  throw new FiscalError(
    "tax/unknown-schedule",
    `There are no rates named ${id}. Add them, or choose others.`,
    field,
  );
}

function checkShare(share: string, field: string): void {
  const value = withinField(field, () => exactFromDecimal(share));
  if (compare(value, ZERO) >= 0 && compare(value, exactFromInteger(100)) <= 0) return;
  throw new FiscalError("tax/share-range", `${share} is not between 0 and 100 percent.`, field);
}

function checkSplits({ splits, levy }: Component, accounts: readonly Account[]): void {
  for (const [name, rows] of Object.entries<readonly Split[]>({ ...splits })) {
    const total = rows.reduce((sum, row) => add(sum, exactFromDecimal(row.share)), ZERO);
    if (compare(total, exactFromInteger(100)) !== 0) {
      throw new FiscalError("tax/shares", "The shares of the tax do not sum to 100.", `splits.${name}`);
    }
    rows.forEach((row, index) => {
      const missing = row.account
        ? !accounts.some((account) => account.code === row.account)
        : row.role !== undefined && row.role !== "cost" && !hasRole(accounts, row.role, levy);
      if (!missing) return;
      throw new FiscalError(
        "tax/no-account",
        `There is no account ${row.account ?? `for ${row.role} of ${levy}`} in the chart.`,
        `splits.${name}[${index}]`,
      );
    });
  }
}

/** A component with a tax needs an account for each side it can be on. */
function requireAccounts(code: TaxCode, component: Component, accounts: readonly Account[]): void {
  const { levy, rate, charged, recoverable } = component;
  if (rate.kind === "none" || charged === "declared-only") return;
  const sells = code.direction !== "purchase" && charged === "charged";
  const buys = code.direction !== "sale";
  const wanted: AccountRole[] = [
    ...(sells || (buys && charged === "self-assessed") ? (["output-tax"] as const) : []),
    ...(buys && recoverable !== "0" ? (["input-tax"] as const) : []),
  ];
  const missing = wanted.find((role) => !hasRole(accounts, role, levy));
  if (!missing) return;
  throw new FiscalError(
    "tax/no-account",
    `No account is set for ${missing} of ${levy}. Add one under Set up, Accounts.`,
    "levy",
  );
}

function hasRole(accounts: readonly Account[], role: AccountRole, levy: string): boolean {
  return accounts.some((account) => account.role === role && bears(account, levy));
}

/** Tags with a brace are filled in from the supply, so only their shape is checked. */
function checkBoxes(boxes: Boxes, { hasBox }: CodeSurroundings): void {
  const all = typeof boxes === "string" ? [boxes] : boxes.map((route) => route.tags);
  for (const tag of all.flatMap((tags) => boxTags(tags))) {
    if (tag.box.includes("{") || hasBox(tag.box)) continue;
    throw new FiscalError("tax/unknown-box", `No form in use has a box ${tag.box}.`);
  }
}
