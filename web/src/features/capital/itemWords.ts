import type { CapitalItemBody, CapitalItemView } from "@fiscalon/contract/capitalItems";
import { formatAmount } from "@fiscalon/core/money/amount";

/** What the taxes of several levies come to. */
export function sumOf(amounts: Readonly<Record<string, number>>): number {
  return Object.values(amounts).reduce((sum, amount) => sum + amount, 0);
}

/** An item as it is sent. */
export function bodyOfItem(item: CapitalItemView, digits: number): CapitalItemBody {
  const { name, kind, firstUse, net, taxes, share, yearEnds, uses, ended, evidence } = item;
  return {
    name,
    kind,
    firstUse,
    net: formatAmount(net, digits),
    taxes: Object.fromEntries(Object.entries(taxes).map(([levy, tax]) => [levy, formatAmount(tax, digits)])),
    share,
    yearEnds,
    uses,
    ended,
    evidence,
  };
}
