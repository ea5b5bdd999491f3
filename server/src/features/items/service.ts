import type { ItemBody } from "@fiscalon/contract/setup";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { freeRef } from "../../books/freeRef.ts";
import { loadClient } from "../../books/loadSetup.ts";
import { requireUsual } from "../../books/requireUsual.ts";
import type { ItemRecord } from "../../db/models.ts";

type ItemView = Omit<ItemRecord, "clientId" | "createdAt" | "createdBy">;

export async function itemViews(work: Work, clientId: number): Promise<ItemView[]> {
  const rows = await work.models.items.findAll({ where: { clientId }, order: ["name"], ...work.options });
  return rows.map((row) => viewOf(row.get({ plain: true }) as ItemRecord));
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
