import { agreement } from "@fiscalon/core/agree/agreement";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRows } from "@fiscalon/core/findings/periodRows";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { apartSums } from "../agree/balances/apart.ts";
import { authorityFigures } from "../agree/balances/authority.ts";
import { uncodedEntries } from "../agree/controlAgreement.ts";
import type { ClientSetup } from "../loadSetup.ts";

type Rest = PeriodRows["agreementRests"][number];

/**
 * What entries without a code leave on the control accounts of a period, and what a typed balance of the authority leaves,
 * where nobody has explained it or accepted it under Agree. Other balances are by cause, and leave nothing.
 */
export async function agreementRests(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  period: FilingPeriod,
): Promise<Rest[]> {
  const rests = [await controlRest(work, setup, r, period), await authorityRest(work, setup, r, period)];
  const left = rests.filter(({ rest }) => rest !== 0);
  if (left.length === 0) return [];
  const accepted = await work.rows<{ kind: string; rest: number }>(
    `SELECT kind, rest FROM agreements WHERE registration_id = $1 AND span_from = $2 AND span_to = $3`,
    [r.id, period.from, period.to],
  );
  return left.filter(
    ({ id, rest }) => !accepted.some((one) => one.kind === id && Math.abs(one.rest) === Math.abs(rest)),
  );
}

async function controlRest(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  period: FilingPeriod,
): Promise<Rest> {
  const entries = await uncodedEntries(work, setup, r, period);
  const rest = entries.reduce((sum, { amount, reason }) => sum + (reason === null ? amount : 0), 0);
  return { id: "control", name: "Control accounts", rest, where: "Control accounts" };
}

/** Of a balance that was typed for a day of the period. */
async function authorityRest(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  { from, to }: FilingPeriod,
): Promise<Rest> {
  const none = { id: `authority/${r.id}`, name: "Account at the authority", rest: 0, where: "Balances" };
  const figures = await authorityFigures(work, setup, r, to);
  if (!figures || figures.on < from) return none;
  const sums = await apartSums(work, figures.tables);
  const { rest } = agreement(
    figures.left,
    figures.right,
    sums.map(({ cause, ...sum }) => ({ cause: { id: cause, name: cause, found: "rule" as const }, ...sum })),
  );
  return { ...none, rest };
}
