import type { Circumstances } from "../model/circumstances.ts";
import type { DocumentInput, LineInput } from "../model/document.ts";
import { usualKind } from "../model/documentKinds.ts";
import type { Packs } from "../model/packs.ts";
import type { Party, Site } from "../model/party.ts";
import { ROUND_EACH_LINE } from "../model/rounding.ts";
import type { Direction, RateSchedules, TaxCode } from "../model/taxCode.ts";
import { FiscalError } from "../errors.ts";
import type { RegisterField } from "../formats/registers/columns.ts";
import { readRow } from "../formats/registers/readRow.ts";
import type { RegisterRow, RowProblem, RowReading } from "../formats/registers/readRow.ts";
import { displayAmount, formatAmount } from "../money/amount.ts";
import { circumstancesOf } from "../supply/circumstances.ts";
import { priceLine } from "../tax/priceLine.ts";
import { ratedComponents } from "../tax/ratedComponents.ts";
import { bareNumber } from "./bareNumber.ts";
import { codesByTax } from "./codesByTax.ts";
import type { ToldLine } from "./codesByTax.ts";

/** How a register is turned into documents. `codeForBlank` and `codeForZero`: for rows whose tax is blank or 0. */
export interface RegisterReading extends RowReading {
  direction: Direction;
  headerRow: number;
  codeForBlank: string | null;
  codeForZero: string | null;
  /** What a person chose where several codes fit, by choiceKey. */
  chosen: Readonly<Record<string, string>>;
  /** The code most lines bear; of several that fit it is the one. */
  usual: string | null;
  account: string | null;
  packs: Packs;
  /** Where the business is. */
  site: Site;
  /** What is known of who is traded with. */
  partyOf: (traded: TradedWith) => Party | undefined;
  /** Its own tax numbers: nobody buys from himself. */
  ownNumbers: readonly string[];
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
  accounts: ReadonlySet<string>;
  /** Line numbers of the file to leave out. */
  leftOut: ReadonlySet<number>;
  /** Cells mended by hand: by line number, by column. */
  mended: ReadonlyMap<number, ReadonlyMap<number, string>>;
}

/** Several codes explain some rows; a person says which, once for the file. */
export interface CodeChoiceAsked {
  key: string;
  codes: string[];
  rows: number;
}

/** The other side as a file names it; empty what it does not tell. */
export interface TradedWith {
  party: string;
  partyNumber: string;
  partyCountry: string;
  partyRegion: string;
}

/** A document of the register. `rows` are the lines of the file it came from. */
export interface RegisterDocument extends TradedWith {
  input: DocumentInput & { number: string };
  rows: number[];
}

export interface RegisterContent {
  documents: RegisterDocument[];
  problems: RowProblem[];
  notices: RowProblem[];
  choices: CodeChoiceAsked[];
  /** Rows read as documents, and what they add up to in minor units, credit notes negative. */
  rows: number;
  net: number;
  tax: number;
}

/**
 * Turns the rows of a register into documents. Rows that cannot be read are reported and left out of the
 * result; the caller decides whether anything is posted then. Following rows with the same number, party and
 * date become lines of one document; the same number again elsewhere is reported. A row of totals at the
 * bottom is recognised and compared with the sum of the rows.
 * @param rows all rows of the file, header and anything above it included
 */
export function registerDocuments(
  rows: Iterable<readonly string[]>,
  reading: RegisterReading,
): RegisterContent {
  const content: RegisterContent = {
    documents: [],
    problems: [],
    notices: [],
    choices: [],
    rows: 0,
    net: 0,
    tax: 0,
  };
  const seen = new Map<string, RegisterDocument>();
  let position = 0;
  for (const raw of rows) {
    position += 1;
    if (position - 1 <= reading.headerRow || raw.every((cell) => cell.trim() === "")) continue;
    const cells = mendedCells(raw, reading.mended.get(position));
    if (reading.leftOut.has(position)) {
      content.notices.push(note(position, null, "", "Left out by hand."));
      continue;
    }
    if (isTotalsRow(cells, reading)) {
      content.notices.push(totalsNotice(cells, position, content, reading));
      continue;
    }
    const read = readRow(cells, position, reading);
    if (!read.ok) {
      content.problems.push(...read.problems);
      continue;
    }
    takeRow(read.row, reading, content, seen);
  }
  return content;
}

