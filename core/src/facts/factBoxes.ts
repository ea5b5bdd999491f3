import { filingPeriodOn } from "../calendar/filingPeriods.ts";
import { packById } from "../jurisdictions/packs.ts";
import { exactFromDecimal, exactFromInteger, compare } from "../money/exact.ts";
import { circumstancesOf, meets } from "../supply/circumstances.ts";
import type { Circumstances } from "../supply/circumstances.ts";
import { regionTag } from "../supply/regions.ts";
import { rateDateOf, taxPointOf } from "../tax/documentInput.ts";
import type { DocumentInput } from "../tax/documentInput.ts";
import type { PricedDocument, PricedLine } from "../tax/priceDocument.ts";
import { rowInForce } from "../tax/rateInForce.ts";
import type { Boxes, Component, Direction } from "../tax/taxCode.ts";
import type { FactSetup } from "./taxFact.ts";
import type { RegistrationSetup } from "./registration.ts";

/**
 * How a registration treats the boxes the law gives to credit notes: always uses them (`statutory`), never
 * (`netted`: the boxes of the invoice with the opposite sign), or only where the document that is corrected belongs
 * to an earlier filing period (`later-period`).
 */
export type CreditNoteWay = "statutory" | "netted" | "later-period";

/**
 * The circumstances of a priced line as its boxes see them: those of the supply, and
 * - `size`: whether the document's gross is over the limit the code names, or within it
 * - `originalSize`: the same for the document a credit note corrects
 */
export function supplyOf(
  document: DocumentInput,
  line: PricedLine,
  priced: PricedDocument,
  setup: Pick<FactSetup, "schedules" | "digits">,
): Circumstances {
  const input = document.lines[line.no - 1] ?? {};
  const own = circumstancesOf(document, input, line.direction ?? "sale", line.sign < 0, line.code);
  if (line.code?.limit === undefined) return own;
  const size = (gross: number, on: string) => sizeOf(gross, line.code?.limit ?? "", on, setup);
  const original = document.originalGross;
  return {
    ...own,
    size: size(priced.gross, taxPointOf(document)),
    originalSize:
      original === null || original === undefined ? "unknown" : size(original, rateDateOf(document)),
  };
}

function sizeOf(
  gross: number,
  schedule: string,
  on: string,
  { schedules, digits }: Pick<FactSetup, "schedules" | "digits">,
): string {
  const limit = rowInForce(schedules[schedule], on);
  if (!limit) return "within";
  const major = exactFromDecimal(limit.rate);
  const minor = { n: major.n * 10n ** BigInt(digits), d: major.d };
  return compare(exactFromInteger(Math.abs(gross)), minor) > 0 ? "over" : "within";
}

/** Where a component of a line lands: tags in the notation of boxTags.ts, the empty string for nowhere. */
export function factTags(
  component: Component,
  direction: Direction,
  supply: Circumstances,
  registration: RegistrationSetup | undefined,
  document: DocumentInput,
): string {
  const { boxes } = component;
  const ofCredit = direction === "sale" ? boxes.saleCredit : boxes.purchaseCredit;
  const own =
    supply["note"] === "credit" && ofCredit !== undefined && usesCreditBoxes(document, registration)
      ? ofCredit
      : boxes[direction];
  return filledIn(routed(own, supply), supply);
}

/** Tags with the braces filled in: `{placeTag}` by the tag of our region, others by the circumstance. */
function filledIn(tags: string, supply: Circumstances): string {
  if (!tags.includes("{")) return tags;
  return tags.replace(/\{(\w+)\}/g, (_, key: string) => {
    const value = key === "placeTag" ? regionTag(supply["home"] ?? "", supply["place"] ?? "") : supply[key];
    return value === undefined || value === "" ? "?" : value;
  });
}

function routed(boxes: Boxes | undefined, supply: Circumstances): string {
  if (boxes === undefined) return "";
  if (typeof boxes === "string") return boxes;
  return boxes.find((route) => meets(route.when, supply))?.tags ?? "";
}

function usesCreditBoxes(document: DocumentInput, registration: RegistrationSetup | undefined): boolean {
  if (!registration) return true;
  const way = registration.options?.["creditNotes"] ?? packById(registration.pack).creditNotes ?? "statutory";
  if (way !== "later-period") return way === "statutory";
  return correctsEarlierPeriod(document, registration);
}

/** A document that is named but not in the books was there before the books: it belongs to an earlier period. */
function correctsEarlierPeriod(document: DocumentInput, registration: RegistrationSetup): boolean {
  if (!document.originalDate) return Boolean(document.corrects);
  const own = filingPeriodOn(registration, taxPointOf(document));
  return own !== undefined && document.originalDate < own.from;
}
