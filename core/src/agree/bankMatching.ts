import { displayDate } from "../calendar/displayDate.ts";
import { daysBetween } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { mentions, plain, plainNumber, wordsOf } from "./bankWords.ts";

/** A line of the bank: money in positive, out negative, minor units of the books. */
export interface BankLine {
  id: number;
  date: CalendarDate;
  amount: number;
  party: string;
  text: string;
  reference: string;
}

/** An entry that moved money on the account and is matched with no line yet. */
export interface OpenEntry {
  entry: number;
  date: CalendarDate;
  amount: number;
  text: string;
  party: string;
}

/** A document that waits for money. `amount` is what it would bring, money out negative. */
export interface OpenDocument {
  document: number;
  number: string;
  date: CalendarDate;
  contact: number | null;
  party: string;
  amount: number;
}

/** Tax that is due to an authority (negative) or comes from it. */
export interface OpenTax {
  registration: number;
  period: CalendarDate;
  levy: string;
  amount: number;
  /** Words its authority is known by on a bank line. */
  names: readonly string[];
}

/**
 * What a bank line probably is, with the reasons. `score` from 0 to 100; from SURE on nothing else fits as well. A
 * `wrong-way` is an entry of the same amount in the other direction: money in entered as money out.
 */
export type Proposal = { score: number; reasons: string[] } & (
  | { kind: "entry"; entry: number }
  | { kind: "wrong-way"; entry: number }
  | { kind: "documents"; contact: number | null; documents: { document: number; amount: number }[] }
  | { kind: "tax"; registration: number; period: CalendarDate }
);

export interface BankCandidates {
  entries: readonly OpenEntry[];
  documents: readonly OpenDocument[];
  taxes: readonly OpenTax[];
}

const MOST = 4;

/** The score from which a proposal needs no second look. */
const SURE = 85;

/** Whether the best proposal, which comes first, can be accepted as it is: good, right way round, ahead of the next. */
export function isSure([best, next]: readonly Pick<Proposal, "kind" | "score">[]): boolean {
  return (
    best !== undefined &&
    best.kind !== "wrong-way" &&
    best.score >= SURE &&
    (next === undefined || best.score > next.score)
  );
}

/** A line with all it may be, best first, whoever else may be the same. */
export interface OfferedLine {
  line: BankLine;
  proposals: Proposal[];
}

/**
 * The likeliest explanations of each bank line, best first: an entry that is there already, open documents it pays
 * (one, several of one party, or part of one that it names), tax that is due, or an entry the wrong way round. An
 * entry or document that fits several lines is given to the best of them. Deterministic.
 * @returns by line id
 */
export function proposeMatches(
  lines: readonly BankLine[],
  candidates: BankCandidates,
): Map<number, Proposal[]> {
  return onceEach(lines.map(lineOffers(candidates)));
}

/** What one line may be, line by line: whoever has thousands of them looks up between. */
export function lineOffers(candidates: BankCandidates): (line: BankLine) => OfferedLine {
  const byAmount = groupedBy(candidates.entries, (one) => one.amount);
  const documentsByAmount = groupedBy(candidates.documents, (one) => one.amount);
  const parties = new Parties(candidates.documents);
  const read = new Map<OpenEntry, ReadEntry>();
  const readOf = (entry: OpenEntry): ReadEntry => {
    const known = read.get(entry) ?? readEntry(entry);
    read.set(entry, known);
    return known;
  };
  return (line) => {
    const said = plain(`${line.text} ${line.reference}`);
    const words = new Set(wordsOf(`${line.party} ${line.text}`));
    const named = parties.named(words);
    const known = new Set(named.map(({ party }) => party));
    const proposals: Proposal[] = [
      ...(byAmount.get(line.amount) ?? []).map((one) => entryProposal(line, readOf(one), said, words, false)),
      ...(byAmount.get(-line.amount) ?? []).map((one) => entryProposal(line, readOf(one), said, words, true)),
      ...(documentsByAmount.get(line.amount) ?? []).map((one) => exactDocument(line, one, said, known)),
      ...named.flatMap((party) => severalDocuments(line, party, said)),
      ...candidates.taxes.flatMap((tax) => taxProposal(line, tax, words)),
    ].filter(({ score }) => score >= 30);
    return { line, proposals: sorted(proposals) };
  };
}

