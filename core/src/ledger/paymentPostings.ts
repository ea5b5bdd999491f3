import { FiscalError, withinField } from "../errors.ts";
import { displayAmount } from "../money/amount.ts";
import { DOCUMENT_KINDS } from "../tax/documentInput.ts";
import type { DocumentKind } from "../tax/documentInput.ts";
import { accountInRole } from "./account.ts";
import type { Account } from "./account.ts";
import { imbalance } from "./posting.ts";
import type { Posting } from "./posting.ts";

export type PaymentKind = "receipt" | "payment";
export const PAYMENT_NAMES: Record<PaymentKind, string> = { receipt: "Receipt", payment: "Payment" };

/**
 * What a payment settles of one document, in minor units. `amount` is money, positive where it settles the
 * document; `difference` is settled without money (a short payment that is let go; negative where too much came
 * in) and goes to an account of its own.
 */
export interface Allocation {
  document: { kind: DocumentKind; number: string; open: number };
  amount: number;
  difference: number;
  differenceAccount: string | null;
}

export interface PaymentInput {
  kind: PaymentKind;
  /** Minor units, zero or more; zero sets documents off against each other. */
  amount: number;
  account: string | null;
  allocations: readonly Allocation[];
}

/**
 * Which way the money of an allocation goes: 1 with the payment, -1 against it. A receipt settles sales invoices
 * and credit notes of suppliers; with it, sales credit notes and bills are set off.
 */
export function allocationSign(kind: PaymentKind, document: DocumentKind): 1 | -1 {
  const { direction, sign } = DOCUMENT_KINDS[document];
  const comesIn = (direction === "sale") === sign > 0;
  return comesIn === (kind === "receipt") ? 1 : -1;
}

/** Money of a payment that no document is named for, minor units. */
export function onAccount({ kind, amount, allocations }: PaymentInput): number {
  return allocations.reduce(
    (rest, one) => rest - allocationSign(kind, one.document.kind) * one.amount,
    amount,
  );
}

/**
 * The journal entry of a payment or receipt: bank against debtors or creditors, document by document; what is not
 * allocated stays on the account of the party; differences go to theirs.
 * @returns postings that balance, debit positive, minor units
 * @throws FiscalError `payment/amount`, `payment/over-allocated`, `payment/not-open`, `payment/nothing`,
 *   `ledger/no-account`, `ledger/unknown-account`
 */
export function paymentPostings(
  payment: PaymentInput,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const { kind, amount, allocations } = payment;
  if (amount < 0)
    throw new FiscalError(
      "payment/amount",
      "Type the amount without a sign; receipt or payment says the direction.",
      "amount",
    );
  const name = PAYMENT_NAMES[kind];
  const own = allocations.flatMap((one, index) =>
    withinField(`allocations[${index}]`, () => allocationPostings(one, accounts, digits)),
  );
  const rest = onAccount(payment);
  if (rest < 0) {
    throw new FiscalError(
      "payment/over-allocated",
      `The documents take ${displayAmount(amount - rest, digits)}, but only ${displayAmount(amount, digits)} ${kind === "receipt" ? "came in" : "went out"}. Allocate less, or correct the amount.`,
      "amount",
    );
  }
  if (amount === 0 && allocations.length === 0)
    throw new FiscalError("payment/nothing", "Type the amount, or choose documents.", "amount");
  const party = accountInRole(accounts, kind === "receipt" ? "receivable" : "payable");
  const factor = kind === "receipt" ? 1 : -1;
  const bank = knownAccount(payment.account, "bank", accounts, "account");
  const postings = [
    { account: bank, amount: amount * factor, line: null, levy: null, text: name },
    ...own,
    { account: party, amount: -rest * factor || 0, line: null, levy: null, text: "On account" },
  ].filter((posting) => posting.amount !== 0);
  if (imbalance(postings) !== 0)
    throw new FiscalError("ledger/unbalanced", "The payment does not balance; report this.");
  return postings;
}

function allocationPostings(one: Allocation, accounts: readonly Account[], digits: number): Posting[] {
  const { kind, number, open } = one.document;
  const { direction, sign, counter, name } = DOCUMENT_KINDS[kind];
  if (counter !== "receivable" && counter !== "payable")
    throw new FiscalError("payment/not-open", `${name} ${number} was paid at once.`, "document");
  const settled = one.amount + one.difference;
  if (settled <= 0 || one.amount < 0)
    throw new FiscalError("payment/amount", `Type how much of ${number} is settled.`, "amount");
  if (settled > open) {
    throw new FiscalError(
      "payment/not-open",
      `Of ${number} only ${displayAmount(open, digits)} is open. Leave the rest on account.`,
      "amount",
    );
  }
  const factor = (direction === "sale") === sign > 0 ? -1 : 1;
  const posting = (account: string, amount: number): Posting => ({
    account,
    amount: amount * factor || 0,
    line: null,
    levy: null,
    text: `${name} ${number}`,
  });
  const party = posting(accountInRole(accounts, counter), settled);
  if (one.difference === 0) return [party];
  const account = knownAccount(one.differenceAccount, "difference", accounts, "differenceAccount");
  return [party, posting(account, -one.difference)];
}

function knownAccount(
  code: string | null,
  role: "bank" | "difference",
  accounts: readonly Account[],
  field: string,
): string {
  if (code === null || code === "") return accountInRole(accounts, role);
  if (accounts.some((account) => account.code === code)) return code;
  throw new FiscalError(
    "ledger/unknown-account",
    `There is no account ${code}. Choose one of the chart.`,
    field,
  );
}
