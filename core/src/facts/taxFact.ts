import type { CalendarDate } from "../calendar/date.ts";
import { DOCUMENT_KINDS, taxPointOf } from "../tax/documentInput.ts";
import type { DocumentInput } from "../tax/documentInput.ts";
import type { PricedDocument } from "../tax/priceDocument.ts";
import type { Component, Direction, Treatment } from "../tax/taxCode.ts";

/**
 * One immutable row per document line and levy: what the return is summed from. `net`, `tax` and `recoverable`
 * are signed minor units (credit notes negative); `tags` says where they land, in the notation of boxTags.ts.
 * `rate` is a percentage as a decimal string, null for supplies without a rate.
 */
export interface TaxFact {
  line: number;
  levy: string;
  code: string;
  treatment: Treatment;
  rate: string | null;
  direction: Direction;
  charged: Component["charged"];
  net: number;
  tax: number;
  /** What `tax` would be without a typed figure. */
  calculated: number;
  recoverable: number;
  taxPoint: CalendarDate;
  tags: string;
}

/**
 * The tax facts of a priced document: one a line and component, also for supplies that bear no tax. Lines
 * without a code have none; that they lack one is a finding.
 */
export function factsOf(document: DocumentInput, priced: PricedDocument): TaxFact[] {
  const { direction, sign } = DOCUMENT_KINDS[document.kind];
  if (direction === null) return [];
  const taxPoint = taxPointOf(document);
  return priced.lines.flatMap((line) =>
    line.taxes.map((tax) => ({
      line: line.no,
      levy: tax.component.levy,
      code: line.code?.code ?? "",
      treatment: line.code?.treatment ?? "out-of-scope",
      rate: tax.rate,
      direction,
      charged: tax.component.charged,
      net: sign * line.net,
      tax: sign * tax.tax || 0,
      calculated: sign * tax.calculated || 0,
      recoverable: direction === "purchase" ? sign * tax.recoverable || 0 : 0,
      taxPoint,
      tags: tax.component.boxes[direction] ?? "",
    })),
  );
}
