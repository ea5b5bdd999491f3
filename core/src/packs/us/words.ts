import { PLAIN_WORDS } from "../shared/paperWords.ts";

/** No law says how a sales invoice of a state calls itself. */
export const words = PLAIN_WORDS;
