import type { Circumstances } from "../model/circumstances.ts";
import type { Party } from "../model/party.ts";
import type {
  FoundParty,
  RegisterContent,
  RegisterDocument,
  RegisterFound,
  RegisterReading,
} from "./registerReading.ts";
import type { LineInput } from "../model/document.ts";
import { usualKind } from "../model/documentKinds.ts";
import type { DocumentKind } from "../model/documentKinds.ts";
import { ROUND_EACH_LINE } from "../model/rounding.ts";
import type { TaxCode } from "../model/taxCode.ts";
import { FiscalError } from "../errors.ts";
import { readRow } from "../formats/registers/readRow.ts";
import type { RegisterRow, RowProblem } from "../formats/registers/readRow.ts";
import { formatAmount } from "../money/amount.ts";
import { circumstancesOf } from "../supply/circumstances.ts";
import { priceLine } from "../tax/priceLine.ts";
import type { RatedComponent } from "../tax/levyStack.ts";
import { ratedComponents } from "../tax/ratedComponents.ts";
import { numberKey } from "./numberKey.ts";
import type { ToldLine } from "./codesByTax.ts";
import { note } from "./registerReading.ts";
import { chosenCode } from "./registerCode.ts";
import { isTotalsRow, totalsNotice } from "./registerTotals.ts";

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
  const found = { problems: [], notices: [], choices: [], rows: 0, net: 0, tax: 0 };
  const reader = new RegisterReader(reading, found);
  for (const raw of rows) reader.take(raw);
  return { ...found, documents: reader.rest() };
}

/**
 * The same row by row: documents are given away as soon as they are whole, so that however long a register is, only
 * what tells its numbers apart is kept of it.
 */
export class RegisterReader {
  /** What was found so far, beside the documents. */
  readonly found: RegisterFound;
  readonly #reading: RegisterReading;
  readonly #seen = new Map<string, SeenNumber>();
  #documents: RegisterDocument[] = [];
  #position = 0;

  /** @param found where what is found is noted */
  constructor(reading: RegisterReading, found: RegisterFound) {
    this.#reading = reading;
    this.found = found;
  }

  /** The next row of the file, whatever it is. */
  take(raw: readonly string[]): void {
    const [reading, found] = [this.#reading, this.found];
    const position = (this.#position += 1);
    if (position - 1 <= reading.headerRow || raw.every((cell) => cell.trim() === "")) return;
    const cells = mendedCells(raw, reading.mended.get(position));
    if (reading.leftOut.has(position)) {
      found.notices.push(note(position, null, "", "Left out by hand."));
      return;
    }
    if (isTotalsRow(cells, reading)) {
      found.notices.push(totalsNotice(cells, position, found, reading));
      return;
    }
    const read = readRow(cells, position, reading);
    if (read.ok) this.#takeRow(read.row);
    else found.problems.push(...read.problems);
  }

  /** Documents no row to come belongs to; each is given once. */
  whole(): RegisterDocument[] {
    const whole = this.#documents.slice(0, -1);
    this.#documents = this.#documents.slice(-1);
    return whole;
  }

  /** Those that are left at the end of the file. */
  rest(): RegisterDocument[] {
    const rest = this.#documents;
    this.#documents = [];
    return rest;
  }

  #takeRow(row: RegisterRow): void {
    const [reading, found] = [this.#reading, this.found];
    const read = lineOf(row, reading, found);
    if (read === null) return;
    const { line } = read;
    const key = `${row.number.toLowerCase()} ${reading.direction === "purchase" ? row.party.toLowerCase() : ""}`;
    const earlier = this.#seen.get(key);
    const last = this.#documents.at(-1);
    if (earlier) {
      const clash = clashWith(earlier, row, line, reading);
      if (clash || !last) {
        if (clash) found.problems.push(clash);
        return;
      }
      last.input = { ...last.input, lines: [...last.input.lines, line] };
      last.rows.push(row.row);
      earlier.last = row.row;
      earlier.lines.push(toldBy(line));
    } else {
      this.#documents.push(newDocument(row, line, reading));
      const { row: first, date, party } = row;
      const kind = usualKind(reading.direction, row.credit);
      this.#seen.set(key, { first, last: first, date, party, kind, lines: [toldBy(line)] });
    }
    found.rows += 1;
    const signed = (amount: number) => (amount < 0 || !row.credit ? amount : -amount);
    found.net += signed(read.net);
    found.tax += signed(read.tax);
  }
}

/** What is kept of a number, to tell whether it comes again, and as the same. */
interface SeenNumber extends Pick<RegisterRow, "date" | "party"> {
  first: number;
  last: number;
  kind: DocumentKind;
  lines: string[];
}

/** What makes a line the same one again. */
function toldBy({ amount, code, typedTax, typedTotal, text }: LineInput): string {
  return JSON.stringify([amount, code, typedTax, typedTotal, text]);
}

function newDocument(row: RegisterRow, line: LineInput, reading: RegisterReading): RegisterDocument {
  return {
    input: {
      kind: usualKind(reading.direction, row.credit),
      number: row.number,
      date: row.date,
      taxPoint: row.taxPoint,
      ...(row.due === null ? {} : { due: row.due }),
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
  earlier: SeenNumber,
  row: RegisterRow,
  line: LineInput,
  reading: RegisterReading,
): RowProblem | undefined {
  const below = earlier.last === row.row - 1;
  const head =
    earlier.date === row.date &&
    earlier.party === row.party &&
    earlier.kind === usualKind(reading.direction, row.credit);
  if (below && head) return undefined;
  const same = earlier.lines.includes(toldBy(line));
  const where = `row ${earlier.first}`;
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
  content: RegisterFound,
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
  if (row.partyNumber !== "" && reading.ownNumbers.includes(numberKey(row.partyNumber))) {
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
  const found = reading.find(row);
  if (found && found.otherRegion !== null) return refuse(elsewhere(row, found, reading));
  const around = circumstancesOfRow(row, found?.party, reading);
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

/** One contact is in one region, by which its tax goes. */
function elsewhere(
  row: RegisterRow,
  { party, otherRegion }: FoundParty,
  { mapping }: RegisterReading,
): RowProblem {
  const other = party.name !== undefined && party.name.toLowerCase() !== row.party.toLowerCase();
  const who = other ? `${row.party} has the tax number of ${party.name}, which` : row.party;
  return note(
    row.row,
    mapping.partyRegion ?? null,
    row.partyRegion,
    `${who} is in ${party.region}, this row says ${otherRegion}. Correct one of them, or give the customer there a name of its own.`,
    "partyRegion",
  );
}

function circumstancesOfRow(
  row: RegisterRow,
  party: Party | undefined,
  { site, packs, direction }: RegisterReading,
): Circumstances {
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
  const charged = chargedOf(ratedComponents(code, on, schedules, circumstances));
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

const charging = new WeakMap<readonly RatedComponent[], readonly RatedComponent[]>();

/** Of the components of a code those that are charged; the same list for the same components. */
function chargedOf(components: readonly RatedComponent[]): readonly RatedComponent[] {
  const known = charging.get(components);
  if (known) return known;
  const charged = components.filter(
    ({ component }) => component.charged === "charged" && component.rate.kind !== "none",
  );
  charging.set(components, charged);
  return charged;
}

function mendedCells(
  raw: readonly string[],
  fixes: ReadonlyMap<number, string> | undefined,
): readonly string[] {
  if (!fixes) return raw;
  const width = Math.max(raw.length, ...[...fixes.keys()].map((column) => column + 1));
  return Array.from({ length: width }, (_, column) => fixes.get(column) ?? raw[column] ?? "");
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
