import { parseAmount } from "@fiscalon/core/money/amount";
import { FiscalError } from "@fiscalon/core/errors";
import type { AuthorityBalanceBody } from "@fiscalon/contract/authorityBalance";
import type { Writing } from "../../../base/work.ts";
import { keepAuthorityBalance } from "../../../books/agree/balances/keepAuthorityBalance.ts";
import { loadSetup, registrationIn } from "../../../books/loadSetup.ts";

/**
 * Keeps what the authority says is owed on a day, or takes it back.
 * @throws FiscalError `agree/balance-ahead`
 */
export async function typeBalance(
  work: Writing,
  clientId: number,
  rid: string,
  { on, amount, note }: AuthorityBalanceBody,
): Promise<void> {
  if (on > work.today)
    throw new FiscalError(
      "agree/balance-ahead",
      "This day is ahead. Type what its account says today.",
      "on",
    );
  const setup = await loadSetup(work, clientId);
  const r = registrationIn(setup, rid);
  await keepAuthorityBalance(work, r, {
    on,
    amount: amount === "" ? null : parseAmount(amount, setup.plain.digits),
    note,
  });
  await work.record({
    action: amount === "" ? "remove" : "keep",
    entity: "registration",
    id: r.id,
    after: { authorityBalance: amount, on, note },
  });
}
