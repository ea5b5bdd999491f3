import { found } from "../at.ts";
import { FiscalError } from "../errors.ts";

export type AccountType = "asset" | "liability" | "equity" | "income" | "expense";

/** What Fiscalon posts to an account by itself. Roles of a levy carry the levy beside them. */
export const ACCOUNT_ROLES = [
  "bank",
  "stock",
  "stock-cost",
  "receivable",
  "payable",
  "sales",
  "purchases",
  "output-tax",
  "input-tax",
  "due-to-authority",
  "rounding",
  "adjustment",
  "charges",
  "allowance",
  "carried-credit",
  "held-credit",
  "scheme-cost",
  "scheme-gain",
  "difference",
  "exchange",
  "opening",
  "card-clearing",
  "bank-charges",
  "collected-at-source",
  "deducted-at-source",
] as const;
export type AccountRole = (typeof ACCOUNT_ROLES)[number];

/**
 * An account of the chart. Levies that share an account stand in `levy` with a slash between: `GST/HST`; `region` is the
 * one whose registration it is for, where another region has accounts of its own. `topic` tells checks what it is about: entertaining, cars, wages …; `usualCode` is
 * the tax code proposed for lines that post to it.
 */
export interface Account {
  code: string;
  name: string;
  type: AccountType;
  role: AccountRole | null;
  levy: string | null;
  region?: string;
  topic: string | null;
  usualCode: string | null;
}

/**
 * The account that plays a role, for a levy where the role belongs to one.
 * @throws FiscalError `ledger/no-account` that says which is missing
 */
export function accountInRole(
  accounts: readonly Account[],
  role: AccountRole,
  levy: string | null = null,
): string {
  const account = accounts.find((a) => a.role === role && (levy === null || bears(a, levy)));
  if (account) return account.code;
  const what = levy === null ? role : `${role} of ${levy}`;
  throw new FiscalError(
    "ledger/no-account",
    `No account is set for ${what}. Choose one under Set up, Accounts.`,
  );
}

/**
 * The accounts that a region's supplies post to: its own, and of the others those in whose place it has none.
 * @param region null or undefined where nothing is said of regions
 */
export function accountsOfRegion(
  accounts: readonly Account[],
  region: string | null | undefined,
): readonly Account[] {
  if (accounts.every((account) => account.region === undefined)) return accounts;
  const own = accounts.filter((account) => account.region !== undefined && account.region === region);
  const replaced = (account: Account) =>
    own.some(({ role, levy }) => role === account.role && levy === account.levy);
  return accounts.filter(
    (account) => own.includes(account) || (account.region === undefined && !replaced(account)),
  );
}

/** Whether an account is the one of a levy. */
export function bears(account: Pick<Account, "levy">, levy: string): boolean {
  return account.levy === levy || (account.levy?.split("/").includes(levy) ?? false);
}

/**
 * The roles a levy that is on a return cannot do without.
 * @param levies the levies of its pack; it is among them
 */
export function missingRoles(
  accounts: readonly Account[],
  levies: readonly { levy: string; deducted: boolean }[],
  levy: string,
): ("output-tax" | "input-tax" | "due-to-authority")[] {
  const { deducted } = found(levies, (one) => one.levy === levy, `levy ${levy}`);
  const needed = ["output-tax", "due-to-authority", ...(deducted ? (["input-tax"] as const) : [])] as const;
  return needed.filter((role) => !accounts.some((account) => account.role === role && bears(account, levy)));
}
