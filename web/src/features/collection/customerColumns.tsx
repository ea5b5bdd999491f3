import { displayAmount } from "@fiscalon/core/money/amount";
import type { CollectionCustomer, CollectionCustomers, CollectionView } from "@fiscalon/contract/collection";
import type { SumRow } from "../../kit/DataTable.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { NumberLink } from "../../kit/NumberLink.tsx";
import type { Column } from "../../kit/useGridTable.ts";

/** The columns of customers whose receipts are counted. */
export function customerColumns(
  digits: number,
  view: CollectionView,
  to: (contact: number) => string,
): Column<CollectionCustomer>[] {
  const amount = (
    id: "received" | "excess" | "tax" | "charged" | "left",
    head: string,
    sorts: boolean,
  ): Column<CollectionCustomer> => ({
    id,
    head,
    width: 112,
    amount: true,
    sorts,
    cell: (row) => (
      <Figure
        amount={row[id]}
        digits={digits}
        dash
        of={{
          ref: `collection/${row.contact}/${id}`,
          title: `${row.name}: ${head.toLowerCase()}`,
          amount: row[id],
          digits,
          words: [
            `${view.says} (${view.source})`,
            "Open the customer for each receipt with its running total.",
          ],
          parts: [],
          arithmetic: [
            `${displayAmount(row.opening, digits)} before these books + ${displayAmount(row.received, digits)} received − ${displayAmount(view.above, digits)}: ${displayAmount(row.excess, digits)} collected on`,
            `${displayAmount(row.tax, digits)} tax − ${displayAmount(row.charged, digits)} charged = ${displayAmount(row.left, digits)}`,
          ],
        }}
        label={`${head} of ${row.name}`}
      />
    ),
  });
  return [
    {
      id: "name",
      head: "Customer",
      width: 150,
      grow: 1,
      sorts: true,
      always: true,
      cell: ({ contact, name }) => <NumberLink to={to(contact)}>{name}</NumberLink>,
    },
    {
      id: "identification",
      head: view.identification,
      width: 108,
      cell: ({ identification, deducts }) =>
        deducts ? (
          <span className="quiet">deducts itself</span>
        ) : identification === null ? (
          <span className="text-warning">▲ not known</span>
        ) : (
          <span className="font-mono">{identification}</span>
        ),
    },
    amount("received", "Received", true),
    amount("excess", "Of it above", false),
    amount("tax", "Tax", true),
    amount("charged", "Charged", false),
    amount("left", "Left to charge", true),
  ];
}

/** What all customers come to. */
export function customerSums({ total, sum }: CollectionCustomers, digits: number): SumRow {
  const figure = (amount: number, words: string) => (
    <Figure
      amount={amount}
      digits={digits}
      of={{
        ref: `collection/all/${words}`,
        title: `All customers: ${words}`,
        amount,
        digits,
        words: ["The sum of the column over all customers of the list. Open any row for its own arithmetic."],
        parts: [],
        arithmetic: [],
      }}
      label={`All customers, ${words}`}
    />
  );
  return {
    caption: plural(total, "customer"),
    figures: {
      received: figure(sum.received, "received"),
      tax: figure(sum.tax, "tax"),
      charged: figure(sum.charged, "charged"),
      left: figure(sum.left, "left to charge"),
    },
  };
}
