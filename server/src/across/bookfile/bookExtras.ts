import { refOf } from "./pointers.ts";
import { valueAt } from "@fiscalon/core/at";
import type { BookSeries, BookTemplate } from "@fiscalon/contract/book";
import type { NumberedKind } from "@fiscalon/contract/series";
import type { DocumentBody } from "@fiscalon/contract/document";
import type { Rhythm } from "@fiscalon/contract/templates";
import type { Work, Writing } from "../../base/work.ts";
import { writeTemplate } from "../../features/templates/service.ts";

/** Series of numbers and kept documents, as the book file holds them. */
export async function extrasOfBook(
  work: Work,
  clientId: number,
  contacts: ReadonlyMap<number, string>,
  places: ReadonlyMap<number, string>,
): Promise<{ series?: BookSeries[]; templates?: BookTemplate[] }> {
  const series = await work.rows<BookSeries>(
    "SELECT kind, prefix, digits FROM series WHERE client_id = $1 ORDER BY kind",
    [clientId],
  );
  const templates = await work.rows<{
    name: string;
    body: string;
    every: Rhythm | null;
    nextOn: string | null;
    until: string | null;
    begins: string | null;
    byItself: number;
  }>(
    `SELECT name, body, every, next_on AS nextOn, until, begins, by_itself AS byItself FROM templates
     WHERE client_id = $1 ORDER BY name`,
    [clientId],
  );
  return {
    ...(series.length === 0 ? {} : { series }),
    ...(templates.length === 0
      ? {}
      : {
          templates: templates.map(({ body, begins, byItself, ...rest }) => {
            const { contact, place, duplicateReason: _none, ...document } = JSON.parse(body) as DocumentBody;
            return {
              ...rest,
              ...(begins === null || begins === rest.nextOn ? {} : { begins }),
              ...(byItself === 1 ? { byItself: true } : {}),
              document: {
                ...document,
                ...(contact ? { contact: valueAt(contacts, contact) } : {}),
                ...(place ? { place: valueAt(places, place) } : {}),
              },
            };
          }),
        }),
  };
}

/** Puts series and kept documents of a book file in their tables. */
export async function addExtras(
  work: Writing,
  clientId: number,
  { series = [], templates = [] }: { series?: BookSeries[]; templates?: BookTemplate[] },
  refs: { contacts: ReadonlyMap<string, number>; places: ReadonlyMap<string, number> },
): Promise<void> {
  const { createdAt, createdBy } = work.made;
  for (const { kind, prefix, digits } of series) {
    await work.run(
      "INSERT INTO series (client_id, kind, prefix, digits, created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6)",
      [clientId, kind satisfies NumberedKind, prefix, digits, createdAt, createdBy],
    );
  }
  for (const [index, { document, begins, byItself = false, ...template }] of templates.entries()) {
    const path = `templates[${index}].document`;
    const extras = {
      ...document,
      contact: refOf(refs.contacts, document.contact || null, `${path}.contact`),
      place: refOf(refs.places, document.place || null, `${path}.place`),
    };
    await writeTemplate(work, clientId, {
      ...template,
      document: extras,
      begins: begins ?? template.nextOn,
      byItself,
    });
  }
}
