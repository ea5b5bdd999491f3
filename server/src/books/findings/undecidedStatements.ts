import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRows } from "@fiscalon/core/findings/periodRows";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { UNDECIDED } from "../agree/statements/matchStatement.ts";
import { statementKinds } from "../agree/statements/statementKinds.ts";

/** Lists of others for a period with lines nobody has decided, and what these come to. */
export async function undecidedStatements(
  work: Work,
  r: RegistrationRecord,
  { from, to }: FilingPeriod,
): Promise<PeriodRows["undecided"]> {
  const rows = await work.rows<{
    statement: number;
    kind: string;
    party: string;
    lines: number;
    apart: number;
  }>(
    `SELECT s.id AS statement, s.kind, coalesce(c.name, '') AS party, count(*) AS lines,
       sum(CASE WHEN s.basis = 'gross' THEN m.theirs_value - m.ours_value ELSE m.theirs_tax - m.ours_tax END) AS apart
     FROM statements s JOIN match_lines m ON m.statement_id = s.id LEFT JOIN contacts c ON c.id = s.contact_id
     WHERE s.registration_id = $1 AND s.period_end BETWEEN $2 AND $3 AND ${UNDECIDED} GROUP BY s.id ORDER BY s.id`,
    [r.id, from, to],
  );
  const titles = new Map(statementKinds(work, r).map(({ id, title }) => [id, title]));
  return rows.map(({ statement, kind, party, lines, apart }) => ({
    statement,
    name: [titles.get(kind), party].filter(Boolean).join(", "),
    lines,
    apart,
  }));
}
