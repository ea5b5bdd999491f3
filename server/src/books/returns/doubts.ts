import { doubtOfDue } from "@fiscalon/core/jurisdictions/doubts";
import type { Doubt } from "@fiscalon/core/jurisdictions/doubts";
import { doubtsOfBoxes, doubtsOfUses } from "@fiscalon/core/jurisdictions/doubtsInUse";
import type { CodeUse } from "@fiscalon/core/jurisdictions/doubtsInUse";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { dueRuleOf } from "./dueDates.ts";
import { formOf } from "./evaluation.ts";

interface UseRow {
  code: string;
  levies: string;
  from: string;
  to: string;
}

/** The figures to be looked up that a return rests on: of the rates and codes of its lines, of its boxes, of its day. */
export async function doubtsOfReturn(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  boxes: readonly { box: string; amount: number }[],
): Promise<Doubt[]> {
  const book = { schedules: setup.plain.schedules, rateName: (id: string) => work.packs.rateName(id) };
  const due = dueRuleOf(work, r, end);
  return [
    ...doubtsOfUses(await codeUses(work, setup, r.id, end), work.packs, book),
    ...doubtsOfBoxes(formOf(work, r, end), boxes, end, book),
    ...(due ? doubtOfDue(due) : []),
  ];
}

/** The codes of a period's facts, with the levies that bore tax and the days between which they did. */
async function codeUses(
  work: Work,
  setup: ClientSetup,
  registrationId: number,
  end: string,
): Promise<CodeUse[]> {
  const rows = await work.remembered("code uses", [registrationId, end], (work) =>
    work.rows<UseRow>(
      `SELECT code, json_group_array(DISTINCT levy) AS levies, min(tax_point) AS "from", max(tax_point) AS "to"
       FROM facts WHERE registration_id = $1 AND period_end = $2 AND live = 1 GROUP BY code`,
      [registrationId, end],
    ),
  );
  return rows.flatMap(({ code: name, levies, from, to }) => {
    const code = setup.effect.codes.get(name);
    return code ? [{ code, levies: JSON.parse(levies) as string[], from, to }] : [];
  });
}
