import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRows } from "@fiscalon/core/findings/periodRows";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { uncodedEntries } from "../agree/controlAgreement.ts";
import type { ClientSetup } from "../loadSetup.ts";

/**
 * What entries without a code leave on the control accounts of a period, where nobody has explained it or accepted it under
 * Agree. Reads the period alone; what balances leave is by cause, and nothing.
 */
export async function agreementRests(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  { from, to }: FilingPeriod,
): Promise<PeriodRows["agreementRests"]> {
  const entries = await uncodedEntries(work, setup, r, { from, to });
  const rest = entries.reduce((sum, { amount, reason }) => sum + (reason === null ? amount : 0), 0);
  if (rest === 0) return [];
  const accepted = await work.row(
    `SELECT 1 FROM agreements WHERE registration_id = $1 AND kind = 'control' AND span_from = $2 AND span_to = $3
       AND abs(rest) = $4`,
    [r.id, from, to, Math.abs(rest)],
  );
  return accepted ? [] : [{ id: "control", name: "Control accounts", rest, where: "Control accounts" }];
}
