import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { CapitalItem, CapitalItems } from "@fiscalon/core/model/capitalItem";
import { capitalItemsOf } from "@fiscalon/core/model/capitalItem";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { CapitalAround } from "@fiscalon/core/schemes/capitalItems";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodRule } from "../returns/periodRule.ts";

/** An item as the books hold it. */
export interface KeptItem extends CapitalItem {
  evidence: string;
}

type Row = Omit<KeptItem, "taxes" | "uses" | "ended"> &
  Record<"taxes" | "uses", string> & { ended: string | null };

/** The capital items of a registration by their number. */
export async function itemsOf(work: Work, r: Pick<RegistrationRecord, "id">): Promise<KeptItem[]> {
  const rows = await work.rows<Row>(
    `SELECT no, name, kind, first_use AS firstUse, net, taxes, share, year_ends AS yearEnds, uses, ended, evidence
     FROM capital_items WHERE registration_id = $1 ORDER BY no`,
    [r.id],
  );
  return rows.map(({ taxes, uses, ended, ...row }) => ({
    ...row,
    taxes: JSON.parse(taxes) as KeptItem["taxes"],
    uses: JSON.parse(uses) as KeptItem["uses"],
    ended: ended === null ? null : (JSON.parse(ended) as KeptItem["ended"]),
  }));
}

/** The rule of the jurisdiction of a registration, where it has one for a levy of it. */
export function capitalRuleOf({ packs }: Work, r: RegistrationRecord): CapitalItems | undefined {
  return capitalItemsOf(packs.byId(r.pack), r.levies);
}

/** What adjustments of a registration are worked out from. */
export function aroundOf(work: Work, r: RegistrationRecord): CapitalAround {
  const rule = periodRule(r);
  return {
    periodOn: (day) => filingPeriodOn(rule, day),
    digits: minorDigits(work.packs.byId(r.pack).currency),
  };
}
