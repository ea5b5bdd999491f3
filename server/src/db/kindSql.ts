import { bringsMoney, kindOf, kindsWhere } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind, KindDefinition } from "@fiscalon/core/model/documentKinds";

type Fits = (definition: KindDefinition, kind: DocumentKind) => boolean;

/** Conditions on the kind of a document in SQL, from the table of kinds. `column` is a name of ours, never input. */
export function inKinds(column: string, fits: Fits): string {
  return `${column} IN (${listOf(kindsWhere(fits))})`;
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

function listOf(kinds: readonly DocumentKind[]): string {
  return kinds.map((kind) => `'${kind}'`).join(", ");
}
