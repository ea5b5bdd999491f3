import type { InstalmentRule } from "../../model/instalments.ts";
import { WHOLE_CUT } from "../shared/formBoxes.ts";
import { due } from "./calendar.ts";

const plan = {
  frequency: "annual",
  due: due.filter(({ frequencies }) => frequencies === undefined),
  way: "varied",
  rounding: WHOLE_CUT,
  labels: { asked: "G21", estimate: "G22", varied: "G23", reason: "G24", due: "1A" },
  warnBelow: "85",
  says: "What the authority asks for at G21, or, varied, the estimate of the year at G22 up to the quarter less what was due for earlier ones. The annual return takes the rest.",
  source: "GSTA Div 162",
} as const;

/** GST paid by instalments, against an annual return. */
export const instalments: InstalmentRule[] = [
  {
    id: "quarterly",
    name: "GST instalments",
    options: [["gstInstalments", "quarterly"]],
    parts: [3, 6, 9, 12].map((months) => ({ months, share: "25" })),
    ...plan,
  },
  {
    id: "two",
    name: "GST instalments, two a year",
    options: [["gstInstalments", "two"]],
    parts: [
      { months: 9, share: "75" },
      { months: 12, share: "25" },
    ],
    ...plan,
    source: "GSTA s 162-80: primary producers and special professionals; from memory",
  },
];
