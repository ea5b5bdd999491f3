import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { Rhythm, TemplateBody, TemplateView } from "@fiscalon/contract/templates";
import type { DocumentBody } from "@fiscalon/contract/document";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import { notFound } from "../../errors.ts";
import { loadSetup, today } from "../clients/loadSetup.ts";
import { postDocuments } from "../documents/postDocuments.ts";
import { nextInSeries } from "../series/service.ts";

const MOST_AT_ONCE = 60;

interface Row {
  id: number;
  name: string;
  kind: TemplateView["kind"];
  body: string;
  every: Rhythm | null;
  nextOn: string | null;
  until: string | null;
  party: string | null;
}

/** Kept documents, with the dates on which each is due again. */
export async function templateViews(db: Database, clientId: number): Promise<TemplateView[]> {
  const rows = await rowsOf(db, clientId);
  return rows.map(({ body, party, ...row }) => ({
    ...row,
    party: party ?? "",
    document: JSON.parse(body) as DocumentBody,
    due: dueDates(row, today()),
  }));
}

async function rowsOf(db: Database, clientId: number, tx?: Tx): Promise<Row[]> {
  return db.rows<Row>(
    `SELECT t.id, t.name, t.kind, t.body, t.every, t.next_on AS nextOn, t.until, c.name AS party
     FROM templates t LEFT JOIN contacts c ON c.id = t.body ->> 'contact' WHERE t.client_id = $1 ORDER BY t.name`,
    [clientId],
    tx,
  );
}

/** Dates from the next one up to a day, never beyond the end. */
export function dueDates(
  { every, nextOn, until }: Pick<Row, "every" | "nextOn" | "until">,
  upTo: string,
): string[] {
  if (every === null || nextOn === null) return [];
  const dates: string[] = [];
  for (let count = 0; count < MOST_AT_ONCE; count += 1) {
    const date = later(nextOn, every, count);
    if (date > upTo || (until !== null && date > until)) break;
    dates.push(date);
  }
  return dates;
}

/** Counted from the first date, so that the 31st comes back after a short month. */
function later(from: string, every: Rhythm, count: number): string {
  if (every === "weekly") return addDays(from, 7 * count);
  return addMonths(from, { monthly: 1, quarterly: 3, yearly: 12 }[every] * count);
}

export async function keepTemplate(
  db: Database,
  actor: Actor,
  clientId: number,
  { name, document, every, nextOn, until }: TemplateBody,
): Promise<void> {
  await db.write(async (tx) => {
    const { createdAt, createdBy } = made(actor);
    await db.run(
      `INSERT INTO templates (client_id, name, kind, body, every, next_on, until, created_at, created_by)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)
       ON CONFLICT (client_id, name) DO UPDATE SET kind = excluded.kind, body = excluded.body, every = excluded.every,
         next_on = excluded.next_on, until = excluded.until`,
      [clientId, name, document.kind, JSON.stringify(document), every, nextOn, until, createdAt, createdBy],
      tx,
    );
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "keep",
      entity: "template",
      id: null,
      after: { name, document, every, nextOn, until },
    });
  });
}

export async function dropTemplate(db: Database, actor: Actor, clientId: number, id: number): Promise<void> {
  await db.write(async (tx) => {
    const [row] = (await rowsOf(db, clientId, tx)).filter((one) => one.id === id);
    if (!row) throw notFound("This template");
    await db.run("DELETE FROM templates WHERE id = $1", [id], tx);
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "drop",
      entity: "template",
      id,
      before: row,
    });
  });
}

/** Posts what is due of every template, once a date, and moves each on to its next one. */
export async function postDue(db: Database, actor: Actor, clientId: number): Promise<{ posted: number }> {
  return db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    let posted = 0;
    for (const row of await rowsOf(db, clientId, tx)) {
      const dates = dueDates(row, today());
      for (const date of dates) {
        await postAt(db, tx, actor, setup, row, date);
        posted += 1;
      }
      const { every, nextOn } = row;
      if (every === null || nextOn === null || dates.length === 0) continue;
      await db.run(
        "UPDATE templates SET next_on = $2 WHERE id = $1",
        [row.id, later(nextOn, every, dates.length)],
        tx,
      );
    }
    return { posted };
  });
}

async function postAt(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: Awaited<ReturnType<typeof loadSetup>>,
  row: Row,
  date: string,
): Promise<void> {
  const {
    contact,
    place,
    note,
    corrects: _none,
    duplicateReason: _no,
    ...input
  } = JSON.parse(row.body) as DocumentBody;
  const own = setup.client.id;
  const number = await nextInSeries(db, tx, own, row.kind).catch((error: unknown) => {
    if (error instanceof FiscalError && error.code === "document/no-number") return `${row.name} ${date}`;
    throw error;
  });
  const [id = 0] = await postDocuments(db, tx, actor, setup, [
    {
      input: { ...input, number, date, taxPoint: null },
      contact: contact ?? null,
      place: place ?? null,
      note: note ?? "",
      sourceKey: `template:${row.name}:${date}`,
    },
  ]);
  await recordChange(db, tx, actor, {
    client: own,
    action: "post",
    entity: "document",
    id,
    after: { template: row.name, date },
  });
}
