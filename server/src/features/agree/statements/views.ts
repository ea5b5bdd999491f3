import { WEIGHTS } from "@fiscalon/core/agree/matching/assess";
import type { Reason } from "@fiscalon/core/agree/matching/assess";
import { OUTCOMES } from "@fiscalon/core/agree/matching/outcomes";
import type { Outcome } from "@fiscalon/core/agree/matching/outcomes";
import { daysBetween } from "@fiscalon/core/calendar/date";
import type { Piece } from "@fiscalon/core/agree/matching/matchRow";
import type {
  Decision,
  MatchPage,
  MatchSide,
  MatchView,
  StatementList,
  StatementView,
} from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";
import { registrationWithId } from "../../../books/loadSetup.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import { briefs, statementBriefs } from "../../../books/agree/statements/briefs.ts";
import type { BriefRow } from "../../../books/agree/statements/briefs.ts";
import { stampOf, statementRecord, UNDECIDED } from "../../../books/agree/statements/matchStatement.ts";
import { statementKind, statementKinds } from "../../../books/agree/statements/statementKinds.ts";
import type { RegistrationRecord } from "../../../db/models.ts";

/** What agrees and can be accepted as it is. */
const SURE = "m.decision_id IS NULL AND m.sure = 1 AND m.outcome IN ('agreed', 'tolerance')";
/** Documents whose tax waits and whose row is there. */
const RELEASABLE = `m.held > 0 AND m.theirs_rows > 0 AND (m.outcome IN ('agreed', 'tolerance')
  OR EXISTS (SELECT 1 FROM match_decisions d WHERE d.id = m.decision_id AND d.decision IN ('agreed', 'pair')))`;

/** Lists that came in under a registration, newest first, and which can come. */
export async function statementList(work: Work, r: RegistrationRecord): Promise<StatementList> {
  const kinds = statementKinds(work, r);
  return {
    kinds: kinds.map(({ id, title, lead, direction, of }) => ({ id, title, lead, direction, of })),
    statements: await statementBriefs(work, r),
  };
}

/** A list with how its documents stand. */
export async function statementView(work: Work, setup: ClientSetup, id: number): Promise<StatementView> {
  const record = await statementRecord(work, setup.client.id, id);
  const r = registrationWithId(setup.registrations, record.registration);
  const kind = statementKind(work, r, record.kind);
  const brief = await work.one<BriefRow & { problems: string; brokenOff: number }>(
    briefs("s.problems, s.broken_off AS brokenOff,", "s.id = $1"),
    [id],
  );
  const sums = await work.rows<StatementView["outcomes"][number]>(
    `SELECT outcome, sum(ours_rows) AS ours, sum(theirs_rows) AS theirs, sum(ours_tax) AS oursTax,
       sum(theirs_tax) AS theirsTax, sum(ours_value) AS oursValue, sum(theirs_value) AS theirsValue,
       sum(${UNDECIDED}) AS undecided FROM match_lines m WHERE statement_id = $1 GROUP BY outcome`,
    [id],
  );
  const { sure, releasable } = await work.one<{ sure: number; releasable: number }>(
    `SELECT coalesce(sum(${SURE}), 0) AS sure, coalesce(sum(CASE WHEN ${RELEASABLE} THEN m.held ELSE 0 END), 0) AS releasable
     FROM match_lines m WHERE statement_id = $1`,
    [id],
  );
  const { parted } = await work.one<{ parted: number }>(
    `SELECT count(*) AS parted FROM match_decisions WHERE registration_id = $1 AND kind = $2 AND contact_id IS $3
       AND decision = 'apart'`,
    [record.registration, record.kind, record.contact],
  );
  const total = (side: "ours" | "theirs") => ({
    rows: sums.reduce((all, sum) => all + sum[side], 0),
    tax: sums.reduce((all, sum) => all + sum[`${side}Tax`], 0),
    value: sums.reduce((all, sum) => all + sum[`${side}Value`], 0),
  });
  const { problems, ...rest } = brief;
  return {
    ...rest,
    matched: rest.matched === 1,
    title: kind.title,
    direction: kind.direction,
    basis: record.basis,
    digits: setup.plain.digits,
    canHold: kind.hold !== undefined,
    options: record.settings,
    stale: record.stamp !== (await stampOf(work)),
    outcomes: Object.keys(OUTCOMES).flatMap((outcome) => sums.find((sum) => sum.outcome === outcome) ?? []),
    oursTotal: total("ours"),
    theirsTotal: total("theirs"),
    sure,
    releasable,
    parted,
    problems: JSON.parse(problems) as StatementView["problems"],
  };
}

