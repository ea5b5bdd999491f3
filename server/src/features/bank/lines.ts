import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { setImmediate } from "node:timers/promises";
import { registrationWithId } from "../../books/loadSetup.ts";
import { at, valueAt } from "@fiscalon/core/at";
import { isOpenItem } from "@fiscalon/core/model/documentKinds";
import { inKinds, sumOfOwed, whichWay } from "../../db/kindSql.ts";
import { isSure, lineOffers, onceEach } from "@fiscalon/core/agree/bankMatching";
import type {
  BankCandidates,
  OfferedLine,
  OpenDocument,
  OpenEntry,
  OpenTax,
  Proposal,
} from "@fiscalon/core/agree/bankMatching";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { BankLinePage, BankLineView } from "@fiscalon/contract/bank";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import { instalmentsToPay } from "../../books/settlement/instalments.ts";
import { periodRule } from "../../books/returns/periodRule.ts";
import { OPEN_AMOUNT } from "../../books/payments/postPayments.ts";

type LineRow = Omit<BankLineView, "proposals" | "label"> & {
  reason: string | null;
  entryText: string | null;
};

/** So many open lines, the oldest, are compared with the books at once; the others follow as these are matched. */
const COMPARED = 2000;
/** Lines that are compared before others are let in. */
const AT_ONCE = 25;
/** An entry so many days from every open line is none of them; a cheque may be cashed late. */
const DAYS_APART = 366;

const OF_ACCOUNT = "b.client_id = $1 AND b.account = $2 AND b.state = $3";
const LINE = "b.id, b.date, b.amount, b.party, b.text, b.reference, b.state, b.entry_id AS entry, b.reason";

/** The oldest open lines of an account with their proposals. */
export async function openLines(work: Work, setup: ClientSetup, account: string): Promise<BankLineView[]> {
  const lines = await rowsOf(work, setup, account, { state: "open", offset: 0, limit: COMPARED });
  if (lines.length === 0) return [];
  const candidates = await candidatesOf(work, setup, account, lines);
  const proposals = await proposalsFor(lines, candidates);
  const words = namesOf(candidates, setup);
  return lines.map((line) => ({
    ...shown(line, ""),
    proposals: (proposals.get(line.id) ?? []).map((one) => ({ ...one, label: words(one) })),
  }));
}

/** Line by line, so that others are answered meanwhile. */
async function proposalsFor(
  lines: readonly LineRow[],
  candidates: BankCandidates,
): Promise<Map<number, Proposal[]>> {
  const offersOf = lineOffers(candidates);
  const offered: OfferedLine[] = [];
  for (const [index, line] of lines.entries()) {
    if (index % AT_ONCE === AT_ONCE - 1) await setImmediate();
    offered.push(offersOf(line));
  }
  return onceEach(offered);
}

interface PageOf {
  state: BankLineView["state"];
  offset: number;
  limit: number;
}

/** A page of the lines of an account. Open ones come with proposals. */
export async function linePage(
  work: Work,
  setup: ClientSetup,
  account: string,
  page: PageOf,
): Promise<BankLinePage> {
  const totals = await work.one<{ total: number; sum: number }>(
    `SELECT count(*) AS total, coalesce(sum(b.amount), 0) AS sum FROM bank_lines b WHERE ${OF_ACCOUNT}`,
    [setup.client.id, account, page.state],
  );
  const { offset, limit } = page;
  const compared =
    page.state === "open"
      ? await work.remembered("open lines", [setup.client.id, account, work.today], (work) =>
          openLines(work, setup, account),
        )
      : [];
  const here = compared.slice(offset, offset + limit);
  const others = await rowsOf(work, setup, account, {
    ...page,
    offset: Math.max(offset, compared.length),
    limit: limit - here.length,
  });
  return {
    ...totals,
    sure: compared.filter(({ proposals }) => isSure(proposals)).length,
    rows: [...here, ...others.map((line) => shown(line, line.entryText ?? line.reason ?? ""))],
  };
}

/** Open ones from the oldest on, as they are worked through; the others from the newest. */
function rowsOf(
  work: Work,
  setup: ClientSetup,
  account: string,
  { state, offset, limit }: PageOf,
): Promise<LineRow[]> {
  const order = state === "open" ? "b.date, b.id" : "b.date DESC, b.id DESC";
  return work.rows<LineRow>(
    `SELECT ${LINE}, e.text AS entryText FROM bank_lines b LEFT JOIN entries e ON e.id = b.entry_id
     WHERE ${OF_ACCOUNT} ORDER BY ${order} LIMIT $4 OFFSET $5`,
    [setup.client.id, account, state, limit, offset],
  );
}

function shown({ reason: _reason, entryText: _text, ...line }: LineRow, label: string): BankLineView {
  return { ...line, label, proposals: [] };
}

/** Everything the lines of the account could be. */
async function candidatesOf(
  work: Work,
  setup: ClientSetup,
  account: string,
  lines: readonly LineRow[],
): Promise<BankCandidates> {
  const client = setup.client.id;
  const days = lines.map(({ date }) => date).sort();
  const amounts = new Set(lines.flatMap(({ amount }) => [amount, -amount]));
  // Only what comes to the amount of a line is looked up further.
  const entries = await work.rows<OpenEntry>(
    `WITH fitting AS MATERIALIZED (
       SELECT p.entry_id AS id, sum(p.amount) AS amount FROM postings p INDEXED BY postings_by_account
       WHERE p.client_id = $1 AND p.live = 1 AND p.account_id = $2 AND p.date BETWEEN $4 AND $5
       GROUP BY p.entry_id HAVING sum(p.amount) IN (SELECT value FROM json_each($6)))
     SELECT e.id AS entry, e.date, f.amount, e.text, coalesce(c.name, q.name, '') AS party
     FROM fitting f CROSS JOIN entries e ON e.id = f.id
       LEFT JOIN documents d ON d.id = e.document_id LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN payments y ON y.id = e.payment_id LEFT JOIN contacts q ON q.id = y.contact_id
     WHERE NOT EXISTS (SELECT 1 FROM bank_lines b WHERE b.entry_id = e.id AND b.account = $3)
     ORDER BY e.date, e.id`,
    [
      client,
      valueAt(setup.accountIds, account),
      account,
      addDays(at(days, 0), -DAYS_APART),
      addDays(at(days, days.length - 1), DAYS_APART),
      JSON.stringify([...amounts]),
    ],
  );
  const documents = await work.rows<OpenDocument>(
    `SELECT * FROM (SELECT d.id AS document, d.number, d.date, d.contact_id AS contact, coalesce(c.name, '') AS party,
       ${whichWay("d.kind")} * ${OPEN_AMOUNT} AS amount
     FROM documents d LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE d.client_id = $1 AND (d.open_amount <> 0 OR d.open_base <> 0) AND d.state = 'posted' AND d.currency = $2
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
        return `${valueAt(levies, `${proposal.registration} ${proposal.period}`)} of the period to ${displayDate(proposal.period)}`;
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
