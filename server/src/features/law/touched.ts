import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import { withRow } from "@fiscalon/core/jurisdictions/amendedPack";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { LawTouched } from "@fiscalon/contract/law";
import type { Law } from "../../base/law.ts";
import type { Work } from "../../base/work.ts";
import type { Practice } from "../../practice/practice.ts";
import { documentsNamed } from "../../books/documents/documentsNamed.ts";
import { documentsTouched } from "../../books/documents/documentsTouched.ts";
import type { Touched } from "../../books/documents/documentsTouched.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { formOf } from "../../books/returns/evaluation.ts";
import { periodRule } from "../../books/returns/periodRule.ts";

/** So many of the documents of a client are shown. */
const SHOWN = 5;

type RateChange = Extract<LawChange, { kind: "rate" }>;

/** What a change would move, by client: open documents with another rate, open returns with another day or title. */
export async function touchedBy(practice: Practice, work: Work, change: LawChange): Promise<LawTouched> {
  const clients: LawTouched["clients"] = [];
  for (const { id, name } of await clientsUnder(practice, work.law, change.pack)) {
    const touched = await practice.inPassing(id, (books) => touchedIn(books, id, change));
    if (touched) clients.push({ client: id, name, ...touched });
  }
  return { clients };
}

async function touchedIn(
  work: Work,
  id: number,
  change: LawChange,
): Promise<Omit<LawTouched["clients"][number], "client" | "name"> | null> {
  const setup = await loadSetup(work, id);
  const { open: documents, declared } =
    change.kind === "rate"
      ? await touchedUnder(work, id, change.schedule, becoming(work, change))
      : { open: [], declared: 0 };
  const returns =
    change.kind === "rate"
      ? await returnsOf(work, setup, documents)
      : await returnsMeant(work, setup, change);
  if (documents.length === 0 && returns.length === 0 && declared === 0) return null;
  const digits = minorDigits(setup.client.currency);
  return {
    documents: documents.length,
    declared,
    first: (await documentsNamed(work, documents.slice(0, SHOWN))).map((one) => ({ ...one, digits })),
    returns,
  };
}

/** Clients the law of a pack can be about: those at home there, with a place there, or registered there. */
export async function clientsUnder(
  { db, summaries }: Practice,
  { packs }: Law,
  packId: string,
): Promise<{ id: number; name: string }[]> {
  const { id, country } = packs.byId(packId);
  await summaries.settled();
  return db.rows(
    `SELECT c.client_id AS id, c.name FROM client_summaries c WHERE c.country = $1
       OR EXISTS (SELECT 1 FROM json_each(c.places) p WHERE p.value ->> 'country' = $1)
       OR EXISTS (SELECT 1 FROM registration_summaries r WHERE r.client_id = c.client_id AND r.pack = $2)
     ORDER BY c.name COLLATE NOCASE`,
    [country, id],
  );
}

/**
 * The documents of a client that other rows of a schedule are about; none where the client has rows of its own.
 * @param rows what stands in the schedule at the other end: before it, or after it
 */
async function touchedUnder(
  work: Work,
  clientId: number,
  ref: string,
  rows: readonly RateRow[],
): Promise<Touched> {
  const own = await work.models.schedules.count({ where: { clientId, ref }, ...work.options });
  return own > 0 ? { open: [], declared: 0 } : documentsTouched(work, { clientId, ref, rows });
}

/** The ids of those of them that are open. */
export async function documentsMoved(
  work: Work,
  client: number,
  schedule: string,
  rows: readonly RateRow[],
): Promise<number[]> {
  return (await touchedUnder(work, client, schedule, rows)).open;
}

function becoming({ packs }: Work, change: RateChange): readonly RateRow[] {
  return withRow(packs.byId(change.pack).schedules[change.schedule] ?? [], change);
}

async function returnsOf(
  work: Work,
  setup: ClientSetup,
  documents: readonly number[],
): Promise<LawTouched["clients"][number]["returns"]> {
  if (documents.length === 0) return [];
  const rows = await work.rows<{ registration: number; end: string }>(
    `SELECT DISTINCT registration_id AS registration, period_end AS "end" FROM facts
     WHERE live = 1 AND registration_id IS NOT NULL AND period_end IS NOT NULL
       AND document_id IN (SELECT value FROM json_each($1)) ORDER BY period_end`,
    [JSON.stringify(documents)],
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
