import type { StatementBrief } from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import { UNDECIDED } from "./matchStatement.ts";
import { statementKinds } from "./statementKinds.ts";

/** Of a side its tax where the list tells it, the whole amount where it does not. */
const sideOf = (side: "ours" | "theirs") =>
  `CASE WHEN s.basis = 'gross' THEN m.${side}_value ELSE m.${side}_tax END`;

/** SQL of lists in brief, `more` of each, those that `which` says. */
export const briefs = (
  more: string,
  which: string,
) => `SELECT ${more} s.id, s.kind, s.name, coalesce(c.name, '') AS party,
    s.period_end AS periodEnd, s.drawn_on AS drawnOn, s.created_at AS createdAt, s.stamp IS NOT NULL AS matched,
    (SELECT count(*) FROM statement_rows t WHERE t.statement_id = s.id) AS rows,
    coalesce(sum(${UNDECIDED}), 0) AS undecided, coalesce(sum(m.outcome IN ('agreed', 'tolerance')), 0) AS agreed,
    coalesce(sum(${sideOf("ours")}), 0) AS ours, coalesce(sum(${sideOf("theirs")}), 0) AS theirs,
    coalesce(sum(${sideOf("theirs")} - ${sideOf("ours")}), 0) AS apart,
    coalesce(sum(CASE WHEN ${UNDECIDED} THEN ${sideOf("theirs")} - ${sideOf("ours")} END), 0) AS apartOpen
  FROM statements s LEFT JOIN contacts c ON c.id = s.contact_id LEFT JOIN match_lines m ON m.statement_id = s.id
  WHERE ${which} GROUP BY s.id ORDER BY s.period_end DESC, s.id DESC`;

/** A list in brief as the database gives it. */
export type BriefRow = Omit<StatementBrief, "title" | "matched"> & { matched: number };

/** The lists alone, newest first: all, or those of periods that end within a span. */
export async function statementBriefs(
  work: Work,
  r: RegistrationRecord,
  within?: { from: string; to: string },
): Promise<StatementBrief[]> {
  const kinds = statementKinds(work, r);
  const { from, to } = within ?? { from: "", to: "9999-12-31" };
  const rows = await work.rows<BriefRow>(
    briefs("", "s.registration_id = $1 AND s.period_end BETWEEN $2 AND $3"),
    [r.id, from, to],
  );
  return rows.map((row) => ({ ...row, matched: row.matched === 1, title: titleOf(kinds, row.kind) }));
}

function titleOf(kinds: readonly { id: string; title: string }[], id: string): string {
  return kinds.find((kind) => kind.id === id)?.title ?? id;
}
