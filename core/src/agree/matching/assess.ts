import { partsOf } from "../../calendar/date.ts";
import { likeness, plainNumber, slips } from "./documentNumber.ts";
import type { NumberLikeness, PlainNumber } from "./documentNumber.ts";
import type { MatchOptions, MatchRow, Piece } from "./matchRow.ts";

/** A row with what it is compared by worked out once. */
export interface ReadyRow {
  row: MatchRow;
  /** Place in the list it came in. */
  at: number;
  /** Tax number of the party, letters and digits; its name where it has none. */
  party: string;
  /** Words of the party's name, sorted, without what all firms are called. */
  name: string;
  number: PlainNumber;
  /** Days since 1970. */
  day: number;
}

/** What speaks for a pair or against it. Weights of everything that can be said of the best pair make 100. */
export const WEIGHTS = {
  "same registration": 40,
  "another registration of the same person": 28,
  "the same name, no registration told": 38,
  "the same name": 24,
  "another party": 0,
  "same number": 25,
  "same running number": 21,
  "number with a slip of the keys": 15,
  "number in part": 13,
  "another number": 0,
  "same date": 15,
  "up to three days apart": 11,
  "some days apart": 7,
  "day and month swapped": 9,
  "weeks apart": 2,
  "months apart": -12,
  "same value": 12,
  "value within the tolerance": 10,
  "value with digits swapped": 3,
  "another value": -4,
  "same tax": 8,
  "tax within the tolerance": 7,
  "tax with digits swapped": 2,
  "another tax": -4,
  "one is a credit note": -20,
} as const;

export type Reason = keyof typeof WEIGHTS;

/** A pair judged: its reasons, their sum, and what differs. */
export interface Assessment {
  reasons: Reason[];
  score: number;
  differs: Piece[];
}

const NUMBER_REASONS: Record<NumberLikeness, Reason> = {
  same: "same number",
  serial: "same running number",
  typo: "number with a slip of the keys",
  part: "number in part",
  none: "another number",
};

/** Whether two rows are of one document, and what they differ in. The same whichever side is first. */
export function assess(one: ReadyRow, other: ReadyRow, options: MatchOptions): Assessment {
  const { tolerance, days, numbersDiffer = false } = options;
  const differs: Piece[] = [];
  const [a, b] = [one.row, other.row];
  const kind = opposite(a, b);
  const value = amount("value", a.value, kind ? -b.value : b.value, tolerance);
  const tax = amount("tax", a.tax, kind ? -b.tax : b.tax, tolerance);
  if (value.differs) differs.push("value");
  if (tax.differs) differs.push("tax");
  if (!tax.differs && otherLevies(a.taxes, b.taxes, tolerance)) differs.push("levy");
  if (a.rate !== "" && b.rate !== "" && Number(a.rate) !== Number(b.rate)) differs.push("rate");
  if (kind) differs.push("kind");
  if (a.place !== "" && b.place !== "" && a.place !== b.place) differs.push("place");
  const alike = likeness(one.number, other.number);
  if (!numbersDiffer && alike !== "same" && !isBare(one.number, other.number)) differs.push("number");
  if (one.day !== other.day && !(numbersDiffer && Math.abs(one.day - other.day) <= days))
    differs.push("date");
  const party = partyReason(one, other);
  if (one.party !== other.party) differs.push("party");
  const reasons = [party, NUMBER_REASONS[alike], dateReason(one, other, days), value.reason, tax.reason];
  if (kind) reasons.push("one is a credit note");
  return { reasons, score: reasons.reduce((sum, reason) => sum + WEIGHTS[reason], 0), differs };
}

/** The same running number, which one side writes without what stands before it. */
function isBare(one: PlainNumber, other: PlainNumber): boolean {
  return (
    one.serial !== "" &&
    one.serial === other.serial &&
    (one.whole === one.serial || other.whole === other.serial)
  );
}

/** Whether one row takes off what the other adds. */
export function opposite(a: MatchRow, b: MatchRow): boolean {
  const sign = (row: MatchRow) => Math.sign(row.value === 0 ? row.tax : row.value);
  return sign(a) * sign(b) < 0;
}

