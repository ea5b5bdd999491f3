import type { RegisterDocument } from "@fiscalon/core/formats/registers/registerDocuments";
import type { Writing } from "../../base/work.ts";

/** Ids of the parties, found by name or created. */
export async function contactIds(
  work: Writing,
  clientId: number,
  documents: readonly RegisterDocument[],
): Promise<Map<string, number>> {
  const rows = await work.rows<{ id: number; name: string }>(
    "SELECT id, lower(name) AS name FROM contacts WHERE client_id = $1",
    [clientId],
  );
  const ids = new Map(rows.map((row) => [row.name, row.id]));
  let next = (await work.lastId("contacts")) + 1;
  const { createdAt, createdBy } = work.made;
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
  await work.insertRows("contacts", columns, fresh);
  return ids;
}
