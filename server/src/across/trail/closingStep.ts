import type { SettlementView } from "@fiscalon/contract/settlement";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import { FiscalError } from "@fiscalon/core/errors";
import { registrationIn } from "../../books/loadSetup.ts";
import { SEPARATELY } from "../../books/settlement/closingEntry.ts";
import { settlementView } from "../../features/settle/queries.ts";
import type { TrailScope } from "./trailScope.ts";

/**
 * A line of the closing entry before it is posted: what its other lines leave over, as for a gain or rounding; or the
 * late items that are put right separately.
 */
export async function closingStep(
  { work, setup }: TrailScope,
  [rid = "", end = "", account = "", separately]: string[],
  ref: string,
): Promise<TrailStep> {
  const view = await settlementView(work, setup, registrationIn(setup, rid), end);
  const line = view.entry.postings.find(
    (one) => one.account === account && one.text.endsWith(SEPARATELY) === (separately !== undefined),
  );
  if (!line) throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  const role = setup.plain.accounts.find(({ code }) => code === account)?.role;
  return {
    ref,
    title: `Closing entry: ${account} ${line.name}`,
    amount: line.amount,
    digits: setup.plain.digits,
    words: [
      separately === undefined
        ? `${line.text}: what the other lines of the entry leave over. Debit positive.`
        : `${line.text}. Debit positive.`,
    ],
    parts: separately === undefined ? otherLines(view, line) : lateItems(view, role ?? null),
    arithmetic: [],
    open: { label: "Settle", path: "settle" },
  };
}

type Line = SettlementView["entry"]["postings"][number];

function otherLines({ entry }: SettlementView, line: Line): TrailPart[] {
  return entry.postings
    .filter((one) => one !== line)
    .map((one) => ({
      ref: one.ref,
      label: `${one.account} ${one.name}`,
      detail: `${one.text}, the other way`,
      amount: -one.amount,
    }));
}

/** Documents that are put right apart from the return, each with what it moves on an account of this role. */
function lateItems({ late }: SettlementView, role: string | null): TrailPart[] {
  return late
    .filter(({ separately }) => separately)
    .map(({ document, number, party, output, input }) => ({
      ref: `document/${document}`,
      label: number,
      detail: party,
      amount: role === "output-tax" ? output : role === "input-tax" ? -input : input - output,
    }))
    .filter(({ amount }) => amount !== 0);
}
