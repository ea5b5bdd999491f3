/** How long a pause in typing is, in milliseconds: what is looked for is asked for then, not at every key. */
export const PAUSE_MS = 200;
