import type { CalendarDate } from "../calendar/date.ts";
import type { Direction, SupplyKind } from "./taxCode.ts";

/**
 * A row that says: from this place, to this place, this kind of supply and customer, use this code.
 * - `from`, `to`: `any`; a country `CA`; a region `CA-BC`; `home`, in our own country; `union`, another member of
 *   the European Union; `abroad`, another country; `outside-union`.
 * - `taxClass`: what the item is for tax: standard, reduced, zero, exempt …
 * - `party`: `any`, registered, unregistered, or a standing such as resale or sez.
 * - `words`: the sentence that explains the choice.
 */
export interface SupplyRule {
  id: string;
  direction: Direction;
  taxClass: string;
  supply: SupplyKind | "any";
  from: string;
  to: string;
  party: string;
  validFrom: CalendarDate | null;
  validTo: CalendarDate | null;
  /** The rule holds only where we are registered for this levy. */
  needs?: string | null;
  /** Empty where there can be no code; the words say why. */
  code: string;
  words: string;
  source: string;
}
