import { addDays, addMonthsToEnd } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { basisOffer, basisOn, WAITING, wayOfLeaving } from "../model/basis.ts";
import type { BasisOffer, BoxesBySide, LeavingWay } from "../model/basis.ts";
import { DOCUMENT_KINDS } from "../model/documentKinds.ts";
import type { DocumentKind } from "../model/documentKinds.ts";
import { roundExact } from "../money/roundExact.ts";
import type { RegistrationSetup } from "../model/registration.ts";
import type { TaxFact } from "./taxFact.ts";

/** The figures of a fact that are reported in parts as money moves, all in minor units. */
export const RELEASED_FIGURES = ["net", "tax", "calculated", "recoverable", "base"] as const;
export type ReleasedFigures = Pick<TaxFact, (typeof RELEASED_FIGURES)[number]>;

/** What of a fact decides whether it waits for money. */
type Waiting = Pick<TaxFact, "code" | "direction" | "charged" | "treatment" | "taxPoint">;

/** A document as far as waiting goes: its kind, and its gross in minor units. */
export interface WaitingDocument {
  kind: DocumentKind;
  gross: number;
}

/**
 * Whether a fact is reported as its document is paid instead of at its tax point: purchases and sales on the cash
 * basis, purchases alone on the hybrid one, sales alone on receipts, but for what the law leaves outside. Tax the buyer
 * assesses himself and import declarations never wait; documents paid at once have nothing to wait for.
 * @param offers the bases of the registration's pack
 * @source VAT Notice 731 (GB), payments and hybrid basis (NZ), VATCA s.80 (IE), UStG § 20 (DE); from memory
 */
export function waitsForPayment(
  fact: Waiting,
  document: WaitingDocument,
  registration: RegistrationSetup,
  offers: readonly BasisOffer[],
): boolean {
  const basis = basisOn(registration, fact.taxPoint);
  return canWait(fact, document, basisOffer(offers, basis));
}

function canWait(fact: Waiting, { kind, gross }: WaitingDocument, offer: BasisOffer): boolean {
  if (gross === 0 || !DOCUMENT_KINDS[kind].waits) return false;
  if (offer.asPaid?.includes(fact.code)) return true;
  if (fact.charged !== "charged" || fact.treatment === "import") return false;
  const { treatments, grossFrom } = offer.outside ?? {};
  if (treatments?.includes(fact.treatment) || Math.abs(gross) >= (grossFrom ?? Infinity)) return false;
  return WAITING[offer.basis].includes(fact.direction);
}

/** When waiting ends: payments after `after` count no more, the rest is reported on `on`, in `boxes` where these differ. */
export interface EndOfWaiting {
  after: CalendarDate;
  on: CalendarDate;
  boxes?: BoxesBySide;
}

/**
 * When whatever is still unpaid of a fact that waits is reported: as the law has it when the basis is left, or on the
 * last day of the registration; null while neither is known.
 * @source VAT Notice 731 section 6 (GB), GSTA s 19C (NZ), s. 15(5) (ZA); from memory
 */
export function endOfWaiting(
  registration: RegistrationSetup,
  fact: Pick<TaxFact, "code" | "direction" | "taxPoint">,
  offers: readonly BasisOffer[],
): EndOfWaiting | null {
  // What only money makes deductible is never reported without it.
  if (basisOffer(offers, basisOn(registration, fact.taxPoint)).asPaid?.includes(fact.code)) return null;
  const ends: EndOfWaiting[] = [];
  let before = basisOn(registration, fact.taxPoint);
  for (const change of registration.changes ?? []) {
    if (change.from <= fact.taxPoint || change.basis === undefined) continue;
    if (WAITING[before].includes(fact.direction) && !WAITING[change.basis].includes(fact.direction)) {
      const end = endByWay(wayOfLeaving(offers, registration, change), change.from);
      if (end) ends.push(end);
      break;
    }
    before = change.basis;
  }
  if (registration.to !== null) ends.push({ after: registration.to, on: registration.to });
  return ends.sort((a, b) => (a.on < b.on ? -1 : 1))[0] ?? null;
}

