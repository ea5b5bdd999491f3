import type { CalendarDate } from "../calendar/date.ts";
import type { Direction, Treatment } from "./taxCode.ts";

/**
 * When tax is reported: at the tax point (`accrual`), as money moves (`cash`), sales at the tax point and purchases as
 * paid (`hybrid`), or sales as received and purchases at their tax point (`receipts`).
 */
export const BASES = ["accrual", "cash", "hybrid", "receipts"] as const;
export type Basis = (typeof BASES)[number];

/** Which sides wait for money on a basis. */
export const WAITING: Readonly<Record<Basis, readonly Direction[]>> = {
  accrual: [],
  cash: ["sale", "purchase"],
  hybrid: ["purchase"],
  receipts: ["sale"],
};

/** Where something is reported that the law does not leave in the boxes of the document, by side; see boxTags.ts. */
export interface BoxesBySide {
  sale: string;
  purchase: string;
}

/**
 * What becomes of what is unpaid when a basis is left: it is reported on the `last-day` of that basis, the `first-day`
 * of the next one, or stays to be reported `as-paid`.
 * - `months`: so long after its last day documents of its time are still reported as paid, the rest then.
 * - `boxes`: where the rest lands, where that is not the boxes of the documents.
 */
export interface LeavingWay {
  id: string;
  name: string;
  rest: "last-day" | "first-day" | "as-paid";
  months?: number;
  boxes?: BoxesBySide;
  source: string;
}

/**
 * A basis a registration may report on, in the words of the law.
 * - `who`: who may use it, for the choice on screen.
 * - `levies`: registrations for one of these can report on such a basis only.
 * - `outside`: treatments, and documents from a gross in minor units on, that it leaves at their tax point.
 * - `asPaid`: codes of purchases that are deducted as far as they are paid, whatever waits otherwise.
 * - `leaving`: what becomes of what is unpaid when it is left, the usual way first.
 * - `joining`: where what was reported and is unpaid is taken back when it is joined, to be reported again as paid.
 */
export interface BasisOffer {
  basis: Basis;
  name: string;
  who?: string;
  levies?: readonly string[];
  outside?: { treatments?: readonly Treatment[]; grossFrom?: number };
  asPaid?: readonly string[];
  leaving?: readonly LeavingWay[];
  joining?: BoxesBySide;
  source: string;
}

/** Every basis in plain words, where no law gives it others. */
export const PLAIN_BASES: Readonly<Record<Basis, BasisOffer>> = {
  accrual: {
    basis: "accrual",
    name: "Accrual: tax is reported at the tax point of each document",
    source: "",
  },
  cash: { basis: "cash", name: "Cash: tax is reported as money is paid", source: "" },
  hybrid: { basis: "hybrid", name: "Hybrid: sales at the tax point, purchases as paid", source: "" },
  receipts: {
    basis: "receipts",
    name: "Receipts: sales as received, purchases at their tax point",
    source: "",
  },
};

/** What a pack says of a basis; plain words for one that it does not offer, as registrations of old may have it. */
export function basisOffer(offers: readonly BasisOffer[], basis: Basis): BasisOffer {
  return offers.find((one) => one.basis === basis) ?? PLAIN_BASES[basis];
}

/** A change of basis within a registration. `leaving`: the way of the basis left; the usual one where it is not said. */
export interface BasisChange {
  from: CalendarDate;
  basis?: Basis;
  leaving?: string;
}

interface Dated {
  basis: Basis;
  changes?: readonly BasisChange[];
}

/** The basis a registration reports on, on a day: the last change of it, or the one it began with. */
export function basisOn({ basis, changes = [] }: Dated, on: CalendarDate): Basis {
  return changes.filter((change) => change.from <= on && change.basis !== undefined).at(-1)?.basis ?? basis;
}

/**
 * The ways in which a change can leave the basis in force before it, the usual one first; none where nothing stops
 * waiting for money.
 */
export function waysOfLeaving(
  offers: readonly BasisOffer[],
  registration: Dated,
  change: BasisChange,
): readonly LeavingWay[] {
  const { basis: next } = change;
  const before = basisOn(
    {
      basis: registration.basis,
      changes: registration.changes?.filter(({ from }) => from < change.from) ?? [],
    },
    change.from,
  );
  if (next === undefined || WAITING[before].every((side) => WAITING[next].includes(side))) return [];
  return basisOffer(offers, before).leaving ?? [PLAIN_LEAVING];
}

/** The way a change leaves the basis before it, or undefined where nothing stops waiting. */
export function wayOfLeaving(
  offers: readonly BasisOffer[],
  registration: Dated,
  change: BasisChange,
): LeavingWay | undefined {
  const ways = waysOfLeaving(offers, registration, change);
  return ways.find(({ id }) => id === change.leaving) ?? ways[0];
}

/** Where the law names no return: the first one of the next basis. */
const PLAIN_LEAVING: LeavingWay = {
  id: "first-return",
  name: "What is unpaid is reported on the first return of the new basis",
  rest: "first-day",
  source: "common practice, no source",
};
