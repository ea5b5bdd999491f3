import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted, byCost } from "../shared/capitalItems.ts";
import { commonCredit, HEADS } from "./commonCredit.ts";

const { rule } = commonCredit;

/** Capital goods of common use, rule 43. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: Object.keys(HEADS),
  kinds: [byCost("goods", "capital goods of common use", 5, 0)],
  time: "months",
  share: "turnover",
  ...(rule.kind === "attribution" ? { ratio: rule.ratio } : {}),
  yearEnds: { usual: 3, fixed: true },
  reported: "with",
  boxes: Object.fromEntries(
    Object.entries(HEADS).map(([levy, head]) => [levy, adjusted(`-4B1.${head}`, `+4B1.${head}`)]),
  ),
  suggested: [],
  says: "Credit of capital goods that serve both taxable and exempt supplies falls on 60 months; of each the share of exempt turnover is taken back in 4B1, head by head. What is owed when they are sold (rule 44(6)) is typed.",
  source: "CGST Rules R.43",
};
