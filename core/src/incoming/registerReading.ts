import type { SupplyRule } from "../model/supplyRule.ts";
import type { DocumentInput } from "../model/document.ts";
import type { Packs } from "../model/packs.ts";
import type { Party, Site } from "../model/party.ts";
import type { Direction, RateSchedules, TaxCode } from "../model/taxCode.ts";
import type { RegisterField } from "../formats/registers/columns.ts";
import type { RowProblem, RowReading } from "../formats/registers/readRow.ts";

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
  /** Of several codes that fit, those count that the rules may lead to. */
  rules: readonly SupplyRule[];
  /** Where the business is. */
  site: Site;
  /** Who is traded with; nobody where the row names nobody. */
  find: (traded: TradedWith) => FoundParty | undefined;
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

/**
 * Who a party of a file is: the contact it is, where there is one already, and what is known of it then. `otherRegion`
 * is what the row says where that is not where the party is.
 */
export interface FoundParty {
  contact: number | null;
  party: Party;
  otherRegion: string | null;
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

export interface RegisterContent extends RegisterFound {
  documents: RegisterDocument[];
}

/** What a register says beside its documents. */
export interface RegisterFound {
  problems: RowProblem[];
  notices: RowProblem[];
  choices: CodeChoiceAsked[];
  /** Rows read as documents, and what they add up to in minor units, credit notes negative. */
  rows: number;
  net: number;
  tax: number;
}

/** What is wrong, or worth knowing, in a row. */
export function note(
  row: number,
  column: number | null,
  value: string,
  message: string,
  field: RegisterField | null = null,
): RowProblem {
  return { row, column, field, value, message };
}
