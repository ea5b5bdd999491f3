import type { MatchDecisions } from "@fiscalon/core/agree/matching/matchRow";
import type { Decision } from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";

/** What a person said of rows, by their keys. */
export interface KeptDecision {
  id: number;
  decision: Decision;
  /** Last day of the list on which it was said. */
  end: string;
  ours: string[];
  theirs: string[];
}

/** Which lists a decision is about: of a kind under a registration, of one party where they are of one. */
export interface ListsOf {
  registration: number;
  kind: string;
  contact: number | null;
}

/** Everything people said of such lists, oldest first. */
export async function decisionsOf(
  work: Work,
  { registration, kind, contact }: ListsOf,
): Promise<KeptDecision[]> {
  const rows = await work.rows<Omit<KeptDecision, "ours" | "theirs"> & { ours: string; theirs: string }>(
    `SELECT id, decision, period_end AS end, ours, theirs FROM match_decisions
     WHERE registration_id = $1 AND kind = $2 AND contact_id IS $3 ORDER BY id`,
    [registration, kind, contact],
  );
  return rows.map(({ ours, theirs, ...row }) => ({
    ...row,
    ours: JSON.parse(ours) as string[],
    theirs: JSON.parse(theirs) as string[],
  }));
}

/** How a line is told by its rows. */
export function lineKey({ ours, theirs }: { ours: readonly string[]; theirs: readonly string[] }): string {
  return JSON.stringify([[...ours].sort(), [...theirs].sort()]);
}

/** What decisions mean to the matching of a list that ends on a day: what is settled elsewhere takes no part any more. */
export function forMatching(
  decisions: readonly KeptDecision[],
  end: string,
): MatchDecisions & { goneOurs: ReadonlySet<string>; goneTheirs: ReadonlySet<string> } {
  const settled = decisions.filter(({ decision }) => SETTLED.has(decision));
  const before = settled.filter((one) => one.end < end);
  const here = settled.filter((one) => one.end >= end);
  return {
    together: here.filter(({ ours, theirs }) => ours.length > 0 && theirs.length > 0),
    apart: decisions
      .filter(({ decision }) => decision === "apart")
      .flatMap((one) => one.ours.flatMap((ours) => one.theirs.map((theirs) => ({ ours, theirs })))),
    goneOurs: new Set(before.flatMap(({ ours }) => ours)),
    goneTheirs: new Set(before.flatMap(({ theirs }) => theirs)),
  };
}

/** After these nothing is left to be done about a row. */
const SETTLED: ReadonlySet<Decision> = new Set<Decision>(["agreed", "pair", "not-ours"]);
