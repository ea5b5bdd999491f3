import { causeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRows } from "@fiscalon/core/findings/periodRows";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { apartGroups } from "../agree/turnover/apartRows.ts";

/** What of a period's income is on no return and has no cause, where nobody has accepted that under Agree. */
export async function turnoverGaps(
  work: Work,
  r: RegistrationRecord,
  { from, to }: FilingPeriod,
): Promise<PeriodRows["withoutCause"]> {
  const open = (await apartGroups(work, r, { from, to })).filter((group) => causeOf(group) === null);
  const amount = open.reduce((sum, { base, ledger }) => sum + base - ledger, 0);
  const rows = open.reduce((sum, group) => sum + group.rows, 0);
  if (rows === 0) return null;
  const accepted = await work.row(
    `SELECT 1 FROM agreements WHERE registration_id = $1 AND kind = $2 AND span_from = $3 AND span_to = $4 AND "open" = $5`,
    [r.id, "turnover", from, to, amount],
  );
  return accepted ? null : { rows, amount };
}
