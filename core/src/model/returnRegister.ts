import type { DocumentKind } from "./documentKinds.ts";

/** What supplies are called in a file, by the beginning of their code; an empty one fits all. */
export type NamesByCode = readonly (readonly [beginning: string, name: string])[];

/** The names of supplies to registered customers, to others, and of exports. */
export interface SupplyNames {
  registered: NamesByCode;
  unregistered: NamesByCode;
  exported: NamesByCode;
}

/**
 * A list that goes with a return and is no sum of boxes.
 * - `commodities`: what was sold by statistical code, unit and rate, in lists by the boxes its lines land in; `digits`:
 *   how many of the code are told, by an option of the registration; from `unitFrom` on a unit belongs to goods only.
 * - `issued`: the numbers of documents that were given out, by nature of the document.
 * - `members`: what was sold by member of consumption, kind of supply, where from, and rate, and corrections by period.
 * - `supplies`: each supply by itself, as the records of it are asked for.
 * - `upload`: the documents of the period as the file the portal takes, with the lists of these registers in it.
 * - `lines`: lines with some codes, with the other side's number and the paper that an attribute names; `asks`: what
 *   is missing where a line has neither, for a sentence.
 * `onlyFor`: it goes with returns of registrations for one of these only.
 */
export type ReturnRegister = { id: string; name: string; source: string; onlyFor?: readonly string[] } & (
  | {
      kind: "commodities";
      lists: readonly { name: string; boxes: readonly string[] }[];
      levies: readonly { name: string; levies: readonly string[] }[];
      digits: { option: string; values: Readonly<Record<string, number>> };
      /** Codes that begin so are services, which have no unit. */
      services: string;
    }
  | { kind: "upload"; commodities: string; issued: string; names: SupplyNames }
  | { kind: "members" }
  | { kind: "supplies" }
  | { kind: "lines"; codes: readonly string[]; attribute: string; asks: string }
  | { kind: "issued"; natures: Partial<Record<DocumentKind, string>> }
);
