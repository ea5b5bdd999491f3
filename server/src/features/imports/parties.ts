import type { RegisterDocument } from "@fiscalon/core/formats/registers/registerDocuments";
import { made } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";

/** Ids of the parties, found by name or created. */
export async function contactIds(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  documents: readonly RegisterDocument[],
): Promise<Map<string, number>> {
  const rows = await db.rows<{ id: number; name: string }>(
    "SELECT id, lower(name) AS name FROM contacts WHERE client_id = $1",
    [clientId],
    tx,
  );
  const ids = new Map(rows.map((row) => [row.name, row.id]));
  let next = (await db.lastId("contacts", tx)) + 1;
  const { createdAt, createdBy } = made(actor);
  const fresh: unknown[][] = [];
  for (const { party, partyNumber, partyCountry } of documents) {
    const key = party.toLowerCase();
    if (party === "" || ids.has(key)) continue;
    ids.set(key, next);
    const country = /^[a-z]{2}$/i.test(partyCountry) ? partyCountry.toUpperCase() : null;
    fresh.push([
      next,
      clientId,
      `i${next}`,
      party,
      country,
      partyNumber || null,
      partyNumber === "" ? null : 1,
      createdAt,
      createdBy,
    ]);
    next += 1;
  }
  const columns = [
    "id",
    "client_id",
    "ref",
    "name",
    "country",
    "tax_number",
    "registered",
    "created_at",
    "created_by",
  ];
  await db.insertRows("contacts", columns, fresh, tx);
  return ids;
}
