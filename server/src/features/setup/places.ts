import type { PlaceBody } from "@fiscalon/contract/setup";
import type { ClientView } from "@fiscalon/contract/views";
import type { Progress } from "../../base/progress.ts";
import type { Work, Writing } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import { regionKept } from "../../books/requireRegion.ts";
import { requireUsual } from "../../books/requireUsual.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { changedClient } from "../../books/views.ts";
import { documentIds, ON_NO_SEALED_RETURN } from "../../books/documents/loadDocuments.ts";
import { recomputeDocuments } from "../../books/documents/recomputeDocuments.ts";

/** The region as it is kept, where one is said. */
function regionIn(work: Work, country: string, { region }: Partial<PlaceBody>): { region?: string | null } {
  return region === undefined ? {} : { region: regionKept(work, country, region) };
}

/**
 * Renames a place, closes it or opens it again, says its region or which codes are usual there. With another region the
 * documents of it that are on no sealed return are worked out anew.
 */
export async function changePlace(
  work: Work,
  clientId: number,
  placeId: number,
  body: Partial<PlaceBody>,
  progress: Progress,
): Promise<ClientView> {
  return changedClient(work, clientId, (work) => change(work, clientId, placeId, body, progress));
}

async function change(
  work: Writing,
  clientId: number,
  placeId: number,
  body: Partial<PlaceBody>,
  progress: Progress,
): Promise<void> {
  const row = await work.models.places.findOne({ where: { id: placeId, clientId }, ...work.options });
  if (!row) throw notFound("This place");
  const before = { ...row.get({ plain: true }) };
  await requireUsual(work, clientId, body);
  await row.update({ ...body, ...regionIn(work, row.country, body) }, work.options);
  await work.record({
    action: "change",
    entity: "place",
    id: placeId,
    before,
    after: body,
  });
  if (row.region === before.region) return;
  const first = await work.row<{ id: number }>("SELECT min(id) AS id FROM places WHERE client_id = $1", [
    clientId,
  ]);
  const touched = await documentIds(
    work,
    `d.client_id = $1 AND d.state = 'posted' AND coalesce(d.place_id, $3) = $2 AND ${ON_NO_SEALED_RETURN}`,
    [clientId, placeId, first?.id ?? placeId],
  );
  await recomputeDocuments(work, await loadSetup(work, clientId), touched, progress);
}
