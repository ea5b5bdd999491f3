import { FiscalError } from "@fiscalon/core/errors";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import type { Work } from "../base/work.ts";
import { loadSetup } from "./loadSetup.ts";

/** What contacts, items, places and accounts keep as usual: codes by side or for both, accounts. */
interface Usual {
  saleCode?: string | null;
  purchaseCode?: string | null;
  usualCode?: string | null;
  saleAccount?: string | null;
  purchaseAccount?: string | null;
}

/**
 * Refuses usual codes and accounts the client does not have, before they are kept.
 * @throws FiscalError `tax/unknown-code`, `code/wrong-side`, `ledger/unknown-account`, with the field
 */
export async function requireUsual(work: Work, clientId: number, usual: Usual): Promise<void> {
  const { saleCode, purchaseCode, usualCode, saleAccount, purchaseAccount } = usual;
  if (![saleCode, purchaseCode, usualCode, saleAccount, purchaseAccount].some(Boolean)) return;
  const { effect, plain } = await loadSetup(work, clientId);
  requireCode(effect.codes, saleCode, "saleCode", "sale");
  requireCode(effect.codes, purchaseCode, "purchaseCode", "purchase");
  requireCode(effect.codes, usualCode, "usualCode");
  const accounts = new Set(plain.accounts.map(({ code }) => code));
  for (const [field, account] of Object.entries({ saleAccount, purchaseAccount })) {
    if (!account || accounts.has(account)) continue;
    throw new FiscalError(
      "ledger/unknown-account",
      `There is no account ${account}. Choose one of the chart.`,
      field,
    );
  }
}

function requireCode(
  codes: ReadonlyMap<string, TaxCode>,
  name: string | null | undefined,
  field: string,
  side?: "sale" | "purchase",
): void {
  if (!name) return;
  const code = codes.get(name);
  if (!code)
    throw new FiscalError("tax/unknown-code", `There is no tax code ${name}. Choose one of the list.`, field);
  if (side === undefined || code.direction === "both" || code.direction === side) return;
  throw new FiscalError("code/wrong-side", `${name} is for ${code.direction}s.`, field);
}
