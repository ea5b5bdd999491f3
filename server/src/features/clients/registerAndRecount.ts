import type { RegistrationBody } from "@fiscalon/contract/setup";
import type { ClientView } from "@fiscalon/contract/views";
import { changedClient } from "../../books/views.ts";
import type { Progress } from "../../base/progress.ts";
import type { Work, Writing } from "../../base/work.ts";
import { freeRef } from "../../books/freeRef.ts";
import { documentIds, ON_NO_SEALED_RETURN } from "../../books/documents/loadDocuments.ts";
import { loadClient, loadSetup, registrationWithId } from "../../books/loadSetup.ts";
import { recomputeDocuments } from "../../books/documents/recomputeDocuments.ts";
import { addRegistration } from "../../books/addRegistration.ts";

/**
 * Documents that waited for this registration get their entries and facts anew; where numbers are given out region by
 * region also those of its places that another region's registration has counted and not sealed.
 */
export function registerAndRecount(
  work: Work,
  clientId: number,
  body: RegistrationBody,
  progress: Progress,
): Promise<ClientView> {
  return changedClient(work, clientId, (work) => register(work, clientId, body, progress));
}

async function register(
  work: Writing,
  clientId: number,
  body: RegistrationBody,
  progress: Progress,
): Promise<void> {
  await loadClient(work, clientId);
  const ref = await freeRef(work, "registrations", clientId, "r");
  const id = await addRegistration(work, clientId, ref, body);
  const setup = await loadSetup(work, clientId);
  const { region, pack } = registrationWithId(setup.registrations, id);
  const elsewhere = setup.registrations
    .filter((other) => other.pack === pack && other.region !== null && other.region !== region)
    .map((other) => other.id);
  const waiting = await documentIds(
    work,
    `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM facts f WHERE f.document_id = d.id
       AND f.live = 1 AND f.tax_point >= $2 AND (f.registration_id IS NULL
         OR (f.registration_id IN (SELECT value FROM json_each($3))
           AND (SELECT p.region FROM places p WHERE p.id = d.place_id) IS $4)))
     AND ${ON_NO_SEALED_RETURN}`,
    [clientId, body.from, JSON.stringify(elsewhere), region],
  );
  await recomputeDocuments(work, setup, waiting, progress);
}
