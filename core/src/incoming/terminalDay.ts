import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import { formatAmount } from "../money/amount.ts";
import type { DocumentInput, LineInput } from "../model/document.ts";

/**
 * A transaction of a card terminal, amounts in minor units. On a sale `gross` = items + surcharge + tip; on a refund
 * every amount is negative. `fee` is what the operator keeps, positive. `tax` is the terminal's own name of a tax.
 */
export interface TerminalTransaction {
  id: string;
  /** ISO 8601. */
  at: string;
  kind: "sale" | "refund";
  gross: number;
  items: { name: string; amount: number; tax: string }[];
  surcharge: number;
  tip: number;
  fee: number;
}

/** A target of takings or fees: the tax code (null where no tax is told, as without a registration) and the account. */
export interface TerminalTarget {
  code: string | null;
  account: string;
}

/** How the terminal's words become codes and accounts. */
export interface TerminalMapping {
  /** By the terminal's name of a tax. */
  taxes: Record<string, TerminalTarget>;
  surcharge: TerminalTarget;
  tip: TerminalTarget;
  fee: TerminalTarget;
  /** Code of the account the operator pays out to. */
  bank: string;
}

/** Names of taxes that transactions carry and the mapping does not know. */
export function unmappedTaxes(
  transactions: readonly TerminalTransaction[],
  mapping: TerminalMapping,
): string[] {
  const names = new Set(transactions.flatMap(({ items }) => items.map(({ tax }) => tax)));
  return [...names].filter((name) => !(name in mapping.taxes)).sort();
}

/**
 * The takings of one trading day as one document, prices including tax: a line for each tax, refunds apart, the
 * surcharge as a sale of its own (it is a price, not a tax), tips as told by the mapping.
 * @returns null where nothing was taken
 * @throws FiscalError `terminal/unmapped` when a tax has no code yet, `terminal/differs` when a transaction does not
 *   add up
 */
export function summaryOfDay(
  day: CalendarDate,
  number: string,
  transactions: readonly TerminalTransaction[],
  mapping: TerminalMapping,
  digits: number,
): (DocumentInput & { number: string }) | null {
  const [missing] = unmappedTaxes(transactions, mapping);
  if (missing !== undefined) {
    throw new FiscalError(
      "terminal/unmapped",
      `The terminal calls a tax “${missing}”. Say which code it is.`,
      `mapping.taxes.${missing}`,
    );
  }
  const sums = new Map<string, { text: string; target: TerminalTarget; amount: number }>();
  const take = (text: string, target: TerminalTarget, amount: number) => {
    if (amount === 0) return;
    const key = `${text} ${target.code} ${target.account}`;
    const sum = sums.get(key) ?? { text, target, amount: 0 };
    sums.set(key, { ...sum, amount: sum.amount + amount });
  };
  for (const transaction of transactions) {
    refuseDifference(transaction);
    const refund = transaction.kind === "refund" ? ", refunded" : "";
    for (const { tax, amount } of transaction.items) {
      const target = mapping.taxes[tax];
      if (target) take(`Card takings, ${tax}${refund}`, target, amount);
    }
    take(`Card surcharge${refund}`, mapping.surcharge, transaction.surcharge);
    take(`Tips${refund}`, mapping.tip, transaction.tip);
  }
  const lines = [...sums.values()].map((sum) => lineOf(sum, digits));
  return lines.length === 0
    ? null
    : { kind: "terminal-summary", number, date: day, prices: "inclusive", lines };
}

/** What the operator keeps of a day, as a bill; null where it keeps nothing. */
export function feesOfDay(
  day: CalendarDate,
  number: string,
  transactions: readonly TerminalTransaction[],
  mapping: TerminalMapping,
  digits: number,
): (DocumentInput & { number: string }) | null {
  const amount = transactions.reduce((sum, { fee }) => sum + fee, 0);
  if (amount === 0) return null;
  const line = lineOf(
    { text: `Card fees of ${transactions.length} transactions`, target: mapping.fee, amount },
    digits,
  );
  return { kind: "fee-bill", number, date: day, prices: "inclusive", lines: [line] };
}

function lineOf(
  { text, target, amount }: { text: string; target: TerminalTarget; amount: number },
  digits: number,
): LineInput {
  return {
    text,
    amount: formatAmount(amount, digits),
    account: target.account,
    code: target.code,
    ...(target.code === null ? {} : { codeReason: "mapping of the terminal" }),
  };
}

function refuseDifference({ id, gross, items, surcharge, tip }: TerminalTransaction): void {
  const sum = items.reduce((total, { amount }) => total + amount, surcharge + tip);
  if (sum === gross) return;
  throw new FiscalError(
    "terminal/differs",
    `Transaction ${id} does not add up: its parts are not its total. Report it to the operator of the terminal.`,
  );
}
