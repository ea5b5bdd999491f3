import { namesOf, schedulesOf } from "../shared/codeRows.ts";
import { BODIES } from "./jurisdictions.ts";

export const schedules = schedulesOf("us", Object.fromEntries(BODIES.map(({ id, rows }) => [id, rows])));

/** What the schedules are called. */
export const rateNames = namesOf("us", Object.fromEntries(BODIES.map(({ id, name }) => [id, name])));
