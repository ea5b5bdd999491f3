/** What a payment is: which way the money goes, which account it stands against, and how its numbers begin. */
export const PAYMENT_KINDS = {
  receipt: {
    name: "Receipt",
    plural: "Receipts",
    comesIn: true,
    party: "receivable",
    series: { prefix: "R-", unbroken: false },
  },
  payment: {
    name: "Payment",
    plural: "Payments",
    comesIn: false,
    party: "payable",
    series: { prefix: "P-", unbroken: false },
  },
} as const;

export type PaymentKind = keyof typeof PAYMENT_KINDS;
