import { at } from "@fiscalon/core/at";
import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import { groupBy } from "@fiscalon/core/groupBy";
import type { Treatment } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import { describedGroups } from "../../returns/queries.ts";
import type { DescribedGroup } from "../../returns/queries.ts";

/** A code on a side of returns: value without tax once a line, its tax, and how many lines. Minor units. */
export interface CodeValue {
  code: string;
  treatment: Treatment;
  net: number;
  tax: number;
  rows: number;
}

/** What a side on the returns of some periods, by their ends, comes to by code. */
export async function valueByCode(
  work: Work,
  r: Pick<RegistrationRecord, "id" | "levies">,
  ends: readonly string[],
  of: BridgeOf,
): Promise<CodeValue[]> {
  const { direction } = BRIDGES[of];
  if (r.levies.length === 1) {
    const groups: DescribedGroup[] = [];
    for (const end of ends) groups.push(...(await describedGroups(work, r.id, end)));
    const own = groups.filter((group) => group.direction === direction);
    return [...groupBy(own, ({ code, treatment }) => `${code} ${treatment}`).values()].map(summed);
  }
  return work.rows<CodeValue>(
    `SELECT code, treatment, sum(CASE WHEN levy = first THEN net ELSE 0 END) AS net, sum(tax) AS tax, sum(levy = first) AS rows
     FROM (SELECT *, min(levy) OVER (PARTITION BY document_id, line) AS first FROM (
       SELECT document_id, line, levy, code, treatment, sum(net) AS net, sum(tax) AS tax FROM facts
       WHERE registration_id = $1 AND live = 1 AND held = 0 AND direction = $3
         AND period_end IN (SELECT value FROM json_each($2))
       GROUP BY document_id, line, levy)) GROUP BY code, treatment`,
    [r.id, JSON.stringify(ends), direction],
  );
}

function summed(groups: readonly DescribedGroup[]): CodeValue {
  const { code, treatment } = at(groups, 0);
  const sum = (figure: "net" | "tax" | "count") => groups.reduce((all, group) => all + group[figure], 0);
  return { code, treatment, net: sum("net"), tax: sum("tax"), rows: sum("count") };
}
