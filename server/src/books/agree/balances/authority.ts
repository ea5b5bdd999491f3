import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { accountsOfRegion, bears } from "@fiscalon/core/model/account";
import type { TaxPaymentKind } from "@fiscalon/core/model/taxPaymentKinds";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import type { ClientSetup } from "../../loadSetup.ts";
import { partsTable } from "./apart.ts";
import type { ApartPart, ApartTables } from "./apart.ts";

/** Why what is owed by the books and by the authority's account differ, as far as a rule tells. */
export const AUTHORITY_CAUSES: Readonly<Record<string, string>> = {
  unfiled: "Closed in the books, not filed by then",
  unclosed: "Filed by then, not closed in the books",
};

/** What the books owe the authority and what it says, on the last day up to one for which that was typed. */
export interface AuthorityFigures {
  on: string;
  left: number;
  right: number;
  tables: ApartTables;
  /** The first of the accounts of what is due. */
  account: string | null;
}

export async function authorityFigures(
  work: Work,
  { client, plain }: ClientSetup,
  r: RegistrationRecord,
  day: string,
): Promise<AuthorityFigures | null> {
  const typed = await work.row<{ on: string; amount: number }>(
    `SELECT day AS "on", amount FROM authority_balances WHERE registration_id = $1 AND day <= $2
     ORDER BY day DESC LIMIT 1`,
    [r.id, day],
  );
  if (!typed) return null;
  const accounts = accountsOfRegion(plain.accounts, r.region)
    .filter((account) => account.role === "due-to-authority" && r.levies.some((levy) => bears(account, levy)))
    .map(({ code }) => code);
  const codes = JSON.stringify(accounts);
  const { left } = await work.one<{ left: number }>(
    `SELECT coalesce(-sum(p.amount), 0) AS left FROM accounts a
       CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date <= $2
     WHERE a.client_id = $1 AND a.code IN (SELECT value FROM json_each($3))`,
    [client.id, typed.on, codes],
  );
  const parts = await partsOn(work, r, typed.on, codes);
  return {
    on: typed.on,
    left,
    right: typed.amount,
    tables: partsTable(parts),
    account: accounts[0] ?? null,
  };
}

/** What is paid or comes back once a return is known to the authority, also where it was filed elsewhere. */
const AFTER_FILING = JSON.stringify(["payment", "refund"] satisfies TaxPaymentKind[]);

/** Returns that the books close on another day than the authority knows of, seen from a day. */
async function partsOn(work: Work, r: RegistrationRecord, day: string, codes: string): Promise<ApartPart[]> {
  const returns = await work.rows<{ end: string; net: number; filed: number; closed: number | null }>(
    `SELECT t.period_end AS end, t.net, coalesce(substr(t.filed_at, 1, 10) <= $2, 0) OR EXISTS (
         SELECT 1 FROM tax_payments y WHERE y.registration_id = t.registration_id AND y.period_end = t.period_end
           AND y.date <= $2 AND y.kind IN (SELECT value FROM json_each($4))) AS filed,
       (SELECT -sum(p.amount) FROM postings p JOIN accounts a ON a.id = p.account_id
        WHERE p.entry_id = t.settlement_entry AND p.live = 1 AND p.date <= $2
          AND a.code IN (SELECT value FROM json_each($3))) AS closed
     FROM returns t WHERE t.registration_id = $1 AND t.boxes IS NOT NULL ORDER BY t.period_end`,
    [r.id, day, codes, AFTER_FILING],
  );
  return returns.flatMap(({ end, net, filed, closed }): ApartPart[] => {
    const isFiled = filed === 1;
    if (isFiled === (closed !== null)) return [];
    return [
      {
        cause: isFiled ? "unclosed" : "unfiled",
        ref: `position/${r.id}/${end}/net`,
        date: end,
        text: `Return to ${displayDate(end)}`,
        amount: closed === null ? net : -closed,
      },
    ];
  });
}
