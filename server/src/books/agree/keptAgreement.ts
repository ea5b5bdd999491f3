import { FiscalError } from "@fiscalon/core/errors";
import type { AgreementLine } from "@fiscalon/contract/agreements";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { Span } from "./turnover/apartRows.ts";

/** The figures of an agreement by name, in their order. */
export type Figures = readonly (readonly [name: string, amount: number])[];

/** How an agreement stands, as far as people said something of it. */
export type Agreed = Pick<AgreementLine, "agreed" | "changed"> & {
  state: NonNullable<AgreementLine["state"]>;
};

const NOT_YET: Agreed = { state: "open", agreed: null, changed: [] };

/** What somebody agreed of a span, and which figures have changed since. */
export async function keptAgreement(
  work: Work,
  r: Pick<RegistrationRecord, "id">,
  kind: string,
  { from, to }: Span,
  now: Figures,
): Promise<Agreed> {
  const row = await work.row<{
    figures: string;
    rest: number;
    open: number;
    note: string;
    at: string;
    by: string;
  }>(
    `SELECT a.figures, a.rest, a."open" AS open, a.note, a.created_at AS at, p.name AS by
     FROM agreements a JOIN people p ON p.id = a.created_by
     WHERE a.registration_id = $1 AND a.kind = $2 AND a.span_from = $3 AND a.span_to = $4`,
    [r.id, kind, from, to],
  );
  if (!row) return NOT_YET;
  const { by, at, note } = row;
  const before = new Map(JSON.parse(row.figures) as [string, number][]);
  const after = new Map(now);
  const changed = [...new Set([...before.keys(), ...after.keys()])]
    .map((name) => ({ name, before: before.get(name) ?? NONE, now: after.get(name) ?? NONE }))
    .filter((one) => one.before !== one.now);
  const left = row.open !== 0 || row.rest !== 0;
  return {
    state: changed.length > 0 ? "changed" : left ? "accepted" : "agreed",
    agreed: { by, at, note },
    changed,
  };
}

/** A figure that was not there, or is no more. */
const NONE = 0;

/** What is kept of an agreement. */
export interface KeptFigures {
  kind: string;
  span: Span;
  figures: Figures;
  open: number;
  rest: number;
}

/**
 * Keeps that a span is agreed as it stands.
 * @throws FiscalError `agree/rest` where something is left and no reason is given
 */
export async function keepAgreement(
  work: Writing,
  r: RegistrationRecord,
  { kind, span, figures, open, rest }: KeptFigures,
  note: string,
): Promise<void> {
  if (rest !== 0 && note === "")
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
      kind,
      span.from,
      span.to,
      JSON.stringify(figures),
      open,
      rest,
      note,
      work.at,
      work.person,
    ],
  );
  await work.record({
    action: "agree",
    entity: "registration",
    id: r.id,
    after: { agreement: kind, ...span, figures, rest, note },
  });
}
