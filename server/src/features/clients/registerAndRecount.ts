import type { RegistrationBody } from "@fiscalon/contract/setup";
import type { Writing } from "../../base/work.ts";
import { freeRef } from "../../books/freeRef.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import { loadClient, loadSetup } from "../../books/loadSetup.ts";
import { recomputeDocuments } from "../../books/documents/postDocuments.ts";
import { addRegistration } from "../../books/addRegistration.ts";

/** Documents that waited for this registration get their entries and facts anew. */
export async function registerAndRecount(
  work: Writing,
  clientId: number,
  body: RegistrationBody,
): Promise<void> {
  await loadClient(work, clientId);
  const ref = await freeRef(work, "registrations", clientId, "r");
  await addRegistration(work, clientId, ref, body);
  const waiting = await loadDocuments(
    work,
    `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM facts f WHERE f.document_id = d.id
       AND f.live = 1 AND f.registration_id IS NULL AND f.tax_point >= $2)`,
    [clientId, body.from],
  );
  await recomputeDocuments(work, await loadSetup(work, clientId), waiting);
}
