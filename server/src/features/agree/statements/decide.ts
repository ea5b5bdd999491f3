import { FiscalError } from "@fiscalon/core/errors";
import type { Outcome } from "@fiscalon/core/agree/matching/outcomes";
import type { DecideBody, Decision, MatchSide } from "@fiscalon/contract/statements";
import type { Work, Writing } from "../../../base/work.ts";
import { releaseCredit } from "../../../books/credit/releaseCredit.ts";
import { changeable, replaceDocument } from "../../../books/documents/replaceDocument.ts";
import { registrationWithId } from "../../../books/loadSetup.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import { stampOf, statementRecord } from "../../../books/agree/statements/matchStatement.ts";
import type { StatementRecord } from "../../../books/agree/statements/matchStatement.ts";
import { statementKind } from "../../../books/agree/statements/statementKinds.ts";
import { releasableDocuments } from "./views.ts";

interface ChosenLine {
  id: number;
  outcome: Outcome;
  ours: (MatchSide & { key: string })[];
  theirs: (MatchSide & { key: string })[];
  decision: Decision | null;
  decisionId: number | null;
}

/** Keeps what a person says of lines; holding credit back changes the documents as well. All of it or nothing. */
export async function decide(work: Work, setup: ClientSetup, id: number, body: DecideBody): Promise<void> {
  await work.write(async (work) => {
    const statement = await statementRecord(work, setup.client.id, id);
    const isFresh = statement.stamp === (await stampOf(work));
    const lines = await chosenLines(work, id, body.lines);
    refuse(lines, body);
    await forget(work, lines);
    const groups = body.decision === "pair" ? [lines] : lines.map((line) => [line]);
    await keep(work, setup, statement, groups, body);
    if (body.decision === "hold") await hold(work, setup, statement, lines);
    await work.record({
      action: "decide",
      entity: "statement",
      id,
      after: { decision: body.decision, reason: body.reason, lines: lines.length },
    });
    await settle(work, statement, isFresh && !RESHAPES.has(body.decision));
  });
}

/** Takes back what was said of lines; credit that was held back for it is deducted again. */
export async function takeBack(
  work: Work,
  setup: ClientSetup,
  id: number,
  lineIds: readonly number[],
): Promise<void> {
  await work.write(async (work) => {
    const statement = await statementRecord(work, setup.client.id, id);
    const isFresh = statement.stamp === (await stampOf(work));
    const lines = (await chosenLines(work, id, lineIds)).filter(({ decision }) => decision !== null);
    const held = lines.filter(({ decision }) => decision === "hold");
    const reshaped = lines.some(({ decision }) => decision !== null && RESHAPES.has(decision));
    await forget(work, lines);
    await changeHold(work, setup, held, undefined);
    await work.record({
      action: "undo",
      entity: "statement",
      id,
      before: { decisions: lines.map(({ decision }) => decision) },
    });
    await settle(work, statement, isFresh && !reshaped);
  });
}

/** The last decision that kept two rows apart is forgotten: they may be a pair again. */
export async function bringTogether(work: Work, setup: ClientSetup, id: number): Promise<number> {
  return work.write(async (work) => {
    const statement = await statementRecord(work, setup.client.id, id);
    const row = await work.row<{ id: number }>(
      `SELECT id FROM match_decisions WHERE registration_id = $1 AND kind = $2 AND contact_id IS $3
         AND decision = 'apart' ORDER BY id DESC LIMIT 1`,
      [statement.registration, statement.kind, statement.contact],
    );
    if (!row) return 0;
    await work.run("DELETE FROM match_decisions WHERE id = $1", [row.id]);
    await work.record({
      action: "undo",
      entity: "statement",
      id,
      before: { apart: row.id },
    });
    return 1;
  });
}

/** Deducts the tax that was held back of documents whose row is there, on the return of the list's period. */
export async function releaseFound(work: Work, setup: ClientSetup, id: number): Promise<number> {
  const statement = await statementRecord(work, setup.client.id, id);
  const documents = await releasableDocuments(work, id);
  if (documents.length === 0) return 0;
  const evidence = `${statement.name}${statement.drawnOn === null ? "" : `, drawn ${statement.drawnOn}`}`;
  await releaseCredit(work, setup.client.id, { documents, on: statement.end, evidence });
  return documents.length;
}

async function chosenLines(work: Work, id: number, lineIds: readonly number[]): Promise<ChosenLine[]> {
  const rows = await work.rows<Omit<ChosenLine, "ours" | "theirs"> & { ours: string; theirs: string }>(
    `SELECT m.id, m.outcome, m.ours, m.theirs, m.decision_id AS decisionId, d.decision
     FROM match_lines m LEFT JOIN match_decisions d ON d.id = m.decision_id
     WHERE m.statement_id = $1 AND m.id IN (SELECT value FROM json_each($2)) ORDER BY m.id`,
    [id, JSON.stringify(lineIds)],
  );
  if (rows.length < new Set(lineIds).size) {
    throw new FiscalError(
      "statements/line-gone",
      "One of these lines was matched anew meanwhile. Look at the list again.",
      "lines",
    );
  }
  return rows.map(({ ours, theirs, ...row }) => ({
    ...row,
    ours: JSON.parse(ours) as ChosenLine["ours"],
    theirs: JSON.parse(theirs) as ChosenLine["theirs"],
  }));
}

