import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { Work } from "../../base/work.ts";

/** What of an entity stands for it in a sentence, as SQL of ours over its table. */
const NAMES = {
  contact: ["contacts", "name"],
  item: ["items", "name"],
  place: ["places", "name"],
  piece: ["pieces", "name"],
  terminal: ["terminals", "name"],
  template: ["templates", "name"],
  import: ["imports", "file_name"],
  payment: ["payments", "number"],
  entry: ["entries", "text"],
  "bank-line": ["bank_lines", "party || ' ' || text"],
  adjustment: ["adjustments", "'box ' || box"],
} as const satisfies Record<string, readonly [table: string, name: string]>;
type Named = keyof typeof NAMES;

/** Entities that are kept under the number of another one. */
const KEPT_AS: Readonly<Record<string, Entity>> = {
  "tax-payment": "entry",
  return: "registration",
  finding: "registration",
};
type Entity = Named | "document" | "registration";

/** Fields of what was changed that hold the number of something else. */
const REFERENCES: Readonly<Record<string, Entity>> = {
  contact: "contact",
  place: "place",
  document: "document",
  registration: "registration",
  entry: "entry",
  payment: "payment",
  item: "item",
};

/** Something by its number: what the trail keeps. */
interface Reference {
  entity: Entity;
  id: number;
}

/** What an entry of the trail is about, where its entity has a name. */
export function subjectOf(entity: string, id: number | null): Reference | undefined {
  const keptAs = KEPT_AS[entity] ?? entity;
  const known = keptAs === "document" || keptAs === "registration" || keptAs in NAMES;
  return id === null || !known ? undefined : { entity: keptAs as Entity, id };
}

/** Everything that a version of something names by number. */
export function referencesIn(value: unknown): Reference[] {
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([key, one]): Reference[] => {
    const entity = REFERENCES[key];
    return entity !== undefined && typeof one === "number" ? [{ entity, id: one }] : referencesIn(one);
  });
}

/** The names of things of a client, under `entity/number`; what is there no more has none. */
export async function namesOf(
  work: Work,
  clientId: number,
  references: readonly Reference[],
): Promise<Record<string, string>> {
  const names: Record<string, string> = {};
  const asked = (entity: Entity) => [
    ...new Set(references.filter((one) => one.entity === entity).map(({ id }) => id)),
  ];
  const rows = <T extends object>(columns: string, table: string, ids: readonly number[]) =>
    work.rows<T & { id: number }>(
      `SELECT id, ${columns} FROM ${table} WHERE client_id = $1 AND id IN (SELECT value FROM json_each($2))`,
      [clientId, JSON.stringify(ids)],
    );
  for (const [entity, [table, name]] of Object.entries(NAMES) as [Named, readonly [string, string]][]) {
    const ids = asked(entity);
    if (ids.length === 0) continue;
    for (const row of await rows<{ name: string }>(`${name} AS name`, table, ids))
      names[`${entity}/${row.id}`] = row.name.trim();
  }
  const documents = asked("document");
  if (documents.length > 0)
    for (const row of await rows<{ kind: DocumentKind; number: string }>(
      "kind, number",
      "documents",
      documents,
    ))
      names[`document/${row.id}`] = `${kindOf(row.kind).name.toLowerCase()} ${row.number}`.trim();
  const registrations = asked("registration");
  if (registrations.length > 0)
    for (const row of await rows<{ levies: string }>("levies", "registrations", registrations))
      names[`registration/${row.id}`] = work.packs.levyNames(JSON.parse(row.levies) as string[]);
  return names;
}
