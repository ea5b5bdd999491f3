import { FiscalError } from "@fiscalon/core/errors";
import type { ReturnBody } from "@fiscalon/core/formats/authority/returnBody";
import type { Work, Writing } from "../../base/work.ts";

/** What was sent for a period and has no answer yet: the authority may hold it, or not. */
export interface OpenFiling {
  id: number;
  number: string;
  periodKey: string;
  body: ReturnBody;
  at: string;
}

/** The one that was sent for a period and whose answer is not known. */
export async function openFiling(
  work: Work,
  registration: number,
  end: string,
): Promise<OpenFiling | undefined> {
  const row = await work.row<Omit<OpenFiling, "body"> & { body: string }>(
    `SELECT id, number, period_key AS periodKey, body, sent_at AS at FROM filings
     WHERE registration_id = $1 AND period_end = $2 AND state = 'sent'`,
    [registration, end],
  );
  return row && { ...row, body: JSON.parse(row.body) as ReturnBody };
}

/**
 * Keeps what is about to be sent. It is on the disk before the authority sees it, so that after any loss it is known what
 * to ask for.
 */
export async function keepSent(
  work: Writing,
  of: { clientId: number; registrationId: number; periodEnd: string },
  number: string,
  body: ReturnBody,
): Promise<number> {
  await work.run(
    `INSERT INTO filings (client_id, registration_id, period_end, number, period_key, body, state, sent_at, sent_by)
     VALUES ($1, $2, $3, $4, $5, $6, 'sent', $7, $8)`,
    [
      of.clientId,
      of.registrationId,
      of.periodEnd,
      number,
      body.periodKey,
      JSON.stringify(body),
      work.at,
      work.person,
    ],
  );
  const { id } = await work.one<{ id: number }>("SELECT last_insert_rowid() AS id");
  return id;
}

/** Notes what came of it: it was taken, refused, or the authority holds nothing of it. */
export function keepAnswer(
  work: Writing,
  id: number,
  state: "accepted" | "refused" | "not-held",
  answer: object,
): Promise<void> {
  return work.run("UPDATE filings SET state = $2, answer = $3, ended_at = $4 WHERE id = $1", [
    id,
    state,
    JSON.stringify(answer),
    work.at,
  ]);
}

/** @throws FiscalError `returns/being-sent` where what was sent for the period has no answer yet */
export async function refuseWhileSent(work: Work, registration: number, end: string): Promise<void> {
  if (!(await openFiling(work, registration, end))) return;
  throw new FiscalError(
    "returns/being-sent",
    "This return was sent and its answer is not known. File it again: the authority is asked first what it holds, and nothing is sent twice.",
  );
}
