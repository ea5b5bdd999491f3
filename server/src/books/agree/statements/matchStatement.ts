import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { at } from "@fiscalon/core/at";
import { matchRows } from "@fiscalon/core/agree/matching/matchRows";
import { matchLines } from "@fiscalon/core/agree/matching/outcomes";
import type { MatchLine } from "@fiscalon/core/agree/matching/outcomes";
import type { MatchOptions, MatchRow } from "@fiscalon/core/agree/matching/matchRow";
import type { MatchSettings, MatchSide, StatementBasis } from "@fiscalon/contract/statements";
import type { StatementKind } from "@fiscalon/core/model/statement";
import type { Work } from "../../../base/work.ts";
import { registrationWithId } from "../../loadSetup.ts";
import type { ClientSetup } from "../../loadSetup.ts";
import { notFound } from "../../../base/errors.ts";
import { decisionsOf, forMatching, lineKey } from "./decisions.ts";
import { ourRows } from "./ourRows.ts";
import type { OurRow } from "./ourRows.ts";
import { statementKind } from "./statementKinds.ts";
import { theirRows } from "./theirRows.ts";
import type { TheirRow } from "./theirRows.ts";

/** SQL: a line `m` that nobody has decided and that does not agree by itself. */
export const UNDECIDED = "m.decision_id IS NULL AND m.outcome NOT IN ('agreed', 'ineligible')";

/** A list as it is kept. */
export interface StatementRecord {
  id: number;
  registration: number;
  kind: string;
  contact: number | null;
  from: string;
  end: string;
  name: string;
  drawnOn: string | null;
  basis: StatementBasis;
  settings: MatchSettings;
  stamp: string | null;
}

/** Documents that are older are not looked for, nor those so many days after the list ends. */
const MONTHS_BACK = 12;
const DAYS_AFTER = 45;

/** @throws FiscalError when the client has no such list */
export async function statementRecord(work: Work, clientId: number, id: number): Promise<StatementRecord> {
  const row = await work.row<Omit<StatementRecord, "settings"> & { settings: string }>(
    `SELECT id, registration_id AS registration, kind, contact_id AS contact, period_from AS "from", period_end AS end, name,
       drawn_on AS drawnOn, basis, settings, stamp FROM statements WHERE id = $1 AND client_id = $2`,
    [id, clientId],
  );
  if (!row) throw notFound("This statement");
  return { ...row, settings: JSON.parse(row.settings) as MatchSettings };
}

/** What a matching depends on beside its settings, the client's last change: it is out of date once this is another. */
export async function stampOf(work: Work): Promise<string> {
  const { last } = await work.one<{ last: number | null }>("SELECT max(id) AS last FROM changes");
  return String(last);
}

/** Tells how far the matching is. */
export type Told = (done: number, total: number, what: string) => void;

/**
 * Lays a list beside the books and keeps how every document of both stands. Documents of the months before that nobody
 * has settled come along, on both sides; ours that lie outside the list only where they find their row.
 */
export async function matchStatement(
  work: Work,
  setup: ClientSetup,
  id: number,
  told: Told = () => undefined,
): Promise<void> {
  const clientId = setup.client.id;
  const statement = await statementRecord(work, clientId, id);
  const r = registrationWithId(setup.registrations, statement.registration);
  const kind = statementKind(work, r, statement.kind);
  const { rows, amended } = await theirRows(work, statement, kind);
  // What was said of a row counts no more once another stands in its place.
  const decisions = (await decisionsOf(work, statement)).filter((one) =>
    one.theirs.every((key) => !amended.has(key)),
  );
  const known = forMatching(decisions, statement.end);
  const first = await firstDay(work, statement);
  told(0, 20, "our documents");
  const mine = await ourRows(work, r, {
    kind,
    contact: statement.contact,
    basis: statement.basis,
    from: addMonths(statement.from, -MONTHS_BACK),
    to: addDays(statement.end, DAYS_AFTER),
  });
  const ours = mine.filter(({ key }) => !known.goneOurs.has(key));
  const theirs = rows.filter(({ key }) => !known.goneTheirs.has(key));
  const matching = matchRows(ours, theirs, optionsOf(kind, statement.settings), known, told);
  const out = (rows: readonly { ineligible: string }[]) =>
    new Set(rows.flatMap(({ ineligible }, place) => (ineligible === "" ? [] : [place])));
  const lines = matchLines(ours, theirs, matching, { ours: out(ours), theirs: out(theirs) }).filter((line) =>
    belongs(line, ours, statement, first),
  );
  const byKey = new Map(
    decisions.filter(({ decision }) => decision !== "apart").map((one) => [lineKey(one), one.id]),
  );
  const stamp = await stampOf(work);
  await work.write(async (work) => {
    await work.run("DELETE FROM match_lines WHERE statement_id = $1", [id]);
    for (let start = 0; start < lines.length; start += SLICE) {
      const slice = lines.slice(start, start + SLICE).map((line) => rowOf(line, ours, theirs, byKey));
      await work.run(INSERT, [id, JSON.stringify(slice)]);
    }
    await work.run("UPDATE statements SET stamp = $2, broken_off = $3 WHERE id = $1", [
      id,
      stamp,
      matching.brokenOff,
    ]);
  });
}

