import { replaceEqualDeep } from "@tanstack/react-query";

/** The header that says how far the audit trail goes that an answer was read from, and how far a sender had seen it. */
export const SEEN = "audit-entry";

const seen = new WeakMap<object, number>();

/** The last entry of the audit trail at the time an object was read; what was changed after it is not in it. */
export function seenOf(read: object | null | undefined): number | undefined {
  return read ? seen.get(read) : undefined;
}

/** Notes for an answer and all objects in it how far the audit trail went; never less than is noted already. */
export function noteSeen(answer: unknown, entry: number): void {
  if (typeof answer !== "object" || answer === null) return;
  const before = seen.get(answer);
  if (before !== undefined && before >= entry) return;
  seen.set(answer, entry);
  for (const inside of Object.values(answer)) noteSeen(inside, entry);
}

/** What stays the same when a query is asked anew stays the same object, and is as new as the answer that says so. */
export function sharedAnswer(old: unknown, fresh: unknown): unknown {
  const shared = replaceEqualDeep<unknown>(old, fresh);
  const entry = typeof fresh === "object" && fresh !== null ? seen.get(fresh) : undefined;
  if (entry !== undefined) noteSeen(shared, entry);
  return shared;
}
