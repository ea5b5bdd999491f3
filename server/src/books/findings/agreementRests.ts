import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRows } from "@fiscalon/core/findings/periodRows";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { balanceViews } from "../agree/balances/balances.ts";
import { controlAgreement } from "../agree/controlAgreement.ts";
import type { ClientSetup } from "../loadSetup.ts";

/** What control accounts and balances leave unexplained in a period, where nobody has accepted that under Agree. */
export async function agreementRests(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  { from, to }: FilingPeriod,
): Promise<PeriodRows["agreementRests"]> {
  const { left } = await controlAgreement(work, setup, r, to);
  const balances = await balanceViews(work, setup, to < work.today ? to : work.today);
  const all = [
    { id: "control", name: "Control accounts", rest: left === 0 ? 0 : -left, where: "Control accounts" },
    ...balances.map(({ id, name, rest }) => ({ id, name, rest, where: "Balances" })),
  ].filter(({ rest }) => rest !== 0);
  if (all.length === 0) return [];
  const accepted = await work.rows<{ kind: string; rest: number }>(
    `SELECT kind, rest FROM agreements WHERE registration_id = $1 AND span_from = $2 AND span_to = $3`,
    [r.id, from, to],
  );
  return all.filter(({ id, rest }) => !accepted.some((one) => one.kind === id && one.rest === rest));
}
