import { FiscalError } from "@fiscalon/core/errors";
import type { AuditFile } from "@fiscalon/core/formats/auditfile/auditFile";
import { invoiceDocument } from "@fiscalon/core/incoming/auditDocument";
import { readAuditFile } from "@fiscalon/core/formats/auditfile/readAuditFile";
import { checkTotals } from "@fiscalon/core/formats/einvoice/checkTotals";
import { documentOf } from "@fiscalon/core/incoming/eInvoiceDocument";
import { readUbl } from "@fiscalon/core/formats/einvoice/readUbl";
import { RegisterReader, requireColumns } from "@fiscalon/core/incoming/registerDocuments";
import type {
  RegisterDocument,
  RegisterFound,
  RegisterReading,
} from "@fiscalon/core/incoming/registerReading";
import type { RowProblem } from "@fiscalon/core/formats/registers/readRow";
import { journalDocuments, openingDocument } from "@fiscalon/core/formats/tables/journalTable";
import { contactRows, itemRows } from "@fiscalon/core/formats/tables/masterTables";
import type { ContactRow, ItemRow } from "@fiscalon/core/formats/tables/masterTables";
import type { EInvoice } from "@fiscalon/core/formats/einvoice/eInvoice";
import { numberKey } from "@fiscalon/core/incoming/numberKey";
import type { Packs } from "@fiscalon/core/model/packs";
import type { Direction } from "@fiscalon/core/model/taxCode";
import type { Parties } from "./parties.ts";
import { readXml } from "@fiscalon/core/formats/xml/readXml";
import type { Account } from "@fiscalon/core/model/account";
import { minorDigits } from "@fiscalon/core/money/currency";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { ImportRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** A file on its way in: what was found in it so far, and its documents, some after the other. */
export interface IncomingFile {
  found: Incoming;
  /** A register gives them as it is read; whatever else is read as a whole first. */
  batches: Iterable<RegisterDocument[]>;
  /** Of how many rows its documents are, where all of it is read. */
  rows?: number;
}

/** What a file brings beside documents: contacts, items and accounts that are not there yet, and what is to be told. */
export interface Incoming extends RegisterFound {
  contacts: ContactRow[];
  items: ItemRow[];
  accounts: Account[];
  /** Tax on the paper by document, minor units, where the file states it by line and levy or for the whole. */
  told: Map<RegisterDocument, ToldTax>;
}

/** By line the tax of each levy, or the tax of the document at each rate. */
export interface ToldTax {
  lines?: Record<string, number>[];
  rates?: { rate: string; tax: number }[];
}

const NOTHING = (): Incoming => ({
  problems: [],
  notices: [],
  choices: [],
  rows: 0,
  net: 0,
  tax: 0,
  contacts: [],
  items: [],
  accounts: [],
  told: new Map(),
});

/** Rows of a register that are read before what is whole of them goes on. */
const ROWS_AT_ONCE = 5000;

/** Reads the rows of a table as what the import says it holds. */
export function incomingRows(
  data: Iterable<readonly string[]>,
  record: ImportRecord,
  setup: ClientSetup,
  packs: Packs,
  parties: Parties,
): IncomingFile {
  const reading = {
    ...record.settings,
    digits: setup.plain.digits,
    headerRow: record.shape.headerRow,
    accounts: new Set(setup.plain.accounts.map((account) => account.code)),
    leftOut: new Set(record.settings.leftOut),
    mended: mendedCells(record),
  };
  const codes = new Set(setup.effect.codes.keys());
  switch (record.content) {
    case "journal": {
      const { documents, problems } = journalDocuments(data, { ...reading, codes });
      return whole({ ...NOTHING(), problems, rows: countRows(documents) }, documents.map(withoutParty));
    }
    case "trial-balance": {
      const date = record.settings.date;
      if (!date) {
        throw new FiscalError("imports/no-date", "Say on which day these balances stood.", "date");
      }
      const { documents, problems, missing } = openingDocument(data, { ...reading, codes }, date);
      const accounts = missing.map(({ code, name }) => newAccount(code, name));
      return whole(
        { ...NOTHING(), problems, accounts, rows: countRows(documents) },
        documents.map(withoutParty),
      );
    }
    case "contacts": {
      const { contacts, problems } = contactRows(data, reading);
      return whole({ ...NOTHING(), problems, contacts, rows: contacts.length }, []);
    }
    case "items": {
      const { items, problems } = itemRows(data, { ...reading, codes });
      return whole({ ...NOTHING(), problems, items, rows: items.length }, []);
    }
    default: {
      requireColumns(record.settings.mapping);
      const found = NOTHING();
      const register: RegisterReading = {
        ...reading,
        direction: record.direction,
        codes: setup.effect.codes,
        schedules: setup.plain.schedules,
        chosen: record.settings.chosen ?? {},
        usual: usualCode(setup, record.direction),
        packs,
        rules: setup.effect.rules,
        site: setup.plain.places[0] ?? { country: setup.client.country, region: null },
        find: (traded) => parties.find(traded),
        ownNumbers: ownNumbers(setup),
      };
      return { found, batches: registerBatches(data, new RegisterReader(register, found)) };
    }
  }
}

function whole(found: Incoming, documents: RegisterDocument[]): IncomingFile {
  return { found, batches: [documents], rows: countRows(documents) };
}

function* registerBatches(
  rows: Iterable<readonly string[]>,
  reader: RegisterReader,
): Generator<RegisterDocument[]> {
  let count = 0;
  for (const raw of rows) {
    reader.take(raw);
    count += 1;
    if (count % ROWS_AT_ONCE === 0) yield reader.whole();
  }
  yield reader.rest();
}

function usualCode({ plain }: ClientSetup, direction: Direction): string | null {
  return direction === "sale" ? plain.saleCode : plain.purchaseCode;
}

/** The tax numbers of the client, as letters and digits. */
function ownNumbers({ registrations }: ClientSetup): string[] {
  return registrations.flatMap(({ number }) => (number ? [numberKey(number)] : []));
}

/** Reads an e-invoice or an audit file. */
export function incomingXml(text: string, record: ImportRecord, setup: ClientSetup): IncomingFile {
  const xml = readXml(text);
  return record.content === "e-invoice"
    ? incomingInvoice(xml, record, setup)
    : incomingAuditFile(readAuditFile(xml), record, setup);
}

function incomingInvoice(
  xml: ReturnType<typeof readXml>,
  { direction, settings }: ImportRecord,
  setup: ClientSetup,
): IncomingFile {
  const invoice = readUbl(xml);
  const digits = minorDigits(invoice.currency);
  refuseOtherSide(invoice, direction, ownNumbers(setup));
  const incoming = NOTHING();
  const documents: RegisterDocument[] = [];
  incoming.notices = checkTotals(invoice, digits).map(({ rule, text }) => note(1, `${rule}: ${text}`));
  try {
    const input = documentOf(invoice, {
      direction,
      codes: setup.effect.codes,
      schedules: setup.plain.schedules,
      chosen: settings.chosen ?? {},
      account: settings.account,
      digits,
    });
    const other = direction === "purchase" ? invoice.seller : invoice.buyer;
    const document: RegisterDocument = {
      input: {
        ...input,
        ...(settings.rate ? { exchange: { rate: settings.rate, date: invoice.date } } : {}),
      },
      party: other.name,
      partyNumber: other.taxNumber,
      partyCountry: other.country,
      partyRegion: other.region,
      rows: [1],
    };
    documents.push(document);
    incoming.told.set(document, { rates: invoice.taxes });
    incoming.rows = invoice.lines.length;
    const sign = invoice.credit ? -1 : 1;
    incoming.net = sign * invoice.totals.exclusive;
    incoming.tax = sign * invoice.totals.tax;
  } catch (error) {
    incoming.problems.push(asProblem(error, 1));
  }
  return whole(incoming, documents);
}

/** An invoice of ours among the purchases, or one to us among the sales, is on the wrong side. */
function refuseOtherSide({ seller, buyer }: EInvoice, direction: Direction, own: readonly string[]): void {
  const other = direction === "purchase" ? seller : buyer;
  if (other.taxNumber === "" || !own.includes(numberKey(other.taxNumber))) return;
  const [whose, side] = direction === "purchase" ? ["issued by", "sales"] : ["addressed to", "purchases"];
  throw new FiscalError(
    "imports/other-side",
    `This e-invoice is ${whose} this business itself. Drop it as a file of ${side}.`,
    "direction",
  );
}

function incomingAuditFile(file: AuditFile, { settings }: ImportRecord, setup: ClientSetup): IncomingFile {
  const incoming = NOTHING();
  if (file.currency !== setup.client.currency) {
    throw new FiscalError(
      "imports/currency",
      `The audit file is in ${file.currency}, the books are kept in ${setup.client.currency}.`,
      "file",
    );
  }
  const known = new Set(setup.plain.accounts.map(({ code }) => code));
  incoming.accounts = file.accounts
    .filter(({ code }) => !known.has(code))
    .map(({ code, name, type }) => ({ ...newAccount(code, name), type }));
  const accounts = new Set([...known, ...file.accounts.map(({ code }) => code)]);
  if (settings.take === "ledger") {
    return whole(incoming, ledgerDocuments(file, incoming, setup.plain.digits, accounts));
  }
  const documents: RegisterDocument[] = [];
  const parties = new Map([...file.customers, ...file.suppliers].map((one) => [one.id, one]));
  const reading = {
    codes: setup.effect.codes,
    schedules: setup.plain.schedules,
    accounts,
    chosen: settings.chosen ?? {},
    account: settings.account,
    digits: setup.plain.digits,
  };
  let row = 0;
  for (const [direction, list] of [
    ["sale", file.sales],
    ["purchase", file.purchases],
  ] as const) {
    for (const invoice of list) {
      row += 1;
      if (invoice.annulled) {
        incoming.notices.push(note(row, `${invoice.number} is annulled in the file; left out.`));
        continue;
      }
      if (settings.leftOut.includes(row)) {
        incoming.notices.push(note(row, `${invoice.number} left out by hand.`));
        continue;
      }
      try {
        const input = invoiceDocument(invoice, direction, {
          ...reading,
          usual: usualCode(setup, direction),
        });
        const party = parties.get(invoice.party);
        const document: RegisterDocument = {
          input,
          party: party?.name ?? invoice.party,
          partyNumber: party?.taxNumber ?? "",
          partyCountry: party?.country ?? "",
          partyRegion: "",
          rows: [row],
        };
        documents.push(document);
        incoming.told.set(document, {
          lines: invoice.lines.map(({ taxes }) =>
            Object.fromEntries(taxes.map(({ levy, amount }) => [levy, amount])),
          ),
        });
        incoming.rows += invoice.lines.length;
        const sign = invoice.credit ? -1 : 1;
        incoming.net += sign * invoice.net;
        incoming.tax += sign * (invoice.gross - invoice.net);
      } catch (error) {
        incoming.problems.push({ ...asProblem(error, row), value: invoice.number });
      }
    }
  }
  return whole(incoming, documents);
}

function ledgerDocuments(
  file: AuditFile,
  incoming: Incoming,
  digits: number,
  accounts: ReadonlySet<string>,
): RegisterDocument[] {
  const documents: RegisterDocument[] = [];
  file.transactions.forEach(({ id, date, text, lines }, index) => {
    const unknown = lines.find(({ account }) => !accounts.has(account));
    if (unknown) {
      const message = `Entry ${id} posts to account ${unknown.account}, which the file does not list.`;
      incoming.problems.push({ row: index + 1, column: null, field: null, value: id, message });
      return;
    }
    incoming.rows += lines.length;
    documents.push({
      input: {
        kind: "journal",
        number: id,
        date,
        prices: "exclusive",
        lines: lines.map((line) => ({
          ...(line.text || text ? { text: line.text || text } : {}),
          account: line.account,
          amount: formatAmount(line.amount, digits),
        })),
      },
      party: "",
      partyNumber: "",
      partyCountry: "",
      partyRegion: "",
      rows: [index + 1],
    });
  });
  return documents;
}

/** An account a file names: what it is, by its first digit as most charts have it. */
function newAccount(code: string, name: string): Account {
  const first: Record<string, Account["type"]> = {
    "0": "asset",
    "1": "asset",
    "2": "liability",
    "3": "equity",
    "4": "income",
  };
  const type = first[code[0] ?? ""] ?? "expense";
  return { code, name: name || code, type, role: null, levy: null, topic: null, usualCode: null };
}

function withoutParty(document: { input: RegisterDocument["input"]; rows: number[] }): RegisterDocument {
  return { ...document, party: "", partyNumber: "", partyCountry: "", partyRegion: "" };
}

const countRows = (documents: readonly { rows: number[] }[]) =>
  documents.reduce((sum, { rows }) => sum + rows.length, 0);

function note(row: number, message: string): RowProblem {
  return { row, column: null, field: null, value: "", message };
}

function asProblem(error: unknown, row: number): RowProblem {
  if (!(error instanceof FiscalError)) throw error;
  return { row, column: null, field: error.field ?? null, value: "", message: error.message };
}

function mendedCells(record: ImportRecord): Map<number, Map<number, string>> {
  const cells = new Map<number, Map<number, string>>();
  for (const { row, column, value } of record.settings.mended) {
    cells.set(row, (cells.get(row) ?? new Map<number, string>()).set(column, value));
  }
  return cells;
}
