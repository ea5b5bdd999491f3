import type { PlaceBody } from "@fiscalon/contract/setup";
import { recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database } from "../../db/database.ts";
import { notFound } from "../../errors.ts";

/** Renames a place, closes it or opens it again, or says which codes are usual there. */
export async function changePlace(
  db: Database,
  actor: Actor,
  clientId: number,
  placeId: number,
  body: Partial<PlaceBody>,
): Promise<void> {
  await db.write(async (tx) => {
    const row = await db.models.places.findOne({ where: { id: placeId, clientId }, transaction: tx });
    if (!row) throw notFound("This place");
    const before = { ...row.get({ plain: true }) };
    await row.update(body, { transaction: tx });
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "change",
      entity: "place",
      id: placeId,
      before,
      after: body,
    });
  });
}
