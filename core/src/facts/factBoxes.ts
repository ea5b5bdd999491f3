import { filingPeriodOn } from "../calendar/filingPeriods.ts";
import type { Packs } from "../model/packs.ts";
import { exactFromDecimal, exactFromInteger, compare } from "../money/exact.ts";
import { meets } from "../model/circumstances.ts";
import type { Circumstances } from "../model/circumstances.ts";
import { regionTag } from "../supply/regions.ts";
import { rateDateOf, taxPointOf } from "../model/document.ts";
import type { DocumentInput } from "../model/document.ts";
import type { PricedDocument, PricedLine } from "../model/pricedDocument.ts";
import { rowInForce } from "../tax/rateInForce.ts";
import type { Boxes, Component, Direction } from "../model/taxCode.ts";
import type { FactSetup } from "./factSetup.ts";
import { optionsOn } from "../model/registration.ts";
import type { RegistrationSetup } from "../model/registration.ts";

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
  const limit = line.code?.limit;
  if (limit === undefined) return line.circumstances;
  const size = (gross: number, on: string) => sizeOf(gross, limit, on, setup);
  const original = document.originalGross;
  return {
    ...line.circumstances,
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

/** Where a component of a line lands, and once its period is sealed: tags in the notation of boxTags.ts, empty for nowhere. */
export function factTags(
  component: Component,
  direction: Direction,
  supply: Circumstances,
  registration: RegistrationSetup | undefined,
  document: DocumentInput,
  packs: Packs,
): { tags: string; lateTags?: string } {
  const { boxes } = component;
  const ofCredit = direction === "sale" ? boxes.saleCredit : boxes.purchaseCredit;
  const landing =
    supply["note"] === "credit" && ofCredit !== undefined && usesCreditBoxes(document, registration, packs)
      ? ofCredit
      : boxes[direction];
  const tagsOf = (way: Boxes | undefined) => filledIn(routed(way, supply), supply, packs);
  const ofLate = direction === "sale" ? boxes.saleLate : undefined;
  return { tags: tagsOf(landing), ...(ofLate === undefined ? {} : { lateTags: tagsOf(ofLate) }) };
}

/** Tags with the braces filled in: `{placeTag}` by the tag of our region, others by the circumstance. */
function filledIn(tags: string, supply: Circumstances, packs: Packs): string {
  if (!tags.includes("{")) return tags;
  return tags.replace(/\{(@?\w+)\}/g, (_, key: string) => {
    const value =
      key === "placeTag"
        ? regionTag(packs.ofCountry(supply["home"] ?? ""), supply["place"] ?? "")
        : supply[key];
    return value === undefined || value === "" ? "?" : value;
  });
}

function routed(boxes: Boxes | undefined, supply: Circumstances): string {
  if (boxes === undefined) return "";
  if (typeof boxes === "string") return boxes;
  const route = boxes.find(({ when }) => meets(when, supply));
  return route === undefined ? "" : route.tags;
}

function usesCreditBoxes(
  document: DocumentInput,
  registration: RegistrationSetup | undefined,
  packs: Packs,
): boolean {
  if (!registration) return true;
  const pack = packs.byId(registration.pack);
  const ofLevy = pack.levies.find(({ levy }) => registration.levies.includes(levy))?.creditNotes;
  const way =
    ofLevy ?? optionsOn(pack, registration, taxPointOf(document))["creditNotes"] ?? pack.creditNotes;
  if (way !== "later-period") return way === "statutory";
  return correctsEarlierPeriod(document, registration);
}

/** A document that is named but not in the books was there before the books: it belongs to an earlier period. */
function correctsEarlierPeriod(document: DocumentInput, registration: RegistrationSetup): boolean {
  if (!document.originalDate) return Boolean(document.corrects);
  const period = filingPeriodOn(registration, taxPointOf(document));
  return period !== undefined && document.originalDate < period.from;
}
