import type { FactSetup } from "./factSetup.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { roundExact } from "../money/roundExact.ts";
import { taxPointOf } from "../model/document.ts";
import type { DocumentInput } from "../model/document.ts";
import type { LineTax, PricedDocument, PricedLine } from "../model/pricedDocument.ts";
import type { Component, Direction, Treatment } from "../model/taxCode.ts";
import { holdOf } from "../ledger/documentPostings.ts";
import { ratesBeside } from "../tax/recordedRates.ts";
import { factTags, supplyOf } from "./factBoxes.ts";
import { registrationFor } from "../model/registration.ts";

/**
 * One immutable row per document line and levy: what the return is summed from. `net`, `tax`, `recoverable` and
 * `base` are signed minor units (credit notes negative); `tags` says where they land, in the notation of
 * boxTags.ts. `rate` is a percentage as a decimal string, null for supplies without a rate.
 */
export interface TaxFact {
  line: number;
  levy: string;
  code: string;
  treatment: Treatment;
  rate: string | null;
  /** What its tax was worked out with beside that, by schedule; null where there is nothing. */
  rates: Readonly<Record<string, string>> | null;
  direction: Direction;
  charged: Component["charged"];
  /** Whether it comes from a credit note. */
  credit: boolean;
  net: number;
  tax: number;
  /** What `tax` would be without a typed figure. */
  calculated: number;
  recoverable: number;
  /** What the rate was applied to, rounded half up. */
  base: number;
  taxPoint: CalendarDate;
  tags: string;
  /** Where it lands once its own period is sealed, if that is elsewhere. */
  lateTags?: string;
  /** The hold under which its tax is not deducted yet; null where nothing is missing. */
  awaits: string | null;
}

/**
 * The tax facts of a priced document: one a line and component, also for supplies that bear no tax. Lines
 * without a code have none; that they lack one is a finding.
 */
export function factsOf(document: DocumentInput, priced: PricedDocument, setup: FactSetup): TaxFact[] {
  const taxPoint = taxPointOf(document);
  return priced.lines.flatMap((line) => {
    const { direction, code } = line;
    if (direction === null || !code) return [];
    const supply = supplyOf(document, line, priced, setup);
    return line.taxes.flatMap((tax) => {
      const registration = registrationFor(
        setup.registrations,
        tax.component.levy,
        taxPoint,
        code.pack,
        line.circumstances["place"],
      );
      if (tax.component.onlyRegistered && !registration) return [];
      return [
        {
          line: line.no,
          levy: tax.component.levy,
          code: code.code,
          treatment: code.treatment,
          rate: tax.component.rate.kind === "percent" ? tax.rate : null,
          rates: ratesBeside(tax),
          direction,
          charged: tax.component.charged,
          credit: line.sign < 0,
          ...figuresOf(line, tax),
          taxPoint,
          ...factTags(tax.component, direction, supply, registration, document, setup.packs),
          awaits: holdOf(document, line, tax),
        },
      ];
    });
  });
}

function figuresOf(
  line: PricedLine,
  tax: LineTax,
): Pick<TaxFact, "net" | "tax" | "calculated" | "recoverable" | "base"> {
  const signed = (amount: number) => line.sign * amount || 0;
  const rated = tax.component.rate.kind !== "none" && tax.component.rate.kind !== "typed";
  return {
    net: signed(line.net),
    tax: signed(tax.tax),
    calculated: signed(tax.calculated),
    recoverable: line.direction === "purchase" ? signed(tax.recoverable) : 0,
    base: signed(rated ? roundExact(tax.base) : line.net),
  };
}
