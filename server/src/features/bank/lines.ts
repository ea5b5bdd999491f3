import { registrationWithId } from "../../books/loadSetup.ts";
import { at, valueAt } from "@fiscalon/core/at";
import { isOpenItem } from "@fiscalon/core/model/documentKinds";
import { inKinds, sumOfOwed, whichWay } from "../../db/kindSql.ts";
import { isSure, proposeMatches } from "@fiscalon/core/agree/bankMatching";
import type {
  BankCandidates,
  OpenDocument,
  OpenEntry,
  OpenTax,
  Proposal,
} from "@fiscalon/core/agree/bankMatching";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { BankLinePage, BankLineView } from "@fiscalon/contract/bank";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import { instalmentsToPay } from "../../books/settlement/instalments.ts";
import { periodRule } from "../../books/returns/periodRule.ts";
import { OPEN_AMOUNT } from "../../books/payments/postPayments.ts";

type LineRow = Omit<BankLineView, "proposals" | "label"> & {
  reason: string | null;
  entryText: string | null;
};

/** Every open line of an account with its proposals. */
export async function openLines(work: Work, setup: ClientSetup, account: string): Promise<BankLineView[]> {
  const lines = await work.rows<LineRow>(
    `SELECT id, date, amount, party, text, reference, state, entry_id AS entry, reason, NULL AS entryText
     FROM bank_lines WHERE client_id = $1 AND account = $2 AND state = 'open' ORDER BY date, id LIMIT 5000`,
    [setup.client.id, account],
  );
  const candidates = await candidatesOf(work, setup, account);
  const proposals = proposeMatches(lines, candidates);
  const words = namesOf(candidates, setup);
  return lines.map(({ reason: _reason, entryText: _text, ...line }) => ({
    ...line,
    label: "",
    proposals: (proposals.get(line.id) ?? []).map((one) => ({ ...one, label: words(one) })),
  }));
}

/** A page of the lines of an account. Open ones come with proposals. */
export async function linePage(
  work: Work,
  setup: ClientSetup,
  account: string,
  { state, offset, limit }: { state: BankLineView["state"]; offset: number; limit: number },
): Promise<BankLinePage> {
  if (state === "open") {
    const all = await openLines(work, setup, account);
    return {
      total: all.length,
      sure: all.filter(({ proposals }) => isSure(proposals)).length,
      sum: all.reduce((sum, { amount }) => sum + amount, 0),
      rows: all.slice(offset, offset + limit),
    };
  }
  const where = "b.client_id = $1 AND b.account = $2 AND b.state = $3";
  const bind = [setup.client.id, account, state];
  const totals = await work.one<{ total: number; sum: number }>(
    `SELECT count(*) AS total, coalesce(sum(b.amount), 0) AS sum FROM bank_lines b WHERE ${where}`,
    bind,
  );
  const rows = await work.rows<LineRow>(
    `SELECT b.id, b.date, b.amount, b.party, b.text, b.reference, b.state, b.entry_id AS entry, b.reason, e.text AS entryText
     FROM bank_lines b LEFT JOIN entries e ON e.id = b.entry_id
     WHERE ${where} ORDER BY b.date DESC, b.id DESC LIMIT $4 OFFSET $5`,
    [...bind, limit, offset],
  );
  return {
    ...totals,
    sure: 0,
    rows: rows.map(({ reason, entryText, ...line }) => ({
      ...line,
      label: entryText ?? reason ?? "",
      proposals: [],
    })),
  };
}

