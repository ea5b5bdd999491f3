import { allocationSign } from "@fiscalon/core/ledger/paymentPostings";
import type { PaymentKind } from "@fiscalon/core/model/paymentKinds";
import { minorDigits } from "@fiscalon/core/money/currency";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { OpenItem, PaymentBody, PaymentView } from "@fiscalon/contract/payments";
import { plainAmount, today } from "../../kit/format.ts";

/** What is typed for one document: money, and a difference written off. */
export interface DraftAllocation {
  amount: string;
  difference: string;
  differenceAccount: string;
}

/** A payment as it is being typed. */
export interface PaymentDraft {
  kind: PaymentKind;
  number: string;
  date: string;
  contact: { id: number; name: string } | null;
  account: string;
  amount: string;
  /** Empty for the currency of the books. */
  currency: string;
  bankAmount: string;
  reference: string;
  note: string;
  allocations: Record<number, DraftAllocation>;
}

export const NO_ALLOCATION: DraftAllocation = { amount: "", difference: "", differenceAccount: "" };

export function blankPayment(kind: PaymentKind, account: string): PaymentDraft {
  return {
    kind,
    number: "",
    date: today(),
    contact: null,
    account,
    amount: "",
    currency: "",
    bankAmount: "",
    reference: "",
    note: "",
    allocations: {},
  };
}

export function draftOfPayment(payment: PaymentView, base: string): PaymentDraft {
  const foreign = payment.currency !== base;
  const digits = minorDigits(payment.currency);
  const text = (amount: number) => (amount === 0 ? "" : formatAmount(amount, digits));
  return {
    kind: payment.kind,
    number: payment.number,
    date: payment.date,
    contact: payment.contact,
    account: payment.account,
    amount: formatAmount(payment.amount, digits),
    currency: foreign ? payment.currency : "",
    bankAmount: foreign ? formatAmount(payment.base, minorDigits(base)) : "",
    reference: payment.reference,
    note: payment.note,
    allocations: Object.fromEntries(
      payment.allocations.map((one) => [
        one.document,
        {
          amount: formatAmount(one.amount, digits),
          difference: text(one.difference),
          differenceAccount: one.differenceAccount ?? "",
        },
      ]),
    ),
  };
}

/** The typed text as minor units; 0 while it is no amount yet. */
export function typedAmount(text: string, digits: number): number {
  try {
    return parseAmount(plainAmount(text) || "0", digits);
  } catch {
    return 0;
  }
}

/** Money not yet allocated. */
export function restOf(draft: PaymentDraft, items: readonly OpenItem[], digits: number): number {
  return items.reduce(
    (rest, { document, kind }) =>
      rest -
      allocationSign(draft.kind, kind) * typedAmount(draft.allocations[document]?.amount ?? "", digits),
    typedAmount(draft.amount, digits),
  );
}

/** Settles the oldest documents first, credit notes before them, as far as the money goes. */
export function oldestFirst(
  draft: PaymentDraft,
  items: readonly OpenItem[],
  digits: number,
): Record<number, DraftAllocation> {
  const against = items.filter(({ kind }) => allocationSign(draft.kind, kind) < 0);
  let money = typedAmount(draft.amount, digits) + against.reduce((sum, { open }) => sum + open, 0);
  const along = items.filter(({ kind }) => allocationSign(draft.kind, kind) > 0);
  const settled: Record<number, DraftAllocation> = {};
  for (const { document, open } of along) {
    const amount = Math.min(open, money);
    if (amount > 0) settled[document] = { ...NO_ALLOCATION, amount: formatAmount(amount, digits) };
    money -= Math.max(0, amount);
  }
  let unused = money;
  for (const { document, open } of [...against].reverse()) {
    const used = Math.max(0, open - unused);
    unused = Math.max(0, unused - open);
    if (used > 0) settled[document] = { ...NO_ALLOCATION, amount: formatAmount(used, digits) };
  }
  return settled;
}

export function bodyOfPayment(draft: PaymentDraft): PaymentBody {
  return {
    kind: draft.kind,
    number: draft.number.trim(),
    date: draft.date,
    contact: draft.contact?.id ?? null,
    account: draft.account,
    amount: plainAmount(draft.amount) || "0",
    ...(draft.currency === ""
      ? {}
      : { currency: draft.currency, bankAmount: plainAmount(draft.bankAmount) || "0" }),
    reference: draft.reference,
    note: draft.note,
    allocations: Object.entries(draft.allocations)
      .filter(([, one]) => one.amount.trim() !== "" || one.difference.trim() !== "")
      .map(([document, one]) => ({
        document: Number(document),
        amount: plainAmount(one.amount) || "0",
        ...(one.difference.trim() === ""
          ? {}
          : { difference: plainAmount(one.difference), differenceAccount: one.differenceAccount || null }),
      })),
  };
}
