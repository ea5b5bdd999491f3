import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { groupBy } from "@fiscalon/core/groupBy";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import type { LateGroup, LateKind } from "@fiscalon/core/model/correction";
import { correctionOf, optionsOn } from "@fiscalon/core/model/registration";
import { amountOfBox } from "@fiscalon/core/returns/amountOfBox";
import { corrections } from "@fiscalon/core/returns/corrections";
import type { CorrectionAnswer } from "@fiscalon/core/returns/corrections";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import type { LateBody, LateDocument } from "@fiscalon/contract/returns";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { loadSetup, registrationIn } from "../loadSetup.ts";
import { dueDates } from "./dueDates.ts";
import { digitsOf } from "./evaluation.ts";
import { periodEnding, requireOpen } from "./periods.ts";
import { applyLateAnswers } from "./lateAnswers.ts";
import { ON_OUTPUT_ACCOUNT, SEPARATE } from "./queries.ts";
import { returnRecord } from "./records.ts";

/** Documents of earlier periods that turned up in this one, also those that are put right apart from its return. */
export async function lateDocuments(
  work: Work,
  registrationId: number,
  end: string,
): Promise<LateDocument[]> {
  const rows = await work.rows<
    Omit<LateDocument, "kind" | "said" | "separately" | "amends"> & {
      credit: number;
      purchase: number;
      said: LateKind | null;
      separately: number;
      amends: number;
    }
  >(
    `SELECT f.document_id AS document, d.number, coalesce(c.name, '') AS party, d.date, f.own_end AS own,
       max(f.credit) AS credit, max(f.direction = 'purchase') AS purchase,
       a.kind AS said, coalesce(a.separately, 0) AS separately, coalesce(a.amends, 0) AS amends, coalesce(a.reason, '') AS reason,
       sum(f.net) AS net, sum(CASE WHEN ${ON_OUTPUT_ACCOUNT} THEN f.tax ELSE 0 END) AS output,
       sum(f.recoverable) AS input
     FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN late_answers a ON a.registration_id = f.registration_id AND a.document_id = f.document_id
     WHERE f.registration_id = $1 AND f.late = 1 AND f.live = 1
       AND (f.period_end = $2 AND NOT (${SEPARATE})
         OR (${SEPARATE} AND f.document_id IN
           (SELECT document_id FROM late_answers WHERE registration_id = $1 AND period_end = $2 AND separately = 1)))
     GROUP BY f.document_id ORDER BY d.date, d.id`,
    [registrationId, end],
  );
  return rows.map(({ credit, purchase, said, separately, amends, ...row }) => ({
    ...row,
    kind: said ?? kindFound({ ...row, credit: credit === 1, purchase: purchase === 1 }),
    said: said !== null,
    separately: separately === 1,
    amends: amends === 1,
  }));
}

/** What a late document is where nobody said: a credit note changes a price, a bill that owes nothing claims. */
function kindFound(one: { credit: boolean; purchase: boolean; output: number; input: number }): LateKind {
  if (one.credit) return "credit-note";
  return one.purchase && one.output <= one.input ? "late-claim" : "error";
}

/** What the law says of the late documents that are on a return. */
export async function correctionsOf(
  work: Work,
  r: RegistrationRecord,
  end: string,
  boxes: readonly BoxResult[],
  late: readonly LateDocument[],
): Promise<CorrectionAnswer[]> {
  const groups = groupsOf(late.filter(({ separately }) => !separately));
  if (groups.length === 0) return [];
  const pack = work.packs.byId(r.pack);
  const filed = new Map<string, readonly { box: string; amount: number }[]>();
  for (const { period } of groups) filed.set(period, (await returnRecord(work, r.id, period))?.boxes ?? []);
  return corrections(groups, {
    rule: correctionOf(pack, r.levies),
    digits: digitsOf(work, r),
    end,
    due: dueDates(work, r, end).due,
    dueOf: (period) => dueDates(work, r, period).due,
    box: (id) => amountOfBox(boxes, id),
    boxOf: (period, id) => amountOfBox(filed.get(period) ?? [], id),
    options: optionsOn(pack, r, end),
  });
}

