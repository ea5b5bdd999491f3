import type { Party, Site } from "@fiscalon/core/supply/circumstances";
import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import type { StandingBody } from "@fiscalon/contract/setup";
import type { Database, Tx } from "../../db/database.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";
import type { NewDocument } from "./postDocuments.ts";

interface PartyRow {
  id: number;
  country: string | null;
  region: string | null;
  registered: number | null;
  taxNumber: string | null;
  standing: string | null;
}

/**
 * Puts on each document what its computation reads of its place, its contact and, for a credit note, of the document
 * it corrects. Documents whose effect is worked out already are left alone.
 */
export async function addParties(
  db: Database,
  setup: ClientSetup,
  documents: readonly NewDocument[],
  tx?: Tx,
): Promise<void> {
  const open = documents.filter((one) => one.effect === undefined);
  if (open.length === 0) return;
  const parties = await partiesOf(db, open, tx);
  const sites = await sitesOf(db, setup.client.id, tx);
  const first = sites.values().next().value ?? { country: setup.client.country, region: null };
  for (const document of open) {
    document.input.site = sites.get(document.place ?? 0) ?? first;
    const party = parties.get(document.contact ?? 0);
    if (party) document.input.party = party;
    if (document.corrects) document.input.corrects = document.corrects;
  }
  await addOriginals(db, setup, open, tx);
}

async function partiesOf(
  db: Database,
  documents: readonly NewDocument[],
  tx?: Tx,
): Promise<Map<number, Party>> {
  const ids = [...new Set(documents.flatMap(({ contact }) => (contact === null ? [] : [contact])))];
  if (ids.length === 0) return new Map();
  const rows = await db.rows<PartyRow>(
    `SELECT id, country, region, registered, tax_number AS taxNumber, standing FROM contacts
     WHERE id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
    tx,
  );
  return new Map(rows.map((row) => [row.id, partyOf(row)]));
}

function partyOf({ country, region, registered, taxNumber, standing }: PartyRow): Party {
  const kept = standing === null ? {} : (JSON.parse(standing) as Record<string, StandingBody>);
  return {
    country,
    region,
    registered: registered === null ? null : registered === 1,
    taxNumber,
    standing: standingValues(kept),
  };
}

/** What a contact is by levy, without the papers that prove it. */
export function standingValues(standing: Readonly<Record<string, StandingBody>>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(standing).map(([levy, one]) => [levy, typeof one === "string" ? one : one.value]),
  );
}

async function sitesOf(db: Database, clientId: number, tx?: Tx): Promise<Map<number, Site>> {
  const rows = await db.rows<Site & { id: number }>(
    "SELECT id, country, region FROM places WHERE client_id = $1 ORDER BY id",
    [clientId],
    tx,
  );
  return new Map(rows.map(({ id, country, region }) => [id, { country, region }]));
}

/** A credit note keeps the rate of the document it corrects: its tax point and gross are looked up by number. */
async function addOriginals(
  db: Database,
  setup: ClientSetup,
  documents: readonly NewDocument[],
  tx?: Tx,
): Promise<void> {
  const credits = documents.filter(({ input, corrects }) => corrects && DOCUMENT_KINDS[input.kind].sign < 0);
  if (credits.length === 0) return;
  const numbers = [...new Set(credits.map(({ corrects }) => corrects))];
  const rows = await db.rows<{
    number: string;
    contact: number | null;
    side: string;
    on: string;
    gross: number;
  }>(
    `SELECT number, contact_id AS contact, substr(kind, 1, 5) AS side, coalesce(tax_point, date) AS "on", gross
     FROM documents WHERE client_id = $1 AND state = 'posted' AND number IN (SELECT value FROM json_each($2))
       AND kind NOT LIKE '%credit-note' ORDER BY id DESC`,
    [setup.client.id, JSON.stringify(numbers)],
    tx,
  );
  for (const { input, corrects, contact } of credits) {
    const original = originalAmong(documents, rows, { corrects: corrects ?? "", contact, kind: input.kind });
    if (!original) continue;
    input.originalDate ??= original.on;
    input.originalGross = original.gross;
  }
}

/** Among what is posted already, or in the same batch. */
function originalAmong(
  batch: readonly NewDocument[],
  posted: readonly { number: string; contact: number | null; side: string; on: string; gross: number }[],
  wanted: { corrects: string; contact: number | null; kind: string },
): { on: string; gross: number | null } | undefined {
  const side = wanted.kind.slice(0, 5);
  const fits = (one: { number: string; contact: number | null; side: string }) =>
    one.number === wanted.corrects &&
    one.side === side &&
    (wanted.contact === null || one.contact === null || one.contact === wanted.contact);
  const kept = posted.find(fits);
  if (kept) return kept;
  const own = batch.find(({ input, contact }) =>
    fits({ number: input.number, contact, side: input.kind.slice(0, 5) }),
  );
  return own ? { on: own.input.taxPoint ?? own.input.date, gross: null } : undefined;
}
