import type { RegistrationBody } from "@fiscalon/contract/setup";
import type { Writing } from "../../base/work.ts";
import { freeRef } from "../../books/freeRef.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import { loadClient, loadSetup, registrationWithId } from "../../books/loadSetup.ts";
import { recomputeDocuments } from "../../books/documents/postDocuments.ts";
import { addRegistration } from "../../books/addRegistration.ts";

/**
 * Documents that waited for this registration get their entries and facts anew; where numbers are given out region by
 * region also those of its places that another region's registration has counted and not sealed.
 */
export async function registerAndRecount(
  work: Writing,
  clientId: number,
  body: RegistrationBody,
): Promise<void> {
  await loadClient(work, clientId);
  const ref = await freeRef(work, "registrations", clientId, "r");
  const id = await addRegistration(work, clientId, ref, body);
  const setup = await loadSetup(work, clientId);
  const { region, pack } = registrationWithId(setup.registrations, id);
  const elsewhere = setup.registrations
    .filter((other) => other.pack === pack && other.region !== null && other.region !== region)
    .map((other) => other.id);
  const waiting = await loadDocuments(
    work,
    `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM facts f WHERE f.document_id = d.id
       AND f.live = 1 AND f.tax_point >= $2 AND (f.registration_id IS NULL
         OR (f.registration_id IN (SELECT value FROM json_each($3))
           AND (SELECT p.region FROM places p WHERE p.id = d.place_id) IS $4)))
     AND NOT EXISTS (SELECT 1 FROM facts s JOIN returns r ON r.registration_id = s.registration_id
       AND r.period_end = s.period_end AND r.state IN ('sealed', 'filed', 'settled')
       WHERE s.document_id = d.id AND s.live = 1)`,
    [clientId, body.from, JSON.stringify(elsewhere), region],
  );
  await recomputeDocuments(work, setup, waiting);
}
