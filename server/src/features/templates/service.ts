import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { requireOwn } from "../../books/requireOwn.ts";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { PostedDue, Rhythm, TemplateBody, TemplateView } from "@fiscalon/contract/templates";
import type { DocumentBody } from "@fiscalon/contract/document";
import type { Work, Writing } from "../../base/work.ts";
import { inField, notFound } from "../../base/errors.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import { nextInSeries } from "../../books/series.ts";

const MOST_AT_ONCE = 60;

interface Row {
  id: number;
  name: string;
  kind: TemplateView["kind"];
  body: string;
  every: Rhythm | null;
  /** The first date, from which all others are counted. */
  begins: string | null;
  nextOn: string | null;
  until: string | null;
  byItself: number;
  problem: string | null;
  party: string | null;
}

/** Kept documents, with the dates on which each is due again. */
export async function templateViews(work: Work, clientId: number): Promise<TemplateView[]> {
  const rows = await rowsOf(work, clientId);
  return rows.map(({ body, party, begins, ...row }) => ({
    ...row,
    byItself: row.byItself === 1,
    party: party ?? "",
    document: JSON.parse(body) as DocumentBody,
    due: dueDates({ ...row, begins }, work.today),
  }));
}

async function rowsOf(work: Work, clientId: number): Promise<Row[]> {
  return work.rows<Row>(
    `SELECT t.id, t.name, t.kind, t.body, t.every, t.begins, t.next_on AS nextOn, t.until, t.by_itself AS byItself,
       t.problem, c.name AS party
     FROM templates t LEFT JOIN contacts c ON c.id = t.body ->> 'contact' WHERE t.client_id = $1 ORDER BY t.name`,
    [clientId],
  );
}

/** Dates from the next one up to a day, never beyond the end; counted from the first, so that a 31st comes back. */
export function dueDates(
  { every, begins, nextOn, until }: Pick<Row, "every" | "begins" | "nextOn" | "until">,
  upTo: string,
): string[] {
  if (every === null || nextOn === null) return [];
  const dates: string[] = [];
  for (let count = 0; dates.length < MOST_AT_ONCE; count += 1) {
    const date = later(begins ?? nextOn, every, count);
    if (date > upTo || (until !== null && date > until)) break;
    if (date >= nextOn) dates.push(date);
  }
  return dates;
}

function firstAfter({ every, begins, nextOn }: Row, date: string): string | null {
  if (every === null || nextOn === null) return null;
  for (let count = 0; ; count += 1) {
    const next = later(begins ?? nextOn, every, count);
    if (next > date) return next;
  }
}

function later(from: string, every: Rhythm, count: number): string {
  if (every === "weekly") return addDays(from, 7 * count);
  return addMonths(from, { monthly: 1, quarterly: 3, yearly: 12 }[every] * count);
}

export async function keepTemplate(work: Work, clientId: number, template: TemplateBody): Promise<void> {
  await work.write(async (work) => {
    await inField("document", async () => {
      await requireOwn(work, clientId, "contacts", template.document.contact, "contact");
      await requireOwn(work, clientId, "places", template.document.place, "place");
    });
    const id = await writeTemplate(work, clientId, { ...template, begins: template.nextOn });
    await work.record({ action: "keep", entity: "template", id, after: template });
  });
}

/** Puts a kept document in its table; the same name again takes the place of what was there. Gives its number. */
export async function writeTemplate(
  work: Writing,
  clientId: number,
  { name, document, every, begins, nextOn, until, byItself }: TemplateBody & { begins: string | null },
): Promise<number> {
  const { createdAt, createdBy } = work.made;
  await work.run(
    `INSERT INTO templates (client_id, name, kind, body, every, begins, next_on, until, by_itself, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)
     ON CONFLICT (client_id, name) DO UPDATE SET kind = excluded.kind, body = excluded.body, every = excluded.every,
       begins = excluded.begins, next_on = excluded.next_on, until = excluded.until, by_itself = excluded.by_itself,
       problem = NULL`,
    [
      clientId,
      name,
      document.kind,
      JSON.stringify(document),
      every,
      begins,
      nextOn,
      until,
      byItself ? 1 : 0,
      createdAt,
      createdBy,
    ],
  );
  const { id } = await work.one<{ id: number }>(
    "SELECT id FROM templates WHERE client_id = $1 AND name = $2",
    [clientId, name],
  );
  return id;
}