/** Customs and the authority number what they say in their own way; what a return owes is charged by its due date. */
function optionsOf({ of }: StatementKind, settings: MatchSettings): MatchOptions {
  if (of !== "border" && of !== "authority") return settings;
  const days = of === "authority" ? Math.max(settings.days, DAYS_AFTER) : settings.days;
  return { ...settings, days, numbersDiffer: true };
}

const SLICE = 5000;
const INSERT = `INSERT INTO match_lines (statement_id, outcome, decision_id, party, number, date, ours, theirs, score,
    reasons, differs, sure, repeats, ours_rows, theirs_rows, ours_value, theirs_value, ours_tax, theirs_tax, held)
  SELECT $1, value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value -> 5, value -> 6, value ->> 7,
    value -> 8, value -> 9, value ->> 10, value ->> 11, value ->> 12, value ->> 13, value ->> 14, value ->> 15,
    value ->> 16, value ->> 17, value ->> 18 FROM json_each($2)`;

/** The first day from which lists of the kind are kept: documents before were never laid beside one. */
async function firstDay(work: Work, { registration, kind, contact, from }: StatementRecord): Promise<string> {
  const { first } = await work.one<{ first: string | null }>(
    `SELECT min(period_from) AS first FROM statements
     WHERE registration_id = $1 AND kind = $2 AND contact_id IS $3`,
    [registration, kind, contact],
  );
  return first ?? from;
}

/** Our documents outside the list are its own only where they found a row of theirs. */
function belongs(
  line: MatchLine,
  ours: readonly OurRow[],
  { from, end }: StatementRecord,
  first: string,
): boolean {
  if (line.theirs.length > 0) return true;
  return line.ours.every((place) => {
    const { date, ineligible } = at(ours, place);
    // Nobody will ever tell of what is not eligible: it is no matter of a later list.
    return date >= (ineligible === "" ? first : from) && date <= end;
  });
}

function rowOf(
  line: MatchLine,
  ours: readonly OurRow[],
  theirs: readonly TheirRow[],
  decided: ReadonlyMap<string, number>,
): unknown[] {
  const mine = line.ours.map((place) => at(ours, place));
  const yours = line.theirs.map((place) => at(theirs, place));
  const shown = mine[0] ?? yours[0];
  const key = lineKey({ ours: mine.map((row) => row.key), theirs: yours.map((row) => row.key) });
  const sum = (rows: readonly MatchRow[], field: "value" | "tax") =>
    rows.reduce((all, row) => all + row[field], 0);
  const repeated = line.of === null ? null : at<MatchRow>(yours.length > 0 ? theirs : ours, line.of);
  return [
    line.outcome,
    decided.get(key) ?? null,
    (yours[0]?.partyName || mine[0]?.partyName) ?? "",
    shown?.number ?? "",
    shown?.date ?? "",
    mine.map((row) => side(row, row.document, row.ineligible, row)),
    yours.map((row) => side(row, row.id, [row.ineligible, row.note].filter(Boolean).join("; "), OF_THEIRS)),
    line.pair?.score ?? null,
    line.pair?.reasons ?? [],
    line.pair?.differs ?? [],
    line.pair?.sure === true ? 1 : 0,
    repeated?.number ?? "",
    mine.length,
    yours.length,
    sum(mine, "value"),
    sum(yours, "value"),
    sum(mine, "tax"),
    sum(yours, "tax"),
    mine.filter(({ held }) => held === "waiting").length,
  ];
}

/** Of rows of theirs nothing opens in our books, and nothing is held. */
const OF_THEIRS = { link: null, held: null };

function side(
  row: MatchRow,
  id: number,
  note: string,
  { link, held }: Pick<MatchSide, "link" | "held">,
): MatchSide & { key: string } {
  const { key, number, date, value, tax, taxes, rate, partyNumber } = row;
  return {
    id,
    key,
    number,
    date,
    value,
    tax,
    taxes,
    rate,
    party: row.partyName,
    partyNumber,
    note,
    link,
    held,
  };
}
