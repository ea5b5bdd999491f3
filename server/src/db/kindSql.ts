import { PAYMENT_KINDS } from "@fiscalon/core/model/paymentKinds";
import type { PaymentKind } from "@fiscalon/core/model/paymentKinds";
import { bringsMoney, kindOf, kindsWhere } from "@fiscalon/core/model/documentKinds";
import { ALL_TAX_PAYMENT_KINDS, TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import type { ContinuityColumn, TaxPaymentKind } from "@fiscalon/core/model/taxPaymentKinds";
import type { DocumentKind, KindDefinition } from "@fiscalon/core/model/documentKinds";

type Fits = (definition: KindDefinition, kind: DocumentKind) => boolean;

/** Whether a column holds one of these kinds. `column` is a name of ours and the kinds are of our tables, never input. */
export function oneOf(
  column: string,
  kinds: readonly (DocumentKind | PaymentKind | TaxPaymentKind)[],
): string {
  return `${column} IN (${kinds.map((kind) => `'${kind}'`).join(", ")})`;
}

/** Conditions on the kind of a document in SQL, from the table of kinds. */
export function inKinds(column: string, fits: Fits): string {
  return oneOf(column, kindsWhere(fits));
}

/** 1, or -1 for credit notes. */
export function signOf(column: string): string {
  return `CASE WHEN ${inKinds(column, ({ sign }) => sign < 0)} THEN -1 ELSE 1 END`;
}

/** 1 where the money of the kind comes in, -1 where it goes out. */
export function whichWay(column: string): string {
  return `CASE WHEN ${inKinds(column, (_, kind) => bringsMoney(kind))} THEN 1 ELSE -1 END`;
}

/** The side of a document: `sale`, `purchase`, or null for journals. */
export function sideOf(column: string): string {
  const when = (side: "sale" | "purchase") =>
    `WHEN ${inKinds(column, ({ direction }) => direction === side)} THEN '${side}'`;
  return `CASE ${when("sale")} ${when("purchase")} END`;
}

/** The kind of credit note that may correct a document of the kind. */
export function creditedBy(column: string): string {
  const kinds = kindsWhere(({ creditedBy: by }) => by !== null);
  return `CASE ${column} ${kinds.map((kind) => `WHEN '${kind}' THEN '${kindOf(kind).creditedBy}'`).join(" ")} END`;
}

/** Whether a payment brings money in, or takes it out. */
export function movesMoney(alias: string, comesIn: boolean): string {
  const kinds = (Object.keys(PAYMENT_KINDS) as PaymentKind[]).filter(
    (kind) => PAYMENT_KINDS[kind].comesIn === comesIn,
  );
  return oneOf(`${alias}.kind`, kinds);
}

/** The amounts of payments of tax that count in a column of the continuity table, added up. */
export function sumOfColumn(alias: string, column: ContinuityColumn): string {
  const kinds = ALL_TAX_PAYMENT_KINDS.filter((kind) => TAX_PAYMENT_KINDS[kind].column === column);
  return `coalesce(sum(CASE WHEN ${oneOf(`${alias}.kind`, kinds)} THEN ${alias}.amount END), 0)`;
}

/** What payments of tax move of what is owed to an authority, added up. */
export function sumOfOwed(alias: string): string {
  const more = ALL_TAX_PAYMENT_KINDS.filter((kind) => TAX_PAYMENT_KINDS[kind].owes > 0);
  return `coalesce(sum(CASE WHEN ${oneOf(`${alias}.kind`, more)} THEN ${alias}.amount ELSE -${alias}.amount END), 0)`;
}
