import { accountsOfRegion } from "@fiscalon/core/model/account";
import type { Posting } from "@fiscalon/core/model/posting";
import type { BoxResult, FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import { roundingAllowed } from "@fiscalon/core/returns/roundingAllowed";
import { differenceOf, settlementPostings } from "@fiscalon/core/returns/settlementPostings";
import type { SettledFigures } from "@fiscalon/core/returns/settlementPostings";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { boxesNow, evaluated, figuresOf, formOf } from "../returns/evaluation.ts";
import { schedulesOf } from "../returns/schedules.ts";
import { contentOfPeriod } from "../returns/schemes.ts";
import type { ReturnContent } from "../returns/schemes.ts";
import { adjustmentsOf, levyTotals, separateTotals } from "../returns/queries.ts";

/** How a line of the entry ends that is of what was put right apart from the return. */
export const SEPARATELY = ", put right separately";

/** The closing entry of a period as it would be posted now, or was. */
export async function closingEntry(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  net: number,
): Promise<Posting[]> {
  const { boxes, content } = await boxesNow(work, r, end);
  const figures = { ...(await settledFigures(work, r, end, boxes, content)), net };
  const declared = settlementPostings(
    await levyTotals(work, r.id, end),
    figures,
    accountsOfRegion(setup.plain.accounts, r.region),
  );
  const apart = await separateTotals(work, r.id, end);
  const owed = apart.reduce((sum, { output, input }) => sum + output - input, 0);
  const disclosed = settlementPostings(
    apart,
    { net: owed, adjustments: 0, allowance: 0, carried: 0, scheme: 0 },
    accountsOfRegion(setup.plain.accounts, r.region),
  );
  return [...declared, ...disclosed.map((one) => ({ ...one, text: `${one.text}${SEPARATELY}` }))];
}

async function settledFigures(
  work: Work,
  r: RegistrationRecord,
  end: string,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
  content: ReturnContent,
): Promise<SettledFigures> {
  const { net, allowance, carried, scheme } = figuresOf(work, r, end, boxes);
  const adjustments = await adjustedBy(work, r, end, content);
  return { net, allowance, carried, scheme: scheme + content.gain, adjustments };
}

/** What a return with these boxes comes to beyond its documents, and the most that rounding can explain; minor units. */
export async function apartFromLedger(
  work: Work,
  r: RegistrationRecord,
  end: string,
  boxes: readonly BoxResult[],
  groups: readonly FactGroup[],
): Promise<{ difference: number; allowed: number }> {
  const lines = groups.reduce((sum, { count }) => sum + count, 0);
  const content = await contentOfPeriod(work, r, end, groups);
  return {
    difference: differenceOf(
      await levyTotals(work, r.id, end),
      await settledFigures(work, r, end, boxes, content),
    ),
    allowed: roundingAllowed(formOf(work, r, end), lines, r.rounding),
  };
}

/** What adjustments change in what is owed: the return with them, less the return without. */
async function adjustedBy(
  work: Work,
  r: RegistrationRecord,
  end: string,
  content: ReturnContent,
): Promise<number> {
  const adjustments = await adjustmentsOf(work, r.id, end);
  if (adjustments.length === 0) return 0;
  const schedules = await schedulesOf(work, r);
  const net = (own: typeof adjustments) => {
    const boxes = evaluated(work, schedules, r, end, { ...content, adjustments: own });
    const { net: due, allowance, carried } = figuresOf(work, r, end, boxes);
    return due + allowance - carried;
  };
  return net(adjustments) - net([]);
}
