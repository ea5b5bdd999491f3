import Joi from "joi";
import { OUTCOMES } from "@fiscalon/core/agree/matching/outcomes";
import type { Outcome, OutcomeSum } from "@fiscalon/core/agree/matching/outcomes";
import type { Piece } from "@fiscalon/core/agree/matching/matchRow";
import { id } from "./fields.ts";

/** What a list of others is, to choose from. */
export interface StatementKindView {
  id: string;
  title: string;
  lead: string;
  direction: "sale" | "purchase";
  of: "party" | "all" | "border" | "authority";
}

/** How amounts of a statement are compared: without tax and tax apart, as one sum with it, or the tax alone. */
export type StatementBasis = "net" | "gross" | "tax";

/** A statement in brief. Minor units; tax of theirs less ours. */
export interface StatementBrief {
  id: number;
  kind: string;
  title: string;
  name: string;
  party: string;
  periodEnd: string;
  drawnOn: string | null;
  createdAt: string;
  rows: number;
  /** A long list is laid beside the books by a job, once it is opened. */
  matched: boolean;
  /** Lines nobody has decided and that do not agree. */
  undecided: number;
  agreed: number;
  /** Tax of both sides, the whole amount where the list tells no tax; how far apart, and how much of that is undecided. */
  ours: number;
  theirs: number;
  apart: number;
  apartOpen: number;
}

export interface StatementList {
  kinds: StatementKindView[];
  statements: StatementBrief[];
}

/** A statement with its outcomes. */
export interface StatementView extends StatementBrief {
  direction: "sale" | "purchase";
  basis: StatementBasis;
  digits: number;
  /** Whether tax can be held back until the other side tells of a document. */
  canHold: boolean;
  options: MatchSettings;
  /** The books or the decisions changed since it was matched. */
  stale: boolean;
  outcomes: (OutcomeSum & { undecided: number })[];
  oursTotal: { rows: number; tax: number; value: number };
  theirsTotal: { rows: number; tax: number; value: number };
  /** Pairs that need no second look and wait to be accepted. */
  sure: number;
  /** Documents whose tax is held back and whose row is there now. */
  releasable: number;
  /** How many times rows were said not to be a pair. */
  parted: number;
  /** Rows whose parts were looked for without trying every sum. */
  brokenOff: number;
  problems: { row: number; message: string }[];
}

export interface MatchSettings {
  /** Minor units two amounts may lie apart. */
  tolerance: number;
  days: number;
  sureFrom: number;
}

/** A document of ours, or a row of theirs. */
export interface MatchSide {
  /** Of ours the document, of theirs the row. */
  id: number;
  number: string;
  date: string;
  value: number;
  tax: number;
  taxes: Record<string, number>;
  rate: string;
  party: string;
  partyNumber: string;
  note: string;
  /** Of ours, where it opens inside the client. */
  link: string | null;
  /** Of ours: since when the tax that was held back is deducted; "waiting": not yet. */
  held: string | null;
}

/** A line of the matching. */
export interface MatchView {
  id: number;
  outcome: Outcome;
  party: string;
  ours: MatchSide[];
  theirs: MatchSide[];
  score: number | null;
  reasons: { words: string; weight: number }[];
  differs: Piece[];
  sure: boolean;
  /** Age in days, of what only one side has. */
  age: number | null;
  of: string;
  decision: DecisionView | null;
}

export interface MatchPage {
  total: number;
  rows: MatchView[];
}

/** What people can say of a line. */
export const DECISIONS = {
  agreed: "agreed",
  pair: "paired by hand",
  apart: "not a pair",
  ours: "ours to correct",
  theirs: "theirs to correct",
  wait: "wait for next month",
  "not-ours": "not ours",
  hold: "credit held back",
} as const;

export type Decision = keyof typeof DECISIONS;

export interface DecisionView {
  id: number;
  decision: Decision;
  reason: string;
  by: string;
  at: string;
}

export interface DecideBody {
  /** Lines of the matching. */
  lines: number[];
  decision: Decision;
  reason: string;
}

const MOST_LINES = 5000;

export const decideBody = Joi.object<DecideBody, true>({
  lines: Joi.array().items(id).min(1).max(MOST_LINES).required(),
  decision: Joi.string()
    .valid(...Object.keys(DECISIONS))
    .required(),
  reason: Joi.string().trim().max(1000).allow("").default(""),
});

export interface LinesBody {
  lines: number[];
}

export const linesBody = Joi.object<LinesBody, true>({
  lines: Joi.array().items(id).min(1).max(MOST_LINES).required(),
});

export const matchSettings = Joi.object<MatchSettings, true>({
  tolerance: Joi.number().integer().min(0).max(1_000_000).required(),
  days: Joi.number().integer().min(0).max(90).required(),
  sureFrom: Joi.number().integer().min(50).max(100).required(),
});

export const outcomeName = Joi.string()
  .valid("", ...Object.keys(OUTCOMES))
  .default("");

/** A letter about lines, in words a supplier or customer understands. */
export interface StatementLetter {
  party: string;
  subject: string;
  text: string;
}
