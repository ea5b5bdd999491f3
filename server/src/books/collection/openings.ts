import { parseAmount } from "@fiscalon/core/money/amount";
import type { CollectionDeductsBody, CollectionOpeningBody } from "@fiscalon/contract/collection";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import { loadSetup } from "../loadSetup.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { collecting, yearOf } from "./collects.ts";

/** Keeps what a customer paid in a fiscal year before these books begin; nought takes it out. */
export async function keepOpening(
  work: Work,
  clientId: number,
  contact: number,
  { year, amount, evidence }: CollectionOpeningBody,
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const { rule } = await collecting(work, setup);
    await writeOpening(work, setup, { contact, year: yearOf(rule, year).to, amount, evidence });
    await work.record({
      action: "keep",
      entity: "contact",
      id: contact,
      after: { collectionOpening: { year, amount, evidence } },
    });
  });
}

/** Writes one, where the customer is one of the client. */
export async function writeOpening(
  work: Writing,
  { client, plain }: ClientSetup,
  { contact, year, amount, evidence }: CollectionOpeningBody & { contact: number },
): Promise<void> {
  const known = await work.row("SELECT 1 FROM contacts WHERE client_id = $1 AND id = $2", [
    client.id,
    contact,
  ]);
  if (!known) throw notFound("This customer");
  await work.run("DELETE FROM collection_openings WHERE client_id = $1 AND contact_id = $2 AND year = $3", [
    client.id,
    contact,
    year,
  ]);
  const minor = parseAmount(amount, plain.digits);
  if (minor === 0) return;
  await work.run(
    `INSERT INTO collection_openings (client_id, contact_id, year, amount, evidence, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7)`,
    [client.id, contact, year, minor, evidence, work.at, work.person],
  );
}

/** Says of a customer whether it deducts tax itself, beside whatever else its standing is. */
export async function keepDeducting(
  work: Work,
  clientId: number,
  contact: number,
  { deducts }: CollectionDeductsBody,
): Promise<void> {
  await work.write(async (work) => {
    const { rule } = await collecting(work, await loadSetup(work, clientId));
    const path = `$.${rule.deducts.standing}`;
    const known = await work.row("SELECT 1 FROM contacts WHERE client_id = $1 AND id = $2", [
      clientId,
      contact,
    ]);
    if (!known) throw notFound("This customer");
    await work.run(
      deducts
        ? "UPDATE contacts SET standing = json_set(coalesce(standing, '{}'), $3, 'deducts') WHERE client_id = $1 AND id = $2"
        : "UPDATE contacts SET standing = json_remove(coalesce(standing, '{}'), $3) WHERE client_id = $1 AND id = $2",
      [clientId, contact, path],
    );
    await work.record({
      action: "change",
      entity: "contact",
      id: contact,
      after: { [rule.deducts.standing]: deducts },
    });
  });
}
