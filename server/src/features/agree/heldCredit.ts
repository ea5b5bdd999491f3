import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";
import type { HeldCredit, HeldCreditPage } from "@fiscalon/contract/credit";
import type { Work } from "../../base/work.ts";
import { heldFigures } from "../../books/agree/balances/heldCredit.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** What held credit can be ordered by. */
export const HELD_ORDER: SortColumns = {
  date: "d.date",
  number: "d.number COLLATE NOCASE",
  party: "c.name COLLATE NOCASE",
  tax: "tax",
  days: "days",
  released: "released",
};

export interface HeldFilter extends ListOrder {
  offset: number;
  limit: number;
  search: string;
  state: "waiting" | "released" | "";
}

const FROM = `FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN contacts c ON c.id = d.contact_id
    LEFT JOIN credit_releases r ON r.document_id = f.document_id
  WHERE f.client_id = $1 AND f.live = 1 AND f.awaits IS NOT NULL AND ($2 = '%%' OR d.number LIKE $2 OR c.name LIKE $2)
    AND ($3 = '' OR ($3 = 'waiting') = (r.id IS NULL))`;

/** Documents whose tax is not deducted yet or was released, with how long they waited; and what the ledger holds of it. */
export async function heldCredit(
  work: Work,
  { client, effect }: ClientSetup,
  filter: HeldFilter,
): Promise<HeldCreditPage> {
  const bind = [client.id, `%${filter.search}%`, filter.state];
  const { total } = await work.one<{ total: number }>(
    `SELECT count(DISTINCT f.document_id) AS total ${FROM}`,
    bind,
  );
  const rows = await work.rows<
    Omit<HeldCredit, "waitsFor" | "source"> & { awaits: string; registration: number }
  >(
    `SELECT f.document_id AS document, d.number, coalesce(c.name, '') AS party, d.date,
       group_concat(DISTINCT f.levy) AS levies, sum(f.recoverable) AS tax, min(f.awaits) AS awaits,
       min(f.registration_id) AS registration, r.released_on AS released, r.evidence,
       CAST(julianday(coalesce(r.released_on, $4)) - julianday(d.date) AS INTEGER) AS days
     ${FROM} GROUP BY f.document_id ORDER BY ${listOrder(HELD_ORDER, filter, "d.date, d.id")} LIMIT $5 OFFSET $6`,
    [...bind, work.today, filter.limit, filter.offset],
  );
  const { left: ledger, right: waiting } = await heldFigures(work, client.id, work.today);
  return {
    total,
    waiting,
    ledger,
    rows: rows.map(({ awaits, registration, ...row }) => {
      const pack = effect.registrations.find(({ id }) => id === registration)?.pack;
      const hold = pack ? work.packs.byId(pack).creditHolds?.find(({ id }) => id === awaits) : undefined;
      return { ...row, waitsFor: hold?.waitsFor ?? awaits, source: hold?.source ?? "" };
    }),
  };
}