function takeRow(
  row: RegisterRow,
  reading: RegisterReading,
  content: RegisterContent,
  seen: Map<string, RegisterDocument>,
): void {
  const read = lineOf(row, reading, content);
  if (read === null) return;
  const { line } = read;
  const key = `${row.number.toLowerCase()} ${reading.direction === "purchase" ? row.party.toLowerCase() : ""}`;
  const earlier = seen.get(key);
  if (earlier) {
    const clash = clashWith(earlier, row, line, content, reading);
    if (clash) {
      content.problems.push(clash);
      return;
    }
    earlier.input = { ...earlier.input, lines: [...earlier.input.lines, line] };
    earlier.rows.push(row.row);
  } else {
    const document = newDocument(row, line, reading);
    seen.set(key, document);
    content.documents.push(document);
  }
  content.rows += 1;
  const signed = (amount: number) => (amount < 0 || !row.credit ? amount : -amount);
  content.net += signed(read.net);
  content.tax += signed(read.tax);
}

function newDocument(row: RegisterRow, line: LineInput, reading: RegisterReading): RegisterDocument {
  return {
    input: {
      kind: usualKind(reading.direction, row.credit),
      number: row.number,
      date: row.date,
      taxPoint: row.taxPoint,
      prices: "exclusive",
      lines: [line],
    },
    party: row.party,
    partyNumber: row.partyNumber,
    partyCountry: row.partyCountry,
    partyRegion: row.partyRegion,
    rows: [row.row],
  };
}

/** A further row of the same number is another line of the document only right below it. */
function clashWith(
  earlier: RegisterDocument,
  row: RegisterRow,
  line: LineInput,
  content: RegisterContent,
  reading: RegisterReading,
): RowProblem | undefined {
  const same = earlier.input.lines.some((other) => JSON.stringify(other) === JSON.stringify(line));
  const below = content.documents.at(-1) === earlier && earlier.rows.at(-1) === row.row - 1;
  const head =
    earlier.input.date === row.date &&
    earlier.party === row.party &&
    earlier.input.kind === usualKind(reading.direction, row.credit);
  if (below && head) return undefined;
  const where = `row ${earlier.rows[0]}`;
  const message =
    same && head
      ? `This is ${where} again, to the penny. Leave one of them out.`
      : `Number ${row.number} is also used in ${where}. Correct the number, or leave one of them out.`;
  return note(row.row, reading.mapping.number ?? null, row.number, message, "number");
}

/** A line with its net and its printed or calculated tax, minor units; null where the row is a problem. */
function lineOf(
  row: RegisterRow,
  reading: RegisterReading,
  content: RegisterContent,
): { line: LineInput; net: number; tax: number } | null {
  const turned = row.credit && row.amount <= 0 && (row.tax ?? row.amount) <= 0 ? -1 : 1;
  const told: ToldLine = {
    amount: turned * row.amount || 0,
    inclusive: row.inclusive,
    tax: row.tax === null ? null : turned * row.tax || 0,
    taxes: Object.fromEntries(Object.entries(row.taxes).map(([levy, tax]) => [levy, turned * tax || 0])),
    rate: row.rate,
  };
  const refuse = (problem: RowProblem) => {
    content.problems.push(problem);
    return null;
  };
  if (row.partyNumber !== "" && reading.ownNumbers.includes(bareNumber(row.partyNumber))) {
    const whose = reading.direction === "purchase" ? "supplier" : "customer";
    return refuse(
      note(
        row.row,
        reading.mapping.partyNumber ?? null,
        row.partyNumber,
        `The ${whose} has the tax number of this business. Is this the register of the other side?`,
        "partyNumber",
      ),
    );
  }
  const around = circumstancesOfRow(row, reading);
  const code = chosenCode(row, told, around, reading, content);
  if (code === null) return null;
  if (row.account !== "" && !reading.accounts.has(row.account)) {
    return refuse(
      note(
        row.row,
        reading.mapping.account ?? null,
        row.account,
        `There is no account ${row.account} in the chart.`,
        "account",
      ),
    );
  }
  const account = row.account === "" ? reading.account : row.account;
  const priced = pricedTold(code.code, told, row.taxPoint ?? row.date, around, reading);
  return {
    line: {
      ...(row.text === "" ? {} : { text: row.text }),
      amount: formatAmount(told.amount, reading.digits),
      ...(told.inclusive ? { prices: "inclusive" as const } : {}),
      code: code.code.code,
      codeReason: code.reason,
      ...(account === null ? {} : { account }),
      ...priced.typed,
    },
    net: told.inclusive ? told.amount - priced.tax : told.amount,
    tax: told.tax ?? priced.tax,
  };
}