/** Everything a line of the account could be. */
async function candidatesOf(work: Work, setup: ClientSetup, account: string): Promise<BankCandidates> {
  const client = setup.client.id;
  const entries = await work.rows<OpenEntry>(
    `SELECT e.id AS entry, e.date, sum(p.amount) AS amount, e.text, coalesce(c.name, q.name, '') AS party
     FROM entries e JOIN postings p ON p.entry_id = e.id AND p.live = 1 AND p.account_id = $2
       LEFT JOIN documents d ON d.id = e.document_id LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN payments y ON y.id = e.payment_id LEFT JOIN contacts q ON q.id = y.contact_id
     WHERE e.client_id = $1 AND e.live = 1
       AND NOT EXISTS (SELECT 1 FROM bank_lines b WHERE b.entry_id = e.id AND b.account = $3)
     GROUP BY e.id ORDER BY e.date, e.id`,
    [client, valueAt(setup.accountIds, account), account],
  );
  const documents = await work.rows<OpenDocument>(
    `SELECT * FROM (SELECT d.id AS document, d.number, d.date, d.contact_id AS contact, coalesce(c.name, '') AS party,
       ${whichWay("d.kind")} * ${OPEN_AMOUNT} AS amount
     FROM documents d LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE d.client_id = $1 AND d.state = 'posted' AND d.currency = $2
       AND ${inKinds("d.kind", (_, kind) => isOpenItem(kind))})
     WHERE amount <> 0 ORDER BY date, document`,
    [client, setup.client.currency],
  );
  return { entries, documents, taxes: await openTaxes(work, setup) };
}

/** Words the authority of a registration is known by on a bank line. */
function bankNamesOf({ packs }: Work, { registrations }: ClientSetup, id: number): readonly string[] {
  return packs.byId(registrationWithId(registrations, id).pack).bankNames;
}

/** Filed returns whose money has not moved in full, and instalments of the running periods. */
async function openTaxes(work: Work, setup: ClientSetup): Promise<OpenTax[]> {
  const rows = await work.rows<{ registration: number; period: string; owed: number }>(
    `SELECT r.registration_id AS registration, r.period_end AS period, r.net + ${sumOfOwed("t")} AS owed
     FROM returns r LEFT JOIN tax_payments t ON t.registration_id = r.registration_id AND t.period_end = r.period_end
     WHERE r.client_id = $1 AND r.state IN ('filed', 'settled') GROUP BY r.id HAVING owed <> 0 ORDER BY r.period_end`,
    [setup.client.id],
  );
  const during: typeof rows = [];
  for (const r of setup.registrations) {
    const end = filingPeriodOn(periodRule(r), work.today)?.to;
    if (end === undefined) continue;
    for (const { period, amount } of await instalmentsToPay(work, r, [end]))
      during.push({ registration: r.id, period, owed: amount });
  }
  return [...rows, ...during].map(({ registration, period, owed }) => ({
    registration,
    period,
    levy: work.packs.levyNames(registrationWithId(setup.registrations, registration).levies),
    amount: -owed,
    names: bankNamesOf(work, setup, registration),
  }));
}

/** Proposals in words. */
function namesOf(candidates: BankCandidates, setup: ClientSetup): (proposal: Proposal) => string {
  const entries = new Map(candidates.entries.map((one) => [one.entry, one]));
  const documents = new Map(candidates.documents.map((one) => [one.document, one]));
  const levies = new Map(candidates.taxes.map((one) => [`${one.registration} ${one.period}`, one.levy]));
  return (proposal) => {
    switch (proposal.kind) {
      case "entry":
      case "wrong-way": {
        const { text, party } = valueAt(entries, proposal.entry);
        return party === "" ? text : `${text}, ${party}`;
      }
      case "tax":
        return `${valueAt(levies, `${proposal.registration} ${proposal.period}`)} of the period to ${proposal.period}`;
      case "documents":
        return proposal.documents
          .map(({ document, amount }) => {
            const open = valueAt(documents, document);
            const part =
              Math.abs(open.amount) === amount ? "" : ` (${displayAmount(amount, setup.plain.digits)} of it)`;
            return `${open.number}${part}`;
          })
          .join(", ")
          .concat(`, ${valueAt(documents, at(proposal.documents, 0).document).party}`);
    }
  };
}
