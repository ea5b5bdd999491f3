import { FiscalError } from "@fiscalon/core/errors";
import { groupBy } from "@fiscalon/core/groupBy";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { OriginalView } from "@fiscalon/contract/views";
import type { Work } from "../../base/work.ts";
import { creditedBy, sideOf } from "../../db/kindSql.ts";
import { loadSetup } from "../loadSetup.ts";
import type { ClientSetup } from "../loadSetup.ts";
import type { NewDocument } from "./newDocument.ts";
import { recordedRates } from "./recordedRates.ts";

interface Original {
  id: number;
  number: string;
  contact: number | null;
  creditedBy: string | null;
  on: string;
  gross: number;
}

/** Documents of these numbers that can be corrected, newest first. */
function postedWith(work: Work, clientId: number, numbers: readonly string[]): Promise<Original[]> {
  return work.rows<Original>(
    `SELECT id, number, contact_id AS contact, ${creditedBy("kind")} AS creditedBy, coalesce(tax_point, date) AS "on", gross
     FROM documents WHERE client_id = $1 AND state = 'posted' AND number IN (SELECT value FROM json_each($2))
       AND ${sideOf("kind")} IS NOT NULL ORDER BY id DESC`,
    [clientId, JSON.stringify(numbers)],
  );
}

/** What a credit note that is being typed would correct: the document with its number, of its party where it names one. */
export async function originalView(
  work: Work,
  clientId: number,
  { kind, number, contact }: { kind: DocumentKind; number: string; contact: number | null },
): Promise<OriginalView | null> {
  const posted = await postedWith(work, clientId, [number]);
  const original = fitting(posted, { kind, number, contact });
  if (!original) return null;
  const rates = await recordedRates(work, await loadSetup(work, clientId), [original.id]);
  return { date: original.on, gross: original.gross, recordedRates: rates.get(original.id) ?? [] };
}

/** A credit note keeps the rates of the document it corrects: its tax point, gross and rates are looked up by number. */
export async function addOriginals(
  work: Work,
  setup: ClientSetup,
  documents: readonly NewDocument[],
): Promise<void> {
  const credits = new Set(documents.filter(({ input, corrects }) => corrects && kindOf(input.kind).sign < 0));
  if (credits.size === 0) return;
  const numbers = [...new Set([...credits].map(({ corrects }) => corrects ?? ""))];
  const posted = await postedWith(work, setup.client.id, numbers);
  const rates = await recordedRates(
    work,
    setup,
    posted.map(({ id }) => id),
  );
  const batch = groupBy(documents, ({ input }) => input.number);
  documents.forEach((document, index) => {
    if (!credits.has(document)) return;
    const original = originalOf(document, posted, batch, setup);
    if (original === "other party") throw otherParty(document, index, documents.length);
    if (!original) return;
    document.input.originalDate ??= original.on;
    document.input.originalGross = original.gross;
    const recorded = original.id === null ? undefined : rates.get(original.id);
    if (recorded) document.input.recordedRates ??= recorded;
  });
}

/** The newest of these that a credit note of this kind can correct, of its party where both name one. */
function fitting(
  posted: readonly Original[],
  { kind, number, contact }: { kind: DocumentKind; number: string | null; contact: number | null },
): Original | undefined {
  return posted.find(
    (one) =>
      one.number === number &&
      one.creditedBy === kind &&
      (contact === null || one.contact === null || one.contact === contact),
  );
}

/** Among what is posted already, or in the same batch. */
function originalOf(
  { input, contact, corrects }: NewDocument,
  posted: readonly Original[],
  batch: ReadonlyMap<string, readonly NewDocument[]>,
  setup: ClientSetup,
): { id: number | null; on: string; gross: number } | "other party" | undefined {
  const kept = fitting(posted, { kind: input.kind, number: corrects ?? null, contact });
  if (kept) return kept;
  const inBatch = (batch.get(corrects ?? "") ?? []).filter(
    (one) => kindOf(one.input.kind).creditedBy === input.kind,
  );
  const beside = inBatch.find((one) => contact === null || one.contact === null || one.contact === contact);
  if (beside) {
    beside.effect ??= documentEffect(beside.input, setup.effect);
    return { id: null, on: beside.input.taxPoint ?? beside.input.date, gross: beside.effect.priced.gross };
  }
  const elsewhere =
    inBatch.length > 0 || fitting(posted, { kind: input.kind, number: corrects ?? null, contact: null });
  return elsewhere && isOurNumber(input.kind) ? "other party" : undefined;
}

/** Numbers of our own papers name one document; two suppliers may use the same. */
function isOurNumber(creditNote: DocumentKind): boolean {
  return kindOf(creditNote).uniqueBy === "number";
}

function otherParty({ corrects }: NewDocument, index: number, count: number): FiscalError {
  return new FiscalError(
    "document/corrects-other-party",
    `${corrects} was issued to another party. Correct the number, or the contact.`,
    count === 1 ? "corrects" : `documents[${index}].corrects`,
  );
}