function circumstancesOfRow(
  row: RegisterRow,
  { site, packs, direction, partyOf }: RegisterReading,
): Circumstances {
  const party = partyOf(row);
  return circumstancesOf({ site, ...(party ? { party } : {}) }, {}, direction, row.credit, packs);
}

/** What the calculation gives for a line, and the printed figures where they are others: by levy, or in all. */
function pricedTold(
  code: TaxCode,
  { amount, inclusive, tax, taxes }: ToldLine,
  on: string,
  circumstances: Circumstances,
  { schedules, digits }: RegisterReading,
): { tax: number; typed: Pick<LineInput, "typedTax" | "typedTotal" | "typedReason"> } {
  const charged = ratedComponents(code, on, schedules, circumstances).filter(
    ({ component }) => component.charged === "charged" && component.rate.kind !== "none",
  );
  if (charged.length === 0) return { tax: 0, typed: {} };
  const priced = priceLine(amount, inclusive ? "inclusive" : "exclusive", charged, ROUND_EACH_LINE);
  const calculated = priced.reduce((sum, one) => sum + one.tax, 0);
  const differing = priced.filter(({ component, tax: own }) => (taxes[component.levy] ?? own) !== own);
  const typedReason = "as printed in the register";
  if (differing.length > 0) {
    const told = priced.map(({ component: { levy }, tax: own }) => [
      levy,
      formatAmount(taxes[levy] ?? own, digits),
    ]);
    return {
      tax: calculated,
      typed: { typedTax: Object.fromEntries(told) as Record<string, string>, typedReason },
    };
  }
  if (tax === null || calculated === tax || Object.keys(taxes).length > 0)
    return { tax: calculated, typed: {} };
  const [only, more] = priced;
  const figure = formatAmount(tax, digits);
  if (only && !more)
    return { tax: calculated, typed: { typedTax: { [only.component.levy]: figure }, typedReason } };
  return { tax: calculated, typed: { typedTotal: figure, typedReason } };
}

/** Under which a person's choice between codes is remembered. */
export function choiceKey(codes: readonly TaxCode[]): string {
  return codes
    .map(({ code }) => code)
    .sort()
    .join("/");
}

function chosenCode(
  row: RegisterRow,
  told: ToldLine,
  circumstances: Circumstances,
  reading: RegisterReading,
  content: RegisterContent,
): { code: TaxCode; reason: string } | null {
  const { mapping, codes, direction, schedules } = reading;
  const problem = (field: RegisterField, value: string, message: string) => {
    content.problems.push(note(row.row, mapping[field] ?? null, value, message, field));
    return null;
  };
  if (row.code !== "") {
    const code = codes.get(row.code) ?? codes.get(row.code.toUpperCase());
    if (code) return { code, reason: "code in the register" };
    return problem("code", row.code, `There is no tax code ${row.code}.`);
  }
  const { tax } = told;
  const rate = row.rate.replace(/[%\s]/g, "");
  const untaxed = rate === "" ? tax === null || tax === 0 : Number(rate.replace(",", ".")) === 0;
  if (untaxed) {
    const isBlank = tax === null && rate === "";
    const chosen = isBlank ? reading.codeForBlank : reading.codeForZero;
    const code = chosen === null ? undefined : codes.get(chosen);
    const what = isBlank ? "blank" : "zero";
    if (code) return { code, reason: `chosen for rows with ${what} tax` };
    return problem(
      "tax",
      "",
      `The tax is ${what}. Choose the code for such rows under “How the file is read”.`,
    );
  }
  const on = row.taxPoint ?? row.date;
  const fitting = codesByTax(told, { direction, on, circumstances, codes: codes.values(), schedules });
  const [only, more] = fitting;
  const reason = rate === "" ? "the rate that gives the printed tax" : "the rate in the register";
  if (only && !more) return { code: only, reason };
  const usual = fitting.find(({ code }) => code === reading.usual);
  const key = choiceKey(fitting);
  const decided = codes.get(reading.chosen[key] ?? "");
  if (decided && fitting.includes(decided)) return { code: decided, reason: "chosen for this register" };
  if (usual) return { code: usual, reason };
  if (only) return askForChoice(key, fitting, row, reading, content);
  const shown = displayAmount(tax ?? 0, reading.digits);
  const percent = told.amount === 0 || tax === null ? "" : ` (${((100 * tax) / told.amount).toFixed(1)} %)`;
  return problem(
    "tax",
    shown,
    `Tax ${shown} on net ${displayAmount(told.amount, reading.digits)}${percent} fits no rate of ${on}. Correct the figures, or give a tax code.`,
  );
}

