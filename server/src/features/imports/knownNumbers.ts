import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { at } from "@fiscalon/core/at";
import { isFar } from "@fiscalon/core/calendar/farDate";
import { numberKey } from "@fiscalon/core/incoming/numberKey";
import type { RowProblem } from "@fiscalon/core/formats/registers/readRow";
import type { RegisterDocument } from "@fiscalon/core/incoming/registerReading";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { createHash } from "node:crypto";
import type { Work } from "../../base/work.ts";
import type { ImportRecord } from "../../db/models.ts";

/** A document of a file that is not in the books yet. `key`: its fingerprint, by which the same one is known again. */
export interface FreshDocument {
  document: RegisterDocument;
  key: string;
}

/** Documents whose numbers are looked up at once. */
const AT_ONCE = 5000;

interface Known {
  key: string | null;
  kind: DocumentKind;
  number: string;
  party: string;
  partyNumber: string;
  date: string;
}

/**
 * Documents already imported are skipped by their fingerprint; numbers used by others are problems of their row.
 * @param problems where those are noted
 */
export async function sortOutKnown(
  work: Work,
  clientId: number,
  record: ImportRecord,
  all: readonly RegisterDocument[],
  problems: RowProblem[],
): Promise<{ fresh: FreshDocument[]; alreadyThere: number }> {
  const fresh: FreshDocument[] = [];
  let alreadyThere = 0;
  for (let from = 0; from < all.length; from += AT_ONCE) {
    const some = all
      .slice(from, from + AT_ONCE)
      .map((document) => ({ document, key: fingerprint(document) }));
    const known = await knownAmong(work, clientId, some);
    const keys = new Set(known.map(({ key }) => key));
    const numbers = new Map(
      known.flatMap((one) =>
        numberKeys(record, one.kind, one.number, one).map((key) => [key, one.date] as const),
      ),
    );
    for (const one of some) {
      const { document, key } = one;
      const used = numberKeys(record, document.input.kind, document.input.number, document)
        .map((number) => numbers.get(number))
        .find((date) => date !== undefined);
      if (keys.has(key)) alreadyThere += 1;
      else if (isFar(document.input.date, work.today)) problems.push(farAway(document, record, work));
      else if (used !== undefined) problems.push(numberUsed(document, record, used));
      else fresh.push(one);
    }
  }
  return { fresh, alreadyThere };
}

/** What the books have of these: the same again, or something else under the same number. */
function knownAmong(work: Work, clientId: number, some: readonly FreshDocument[]): Promise<Known[]> {
  const asked = some.map(({ document: { input }, key }) => [key, input.kind, input.number]);
  const columns = `d.source_key AS key, d.kind, d.number, coalesce(c.name, '') AS party,
    coalesce(c.tax_number, '') AS partyNumber, d.date`;
  return work.rows<Known>(
    `WITH asked AS MATERIALIZED
       (SELECT value ->> 0 AS key, value ->> 1 AS kind, value ->> 2 AS number FROM json_each($2))
     SELECT ${columns} FROM asked a CROSS JOIN documents d ON d.client_id = $1 AND d.kind = a.kind
         AND d.number = a.number COLLATE NOCASE AND d.state = 'posted'
       LEFT JOIN contacts c ON c.id = d.contact_id
     UNION ALL
     SELECT ${columns} FROM asked a CROSS JOIN documents d ON d.client_id = $1 AND d.source_key = a.key
         AND d.state = 'posted'
       LEFT JOIN contacts c ON c.id = d.contact_id`,
    [clientId, JSON.stringify(asked)],
  );
}

function farAway(document: RegisterDocument, record: ImportRecord, { today }: Work) {
  return {
    row: at(document.rows, 0),
    column: record.settings.mapping.date ?? null,
    field: "date" as const,
    value: document.input.date,
    message: `${displayDate(document.input.date)} is far from today, ${displayDate(today)}. Correct the date, or leave the row out.`,
  };
}

function numberUsed(document: RegisterDocument, record: ImportRecord, used: string) {
  return {
    row: at(document.rows, 0),
    column: record.settings.mapping.number ?? null,
    field: "number" as const,
    value: document.input.number,
    message: `Number ${document.input.number} is already in the books, dated ${used}. Correct the number, or leave the row out.`,
  };
}

/**
 * What makes a number the same one again: for papers of ours the number itself, for those of others the number of one
 * party, known by its name or by its tax number however the name is spelt.
 */
function numberKeys(
  record: ImportRecord,
  kind: DocumentKind,
  number: string,
  { party, partyNumber }: { party: string; partyNumber: string },
): string[] {
  const bare = `${kind} ${number.toLowerCase()}`;
  const theirs = kindOf(kind).uniqueBy === "party" || record.direction === "purchase";
  if (!theirs) return [bare];
  const taxNumber = numberKey(partyNumber);
  return [`${bare} ${party.toLowerCase()}`, ...(taxNumber === "" ? [] : [`${bare} #${taxNumber}`])];
}

function fingerprint({ input, party }: RegisterDocument): string {
  const lines = input.lines.map(({ amount, code, typedTax, text }) => [amount, code, typedTax, text]);
  const content = JSON.stringify([input.kind, input.number, input.date, party, lines]);
  return createHash("sha256").update(content).digest("base64url").slice(0, 32);
}
