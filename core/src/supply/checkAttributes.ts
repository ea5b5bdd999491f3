import { distance } from "fastest-levenshtein";
import { requireDate } from "../calendar/date.ts";
import { FiscalError, withinField } from "../errors.ts";
import { RATE_DAY } from "../model/document.ts";
import type { DocumentInput } from "../model/document.ts";
import { knownAttributes } from "../model/lineAttributes.ts";
import type { CodeFinder } from "./chooseCode.ts";

/**
 * Refuses attributes that nothing reads, so that a figure under a misspelt name is not lost, and days that are none.
 * @throws FiscalError `document/unknown-attribute` with the path of the attribute, naming the nearest known one,
 *   `calendar/not-a-date`
 */
export function checkAttributes({ lines }: DocumentInput, { codes, packs }: CodeFinder): void {
  if (lines.every((line) => line.attributes === undefined)) return;
  const places = packs.all.flatMap(({ placeAttribute }) => placeAttribute ?? []);
  const known = knownAttributes(codes, places);
  lines.forEach(({ attributes = {} }, index) => {
    const day = attributes[RATE_DAY];
    if (day !== undefined && day !== "")
      withinField(`lines[${index}].attributes.${RATE_DAY}`, () => requireDate(day));
    const unknown = Object.keys(attributes).find((name) => !known.has(name));
    if (unknown === undefined) return;
    throw new FiscalError(
      "document/unknown-attribute",
      `A line has no attribute "${unknown}". Did you mean "${nearest(unknown, known)}"?`,
      `lines[${index}].attributes.${unknown}`,
    );
  });
}

function nearest(name: string, known: ReadonlySet<string>): string {
  const [first = name] = [...known].sort((a, b) => distance(name, a) - distance(name, b));
  return first;
}