/** One problem for all rows that the same choice settles. */
function askForChoice(
  key: string,
  fitting: readonly TaxCode[],
  row: RegisterRow,
  { mapping }: RegisterReading,
  content: RegisterContent,
): null {
  const known = content.choices.find((one) => one.key === key);
  if (known) {
    known.rows += 1;
    return null;
  }
  const codes = fitting.map(({ code }) => code);
  content.choices.push({ key, codes, rows: 1 });
  const words = fitting.map(({ code, name }) => `${code} ${name}`).join(", or ");
  content.problems.push(
    note(
      row.row,
      mapping.tax ?? mapping.rate ?? null,
      key,
      `Several codes fit: ${words}. Choose one under “How the file is read”; it holds for all such rows.`,
      "tax",
    ),
  );
  return null;
}

function mendedCells(
  raw: readonly string[],
  fixes: ReadonlyMap<number, string> | undefined,
): readonly string[] {
  if (!fixes) return raw;
  const width = Math.max(raw.length, ...[...fixes.keys()].map((column) => column + 1));
  return Array.from({ length: width }, (_, column) => fixes.get(column) ?? raw[column] ?? "");
}

function isTotalsRow(cells: readonly string[], reading: RegisterReading): boolean {
  const at = (field: RegisterField) => (cells[reading.mapping[field] ?? -1] ?? "").trim();
  const named = cells.some((cell) =>
    /^(grand\s+|sub-?)?totals?\b|^sum\b|^carried forward/i.test(cell.trim()),
  );
  return named && at("date") === "";
}

function totalsNotice(
  cells: readonly string[],
  row: number,
  content: RegisterContent,
  reading: RegisterReading,
): RowProblem {
  const { gross: _unread, ...mapping } = reading.mapping;
  const only: RowReading = { ...reading, mapping };
  const read = readRow(
    cells.map((cell, index) =>
      index === reading.mapping.date ? "2000-01-01" : index === reading.mapping.number ? "total" : cell,
    ),
    row,
    only,
  );
  if (!read.ok) return note(row, null, "", "A row of totals; left out.");
  const show = (amount: number) => displayAmount(amount, reading.digits);
  const { amount: net, tax } = read.row;
  const agrees = net === content.net && (tax === null || tax === content.tax);
  const sums = `the rows above add up to ${show(content.net)} net and ${show(content.tax)} tax`;
  const message = agrees
    ? `A row of totals; left out. It agrees: ${sums}.`
    : `A row of totals; left out. It says ${show(net)} net and ${tax === null ? "no" : show(tax)} tax, but ${sums}${content.problems.length > 0 ? " without the rows that cannot be read" : ""}.`;
  return note(row, null, "", message);
}

function note(
  row: number,
  column: number | null,
  value: string,
  message: string,
  field: RegisterField | null = null,
): RowProblem {
  return { row, column, field, value, message };
}

/** @throws FiscalError `formats/columns-missing` unless number, date and an amount are mapped */
export function requireColumns(mapping: RegisterReading["mapping"]): void {
  const missing = [
    ...(mapping.number === undefined ? ["the document number"] : []),
    ...(mapping.date === undefined ? ["the date"] : []),
    ...(mapping.net === undefined && mapping.gross === undefined ? ["net or gross"] : []),
  ];
  if (missing.length === 0) return;
  throw new FiscalError(
    "formats/columns-missing",
    `Say which column holds ${missing.join(", ")}.`,
    "mapping",
  );
}
