import { FiscalError, withinField } from "../errors.ts";
import { displayAmount } from "../money/amount.ts";
import { roundExact } from "../money/roundExact.ts";
import { bringsMoney, DOCUMENT_KINDS } from "../model/documentKinds.ts";
import { PAYMENT_KINDS } from "../model/paymentKinds.ts";
import type { PaymentKind } from "../model/paymentKinds.ts";
import type { DocumentKind } from "../model/documentKinds.ts";
import { accountInRole } from "../model/account.ts";
import type { Account } from "../model/account.ts";
import { imbalance } from "../model/posting.ts";
import type { Posting } from "../model/posting.ts";

/**
 * A document a payment settles, in minor units of its own currency: what there is to pay, and what of it is open;
 * `baseGross` and `baseSettled` are the gross and what was taken off before in the currency of the books.
 */
export interface PayableDocument {
  kind: DocumentKind;
  number: string;
  currency: string;
  toPay: number;
  open: number;
  baseGross: number;
  baseSettled: number;
}

/**
 * What a payment settles of one document, in minor units of the document's currency. `amount` is money, positive
 * where it settles the document; `difference` is settled without money (a short payment that is written off; negative
 * where too much came in) and goes to an account of its own.
 */
export interface Allocation {
  document: PayableDocument;
  amount: number;
  difference: number;
  differenceAccount: string | null;
}

export interface PaymentInput {
  kind: PaymentKind;
  currency: string;
  /** Minor units of `currency`, zero or more; zero sets documents off against each other. */
  amount: number;
  /** The amount in the currency of the books, minor units: what the bank made of it. */
  base: number;
  account: string | null;
  allocations: readonly Allocation[];
}

/**
 * Which way the money of an allocation goes: 1 with the payment, -1 against it. A receipt settles sales invoices
 * and credit notes of suppliers; with it, sales credit notes and bills are set off.
 */
export function allocationSign(kind: PaymentKind, document: DocumentKind): 1 | -1 {
  return bringsMoney(document) === PAYMENT_KINDS[kind].comesIn ? 1 : -1;
}

/** Money of a payment that no document is named for, minor units of its currency. */
export function onAccount({ kind, amount, allocations }: PaymentInput): number {
  return allocations.reduce(
    (rest, one) => rest - allocationSign(kind, one.document.kind) * one.amount,
    amount,
  );
}

/** What a payment takes off a document in the currency of the books, so that in the end all of it is taken off. */
export function baseOfAllocation({ document, amount, difference }: Allocation): number {
  const { toPay, open, baseGross, baseSettled } = document;
  const settled = toPay - open + amount + difference;
  return roundExact({ n: BigInt(baseGross) * BigInt(settled), d: BigInt(toPay) }) - baseSettled || 0;
}

/**
 * The journal entry of a payment or receipt: bank against debtors or creditors, document by document; what is not
 * allocated stays on the account of the party; differences go to theirs, and what the rate of exchange changed since
 * the document to exchange differences, without tax.
 * @returns postings that balance, in minor units of the currency of the books, debit positive
 * @throws FiscalError `payment/amount`, `payment/over-allocated`, `payment/not-open`, `payment/nothing`,
 *   `payment/other-currency`, `ledger/no-account`, `ledger/unknown-account`
 */
export function paymentPostings(
  payment: PaymentInput,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const { kind, amount, allocations } = payment;
  refuseImpossible(payment, digits);
  const base = (money: number) =>
    amount === 0 ? money : roundExact({ n: BigInt(money) * BigInt(payment.base), d: BigInt(amount) });
  const settled = allocations.flatMap((one, index) =>
    withinField(`allocations[${index}]`, () =>
      allocationPostings(one, payment.currency, base, accounts, digits),
    ),
  );
  const { name, comesIn, party: role } = PAYMENT_KINDS[kind];
  const party = accountInRole(accounts, role);
  const factor = comesIn ? 1 : -1;
  const bank = knownAccount(payment.account, "bank", accounts, "account");
  const plain = (account: string, value: number, text: string): Posting => ({
    account,
    amount: value || 0,
    line: null,
    levy: null,
    text,
  });
  const postings = [
    plain(bank, base(amount) * factor, name),
    ...settled,
    plain(party, -base(onAccount(payment)) * factor, "On account"),
  ];
  const moved = imbalance(postings);
  if (moved !== 0) postings.push(plain(accountInRole(accounts, "exchange"), -moved, "Exchange difference"));
  return postings.filter((posting) => posting.amount !== 0);
}

function refuseImpossible(payment: PaymentInput, digits: number): void {
  const { kind, amount, allocations } = payment;
  if (amount < 0) {
    throw new FiscalError(
      "payment/amount",
      "Type the amount without a sign; receipt or payment says the direction.",
      "amount",
    );
  }
  if (amount === 0 && allocations.length === 0)
    throw new FiscalError("payment/nothing", "Type the amount, or choose documents.", "amount");
  const rest = onAccount(payment);
  if (rest >= 0) return;
  throw new FiscalError(
    "payment/over-allocated",
    `The documents take ${displayAmount(amount - rest, digits)}, but only ${displayAmount(amount, digits)} ${PAYMENT_KINDS[kind].comesIn ? "came in" : "went out"}. Allocate less, or correct the amount.`,
    "amount",
  );
}

function allocationPostings(
  one: Allocation,
  currency: string,
  base: (amount: number) => number,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const { kind, number, open } = one.document;
  const { counter, name } = DOCUMENT_KINDS[kind];
  if (counter !== "receivable" && counter !== "payable")
    throw new FiscalError("payment/not-open", `${name} ${number} was paid at once.`, "document");
  if (one.document.currency !== currency) {
    throw new FiscalError(
      "payment/other-currency",
      `${number} is in ${one.document.currency}. Record this payment in ${one.document.currency}, with what the bank made of it.`,
      "document",
    );
  }
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
  const factor = bringsMoney(kind) ? -1 : 1;
  const posting = (account: string, amount: number): Posting => ({
    account,
    amount: amount * factor || 0,
    line: null,
    levy: null,
    text: `${name} ${number}`,
  });
  const party = posting(accountInRole(accounts, counter), baseOfAllocation(one));
  if (one.difference === 0) return [party];
  const account = knownAccount(one.differenceAccount, "difference", accounts, "differenceAccount");
  return [party, posting(account, -base(one.difference))];
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