/** Whether two amounts are the same, up to a tolerance. */
export function isNear(a: number, b: number, tolerance: number): boolean {
  return Math.abs(a - b) <= tolerance;
}

/** Whether an amount is another one with its digits in another order. */
export function isTransposed(a: number, b: number): boolean {
  const [one, other] = [String(Math.abs(a)), String(Math.abs(b))];
  return (
    one !== other &&
    one.length === other.length &&
    one.length > 2 &&
    (a - b) % 9 === 0 &&
    slips(one, other, 1)
  );
}

function amount(
  piece: "value" | "tax",
  a: number,
  b: number,
  tolerance: number,
): { reason: Reason; differs: boolean } {
  if (a === b) return { reason: `same ${piece}`, differs: false };
  if (isNear(a, b, tolerance)) return { reason: `${piece} within the tolerance`, differs: false };
  return { reason: isTransposed(a, b) ? `${piece} with digits swapped` : `another ${piece}`, differs: true };
}

/** The same tax in sum, but under other levies. */
function otherLevies(a: MatchRow["taxes"], b: MatchRow["taxes"], tolerance: number): boolean {
  const levies = new Set([...Object.keys(a), ...Object.keys(b)]);
  if (Object.keys(a).length === 0 || Object.keys(b).length === 0) return false;
  return [...levies].some((levy) => !isNear(a[levy] ?? NOTHING, b[levy] ?? NOTHING, tolerance));
}

/** A levy a side does not name has no tax there. */
const NOTHING = 0;

function dateReason(one: ReadyRow, other: ReadyRow, days: number): Reason {
  const apart = Math.abs(one.day - other.day);
  if (apart === 0) return "same date";
  if (apart <= 3) return "up to three days apart";
  if (isSwapped(one.row.date, other.row.date)) return "day and month swapped";
  if (apart <= days) return "some days apart";
  return apart <= 45 ? "weeks apart" : "months apart";
}

function isSwapped(one: string, other: string): boolean {
  const [a, b] = [partsOf(one), partsOf(other)];
  return a.year === b.year && a.month === b.day && a.day === b.month;
}

function partyReason(one: ReadyRow, other: ReadyRow): Reason {
  if (one.party !== "" && one.party === other.party)
    return one.party.startsWith(NAMED) ? "the same name, no registration told" : "same registration";
  const [a, b] = [one.row.partyKin, other.row.partyKin];
  if (a !== "" && a === b) return "another registration of the same person";
  return one.name !== "" && one.name === other.name ? "the same name" : "another party";
}

const NOISE =
  /\b(LTD|LIMITED|LLP|LLC|INC|PLC|PVT|PRIVATE|GMBH|AG|KG|PTY|CO|COMPANY|CORP|THE|AND|M S|MS|MESSRS)\b/g;

/** Begins what stands for a party that tells no tax number. */
const NAMED = "~";
const DAY = 86_400_000;

/** Rows made ready to be compared. */
export function readyRows(rows: readonly MatchRow[]): ReadyRow[] {
  const parties = new Map<string, Pick<ReadyRow, "party" | "name">>();
  const days = new Map<string, number>();
  return rows.map((row, at) => {
    let day = days.get(row.date);
    if (day === undefined) days.set(row.date, (day = Date.parse(row.date) / DAY));
    const told = `${row.partyNumber}\n${row.partyName}`;
    let party = parties.get(told);
    if (!party) parties.set(told, (party = plainParty(row)));
    const { name, party: who } = party;
    return { row, at, party: who, name, number: plainNumber(row.number), day };
  });
}

function plainParty({ partyNumber, partyName }: MatchRow): Pick<ReadyRow, "party" | "name"> {
  const words = partyName
    .normalize("NFKC")
    .toUpperCase()
    .replace(/[^\p{L}\p{N}]+/gu, " ");
  const kept = words
    .replace(NOISE, " ")
    .split(" ")
    .filter((word) => word !== "");
  const name = kept.sort().join(" ");
  const number = partyNumber
    .normalize("NFKC")
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, "");
  return { party: number === "" && name !== "" ? `${NAMED}${name}` : number, name };
}
