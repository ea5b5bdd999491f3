import type { CapitalItems } from "@fiscalon/core/model/capitalItem";
import type { SchemeDefinition, SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import type { Direction } from "@fiscalon/core/model/taxCode";
import type { SchemeFact } from "@fiscalon/core/schemes/turnoverRate";

/** What a workpaper is of: a scheme that is in force, or the list of capital items. */
export type Workpaper = Pick<SchemeDefinition, "id" | "name" | "levies" | "settings" | "note" | "source"> & {
  rule: SchemeDefinition["rule"] | CapitalItems;
};

/** A scheme whose supplies are on a return, with its workpaper. */
export interface SchemeOnReturn {
  definition: Workpaper;
  /** When it was in force, with the answers of each time. */
  spans: readonly SchemeInForce[];
  facts: readonly SchemeFact[];
  result: SchemeResult;
  setAside: readonly SetAside[];
  gain: number;
}

/** Facts of a code that are on no return because of a scheme; minor units. */
export interface SetAside {
  code: string;
  direction: Direction;
  count: number;
  net: number;
  tax: number;
  /** What of it would be deducted. */
  recoverable: number;
}
