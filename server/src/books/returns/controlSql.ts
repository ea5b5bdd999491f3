import { bears } from "@fiscalon/core/model/account";
import type { Account } from "@fiscalon/core/model/account";
import type { RegistrationRecord } from "../../db/models.ts";
import { ON_OUTPUT_ACCOUNT } from "./queries.ts";

/** The kinds of journal entry that make a row of the agreement: what the entry came from. */
const ENTRIES_OF = { settlement: "settlement", payments: "tax-payment", uncodedTotal: "document" } as const;
export type EntryRow = keyof typeof ENTRIES_OF;

/** Whether a posting `p` of an entry `e` belongs to a row; of documents only those made without a tax code do. */
export function belongsTo(row: EntryRow): string {
  const coded = row === "uncodedTotal" ? " AND p.levy IS NULL" : "";
  return `(e.kind = '${ENTRIES_OF[row]}'${coded})`;
}

/** Whether a row of the agreement is made of journal entries. */
export function isEntryRow(row: string): row is EntryRow {
  return row in ENTRIES_OF;
}

/** The account of output tax, or of input tax. */
export type TaxSide = "output" | "input";

/** Which of the two an account is; none for what is due to the authority. */
export function taxSideOf({ role }: Pick<Account, "role">): TaxSide | null {
  return role === "output-tax" ? "output" : role === "input-tax" ? "input" : null;
}

/** What a fact `f` moves on the account of a side, debit positive. */
export const MOVED: Readonly<Record<TaxSide, string>> = {
  output: `CASE WHEN ${ON_OUTPUT_ACCOUNT} THEN -f.tax ELSE 0 END`,
  input: "f.recoverable",
};

/** The levies of a registration that an account bears, as JSON for `json_each`. */
export function leviesOn(r: Pick<RegistrationRecord, "levies">, account: Pick<Account, "levy">): string {
  return JSON.stringify(r.levies.filter((levy) => bears(account, levy)));
}

/** Facts `f` of a registration ($1) that are declared for a period ($2) of the levies of an account ($3). */
export const DECLARED = `f.registration_id = $1 AND f.period_end = $2 AND f.live = 1
  AND f.levy IN (SELECT value FROM json_each($3))`;

/** The day on which the ledger has a fact `f` of a document `d`: held credit is input tax from its release on. */
const LEDGER_DAY = `CASE WHEN f.awaits IS NULL THEN d.ledger_date ELSE (SELECT e.date FROM entries e
  WHERE e.document_id = d.id AND e.kind = 'credit-release' AND e.live = 1) END`;

/**
 * What a fact `f` of a document `d` moves by timing: in the ledger from $2 to $3, but reported elsewhere or not yet, or
 * the other way round. Tax that waits for payment is in the ledger with its document, on the return with its payments.
 */
export function timedBy(side: TaxSide): string {
  return `(coalesce(${LEDGER_DAY} BETWEEN $2 AND $3, 0) * (f.release_of IS NULL AND d.opening = 0)
    - (f.period_end IS $3 AND f.registration_id IS $1)) * (${MOVED[side]})`;
}

/**
 * Whether a fact `f` of a document `d` stands on the accounts of the registration $1, and not on those of another
 * region's: one that no registration covers stands where its place is.
 */
const ON_ITS_ACCOUNTS = `NOT EXISTS (SELECT 1 FROM registrations a JOIN registrations b ON b.id = $1
  WHERE a.client_id = b.client_id AND a.pack = b.pack AND a.region IS NOT b.region
    AND (a.id = f.registration_id OR (f.registration_id IS NULL
      AND a.region = (SELECT p.region FROM places p WHERE p.id = d.place_id))))`;

const OF_CLIENT = "(SELECT client_id FROM registrations WHERE id = $1)";

/** Facts `f` of documents `d` that timing can move, for a registration ($1) and the levies of an account ($4). */
export const TIMED = `f.id IN (
    SELECT id FROM facts WHERE registration_id = $1 AND period_end = $3 AND live = 1
    UNION SELECT g.id FROM documents h CROSS JOIN facts g ON g.document_id = h.id
      WHERE h.client_id = ${OF_CLIENT} AND h.state = 'posted' AND h.ledger_date BETWEEN $2 AND $3
    UNION SELECT id FROM facts WHERE client_id = ${OF_CLIENT} AND awaits IS NOT NULL AND live = 1) AND f.live = 1
  AND f.levy IN (SELECT value FROM json_each($4)) AND ${ON_ITS_ACCOUNTS}
  AND NOT (f.registration_id IS $1 AND f.period_end IS $3 AND d.ledger_date BETWEEN $2 AND $3
    AND f.release_of IS NULL AND d.opening = 0 AND f.awaits IS NULL)`;
