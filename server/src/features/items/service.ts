import type { ItemBody } from "@fiscalon/contract/setup";
import type { ItemPage, ItemView } from "@fiscalon/contract/views";
import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { freeRef } from "../../books/freeRef.ts";
import { loadClient } from "../../books/loadSetup.ts";
import { requireUsual } from "../../books/requireUsual.ts";
import type { ItemRecord } from "../../db/models.ts";

const ITEM = `SELECT id, ref, name, unit_price AS unitPrice, supply, tax_class AS taxClass, sale_code AS saleCode,
  purchase_code AS purchaseCode, sale_account AS saleAccount, purchase_account AS purchaseAccount,
  statistical_code AS statisticalCode FROM items`;

export interface ItemFilter extends ListOrder {
  search: string;
  offset: number;
  limit: number;
}

/** What items can be ordered by. */
export const ITEM_ORDER: SortColumns = {
  name: "name COLLATE NOCASE",
  supply: "supply",
  taxClass: "tax_class",
  statisticalCode: "statistical_code",
  unitPrice: "CAST(unit_price AS REAL)",
};

/** A page of items whose name or own number contains the text, by name unless asked otherwise. */
export async function itemPage(work: Work, clientId: number, filter: ItemFilter): Promise<ItemPage> {
  const where = "client_id = $1 AND (name LIKE $2 OR ref LIKE $2)";
  const bind = [clientId, `%${filter.search}%`];
  const { total } = await work.one<{ total: number }>(
    `SELECT count(*) AS total FROM items WHERE ${where}`,
    bind,
  );
  const rows = await work.rows<ItemView>(
    `${ITEM} WHERE ${where} ORDER BY ${listOrder(ITEM_ORDER, filter, "name COLLATE NOCASE, id")} LIMIT $3 OFFSET $4`,
    [...bind, filter.limit, filter.offset],
  );
  return { total, rows };
}

/** Items by what lines name them. */
export function itemsNamed(work: Work, clientId: number, refs: readonly string[]): Promise<ItemView[]> {
  return work.rows<ItemView>(
    `${ITEM} WHERE client_id = $1 AND ref IN (SELECT value FROM json_each($2)) ORDER BY id`,
    [clientId, JSON.stringify(refs)],
  );
}

export async function addItem(work: Work, clientId: number, body: ItemBody): Promise<ItemView> {
  return work.write(async (work) => {
    await loadClient(work, clientId);
    await requireUsual(work, clientId, body);
    const ref = await freeRef(work, "items", clientId, "i");
    const row = await work.models.items.create(
      { clientId, ref, ...NOTHING_SAID, ...body, ...work.made },
      work.options,
    );
    await work.record({ action: "create", entity: "item", id: row.id, after: body });
    return viewOf(row.get({ plain: true }) as ItemRecord);
  });
}

export async function changeItem(
  work: Work,
  clientId: number,
  itemId: number,
  body: ItemBody,
): Promise<ItemView> {
  return work.write(async (work) => {
    const item = await work.models.items.findOne({ where: { id: itemId, clientId }, ...work.options });
    if (!item) throw notFound("This item");
    await requireUsual(work, clientId, body);
    const before = { ...item.get({ plain: true }) };
    await item.update(body, work.options);
    await work.record({
      action: "change",
      entity: "item",
      id: itemId,
      before,
      after: body,
    });
    return viewOf(item.get({ plain: true }) as ItemRecord);
  });
}

/** What an item holds that nothing was said of. */
const NOTHING_SAID = {
  unitPrice: null,
  supply: null,
  taxClass: null,
  saleCode: null,
  purchaseCode: null,
  saleAccount: null,
  purchaseAccount: null,
  statisticalCode: null,
} as const;

function viewOf({ clientId: _client, createdAt: _at, createdBy: _by, ...item }: ItemRecord): ItemView {
  return item;
}
