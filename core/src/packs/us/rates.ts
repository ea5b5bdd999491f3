import { schedulesOf } from "../shared/codeRows.ts";
import { BODIES } from "./jurisdictions.ts";

export const schedules = schedulesOf("us", Object.fromEntries(BODIES.map(({ id, rows }) => [id, rows])));
