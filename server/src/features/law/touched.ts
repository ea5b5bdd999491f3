import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import { withRow } from "@fiscalon/core/jurisdictions/amendedPack";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { LawTouched } from "@fiscalon/contract/law";
import type { Work, Writing } from "../../base/work.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";
import { documentsTouched } from "../../books/documents/documentsTouched.ts";
import { recomputeDocuments } from "../../books/documents/postDocuments.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { formOf } from "../../books/returns/evaluation.ts";
import { periodRule } from "../../books/returns/periodRule.ts";

type RateChange = Extract<LawChange, { kind: "rate" }>;

/** What a change would move, by client: open documents with another rate, open returns with another day or title. */
export async function touchedBy(work: Work, change: LawChange): Promise<LawTouched> {
  const clients: LawTouched["clients"] = [];
  for (const { id, name, currency } of await clientsIn(work, change.pack)) {
    const documents = change.kind === "rate" ? await moved(work, id, change) : [];
    const setup = await loadSetup(work, id);
    const returns =
      change.kind === "rate"
        ? await returnsOf(work, setup, documents)
        : await returnsMeant(work, setup, change);
    if (documents.length === 0 && returns.length === 0) continue;
    clients.push({
      client: id,
      name,
      documents: documents.length,
      first: documents.slice(0, 5).map(({ id, input, gross }) => ({
        id,
        number: input.number,
        date: input.date,
        gross,
        digits: minorDigits(currency),
      })),
      returns,
    });
  }
  return { clients };
}

/**
 * The open documents of every client that a correction of a rate moves, with the client they are of.
 * @param rows what the schedule becomes: the rows it has now with that of the change, where they are not said
 */
export async function documentsMoved(
  work: Work,
  change: RateChange,
  rows?: readonly RateRow[],
): Promise<{ client: number; documents: StoredDocument[] }[]> {
  const all = [];
  for (const { id } of await clientsIn(work, change.pack)) {
    const documents = await moved(work, id, change, rows);
    if (documents.length > 0) all.push({ client: id, documents });
  }
  return all;
}

/** Works documents out anew under the jurisdictions that the work knows now. */
export async function recompute(
  work: Writing,
  moved: Awaited<ReturnType<typeof documentsMoved>>,
): Promise<void> {
  for (const { client, documents } of moved)
    await recomputeDocuments(work, await loadSetup(work, client), documents);
}

/** Clients the law of a pack can be about: those at home there, with a place there, or registered there. */
async function clientsIn(
  work: Work,
  packId: string,
): Promise<{ id: number; name: string; currency: string }[]> {
  const { id, country } = work.packs.byId(packId);
  return work.rows(
    `SELECT c.id, c.name, c.currency FROM clients c WHERE c.country = $1
       OR EXISTS (SELECT 1 FROM places p WHERE p.client_id = c.id AND p.country = $1)
       OR EXISTS (SELECT 1 FROM registrations r WHERE r.client_id = c.id AND r.pack = $2)
     ORDER BY c.name COLLATE NOCASE`,
    [country, id],
  );
}

async function moved(
  work: Work,
  client: number,
  change: RateChange,
  becomes?: readonly RateRow[],
): Promise<StoredDocument[]> {
  const own = await work.models.schedules.findOne({
    where: { clientId: client, ref: change.schedule },
    ...work.options,
  });
  if (own) return [];
  const rows = work.packs.byId(change.pack).schedules[change.schedule] ?? [];
  return documentsTouched(work, client, change.schedule, becomes ?? withRow(rows, change));
}

async function returnsOf(
  work: Work,
  setup: ClientSetup,
  documents: readonly StoredDocument[],
): Promise<LawTouched["clients"][number]["returns"]> {
  if (documents.length === 0) return [];
  const rows = await work.rows<{ registration: number; end: string }>(
    `SELECT DISTINCT registration_id AS registration, period_end AS "end" FROM facts
     WHERE live = 1 AND registration_id IS NOT NULL AND period_end IS NOT NULL
       AND document_id IN (SELECT value FROM json_each($1)) ORDER BY period_end`,
    [JSON.stringify(documents.map(({ id }) => id))],
  );
  return rows.map(({ registration, end }) => ({
    registration: nameOf(work, setup, registration),
    end,
  }));
}

/** The open returns with facts whose form or due day a change is about. */
async function returnsMeant(
  work: Work,
  setup: ClientSetup,
  change: Exclude<LawChange, RateChange>,
): Promise<LawTouched["clients"][number]["returns"]> {
  if (change.kind === "confirm") return [];
  const open = await work.rows<{ registration: number; end: string }>(
    `SELECT DISTINCT f.registration_id AS registration, f.period_end AS "end" FROM facts f
     WHERE f.client_id = $1 AND f.live = 1 AND f.registration_id IS NOT NULL AND f.period_end IS NOT NULL
       AND NOT EXISTS (SELECT 1 FROM returns r WHERE r.registration_id = f.registration_id
         AND r.period_end = f.period_end AND r.state IN ('filed', 'settled')) ORDER BY f.period_end`,
    [setup.client.id],
  );
  return open.flatMap(({ registration, end }) => {
    const r = setup.registrations.find(({ id }) => id === registration);
    if (!r || r.pack !== change.pack) return [];
    const meant =
      change.kind === "title"
        ? formOf(work, r, end).id === change.form
        : change.ends.from <= end &&
          (change.ends.to === null || end <= change.ends.to) &&
          (change.levy === null || r.levies.includes(change.levy)) &&
          (change.frequency === null || rhythmOn(periodRule(r), end).frequency === change.frequency);
    return meant ? [{ registration: nameOf(work, setup, registration), end }] : [];
  });
}

function nameOf(work: Work, { registrations }: ClientSetup, id: number): string {
  const r = registrations.find((one) => one.id === id);
  const [first = ""] = r?.levies ?? [];
  return `${work.packs.levyName(first)} ${r?.number ?? ""}`.trim();
}