/** An entry with what a line may say of it. */
interface ReadEntry {
  entry: OpenEntry;
  /** Numbers in its text, letters and digits alone. */
  numbers: readonly string[];
  partyWords: readonly string[];
}

function readEntry(entry: OpenEntry): ReadEntry {
  return {
    entry,
    numbers: entry.text.split(/[\s,:]+/).flatMap((word) => (/\d/.test(word) ? plainNumber(word) : [])),
    partyWords: wordsOf(entry.party),
  };
}

/** What is open of one party, oldest first in either direction. */
interface PartyItems {
  party: string;
  words: readonly string[];
  own: readonly { one: OpenDocument; numbers: readonly string[] }[];
  moneyIn: readonly OpenDocument[];
  moneyOut: readonly OpenDocument[];
}

/** Parties by their words: a line is looked at with those it may name only. */
class Parties {
  readonly #byFirstWord: ReadonlyMap<string, readonly (PartyItems & { place: number })[]>;

  constructor(documents: readonly OpenDocument[]) {
    const all = [...groupedBy(documents, ({ party }) => party)].map(([party, own], place) => {
      const oldest = [...own].sort((a, b) =>
        a.date < b.date ? -1 : a.date > b.date ? 1 : a.document - b.document,
      );
      return {
        place,
        party,
        words: wordsOf(party),
        own: own.map((one) => ({ one, numbers: plainNumber(one.number) })),
        moneyIn: oldest.filter(({ amount }) => amount > 0),
        moneyOut: oldest.filter(({ amount }) => amount <= 0),
      };
    });
    this.#byFirstWord = groupedBy(all, ({ words }) => words[0] ?? "");
  }