function refuse(lines: readonly ChosenLine[], { decision }: DecideBody): void {
  const has = (side: "ours" | "theirs") => lines.some((line) => line[side].length > 0);
  const every = (side: "ours" | "theirs") => lines.every((line) => line[side].length > 0);
  const ok: Record<Decision, boolean> = {
    agreed: every("ours") && every("theirs"),
    pair: has("ours") && has("theirs") && lines.length > 1,
    apart: every("ours") && every("theirs"),
    ours: true,
    theirs: true,
    wait: true,
    "not-ours": every("theirs"),
    hold: every("ours"),
  };
  if (ok[decision]) return;
  const says: Partial<Record<Decision, string>> = {
    pair: "To pair by hand, choose rows of both sides.",
    agreed: "Only a pair can agree. One of these lines is on one side alone.",
    apart: "Only a pair can be taken apart. One of these lines is on one side alone.",
    "not-ours": "Only rows of theirs can be said not to be ours.",
    hold: "Credit is held back of our documents. One of these lines has none.",
  };
  throw new FiscalError(
    "statements/decision",
    says[decision] ?? "This cannot be said of these lines.",
    "decision",
  );
}

async function forget(work: Writing, lines: readonly ChosenLine[]): Promise<void> {
  const ids = JSON.stringify(lines.flatMap(({ decisionId }) => (decisionId === null ? [] : [decisionId])));
  await work.run(
    "UPDATE match_lines SET decision_id = NULL WHERE decision_id IN (SELECT value FROM json_each($1))",
    [ids],
  );
  await work.run("DELETE FROM match_decisions WHERE id IN (SELECT value FROM json_each($1))", [ids]);
}

/** Keeps one decision for each group of lines; their ids go on from the last one. */
async function keep(
  work: Writing,
  setup: ClientSetup,
  { registration, kind, contact, end }: StatementRecord,
  groups: readonly (readonly ChosenLine[])[],
  { decision, reason }: DecideBody,
): Promise<void> {
  const { last } = await work.one<{ last: number }>(
    "SELECT coalesce(max(id), 0) AS last FROM match_decisions",
  );
  const { createdAt, createdBy } = work.made;
  const keysOf = (group: readonly ChosenLine[], side: "ours" | "theirs") =>
    group.flatMap((line) => line[side].map(({ key }) => key));
  const rows = groups.map((group, at) => [last + 1 + at, keysOf(group, "ours"), keysOf(group, "theirs")]);
  await work.run(
    `INSERT INTO match_decisions (id, client_id, registration_id, kind, contact_id, period_end, decision, ours, theirs,
       reason, created_at, created_by)
     SELECT value ->> 0, $1, $2, $3, $4, $5, $6, value -> 1, value -> 2, $7, $8, $9 FROM json_each($10)`,
    [
      setup.client.id,
      registration,
      kind,
      contact,
      end,
      decision,
      reason,
      createdAt,
      createdBy,
      JSON.stringify(rows),
    ],
  );
  const decided = groups.flatMap((group, at) => group.map((line) => [line.id, last + 1 + at]));
  await work.run(
    `UPDATE match_lines SET decision_id = said.decision
     FROM (SELECT value ->> 0 AS line, value ->> 1 AS decision FROM json_each($1)) said WHERE match_lines.id = said.line`,
    [JSON.stringify(decided)],
  );
}

async function hold(
  work: Writing,
  setup: ClientSetup,
  { registration, kind }: StatementRecord,
  lines: readonly ChosenLine[],
): Promise<void> {
  const r = registrationWithId(setup.registrations, registration);
  const { hold: held } = statementKind(work, r, kind);
  if (held === undefined) {
    throw new FiscalError(
      "statements/no-hold",
      "The law of this registration lets nobody hold credit back for such a list.",
      "decision",
    );
  }
  await changeHold(work, setup, lines, held);
}

/** Puts documents under a hold, or takes it off them. */
async function changeHold(
  work: Writing,
  setup: ClientSetup,
  lines: readonly ChosenLine[],
  held: string | undefined,
): Promise<void> {
  for (const { id } of lines.flatMap(({ ours }) => ours)) {
    const old = await changeable(work, setup, id);
    const { creditHold: before, ...input } = old.input;
    if (before === held) continue;
    await replaceDocument(work, setup, old, {
      ...old,
      input: held === undefined ? input : { ...input, creditHold: held },
    });
  }
}

/** After these the rows have to be matched anew: pairs are others, or documents are. */
const RESHAPES: ReadonlySet<Decision> = new Set<Decision>(["pair", "apart", "hold"]);

/** After decisions that change no pair the matching is as it was, only decided. */
async function settle(work: Writing, statement: StatementRecord, stillFresh: boolean): Promise<void> {
  const stamp = stillFresh ? await stampOf(work) : null;
  await work.run("UPDATE statements SET stamp = $2 WHERE id = $1", [statement.id, stamp]);
}
