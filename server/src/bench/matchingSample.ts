import type { MatchRow } from "@fiscalon/core/agree/matching/matchRow";

/** Two lists of invented documents and what is true of them: which rows are one document. */
export interface MatchingSample {
  ours: MatchRow[];
  theirs: MatchRow[];
  /** Keys of ours with the keys of theirs they are: several where a bill is told in parts. */
  truth: { ours: string[]; theirs: string[] }[];
  doubledOurs: Set<string>;
  doubledTheirs: Set<string>;
}

/** A row of digits that looks drawn by lot and is the same for a seed (mulberry32, public domain). */
export function lots(seed: number): (most: number) => number {
  let state = seed;
  return (most) => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return Math.floor((((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296) * most);
  };
}

const RATES = [5, 12, 18, 28];

/**
 * So many documents as two sides tell them: of a thousand about 840 the same, the rest each with one trouble: number
 * written with a prefix, a digit mistyped, missing or swapped, amounts off by rounding, mistyped or swapped, dates off,
 * another registration or the wrong party, bills in parts, told twice, told by one side only.
 */
export function matchingSample(count: number, seed: number): MatchingSample {
  const lot = lots(seed);
  const sample: MatchingSample = {
    ours: [],
    theirs: [],
    truth: [],
    doubledOurs: new Set(),
    doubledTheirs: new Set(),
  };
  const parties = Math.max(5, Math.round(count / 40));
  const serials = Array.from({ length: parties }, () => 100 + lot(9000));
  for (let made = 0; made < count; made += 1) {
    const party = lot(parties);
    serials[party] = (serials[party] ?? 0) + 1 + lot(3);
    const row = plainRow(made, party, serials[party] ?? 0, lot, parties);
    trouble(sample, row, lot, parties);
  }
  return sample;
}

function plainRow(
  made: number,
  party: number,
  serial: number,
  lot: (most: number) => number,
  parties: number,
): MatchRow {
  // One party in eight bills the same amount again and again.
  const value = party % 8 === 0 ? 500_000 + party * 100 : 10_000 + lot(9_000_000);
  const rate = RATES[lot(RATES.length)] ?? 18;
  return {
    key: `r${made}`,
    ...partyOf(party, parties),
    number:
      [`INV-${serial}`, `S${party}/26-27/${String(serial).padStart(5, "0")}`, String(serial)][party % 3] ??
      "",
    date: dayOf(lot(90)),
    value,
    tax: Math.round((value * rate) / 100),
    taxes: {},
    rate: String(rate),
    place: "",
  };
}

function partyOf(party: number, parties: number): Pick<MatchRow, "partyNumber" | "partyKin" | "partyName"> {
  const kin = `AAA${String(10_000 + (party % Math.ceil(parties * 0.97)))}`;
  return {
    partyNumber: `${29 + (party % 4)}${kin}${party}Z`,
    partyKin: kin,
    partyName: `Sample Trader ${party}`,
  };
}

function dayOf(day: number): string {
  return new Date(Date.UTC(2026, 3, 1 + day)).toISOString().slice(0, 10);
}

function laterBy(date: string, days: number): string {
  return new Date(Date.parse(date) + days * 86_400_000).toISOString().slice(0, 10);
}

/** Puts a document on both sides, with at most one trouble. */
function trouble(
  sample: MatchingSample,
  row: MatchRow,
  lot: (most: number) => number,
  parties: number,
): void {
  const { ours, theirs, truth } = sample;
  const pair = (mine: Partial<MatchRow>, yours: Partial<MatchRow> = {}) => {
    ours.push({ ...row, ...mine, key: `o${row.key}` });
    theirs.push({ ...row, ...yours, key: `t${row.key}` });
    truth.push({ ours: [`o${row.key}`], theirs: [`t${row.key}`] });
  };
  const digitsOff = (text: string) => mistyped(text, lot);
  const taxed = (value: number) => ({ value, tax: Math.round((value * Number(row.rate)) / 100) });
  const kind = lot(1000);
  if (kind < 840) pair({});
  else if (kind < 860) pair({ number: row.number.split(/[-/]/).at(-1) ?? row.number });
  else if (kind < 868) pair({ number: row.number.replace(/0/g, "O").replace(/1/g, "l").toLowerCase() });
  else if (kind < 880) pair({ number: digitsOff(row.number) });
  else if (kind < 890) pair({ number: without(row.number, lot) });
  else if (kind < 900) pair({ number: swap(row.number, lot) });
  else if (kind < 912) pair({ value: row.value + lot(99) - 49, tax: row.tax + lot(99) - 49 });
  else if (kind < 920) pair(taxed(Number(digitsOff(String(row.value)))));
  else if (kind < 926) pair(taxed(Number(swap(String(row.value), lot))));
  else if (kind < 932) pair({ tax: Number(digitsOff(String(row.tax))) });
  else if (kind < 944) pair({ date: laterBy(row.date, 1 + lot(9)) });
  else if (kind < 948) pair({ date: laterBy(row.date, 31) });
  else if (kind < 952) pair(partyOf(lot(parties), parties));
  else if (kind < 958) inParts(sample, row, lot);
  else if (kind < 966) {
    pair({});
    const again = `o${row.key}b`;
    ours.push({ ...row, key: again, date: laterBy(row.date, lot(3)) });
    sample.doubledOurs.add(again);
  } else if (kind < 970) {
    pair({});
    const again = `t${row.key}b`;
    theirs.push({ ...row, key: again });
    sample.doubledTheirs.add(again);
  } else if (kind < 985) ours.push({ ...row, key: `o${row.key}` });
  else theirs.push({ ...row, key: `t${row.key}` });
}

function inParts(
  { ours, theirs, truth }: MatchingSample,
  row: MatchRow,
  lot: (most: number) => number,
): void {
  const parts = 2 + lot(3);
  const shares = Array.from({ length: parts }, (_, at) => at);
  const first = { value: Math.floor(row.value / parts), tax: Math.floor(row.tax / parts) };
  const keys = shares.map((at) => `o${row.key}p${at}`);
  for (const at of shares) {
    const isLast = at === parts - 1;
    ours.push({
      ...row,
      key: `o${row.key}p${at}`,
      number: `${row.number}-${at + 1}`,
      value: isLast ? row.value - first.value * (parts - 1) : first.value,
      tax: isLast ? row.tax - first.tax * (parts - 1) : first.tax,
    });
  }
  theirs.push({ ...row, key: `t${row.key}` });
  truth.push({ ours: keys, theirs: [`t${row.key}`] });
}

/** The places of the digits of a text that a slip can hit: of a number its last run. */
function places(text: string): number[] {
  const run = /\d+$/.exec(text);
  return run
    ? Array.from(run[0], (_, at) => run.index + at).filter((at) => at > run.index || run[0].length === 1)
    : [];
}

function mistyped(text: string, lot: (most: number) => number): string {
  const at = places(text);
  const place = at[lot(at.length)] ?? text.length - 1;
  const digit = (Number(text[place]) + 1 + lot(9)) % 10;
  return text.slice(0, place) + String(digit) + text.slice(place + 1);
}

function without(text: string, lot: (most: number) => number): string {
  const at = places(text);
  const place = at[lot(at.length)] ?? text.length - 1;
  return text.slice(0, place) + text.slice(place + 1);
}

function swap(text: string, lot: (most: number) => number): string {
  const at = places(text).filter((place) => text[place] !== text[place - 1] && place > 0);
  const place = at[lot(at.length)];
  if (place === undefined) return text;
  return text.slice(0, place - 1) + (text[place] ?? "") + (text[place - 1] ?? "") + text.slice(place + 1);
}
