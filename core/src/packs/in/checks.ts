import type { PackCheck } from "../../model/pack.ts";
import { SLABS } from "./rates.ts";

/** What is checked before filing here and not everywhere. */
export const checks: PackCheck[] = [
  {
    id: "operator-supplier",
    kind: "attribute",
    codes: SLABS.map(({ value }) => `EO${value}`),
    attribute: "supplier",
    says: "{where}: table 15 asks who supplies through the operator. Note the GSTIN on the line, or URP where there is none; until then it stands with the registered.",
  },
];
