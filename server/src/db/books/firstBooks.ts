import type { Migration } from "../migration.ts";
import { AGREEMENT_TABLES } from "./agreementTables.ts";
import { bankGaps } from "./bankGaps.ts";
import { factRates } from "./factRates.ts";
import { factSums } from "./factSums.ts";
import { filings } from "./filings.ts";
import { keptSums } from "./keptSums.ts";
import { lookUps } from "./lookUps.ts";
import { partyGaps } from "./partyGaps.ts";
import { DOCUMENT_TABLES } from "./documentTables.ts";
import { RETURN_TABLES } from "./returnTables.ts";
import { SETUP_TABLES } from "./setupTables.ts";
import { terminalSums } from "./terminalSums.ts";

/** The books of one client in a file of their own. */
const firstBooks: Migration = {
  name: "2026-11-30-books",
  statements: [...SETUP_TABLES, ...DOCUMENT_TABLES, ...RETURN_TABLES, ...AGREEMENT_TABLES],
};

/** Every shape the books of a client had, in order. */
export const BOOKS_MIGRATIONS: readonly Migration[] = [
  firstBooks,
  keptSums,
  filings,
  lookUps,
  factSums,
  partyGaps,
  bankGaps,
  terminalSums,
  factRates,
];
