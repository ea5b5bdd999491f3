import { namesOf, schedulesOf } from "../shared/codeRows.ts";

const RELIEF = "UStG § 28, Second Corona Tax Relief Act";
const before = (rate: string) => ({ from: "2007-01-01", to: "2020-06-30", rate, source: "UStG § 12" });
const after = (rate: string) => ({ from: "2021-01-01", to: null, rate, source: "UStG § 12" });
const between = (rate: string) => ({ from: "2020-07-01", to: "2020-12-31", rate, source: RELIEF });

/** STD and RED run through; R19 and R7 have a gap in the second half of 2020, R16 and R5 fill it. */
export const schedules = schedulesOf("eu-de", {
  STD: [before("19"), between("16"), after("19")],
  RED: [before("7"), between("5"), after("7")],
  R19: [before("19"), after("19")],
  R7: [before("7"), after("7")],
  R16: [between("16")],
  R5: [between("5")],
  ZERO: [{ from: "2007-01-01", to: null, rate: "0", source: "UStG § 4, § 12(3)" }],
});

/** What the schedules are called. */
export const rateNames = namesOf("eu-de", {
  STD: "Standard rate",
  RED: "Reduced rate",
  R19: "19 %",
  R7: "7 %",
  R16: "16 %, second half of 2020",
  R5: "5 %, second half of 2020",
  ZERO: "Zero rate",
});
