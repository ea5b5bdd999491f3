import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { AccountRole } from "@fiscalon/core/model/account";
import type { BalanceView } from "@fiscalon/contract/balances";
import type { Work } from "../../../base/work.ts";
import { capitalRuleOf } from "../../capital/items.ts";
import type { ClientSetup } from "../../loadSetup.ts";
import type { ApartTables } from "./apart.ts";
import { AUTHORITY_CAUSES, authorityFigures } from "./authority.ts";
import { CAPITAL_CAUSES, capitalFigures, capitalTables } from "./capitalItems.ts";
import { CARRIED_CAUSES, carriedFigures } from "./carriedCredit.ts";

/** A balance before its causes are summed. */
export type Head = Pick<BalanceView, "id" | "name" | "rightName" | "path" | "leftRef" | "left" | "right"> & {
  leftName?: string;
};
export type Names = Readonly<Record<string, string>>;

interface Source {
  head: Head;
  tables: ApartTables;
  names: Names;
}

/** What belongs to a registration and not to the client: credit carried forward, its account at the authority, capital items. */
export async function registrationBalances(
  work: Work,
  setup: ClientSetup,
  day: string,
  inRole: (role: AccountRole) => string | null,
): Promise<Source[]> {
  const sources: Source[] = [];
  for (const r of setup.registrations) {
    const levies = work.packs.levyNames(r.levies);
    const carried = await carriedFigures(work, setup, r, day);
    if (carried) {
      const { tables, ...figures } = carried;
      const head = {
        id: `carried/${r.id}`,
        name: `Credit carried forward, ${levies}`,
        rightName: "Carried by the returns",
        path: "settle",
        leftRef: inRole("carried-credit"),
        ...figures,
      };
      sources.push({ head, tables, names: CARRIED_CAUSES });
    }
    const authority = await authorityFigures(work, setup, r, day);
    if (authority) {
      const { on, account, tables, ...figures } = authority;
      const head = {
        id: `authority/${r.id}`,
        name: `Account at the authority, ${levies}${on === day ? "" : `, on ${displayDate(on)}`}`,
        leftName: "Owed by the books",
        rightName: "Owed by its account, as typed",
        path: "settle",
        leftRef: account === null ? null : `account/${account}/${on.slice(0, 8)}01/${on}`,
        ...figures,
      };
      sources.push({ head, tables, names: AUTHORITY_CAUSES });
    }
    const rule = capitalRuleOf(work, r);
    const capital = rule && (await capitalFigures(work, r.id, day, rule));
    if (rule && capital) {
      const head = {
        id: `capital/${r.id}`,
        name: `Capital items, ${levies}`,
        leftName: "Bought, by documents",
        rightName: "On the list",
        path: "books/capital",
        leftRef: null,
        ...capital,
      };
      sources.push({ head, tables: capitalTables(r.id, day, rule), names: CAPITAL_CAUSES });
    }
  }
  return sources;
}

/** The rows of one of them, where there is one. */
export async function registrationTables(
  work: Work,
  setup: ClientSetup,
  day: string,
  kind: string | undefined,
  registration: number,
): Promise<ApartTables | undefined> {
  const r = setup.registrations.find(({ id }) => id === registration);
  const rule = r && kind === "capital" ? capitalRuleOf(work, r) : undefined;
  if (r && rule) return capitalTables(r.id, day, rule);
  if (r && kind === "authority") return (await authorityFigures(work, setup, r, day))?.tables;
  return r && kind === "carried" ? (await carriedFigures(work, setup, r, day))?.tables : undefined;
}
