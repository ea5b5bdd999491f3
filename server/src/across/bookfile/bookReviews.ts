import { registrationWithId } from "../../books/loadSetup.ts";
import { FiscalError } from "@fiscalon/core/errors";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookAcceptance, BookLateAnswer } from "@fiscalon/contract/bookFeeds";
import type { Work, Writing } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { inField } from "../../base/errors.ts";
import { keepAnswer } from "../../books/returns/late.ts";
import type { LateKind } from "@fiscalon/core/model/correction";
import { placedAt, pointerTo } from "./pointers.ts";
import type { PlacedRows, PointedList, RowsOf } from "./pointers.ts";

/** Findings accepted with a reason. Those of documents that do not count any more stay behind. */
export async function acceptancesOfBook(
  work: Work,
  { client, registrations }: ClientSetup,
  rowsOf: RowsOf,
): Promise<BookAcceptance[]> {
  const rows = await work.rows<{ registration: number; period: string; key: string; reason: string }>(
    `SELECT registration_id AS registration, period_end AS period, key, reason FROM acceptances
     WHERE client_id = $1 ORDER BY registration_id, period_end, id`,
    [client.id],
  );
  return rows.flatMap(({ registration, period, key, reason }) => {
    let whole = true;
    const finding = key.replace(/(document|payment)\/(\d+)/g, (_, kind: string, id: string) => {
      const row = pointerTo(rowsOf, `${kind}s` as PointedList, Number(id));
      whole &&= row !== null;
      return row ?? "";
    });
    if (!whole) return [];
    return [{ registration: registrationWithId(registrations, registration).ref, period, finding, reason }];
  });
}

/** Accepts findings as the book file says. */
export async function addAcceptances(
  work: Writing,
  { client, registrations }: ClientSetup,
  { acceptances = [] }: BookFile,
  placed: PlacedRows,
): Promise<void> {
  const { createdAt, createdBy } = work.made;
  for (const [index, { registration, period, finding, reason }] of acceptances.entries()) {
    const path = `acceptances[${index}]`;
    const r = registrations.find((one) => one.ref === registration);
    if (!r) {
      const words = `The file has no registration "${registration}".`;
      throw new FiscalError("book/unknown-id", words, `${path}.registration`);
    }
    const key = finding.replace(/\/(document|payment)s\/\d+/g, (pointer, kind: string) => {
      const { id } = placedAt(placed, pointer, `${path}.finding`);
      return `${kind}/${id}`;
    });
    await work.run(
      `INSERT OR REPLACE INTO acceptances (client_id, registration_id, period_end, key, reason, created_at, created_by)
       VALUES ($1, $2, $3, $4, $5, $6, $7)`,
      [client.id, r.id, period, key, reason, createdAt, createdBy],
    );
  }
}

/** What was said of late documents that still count. */
export async function lateAnswersOfBook(
  work: Work,
  { client, registrations }: ClientSetup,
  rowsOf: RowsOf,
): Promise<BookLateAnswer[]> {
  const rows = await work.rows<{
    registration: number;
    period: string;
    document: number;
    kind: LateKind | null;
    separately: number;
    amends: number;
    reason: string;
  }>(
    `SELECT registration_id AS registration, period_end AS period, document_id AS document, kind, separately, amends, reason
     FROM late_answers WHERE client_id = $1 ORDER BY registration_id, period_end, id`,
    [client.id],
  );
  return rows.flatMap(({ registration, document, separately, amends, ...rest }) => {
    const pointer = pointerTo(rowsOf, "documents", document);
    const { ref } = registrationWithId(registrations, registration);
    return pointer === null
      ? []
      : [
          {
            registration: ref,
            document: pointer,
            separately: separately === 1,
            ...(amends === 1 ? { amends: true } : {}),
            ...rest,
          },
        ];
  });
}

/** Says of late documents what the book file says, of those that turned up in a period, or in all that are not sealed. */
export async function addLateAnswers(
  work: Writing,
  { client, registrations }: ClientSetup,
  { lateAnswers = [] }: BookFile,
  placed: PlacedRows,
  isNow: (period: string) => boolean,
): Promise<void> {
  for (const [index, { registration, period, document, ...body }] of lateAnswers.entries()) {
    if (!isNow(period)) continue;
    const path = `lateAnswers[${index}]`;
    const r = registrations.find((one) => one.ref === registration);
    if (!r) {
      const words = `The file has no registration "${registration}".`;
      throw new FiscalError("book/unknown-id", words, `${path}.registration`);
    }
    const { id } = placedAt(placed, document, `${path}.document`);
    await inField(path, () => keepAnswer(work, client.id, r, period, id, body));
  }
}

/** Reasons why journals on control accounts are right, by document. */
export async function explanationsOfBook(work: Work, clientId: number): Promise<Map<number, string>> {
  const rows = await work.rows<{ document: number; reason: string }>(
    `SELECT e.document_id AS document, x.reason FROM explanations x JOIN entries e ON e.id = x.entry_id
     WHERE x.client_id = $1 AND e.live = 1 AND e.document_id IS NOT NULL`,
    [clientId],
  );
  return new Map(rows.map(({ document, reason }) => [document, reason]));
}

export async function addExplanations(
  work: Writing,
  clientId: number,
  { documents = [] }: BookFile,
  placed: PlacedRows,
): Promise<void> {
  const { createdAt, createdBy } = work.made;
  const reasons = documents.flatMap(({ explanation }, index) =>
    explanation === undefined ? [] : [[placed.documents[index], explanation]],
  );
  await work.run(
    `INSERT INTO explanations (client_id, entry_id, reason, created_at, created_by)
     SELECT $1, e.id, x.value ->> 1, $2, $3 FROM json_each($4) x
     JOIN entries e ON e.document_id = x.value ->> 0 AND e.live = 1`,
    [clientId, createdAt, createdBy, JSON.stringify(reasons)],
  );
}
