import type { CalendarDate } from "../calendar/date.ts";
import { DOCUMENT_KINDS } from "../model/documentKinds.ts";
import type { DocumentKind } from "../model/documentKinds.ts";
import type { Direction } from "../model/taxCode.ts";
import { roundExact } from "../money/roundExact.ts";
import { basisOn } from "../model/registration.ts";
import type { RegistrationSetup } from "../model/registration.ts";
import type { TaxFact } from "./taxFact.ts";

/** The figures of a fact that are reported in parts as money moves, all in minor units. */
export const RELEASED_FIGURES = ["net", "tax", "calculated", "recoverable", "base"] as const;
export type ReleasedFigures = Pick<TaxFact, (typeof RELEASED_FIGURES)[number]>;

/**
 * Whether a fact is reported as its document is paid instead of at its tax point. Purchases and sales wait on the
 * cash basis, purchases alone on the hybrid one. Tax the buyer assesses himself and import declarations never wait;
 * documents paid at once have nothing to wait for.
 * @source VAT Notice 731 (GB), payments and hybrid basis (NZ); from memory
 */
export function waitsForPayment(
  fact: Pick<TaxFact, "direction" | "charged" | "treatment" | "taxPoint">,
  kind: DocumentKind,
  registration: RegistrationSetup,
): boolean {
  if (!DOCUMENT_KINDS[kind].waits || fact.charged !== "charged" || fact.treatment === "import") return false;
  return waitsOn(registration, fact.direction, fact.taxPoint);
}

function waitsOn(registration: RegistrationSetup, direction: Direction, on: CalendarDate): boolean {
  const basis = basisOn(registration, on);
  return basis === "cash" || (basis === "hybrid" && direction === "purchase");
}

/**
 * The day on which whatever is still unpaid is reported at once: the first on which the registration does not wait
 * for payments of this side any more, or its last day; null while neither is known.
 */
export function endOfWaiting(
  registration: RegistrationSetup,
  fact: Pick<TaxFact, "direction" | "taxPoint">,
): CalendarDate | null {
  const change = (registration.changes ?? []).find(
    ({ from }) => from > fact.taxPoint && !waitsOn(registration, fact.direction, from),
  );
  const days = [change?.from, registration.to].filter((day) => day !== undefined && day !== null);
  return days.sort()[0] ?? null;
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
 * @param end day from which on the rest is reported whether paid or not
 * @source engine.md §7; HMRC VAT Notice 731 on part payments, from memory
 */
export function cashReleases(
  fact: ReleasedFigures,
  gross: number,
  parts: readonly SettledPart[],
  reported: ReleasedFigures & { settled: number; writtenOff: number },
  end: CalendarDate | null,
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
    if (end !== null && part.on >= end) continue;
    settled += part.amount;
    writtenOff += part.writtenOff;
    release(part.payment, part.on, shareOf(settled));
  }
  if (end !== null) release(null, end, shareOf(gross - writtenOff));
  return releases;

  function shareOf(money: number): ReleasedFigures {
    return figures((name) => roundExact({ n: BigInt(fact[name]) * BigInt(money), d: BigInt(gross) }));
  }
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