function endByWay(way: LeavingWay | undefined, from: CalendarDate): EndOfWaiting | undefined {
  if (!way || way.rest === "as-paid") return undefined;
  const lastDay = addDays(from, -1);
  const after = way.months === undefined ? lastDay : addMonthsToEnd(lastDay, way.months);
  const on = way.rest === "last-day" ? after : addDays(after, 1);
  return { after, on, ...(way.boxes ? { boxes: way.boxes } : {}) };
}

/** A turn to a basis that waits: what was reported is taken back on `on` as far as it is unpaid, in `boxes`. */
export interface Turn {
  on: CalendarDate;
  boxes: BoxesBySide;
}

/**
 * The turn that takes back a fact that was reported at its tax point, where the law takes back what is unpaid when a
 * basis is joined; null where it does not, or nothing was joined. Then it is reported again as it is paid.
 * @source GSTA s 19C (NZ), from memory
 */
export function turnToPayment(
  registration: RegistrationSetup,
  fact: Waiting,
  document: WaitingDocument,
  offers: readonly BasisOffer[],
): Turn | null {
  if (waitsForPayment(fact, document, registration, offers)) return null;
  for (const { from, basis } of registration.changes ?? []) {
    if (from <= fact.taxPoint || basis === undefined) continue;
    const offer = basisOffer(offers, basis);
    if (canWait(fact, document, offer)) return offer.joining ? { on: from, boxes: offer.joining } : null;
  }
  return null;
}

/**
 * What settled part of a document, in minor units of the document's currency, never negative: `amount` of money, and
 * what was written off with it. Tax on the cash basis is tax on money; what is written off is never reported.
 */
export interface SettledPart {
  payment: number;
  on: CalendarDate;
  amount: number;
  writtenOff: number;
}

/** What one payment, or the end of waiting (`payment` null), makes reportable. */
export interface Release extends ReleasedFigures {
  payment: number | null;
  on: CalendarDate;
}

/**
 * What the payments of a document make reportable of one of its facts: after each payment `R(figure × paid so far /
 * gross)` less what was reported before, so that part payments sum to the figure exactly, in whatever parts.
 * @param gross what there is to pay, minor units, not zero
 * @param parts payments in the order in which they count
 * @param reported figures and settled amounts of earlier releases that cannot change any more
 * @param end when the rest is reported whether paid or not
 * @source engine.md §7; HMRC VAT Notice 731 on part payments, from memory
 */
export function cashReleases(
  fact: ReleasedFigures,
  gross: number,
  parts: readonly SettledPart[],
  reported: ReleasedFigures & { settled: number; writtenOff: number },
  end: Pick<EndOfWaiting, "after" | "on"> | null,
): Release[] {
  let before = figures((name) => reported[name]);
  let { settled, writtenOff } = reported;
  const releases: Release[] = [];
  const release = (payment: number | null, on: CalendarDate, target: ReleasedFigures) => {
    const now = figures((name) => target[name] - before[name] || 0);
    before = target;
    if (RELEASED_FIGURES.some((name) => now[name] !== 0)) releases.push({ payment, on, ...now });
  };
  for (const part of parts) {
    if (end !== null && part.on > end.after) continue;
    settled += part.amount;
    writtenOff += part.writtenOff;
    release(part.payment, part.on, shareOf(settled));
  }
  if (end !== null) release(null, end.on, shareOf(gross - writtenOff));
  return releases;

  function shareOf(money: number): ReleasedFigures {
    return paidShare(fact, money, gross);
  }
}

/** The part of a fact's figures that `money` is of its document's `gross`, each rounded once; all minor units. */
export function paidShare(fact: ReleasedFigures, money: number, gross: number): ReleasedFigures {
  return figures((name) => roundExact({ n: BigInt(fact[name]) * BigInt(money), d: BigInt(gross) }));
}

function figures(of: (name: keyof ReleasedFigures) => number): ReleasedFigures {
  return {
    net: of("net"),
    tax: of("tax"),
    calculated: of("calculated"),
    recoverable: of("recoverable"),
    base: of("base"),
  };
}

export const NOTHING_RELEASED: ReleasedFigures & { settled: number; writtenOff: number } = {
  ...figures(() => 0),
  settled: 0,
  writtenOff: 0,
};
