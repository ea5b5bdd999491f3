import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PeriodRows } from "@fiscalon/core/findings/periodRows";
import { returnOf, stretchesOf } from "@fiscalon/core/schemes/capitalItems";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { aroundOf, capitalRuleOf, itemsOf } from "../capital/items.ts";
import { unlistedPurchases } from "../capital/unlisted.ts";

/**
 * What a return lacks of capital items: shares of use, and items that are on no list.
 * @param used the codes that are on the return
 */
export async function capitalGaps(
  work: Work,
  r: RegistrationRecord,
  { to: end }: FilingPeriod,
  used: ReadonlySet<string>,
): Promise<Pick<PeriodRows, "capitalShares" | "capitalUnlisted">> {
  const rule = capitalRuleOf(work, r);
  if (!rule) return { capitalShares: [], capitalUnlisted: [] };
  const items = await itemsOf(work, r);
  const around = aroundOf(work, r);
  const capitalShares =
    rule.share === "turnover"
      ? []
      : items.flatMap((item) =>
          stretchesOf(rule, item, around)
            .filter((stretch) => item.ended === null || stretch.from <= item.ended.on)
            .filter(({ to }) => item.uses[to] === undefined && returnOf(rule, to, around) === end)
            .map(({ to }) => ({ no: item.no, name: item.name, to })),
        );
  const capitalUnlisted = rule.suggested.some((code) => used.has(code))
    ? await unlistedPurchases(work, r, rule, items, end)
    : [];
  return { capitalShares, capitalUnlisted };
}
