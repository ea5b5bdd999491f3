import type { Agreement } from "@fiscalon/core/agree/agreement";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { AgreeBody, BridgeView, NameCauseBody } from "@fiscalon/contract/bridge";
import { keepAgreement, keptAgreement } from "../../../books/agree/keptAgreement.ts";
import { FiscalError } from "@fiscalon/core/errors";
import type { Work, Writing } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import { apartRows } from "../../../books/agree/turnover/apartRows.ts";
import { figuresOf } from "../../../books/agree/turnover/bridge.ts";
import type { Span } from "../../../books/agree/turnover/apartRows.ts";

/** What somebody agreed of a span, and what has changed since. */
export function agreedSpan(
  work: Work,
  r: Pick<RegistrationRecord, "id">,
  span: Span,
  of: BridgeOf,
  now: Agreement,
): Promise<Pick<BridgeView, "state" | "agreed" | "changed">> {
  return keptAgreement(work, r, of, span, figuresOf(now, of));
}

/**
 * Keeps that a span is agreed as it stands.
 * @throws FiscalError `agree/rest` where something is left and no reason is given
 */
export async function agreeSpan(
  work: Writing,
  r: RegistrationRecord,
  { from, to, note, of }: AgreeBody,
  now: Agreement,
): Promise<void> {
  const kept = {
    kind: of,
    span: { from, to },
    figures: figuresOf(now, of),
    open: now.open.amount,
    rest: now.rest,
  };
  await keepAgreement(work, r, kept, note);
}

/** Names the cause of rows of a span, or takes it back. */
export async function nameCause(
  work: Writing,
  r: RegistrationRecord,
  { from, to, keys, cause, reason, of }: NameCauseBody,
): Promise<void> {
  const chosen = await apartRows(work, r, { from, to }, { keys }, { offset: 0, limit: keys.length }, of);
  if (chosen.length < keys.length)
    throw new FiscalError("agree/no-row", "One of these rows is not apart any more. Look again.", "keys");
  await work.run(
    "DELETE FROM named_causes WHERE registration_id = $1 AND kind = $2 AND key IN (SELECT value FROM json_each($3))",
    [r.id, of, JSON.stringify(keys)],
  );
  if (cause !== "")
    await work.run(
      `INSERT INTO named_causes (client_id, registration_id, kind, key, cause, reason, account, text, created_at, created_by)
       SELECT $1, $2, $3, value ->> 0, $4, $5, value ->> 1, value ->> 2, $6, $7 FROM json_each($8)`,
      [
        r.clientId,
        r.id,
        of,
        cause,
        reason,
        work.at,
        work.person,
        JSON.stringify(chosen.map(({ key, account, text }) => [key, account, text])),
      ],
    );
  await work.record({
    action: cause === "" ? "remove" : "name",
    entity: "registration",
    id: r.id,
    after: { agreement: of, from, to, keys, cause, reason },
  });
}
