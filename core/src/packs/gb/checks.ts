import type { PackCheck } from "../../model/pack.ts";
import { BOTH_SIDES } from "../shared/checks.ts";

/** What is checked before filing here and not everywhere; where the rules stand is told in claims.ts. */
export const checks: PackCheck[] = [
  BOTH_SIDES,
  {
    id: "box-6-purchase",
    kind: "not-in-box",
    direction: "purchase",
    treatment: "import",
    box: "6",
    says: "{where}: code {code} counts an import as turnover. Imports do not belong in box 6.",
  },
  {
    id: "import-certificate",
    kind: "attribute",
    codes: ["IMP"],
    attribute: "certificate",
    says: "{where}: {tax} paid at the border, but no certificate (C79) is noted on the line.",
  },
  {
    id: "northern-ireland",
    kind: "only-from",
    boxes: ["2", "8", "9"],
    region: "NIR",
    says: "Boxes {boxes} hold goods between Northern Ireland and the EU. Accept if {client} trades from Northern Ireland; otherwise use the export and import codes.",
  },
];
