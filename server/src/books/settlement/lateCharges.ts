import type { LateCharge } from "@fiscalon/core/model/lateCharge";
import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import { lateCharges } from "@fiscalon/core/returns/lateCharges";
import { TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import type { LateView, SettlementView } from "@fiscalon/contract/settlement";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { dueDates } from "../returns/dueDates.ts";
import { periodRule } from "../returns/periodRule.ts";
import { schedulesOf } from "../returns/schedules.ts";
import { headFigures } from "./headFigures.ts";

/**
 * What the law charges as things stand today: for paying late, and for filing late as long as the return is not filed. What
 * was recorded of each kind stands beside it.
 */
export async function lateView(
  work: Work,
  r: RegistrationRecord,
  end: string,
  {
    filed,
    net,
    boxes,
    payments,
  }: {
    filed: boolean;
    net: number;
    boxes: readonly BoxResult[];
    payments: SettlementView["payments"];
  },
): Promise<LateView[]> {
  const pack = work.packs.byId(r.pack);
  const { frequency } = rhythmOn(periodRule(r), end);
  const rules = (pack.late ?? []).filter(
    ({ on, levies, frequencies }) =>
      (on === "payment" || !filed) &&
      (levies === undefined || levies.some((levy) => r.levies.includes(levy))) &&
      (frequencies?.includes(frequency) ?? true),
  );
  if (rules.length === 0) return [];
  const digits = minorDigits(pack.currency);
  const days = dueDates(work, r, end);
  const money = payments.filter(({ kind }) => TAX_PAYMENT_KINDS[kind].column === "paid");
  const owedOf = ({ heads }: LateCharge): Record<string, number> =>
    heads === undefined
      ? { "": net }
      : Object.fromEntries(headFigures(work, r, end, heads, boxes).map(({ head, amount }) => [head, amount]));
  const charges = lateCharges(rules, { schedules: await schedulesOf(work, r), digits }, (rule) => ({
    ...days,
    filed: null,
    owed: owedOf(rule),
    payments: money,
    today: work.today,
  }));
  return charges.map(({ rule, amount, arithmetic }) => ({
    id: rule.id,
    name: rule.name,
    kind: rule.kind,
    on: rule.on,
    since: rule.on === "filing" ? days.due : days.payBy,
    amount,
    arithmetic,
    says: rule.says,
    source: rule.source,
    doubt: rule.doubt ?? null,
  }));
}
