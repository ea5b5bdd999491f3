import { valueAt } from "@fiscalon/core/at";
import type { ItemDefaults, Party, Site } from "@fiscalon/core/model/party";
import type { StandingBody } from "@fiscalon/contract/setup";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import type { NewDocument } from "./newDocument.ts";
import { addOriginals } from "./originals.ts";

interface PartyRow {
  id: number;
  name: string;
  country: string | null;
  region: string | null;
  registered: number | null;
  taxNumber: string | null;
  standing: string | null;
  saleCode: string | null;
  purchaseCode: string | null;
}

/**
 * Puts on each document what its computation reads of its place, its contact, its items and, for a credit note, of
 * the document it corrects. Documents whose effect is worked out already are left alone.
 * @throws FiscalError `document/corrects-other-party`
 */
export async function addSurroundings(
  work: Work,
  setup: ClientSetup,
  documents: readonly NewDocument[],
): Promise<void> {
  const open = documents.filter((one) => one.effect === undefined);
  if (open.length === 0) return;
  const parties = await partiesOf(work, open);
  const items = await itemsOf(work, setup.client.id, open);
  const sites = new Map(setup.plain.places.map((place): [number, Site] => [place.id, place]));
  const [first = { country: setup.client.country, region: null }] = sites.values();
  for (const document of open) {
    document.input.site = document.place === null ? first : valueAt(sites, document.place);
    const party = parties.get(document.contact ?? 0);
    if (party) document.input.party = party;
    if (document.input.lines.some((line) => line.item)) document.input.items = items;
    if (document.corrects) document.input.corrects = document.corrects;
  }
  await addOriginals(work, setup, open);
}

async function partiesOf(work: Work, documents: readonly NewDocument[]): Promise<Map<number, Party>> {
  const ids = [...new Set(documents.flatMap(({ contact }) => (contact === null ? [] : [contact])))];
  if (ids.length === 0) return new Map();
  return contactParties(work, "id IN (SELECT value FROM json_each($1))", [JSON.stringify(ids)]);
}

/** What the computation reads of contacts, by id. @param condition of SQL that says which */
export async function contactParties(
  work: Work,
  condition: string,
  values: unknown[],
): Promise<Map<number, Party>> {
  const rows = await work.rows<PartyRow>(
    `SELECT id, name, country, region, registered, tax_number AS taxNumber, standing, sale_code AS saleCode,
       purchase_code AS purchaseCode FROM contacts WHERE ${condition} ORDER BY id DESC`,
    values,
  );
  return new Map(rows.map((row) => [row.id, partyOf(row)]));
}

function partyOf({ id: _, registered, standing, ...row }: PartyRow): Party {
  const kept = standing === null ? {} : (JSON.parse(standing) as Record<string, StandingBody>);
  return {
    ...row,
    registered: registered === null ? null : registered === 1,
    standing: standingValues(kept),
  };
}

/** What a contact is by levy, without the papers that prove it. */
export function standingValues(standing: Readonly<Record<string, StandingBody>>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(standing).map(([levy, one]) => [levy, typeof one === "string" ? one : one.value]),
  );
}

async function itemsOf(
  work: Work,
  clientId: number,
  documents: readonly NewDocument[],
): Promise<Record<string, ItemDefaults>> {
  const refs = [...new Set(documents.flatMap(({ input }) => input.lines.flatMap(({ item }) => item || [])))];
  if (refs.length === 0) return {};
  const rows = await work.rows<ItemDefaults & { ref: string }>(
    `SELECT ref, name, tax_class AS taxClass, supply, sale_code AS saleCode, purchase_code AS purchaseCode FROM items
     WHERE client_id = $1 AND ref IN (SELECT value FROM json_each($2))`,
    [clientId, JSON.stringify(refs)],
  );
  return Object.fromEntries(rows.map(({ ref, ...item }) => [ref, item]));
}