/** Which lines are asked for. */
export interface LineFilter {
  outcome: Outcome | "";
  search: string;
  /** Only what nobody has decided. */
  open: boolean;
  offset: number;
  limit: number;
}

interface LineRecord {
  id: number;
  outcome: Outcome;
  party: string;
  ours: string;
  theirs: string;
  score: number | null;
  reasons: string;
  differs: string;
  sure: number;
  repeats: string;
  date: string;
  decisionId: number | null;
  decision: Decision | null;
  reason: string | null;
  by: string | null;
  at: string | null;
}

const WHICH = `m.statement_id = $1 AND ($2 = '' OR m.outcome = $2) AND ($3 = '%%' OR m.party LIKE $3 OR m.number LIKE $3)
  AND ($4 = 0 OR (${UNDECIDED}))`;

/** Lines of the matching by pages: in order of party and number. */
export async function linePage(
  work: Work,
  setup: ClientSetup,
  id: number,
  filter: LineFilter,
): Promise<MatchPage> {
  await statementRecord(work, setup.client.id, id);
  const bind = [id, filter.outcome, `%${filter.search}%`, filter.open ? 1 : 0];
  const { total } = await work.one<{ total: number }>(
    `SELECT count(*) AS total FROM match_lines m WHERE ${WHICH}`,
    bind,
  );
  const rows = await work.rows<LineRecord>(
    `SELECT m.id, m.outcome, m.party, m.ours, m.theirs, m.score, m.reasons, m.differs, m.sure, m.repeats, m.date,
       d.id AS decisionId, d.decision, d.reason, p.name AS by, d.created_at AS at
     FROM match_lines m LEFT JOIN match_decisions d ON d.id = m.decision_id LEFT JOIN people p ON p.id = d.created_by
     WHERE ${WHICH} ORDER BY m.party, m.number, m.id LIMIT $5 OFFSET $6`,
    [...bind, filter.limit, filter.offset],
  );
  return { total, rows: rows.map((row) => lineView(row, work.today)) };
}

function lineView(row: LineRecord, today: string): MatchView {
  const reasons = JSON.parse(row.reasons) as Reason[];
  const [ours, theirs] = [row.ours, row.theirs].map(
    (text) => JSON.parse(text) as (MatchSide & { key?: string })[],
  );
  const bare = (sides: (MatchSide & { key?: string })[] = []): MatchSide[] =>
    sides.map(({ key: _key, ...side }) => side);
  return {
    id: row.id,
    outcome: row.outcome,
    party: row.party,
    ours: bare(ours),
    theirs: bare(theirs),
    score: row.score,
    reasons: reasons.map((words) => ({ words, weight: WEIGHTS[words] })),
    differs: JSON.parse(row.differs) as Piece[],
    sure: row.sure === 1,
    age: (ours ?? []).length > 0 && (theirs ?? []).length > 0 ? null : daysBetween(row.date, today),
    of: row.repeats,
    decision:
      row.decisionId === null || row.decision === null
        ? null
        : {
            id: row.decisionId,
            decision: row.decision,
            reason: row.reason ?? "",
            by: row.by ?? "",
            at: row.at ?? "",
          },
  };
}

/** Ids of the lines that agree and need no second look. */
export async function sureLines(work: Work, id: number): Promise<number[]> {
  const rows = await work.rows<{ id: number }>(
    `SELECT m.id FROM match_lines m WHERE m.statement_id = $1 AND ${SURE}`,
    [id],
  );
  return rows.map((row) => row.id);
}

/** Documents whose tax was held back and whose row is there now. */
export async function releasableDocuments(work: Work, id: number): Promise<number[]> {
  const rows = await work.rows<{ document: number }>(
    `SELECT o.value ->> 'id' AS document FROM match_lines m, json_each(m.ours) o
     WHERE m.statement_id = $1 AND ${RELEASABLE} AND o.value ->> 'held' = 'waiting'`,
    [id],
  );
  return rows.map(({ document }) => document);
}
