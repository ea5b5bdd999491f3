import { usualKind } from "../../model/documentKinds.ts";
import { FiscalError } from "../../errors.ts";
import { displayAmount, formatAmount } from "../../money/amount.ts";
import type { DocumentInput, LineInput } from "../../model/document.ts";
import { ratedComponents } from "../../tax/ratedComponents.ts";
import { priceLine } from "../../tax/priceLine.ts";
import { ROUND_EACH_LINE } from "../../model/rounding.ts";
import type { Direction, RateSchedules, TaxCode } from "../../model/taxCode.ts";
import { codeByRate } from "./codeByRate.ts";
import type { RegisterField } from "./columns.ts";
import { readRow } from "./readRow.ts";
import type { RegisterRow, RowProblem, RowReading } from "./readRow.ts";

/** How a register is turned into documents. `codeForBlank` and `codeForZero`: for rows whose tax is blank or 0. */
export interface RegisterReading extends RowReading {
  direction: Direction;
  headerRow: number;
  codeForBlank: string | null;
  codeForZero: string | null;
  account: string | null;
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
  accounts: ReadonlySet<string>;
  /** Line numbers of the file to leave out. */
  leftOut: ReadonlySet<number>;
  /** Cells mended by hand: by line number, by column. */
  mended: ReadonlyMap<number, ReadonlyMap<number, string>>;
}

/** A document of the register. `rows` are the lines of the file it came from. */
export interface RegisterDocument {
  input: DocumentInput & { number: string };
  party: string;
  partyNumber: string;
  partyCountry: string;
  rows: number[];
}

export interface RegisterContent {
  documents: RegisterDocument[];
  problems: RowProblem[];
  notices: RowProblem[];
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
  const content: RegisterContent = { documents: [], problems: [], notices: [], rows: 0, net: 0, tax: 0 };
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
  const line = lineOf(row, reading);
  if ("message" in line) {
    content.problems.push(line);
    return;
  }
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
  content.net += row.net < 0 || !row.credit ? row.net : -row.net;
  const tax = row.tax ?? 0;
  content.tax += tax < 0 || !row.credit ? tax : -tax;
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
    rows: [row.row],
  };
}

/** A further row of the same number is another line of the document only right below it and not the same again. */
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
  if (below && head && !same) return undefined;
  const where = `row ${earlier.rows[0]}`;
  const message =
    same && head
      ? `This is ${where} again, to the penny. Leave one of them out.`
      : `Number ${row.number} is also used in ${where}. Correct the number, or leave one of them out.`;
  return note(row.row, reading.mapping.number ?? null, row.number, message, "number");
}

function lineOf(row: RegisterRow, reading: RegisterReading): LineInput | RowProblem {
  const sign = row.credit ? -1 : 1;
  const turned = sign === -1 && row.net <= 0 && (row.tax ?? 0) <= 0 ? -1 : 1;
  const net = turned * row.net;
  const tax = row.tax === null ? null : turned * row.tax;
  const code = chosenCode(row, net, tax, reading);
  if ("message" in code) return code;
  if (row.account !== "" && !reading.accounts.has(row.account)) {
    return note(
      row.row,
      reading.mapping.account ?? null,
      row.account,
      `There is no account ${row.account} in the chart.`,
      "account",
    );
  }
  const account = row.account === "" ? reading.account : row.account;
  return {
    ...(row.text === "" ? {} : { text: row.text }),
    amount: formatAmount(net, reading.digits),
    code: code.code.code,
    codeReason: code.reason,
    ...(account === null ? {} : { account }),
    ...typedTax(row, net, tax, code.code, reading),
  };
}

function chosenCode(
  row: RegisterRow,
  net: number,
  tax: number | null,
  reading: RegisterReading,
): { code: TaxCode; reason: string } | RowProblem {
  if (row.code !== "") {
    const code = reading.codes.get(row.code) ?? reading.codes.get(row.code.toUpperCase());
    if (code) return { code, reason: "code in the register" };
    return note(row.row, reading.mapping.code ?? null, row.code, `There is no tax code ${row.code}.`, "code");
  }
  if (tax === null || tax === 0) {
    const chosen = tax === null ? reading.codeForBlank : reading.codeForZero;
    const code = chosen === null ? undefined : reading.codes.get(chosen);
    const what = tax === null ? "blank" : "zero";
    if (code) return { code, reason: `chosen for rows with ${what} tax` };
    return note(
      row.row,
      reading.mapping.tax ?? null,
      "",
      `The tax is ${what}. Choose the code for such rows under “How the file is read”.`,
      "tax",
    );
  }
  const on = row.taxPoint ?? row.date;
  const code = codeByRate(net, tax, reading.direction, on, reading.codes.values(), reading.schedules);
  if (code) return { code, reason: "the rate that gives the printed tax" };
  const percent = net === 0 ? "" : ` (${((100 * tax) / net).toFixed(1)} %)`;
  const message = `Tax ${displayAmount(tax, reading.digits)} on net ${displayAmount(net, reading.digits)}${percent} fits no rate of ${on}. Correct the figures, or give a tax code.`;
  return note(row.row, reading.mapping.tax ?? null, displayAmount(tax, reading.digits), message, "tax");
}

/** The printed tax is kept as typed where the calculation gives another figure. */
function typedTax(
  row: RegisterRow,
  net: number,
  tax: number | null,
  code: TaxCode,
  reading: RegisterReading,
): Pick<LineInput, "typedTax" | "typedReason"> {
  const component = code.components.find((c) => c.charged === "charged" && c.rate.kind !== "none");
  if (tax === null || !component) return {};
  const components = ratedComponents(code, row.taxPoint ?? row.date, reading.schedules);
  const calculated = priceLine(net, "exclusive", components, ROUND_EACH_LINE).reduce(
    (sum, one) => sum + one.tax,
    0,
  );
  if (calculated === tax) return {};
  return {
    typedTax: { [component.levy]: formatAmount(tax, reading.digits) },
    typedReason: "as printed in the register",
  };
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
  const only: RowReading = { ...reading, mapping: { ...reading.mapping } };
  delete only.mapping.gross;
  const read = readRow(
    cells.map((cell, index) =>
      index === reading.mapping.date ? "2000-01-01" : index === reading.mapping.number ? "total" : cell,
    ),
    row,
    only,
  );
  if (!read.ok) return note(row, null, "", "A row of totals; left out.");
  const show = (amount: number) => displayAmount(amount, reading.digits);
  const { net, tax } = read.row;
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
