import type { PlaceBody } from "@fiscalon/contract/setup";
import { recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database } from "../../db/database.ts";
import { notFound } from "../../errors.ts";
import { loadSetup } from "../clients/loadSetup.ts";
import { loadDocuments } from "../documents/loadDocuments.ts";
import { recomputeDocuments } from "../documents/postDocuments.ts";

/**
 * Renames a place, closes it or opens it again, says its region or which codes are usual there. With another region the
 * documents of it that are on no sealed return are worked out anew.
 */
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
    if (body.region === undefined || body.region === before.region) return;
    const first = await db.row<{ id: number }>(
      "SELECT min(id) AS id FROM places WHERE client_id = $1",
      [clientId],
      tx,
    );
    const touched = await loadDocuments(
      db,
      `d.client_id = $1 AND d.state = 'posted' AND coalesce(d.place_id, $3) = $2
       AND NOT EXISTS (SELECT 1 FROM facts f JOIN returns r ON r.registration_id = f.registration_id
         AND r.period_end = f.period_end AND r.state IN ('sealed', 'filed', 'settled')
         WHERE f.document_id = d.id AND f.live = 1)`,
      [clientId, placeId, first?.id ?? placeId],
      tx,
    );
    await recomputeDocuments(db, tx, actor, await loadSetup(db, clientId, tx), touched);
  });
}
