import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import type { ReturnScope } from "./queries.ts";

/**
 * What a scheme comes to over the times it was in force, each worked out by itself: from its first day to its last, or to
 * the end of the scope.
 */
export async function overSpans(
  spans: readonly SchemeInForce[],
  scope: ReturnScope,
  resultOf: (scheme: SchemeInForce, last: string) => Promise<SchemeResult>,
): Promise<SchemeResult> {
  const results: SchemeResult[] = [];
  for (const scheme of spans.filter((span) => span.from <= scope.to)) {
    const last = scheme.to !== null && scheme.to < scope.to ? scheme.to : scope.to;
    results.push(await resultOf(scheme, last));
  }
  return {
    steps: results.flatMap(({ steps }) => steps),
    owed: results.reduce((sum, { owed }) => sum + owed, 0),
  };
}