  /** Those of which a line says every word, in the order of their first documents. */
  named(said: ReadonlySet<string>): PartyItems[] {
    return [...said]
      .flatMap((word) => this.#byFirstWord.get(word) ?? [])
      .filter(({ words }) => words.every((word) => said.has(word)))
      .sort((a, b) => a.place - b.place);
  }
}

function entryProposal(
  line: BankLine,
  { entry, numbers, partyWords }: ReadEntry,
  said: string,
  words: ReadonlySet<string>,
  wrongWay: boolean,
): Proposal {
  const days = Math.abs(daysBetween(entry.date, line.date));
  const named =
    numbers.some((number) => said.includes(number)) ||
    (partyWords.length > 0 && partyWords.every((word) => words.has(word)));
  const near = days === 0 ? 35 : days <= 3 ? 30 : days <= 10 ? 20 : days <= 31 ? 5 : -20;
  const reasons = [
    wrongWay ? "the same amount, but the other way round" : "the same amount",
    days === 0 ? "the same day" : `${days} ${days === 1 ? "day" : "days"} apart`,
    ...(named ? [`names ${entry.party || entry.text}`] : []),
  ];
  const score = Math.max(0, (wrongWay ? 25 : 50) + near + (named ? 15 : 0));
  return { kind: wrongWay ? "wrong-way" : "entry", entry: entry.entry, score: Math.min(100, score), reasons };
}

function exactDocument(
  line: BankLine,
  one: OpenDocument,
  said: string,
  known: ReadonlySet<string>,
): Proposal {
  const numbered = mentions(said, one.number);
  const party = known.has(one.party);
  const late = daysBetween(one.date, line.date);
  const score = 45 + (numbered ? 40 : 0) + (party ? 30 : 0) + (late < -5 ? -25 : late <= 60 ? 10 : 0);
  return {
    kind: "documents",
    contact: one.contact,
    documents: [{ document: one.document, amount: Math.abs(one.amount) }],
    score: Math.min(99, score),
    reasons: [
      `exactly what is open of ${one.number}`,
      ...(numbered ? ["names its number"] : []),
      ...(party ? [`names ${one.party}`] : []),
    ],
  };
}

/** Several documents of a party that add up to the line, or the one it names and pays in part. */
function severalDocuments(
  line: BankLine,
  { party, own, moneyIn, moneyOut }: PartyItems,
  said: string,
): Proposal[] {
  const oldest = line.amount > 0 ? moneyIn : moneyOut;
  const chosen = (documents: readonly OpenDocument[], score: number, reason: string): Proposal => ({
    kind: "documents",
    contact: documents[0]?.contact ?? null,
    documents: documents.map(({ document, amount }) => ({ document, amount: Math.abs(amount) })),
    score,
    reasons: [reason, `names ${party}`],
  });
  const named = own.flatMap(({ one, numbers }) =>
    numbers.some((number) => said.includes(number)) ? [one] : [],
  );
  const found: Proposal[] = [];
  if (named.length > 1 && total(named) === line.amount && named.every(sameWay(line)))
    found.push(chosen(named, 96, `exactly what is open of the ${named.length} it names`));
  let sum = 0;
  for (const [index, one] of oldest.entries()) {
    sum += one.amount;
    if (index > 0 && sum === line.amount)
      found.push(chosen(oldest.slice(0, index + 1), 88, `the ${index + 1} oldest open add up to it`));
  }
  const [single] = named.filter(sameWay(line));
  if (single && named.length === 1 && Math.abs(line.amount) < Math.abs(single.amount)) {
    found.push({
      ...chosen([single], 70, `names ${single.number} and pays part of it`),
      documents: [{ document: single.document, amount: Math.abs(line.amount) }],
    } as Proposal);
  }
  return found;
}

const sameWay = (line: BankLine) => (one: OpenDocument) => one.amount > 0 === line.amount > 0;
const total = (documents: readonly OpenDocument[]) => documents.reduce((sum, { amount }) => sum + amount, 0);

function taxProposal(line: BankLine, tax: OpenTax, words: ReadonlySet<string>): Proposal[] {
  if (tax.amount !== line.amount) return [];
  const named =
    wordsOf(tax.levy).some((word) => words.has(word)) || tax.names.some((word) => words.has(word));
  return [
    {
      kind: "tax",
      registration: tax.registration,
      period: tax.period,
      score: named ? 97 : 75,
      reasons: [
        `exactly the ${tax.levy} ${tax.amount < 0 ? "to pay" : "to come back"} for the period to ${displayDate(tax.period)}`,
        ...(named ? ["names the tax or the authority"] : []),
      ],
    },
  ];
}

/** Best first; what is equal in score stays in the order entries, documents, tax. */
function sorted(proposals: readonly Proposal[]): Proposal[] {
  return [...proposals].sort((a, b) => b.score - a.score);
}

/** Gives each entry, document and period to the line it fits best; the others lose that proposal. */
export function onceEach(all: readonly OfferedLine[]): Map<number, Proposal[]> {
  const offers = all
    .flatMap(({ line, proposals }, order) => proposals.map((proposal) => ({ line, proposal, order })))
    .filter(({ proposal }) => proposal.score >= SURE)
    .sort((a, b) => b.proposal.score - a.proposal.score || a.order - b.order);
  const taken = new Map<string, number>();
  const settled = new Set<number>();
  for (const { line, proposal } of offers) {
    const keys = keysOf(proposal);
    if (settled.has(line.id) || keys.some((key) => taken.has(key))) continue;
    settled.add(line.id);
    for (const key of keys) taken.set(key, line.id);
  }
  return new Map(
    all.map(({ line, proposals }) => [
      line.id,
      proposals
        .filter((proposal) => keysOf(proposal).every((key) => (taken.get(key) ?? line.id) === line.id))
        .slice(0, MOST),
    ]),
  );
}

function keysOf(proposal: Proposal): string[] {
  switch (proposal.kind) {
    case "entry":
    case "wrong-way":
      return [`entry ${proposal.entry}`];
    case "documents":
      return proposal.documents.map(({ document }) => `document ${document}`);
    case "tax":
      return [`tax ${proposal.registration} ${proposal.period}`];
  }
}

function groupedBy<T, K>(list: readonly T[], key: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of list) {
    const group = groups.get(key(item));
    if (group) group.push(item);
    else groups.set(key(item), [item]);
  }
  return groups;
}
