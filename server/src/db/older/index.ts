import type { Migration } from "../migration.ts";
import { firstTables } from "./2026-11-24-first-tables.ts";
import { accountRegion } from "./2026-11-28-account-region.ts";
import { amendments } from "./2026-11-28-amendments.ts";
import { auditChain } from "./2026-11-25-audit-chain.ts";
import { documentTotals } from "./2026-11-25-document-totals.ts";
import { dueDates } from "./2026-11-28-due-dates.ts";
import { feeds } from "./2026-11-25-feeds.ts";
import { importContents } from "./2026-11-25-import-contents.ts";
import { linePrices } from "./2026-11-25-line-prices.ts";
import { openingFigures } from "./2026-11-28-opening-figures.ts";
import { papers } from "./2026-11-25-papers.ts";
import { paymentsAndCurrencies } from "./2026-11-25-payments.ts";
import { relievingLines } from "./2026-11-28-relieving-lines.ts";
import { schemes } from "./2026-11-28-schemes.ts";
import { recurring } from "./2026-11-25-recurring.ts";
import { sourceKeys } from "./2026-11-25-source-keys.ts";
import { creditHolds } from "./2026-11-28-credit-holds.ts";
import { stockBook } from "./2026-11-28-stock-book.ts";
import { instalments } from "./2026-11-28-instalments.ts";
import { capitalItems } from "./2026-11-29-capital-items.ts";
import { registerSheets } from "./2026-11-29-register-sheets.ts";
import { authorityBalances } from "./2026-11-30-authority-balances.ts";
import { keptAgreements } from "./2026-11-30-kept-agreements.ts";
import { factUse } from "./2026-11-30-fact-use.ts";
import { decisionsOfParty } from "./2026-11-30-decisions-of-party.ts";
import { onceKeys } from "./2026-11-29-once-keys.ts";
import { statements } from "./2026-11-29-statements.ts";
import { agreements } from "./2026-11-29-agreements.ts";
import { lineUse } from "./2026-11-29-line-use.ts";
import { collectionOpenings } from "./2026-11-29-collection.ts";
import { lateFacts } from "./2026-11-28-late-facts.ts";
import { lateAnswers } from "./2026-11-28-late-answers.ts";
import { lawChanges } from "./2026-11-28-law-changes.ts";
import { registrationRegion } from "./2026-11-28-registration-region.ts";
import { lookups } from "./2026-11-28-lookups.ts";
import { wholeSetup } from "./2026-11-25-whole-setup.ts";

/** Every shape of the one database a practice had before each client had a file of its own. */
export const OLDER_MIGRATIONS: readonly Migration[] = [
  firstTables,
  wholeSetup,
  auditChain,
  paymentsAndCurrencies,
  feeds,
  importContents,
  papers,
  linePrices,
  sourceKeys,
  recurring,
  documentTotals,
  lookups,
  lateAnswers,
  registrationRegion,
  creditHolds,
  lawChanges,
  accountRegion,
  amendments,
  openingFigures,
  dueDates,
  relievingLines,
  schemes,
  instalments,
  stockBook,
  lateFacts,
  collectionOpenings,
  capitalItems,
  lineUse,
  agreements,
  statements,
  registerSheets,
  onceKeys,
  decisionsOfParty,
  factUse,
  keptAgreements,
  authorityBalances,
];
