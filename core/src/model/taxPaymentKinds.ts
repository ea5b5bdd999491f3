/**
 * What moves between a business and an authority, or is charged by it. Everything that depends on the kind is a column.
 * - `owes`: which way it moves what is owed to the authority; money that is paid takes off.
 * - `column`: the column of the continuity table it counts in.
 * - `offered`: how it is said where it is recorded and listed.
 */
export const TAX_PAYMENT_KINDS = {
  payment: { name: "Payment", owes: -1, column: "paid", offered: "Payment to the authority" },
  instalment: {
    name: "Instalment",
    owes: -1,
    column: "paid",
    offered: "Instalment, before the return is filed",
  },
  refund: { name: "Refund", owes: 1, column: "refunded", offered: "Refund from the authority" },
  interest: { name: "Interest", owes: 1, column: "charges", offered: "Interest charged" },
  penalty: { name: "Penalty", owes: 1, column: "charges", offered: "Penalty charged" },
} as const;

export type TaxPaymentKind = keyof typeof TAX_PAYMENT_KINDS;
export type ContinuityColumn = (typeof TAX_PAYMENT_KINDS)[TaxPaymentKind]["column"];

/** Every kind, in the order in which they are offered. */
export const ALL_TAX_PAYMENT_KINDS = Object.keys(TAX_PAYMENT_KINDS) as TaxPaymentKind[];

/** What a payment or charge moves of what is owed, minor units. */
export function movesOwed({ kind, amount }: { kind: TaxPaymentKind; amount: number }): number {
  return TAX_PAYMENT_KINDS[kind].owes * amount;
}
