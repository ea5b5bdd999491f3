import type { SchemeDefinition } from "../../model/scheme.ts";

/** What is asked when a pool begins, and when it ends. */
export const POOL_SETTINGS: SchemeDefinition["settings"] = [
  { id: "openingStock", name: "Stock at cost when it begins", holds: "amount", values: [] },
  { id: "brought", name: "Negative margin brought along", holds: "amount", values: [] },
];
export const CLOSING_STOCK: SchemeDefinition["settings"][number] = {
  id: "closingStock",
  name: "Stock at cost when it is left",
  holds: "amount",
  values: [],
};
