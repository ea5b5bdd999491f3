import type { Agreement } from "@fiscalon/core/agree/agreement";
import type { AgreeBody, BridgeView, NameCauseBody } from "@fiscalon/contract/bridge";
import { FiscalError } from "@fiscalon/core/errors";
import type { Work, Writing } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import { apartRows, TURNOVER } from "../../../books/agree/apartRows.ts";
import type { Span } from "../../../books/agree/apartRows.ts";

interface AgreedRow {
  figures: string;
  open: number;
  rest: number;
  note: string;
  at: string;
  by: string;
}

/** What somebody agreed of a span, and what has changed since. */
export async function agreedSpan(
  work: Work,
  r: Pick<RegistrationRecord, "id">,
  { from, to }: Span,
  now: Agreement,
): Promise<Pick<BridgeView, "state" | "agreed" | "changed">> {
  const row = await work.row<AgreedRow>(
    `SELECT a.figures, a."open" AS open, a.rest, a.note, a.created_at AS at, p.name AS by
     FROM agreements a JOIN people p ON p.id = a.created_by
     WHERE a.registration_id = $1 AND a.kind = $2 AND a.span_from = $3 AND a.span_to = $4`,
    [r.id, TURNOVER, from, to],
  );
  if (!row) return { state: "open", agreed: null, changed: [] };
  const changed = changesSince(row, now);
  const { by, at, note } = row;
  const left = row.open !== 0 || row.rest !== 0;
  return {
    state: changed.length > 0 ? "changed" : left ? "accepted" : "agreed",
    agreed: { by, at, note },
    changed,
  };
}

/** Names and amounts, in the order of the bridge. */
function figuresOf({ left, right, causes, open, rest }: Agreement): [string, number][] {
  return [
    ["Income", left],
    ...causes.map(({ name, amount }): [string, number] => [name, amount]),
    ["Without a cause", open.amount],
    ["Rest", rest - open.amount],
    ["Declared", right],
  ];
}

function changesSince(row: AgreedRow, now: Agreement): BridgeView["changed"] {
  const before = new Map(JSON.parse(row.figures) as [string, number][]);
  const after = new Map(figuresOf(now));
  return [...new Set([...before.keys(), ...after.keys()])]
    .map((name) => ({ name, before: before.get(name) ?? 0, now: after.get(name) ?? 0 }))
    .filter((one) => one.before !== one.now);
}

/**
 * Keeps that a span is agreed as it stands.
 * @throws FiscalError `agree/rest` where something is left and no reason is given
 */
export async function agreeSpan(
  work: Writing,
  r: RegistrationRecord,
  { from, to, note }: AgreeBody,
  now: Agreement,
): Promise<void> {
  if (now.rest !== 0 && note === "")
    throw new FiscalError(
      "agree/rest",
      "Something is left without a cause. Name it, or say why it is accepted as it is.",
      "note",
    );
  await work.run(
    `INSERT OR REPLACE INTO agreements (client_id, registration_id, kind, span_from, span_to, figures, "open", rest, note,
       created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
    [
      r.clientId,
      r.id,
      TURNOVER,
      from,
      to,
      JSON.stringify(figuresOf(now)),
      now.open.amount,
      now.rest,
      note,
      work.at,
      work.person,
    ],
  );
  await work.record({
    client: r.clientId,
    action: "agree",
    entity: "registration",
    id: r.id,
    after: { agreement: TURNOVER, from, to, left: now.left, right: now.right, rest: now.rest, note },
  });
}

/** Names the cause of rows of a span, or takes it back. */
export async function nameCause(
  work: Writing,
  r: RegistrationRecord,
  { from, to, keys, cause, reason }: NameCauseBody,
): Promise<void> {
  const chosen = await apartRows(work, r, { from, to }, { keys }, { offset: 0, limit: keys.length });
  if (chosen.length < keys.length)
    throw new FiscalError("agree/no-row", "One of these rows is not apart any more. Look again.", "keys");
  await work.run(
    "DELETE FROM named_causes WHERE registration_id = $1 AND kind = $2 AND key IN (SELECT value FROM json_each($3))",
    [r.id, TURNOVER, JSON.stringify(keys)],
  );
  if (cause !== "")
    await work.run(
      `INSERT INTO named_causes (client_id, registration_id, kind, key, cause, reason, account, text, created_at, created_by)
       SELECT $1, $2, $3, value ->> 0, $4, $5, value ->> 1, value ->> 2, $6, $7 FROM json_each($8)`,
      [
        r.clientId,
        r.id,
        TURNOVER,
        cause,
        reason,
        work.at,
        work.person,
        JSON.stringify(chosen.map(({ key, account, text }) => [key, account, text])),
      ],
    );
  await work.record({
    client: r.clientId,
    action: cause === "" ? "remove" : "name",
    entity: "registration",
    id: r.id,
    after: { agreement: TURNOVER, from, to, keys, cause, reason },
  });
}
