import type { TrailStep } from "@fiscalon/contract/trail";
import { FiscalError } from "@fiscalon/core/errors";
import { registrationIn } from "../../books/loadSetup.ts";
import { settlementView } from "../../features/settle/queries.ts";
import type { TrailScope } from "./trailScope.ts";

/** What the closing entry will put on an account that takes what its other lines leave over: a gain, or rounding. */
export async function closingStep(
  { work, setup }: TrailScope,
  [rid = "", end = "", account = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const { entry } = await settlementView(work, setup, registrationIn(setup, rid), end);
  const own = entry.postings.filter((posting) => posting.account === account);
  const [first] = own;
  if (!first) throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  return {
    ref,
    title: `Closing entry: ${account} ${first.name}`,
    amount: own.reduce((sum, { amount }) => sum + amount, 0),
    digits: setup.plain.digits,
    words: [`${first.text}: what the other lines of the entry leave over. Debit positive.`],
    parts: entry.postings
      .filter((posting) => posting.account !== account)
      .map((posting) => ({
        ref: posting.ref,
        label: `${posting.account} ${posting.name}`,
        detail: `${posting.text}, the other way`,
        amount: -posting.amount,
      })),
    arithmetic: [],
    open: { label: "Settle", path: "settle" },
  };
}