export async function dropTemplate(work: Work, clientId: number, id: number): Promise<void> {
  await work.write(async (work) => {
    const [row] = (await rowsOf(work, clientId)).filter((one) => one.id === id);
    if (!row) throw notFound("This template");
    await work.run("DELETE FROM templates WHERE id = $1", [id]);
    await work.record({
      action: "drop",
      entity: "template",
      id,
      before: row,
    });
  });
}

/** Posts what is due of every template of a client, once a date, and moves each on to its next one. */
export async function postDue(work: Work, clientId: number): Promise<PostedDue> {
  const report: PostedDue = { posted: 0, failed: 0 };
  for (const { id } of await rowsOf(work, clientId)) {
    const posted = await tryTemplate(work, clientId, id);
    if (posted === null) report.failed += 1;
    else report.posted += posted;
  }
  return report;
}

/** What fell due longer ago is not posted without somebody looking at it. */
const BY_ITSELF_DAYS = 92;

/**
 * Posts what is due of one template by itself; where that goes far back, the server stood still or a clock was wrong, and
 * it asks where it is kept.
 */
export async function postByItself(work: Work, clientId: number, id: number): Promise<void> {
  const row = (await rowsOf(work, clientId)).find((one) => one.id === id);
  const dates = row ? dueDates(row, work.today) : [];
  const [first] = dates;
  if (!row || first === undefined) return;
  if (first >= addDays(work.today, -BY_ITSELF_DAYS)) {
    await tryTemplate(work, clientId, id);
    return;
  }
  const many = dates.length === MOST_AT_ONCE ? `${MOST_AT_ONCE} or more` : String(dates.length);
  const asks = `${many} fell due since ${displayDate(first)}. Look at them, and post them here, or keep the document again with another next date.`;
  if (row.problem !== asks)
    await work.write((work) => work.run("UPDATE templates SET problem = $2 WHERE id = $1", [id, asks]));
}

/**
 * Posts what is due of one template in a transaction of its own; one that cannot be posted says so where it is kept, and
 * does not hold up the others.
 * @returns how many documents, null where it could not be posted
 */
export async function tryTemplate(work: Work, clientId: number, id: number): Promise<number | null> {
  try {
    return await work.write((work) => postTemplate(work, clientId, id));
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    await work.write((work) =>
      work.run("UPDATE templates SET problem = $2 WHERE id = $1", [id, error.message]),
    );
    return null;
  }
}

/** All dates of one template, or none. */
async function postTemplate(work: Writing, clientId: number, id: number): Promise<number> {
  const row = (await rowsOf(work, clientId)).find((one) => one.id === id);
  const dates = row ? dueDates(row, work.today) : [];
  const last = dates.at(-1);
  if (!row || last === undefined) return 0;
  const setup = await loadSetup(work, clientId);
  for (const date of dates) await postAt(work, setup, row, date);
  await work.run("UPDATE templates SET next_on = $2, problem = NULL WHERE id = $1", [
    row.id,
    firstAfter(row, last),
  ]);
  return dates.length;
}

async function postAt(
  work: Writing,
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
  const clientId = setup.client.id;
  const number = await nextInSeries(work, clientId, row.kind).catch((error: unknown) => {
    if (error instanceof FiscalError && error.code === "document/no-number") return `${row.name} ${date}`;
    throw error;
  });
  const [id = 0] = await postDocuments(work, setup, [
    {
      input: { ...input, number, date, taxPoint: null },
      contact: contact ?? null,
      place: place ?? null,
      note: note ?? "",
      sourceKey: `template:${row.name}:${date}`,
    },
  ]);
  await work.record({
    action: "post",
    entity: "document",
    id,
    after: { template: row.name, date },
  });
}
