import { ApiError } from "../../api/client.ts";

/** What is posted only with a reason, by the code it is refused with. */
const CONFIRMED = {
  "document/duplicate-number": {
    field: "duplicateReason",
    title: "This number is already in the books",
    label: "Why there are two",
  },
  "document/far-date": { field: "farReason", title: "This date is far away", label: "Why it is right" },
} as const;
/** Why what looks mistyped is right, as it is sent. */
export type Reasons = Partial<Record<(typeof CONFIRMED)[keyof typeof CONFIRMED]["field"], string>>;

/** What a reason would confirm, where that is why something was refused. */
export function confirmedBy(error: Error | null) {
  return Object.entries(CONFIRMED).find(([code]) => error instanceof ApiError && error.code === code)?.[1];
}