function groupsOf(late: readonly LateDocument[]): LateGroup[] {
  return [...groupBy(late, ({ own, kind }) => `${own} ${kind}`).values()].map((documents) => {
    const { own, kind } = at(documents, 0);
    const sum = (of: (one: LateDocument) => number) => documents.reduce((total, one) => total + of(one), 0);
    return {
      period: own,
      kind,
      count: documents.length,
      output: sum(({ output }) => output),
      input: sum(({ input }) => input),
      values: sum(({ net }) => Math.abs(net)),
      oldest: documents.map(({ date }) => date).sort()[0] ?? own,
    };
  });
}

/**
 * Keeps what a person says of a late document, and takes it off the return to be put right apart from it, or puts it
 * back. The books stay as they are.
 */
export async function answerLate(
  work: Work,
  clientId: number,
  rid: string,
  end: string,
  documentId: number,
  body: LateBody,
): Promise<void> {
  await work.write(async (work) => {
    const r = registrationIn(await loadSetup(work, clientId), rid);
    periodEnding(r, end);
    await requireOpen(work, r.id, end);
    await keepAnswer(work, clientId, r, end, documentId, body);
  });
}

/** As answerLate, inside a write; also used when a book file brings answers. */
export async function keepAnswer(
  work: Writing,
  clientId: number,
  r: RegistrationRecord,
  end: string,
  documentId: number,
  body: LateBody,
): Promise<void> {
  const own = await work.row("SELECT 1 FROM documents WHERE id = $1 AND client_id = $2", [
    documentId,
    clientId,
  ]);
  if (!own) throw notFound("This document");
  const late = await lateDocuments(work, r.id, end);
  const before = late.find(({ document }) => document === documentId);
  if (!before) {
    throw new FiscalError(
      "returns/not-late",
      `Document ${documentId} is no late item of the return to ${displayDate(end)}; only what belongs to an earlier period can be answered here.`,
    );
  }
  await work.run(
    `INSERT INTO late_answers (client_id, registration_id, document_id, period_end, kind, separately, amends, reason, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
     ON CONFLICT (registration_id, document_id) DO UPDATE SET period_end = excluded.period_end, kind = excluded.kind,
       separately = excluded.separately, amends = excluded.amends, reason = excluded.reason, created_at = excluded.created_at,
       created_by = excluded.created_by`,
    [
      clientId,
      r.id,
      documentId,
      end,
      body.kind,
      body.separately ? 1 : 0,
      body.amends ? 1 : 0,
      body.reason,
      work.at,
      work.person,
    ],
  );
  await applyLateAnswers(work, [r], [documentId]);
  if (body.amends) await requireAmended(work, documentId);
  await work.record({
    action: "answer",
    entity: "late-item",
    id: documentId,
    before: {
      kind: before.kind,
      separately: before.separately,
      amends: before.amends,
      reason: before.reason,
    },
    after: { period: end, ...body },
  });
}

async function requireAmended(work: Writing, documentId: number): Promise<void> {
  const moved = await work.row(
    "SELECT 1 FROM facts WHERE document_id = $1 AND live = 1 AND plain_tags IS NOT NULL",
    [documentId],
  );
  if (moved) return;
  throw new FiscalError(
    "returns/nothing-amended",
    "Nothing of this document stands in a table that has amendments on this form. Leave it where it is.",
    "amends",
  );
}

/** What is put right apart from a period's return counts as its own again once that is opened. */
export async function takeBackSeparate(work: Writing, r: RegistrationRecord, end: string): Promise<void> {
  await work.run(
    `DELETE FROM late_answers WHERE registration_id = $1 AND document_id IN
       (SELECT f.document_id FROM facts f WHERE f.registration_id = $1 AND f.period_end = $2 AND ${SEPARATE})`,
    [r.id, end],
  );
  await work.run(
    `UPDATE facts AS f SET late = 0 WHERE f.registration_id = $1 AND f.period_end = $2 AND ${SEPARATE}`,
    [r.id, end],
  );
}
