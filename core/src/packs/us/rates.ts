import { namesOf, schedulesOf } from "../shared/codeRows.ts";
import { BODIES, REDUCED } from "./jurisdictions.ts";

export const schedules = schedulesOf("us", {
  ...Object.fromEntries(BODIES.map(({ id, rows }) => [id, rows])),
  ...Object.fromEntries(REDUCED.map(({ schedule, rows }) => [schedule, rows])),
});

/** What the schedules are called. */
export const rateNames = namesOf("us", {
  ...Object.fromEntries(BODIES.map(({ id, name }) => [id, name])),
  ...Object.fromEntries(REDUCED.map(({ schedule, name }) => [schedule, name])),
});
