import { isOpenItem } from "@fiscalon/core/model/documentKinds";
import { inKinds, whichWay } from "../kindSql.ts";
import type { Migration } from "../migration.ts";
import { keptBy, trigger } from "./keptBy.ts";

type Row = "new" | "old";
type Sign = "+" | "-";

const withDebtors = (kind: string) =>
  inKinds(kind, ({ direction }, one) => direction === "sale" && isOpenItem(one));
const withCreditors = (kind: string) =>
  inKinds(kind, ({ direction }, one) => direction === "purchase" && isOpenItem(one));
/** What a document is to have on the account of its side, debit positive. */
const due = (document: string) => {
  const kind = `${document}.kind`;
  return `CASE WHEN ${document}.state = 'posted' AND (${withDebtors(kind)} OR ${withCreditors(kind)})
      THEN (${whichWay(kind)}) * ${document}.gross ELSE 0 END`;
};

const OF_PARTIES = `IN ('receivable', 'payable')`;
/** Whether a posting stands where its document `d` puts it: on the account of its side `a`, on its day in the ledger. */
const fits = (date: string) => `(${date} = d.ledger_date
        AND CASE a.role WHEN 'receivable' THEN ${withDebtors("d.kind")} ELSE ${withCreditors("d.kind")} END)`;

const NO_GAP = `amount = 0 AND otherwise = 0`;
const NO_REST = `debtors = 0 AND creditors = 0 AND otherwise = 0`;
const addToGap = `ON CONFLICT (document_id) DO UPDATE SET amount = amount + excluded.amount, otherwise = otherwise + excluded.otherwise`;
const addToRest = `ON CONFLICT (payment_id) DO UPDATE SET debtors = debtors + excluded.debtors,
      creditors = creditors + excluded.creditors, otherwise = otherwise + excluded.otherwise`;

const paymentOf = (row: Row) => `(SELECT payment_id FROM entries WHERE id = ${row}.entry_id)`;

const ofDocument = (row: Row, sign: Sign) => `INSERT INTO document_gaps (document_id, amount, otherwise)
      SELECT d.id, CASE WHEN ${fits(`${row}.date`)} THEN ${sign === "+" ? "-" : ""}${row}.amount ELSE 0 END,
        ${sign} NOT ${fits(`${row}.date`)}
      FROM entries e CROSS JOIN documents d ON d.id = e.document_id CROSS JOIN accounts a ON a.id = ${row}.account_id
      WHERE e.id = ${row}.entry_id ${addToGap};
    DELETE FROM document_gaps
      WHERE document_id = (SELECT document_id FROM entries WHERE id = ${row}.entry_id) AND ${NO_GAP};`;

const ofPayment = (
  row: Row,
  sign: Sign,
) => `INSERT INTO payment_gaps (payment_id, debtors, creditors, otherwise)
      SELECT y.id, ${sign} CASE a.role WHEN 'receivable' THEN ${row}.amount ELSE 0 END,
        ${sign} CASE a.role WHEN 'payable' THEN ${row}.amount ELSE 0 END, ${sign} (${row}.date <> y.date)
      FROM payments y CROSS JOIN accounts a ON a.id = ${row}.account_id WHERE y.id = ${paymentOf(row)} ${addToRest};
    DELETE FROM payment_gaps WHERE payment_id = ${paymentOf(row)} AND ${NO_REST};`;

/** 1 or -1 where an allocation takes something off the side, else 0. */
const offDebtors = `(${withDebtors("d.kind")}) * (${whichWay("d.kind")})`;
const offCreditors = `(${withCreditors("d.kind")}) * (${whichWay("d.kind")})`;

const allocation = (
  row: Row,
  sign: Sign,
) => `INSERT INTO payment_gaps (payment_id, debtors, creditors, otherwise)
      SELECT y.id, ${sign} ${offDebtors} * ${row}.base, ${sign} ${offCreditors} * ${row}.base,
        ${sign} (d.date > y.date OR d.state <> 'posted')
      FROM payments y CROSS JOIN documents d ON d.id = ${row}.document_id WHERE y.id = ${row}.payment_id ${addToRest};
    DELETE FROM payment_gaps WHERE payment_id = ${row}.payment_id AND ${NO_REST};`;

/** What chosen documents keep apart, worked out from their entries. */
const documentsAnew = (chosen: string): [string, string] => [
  `DELETE FROM document_gaps WHERE document_id IN (${chosen})`,
  `INSERT INTO document_gaps (document_id, amount, otherwise) SELECT * FROM (
      SELECT d.id, ${due("d")} - coalesce(sum(CASE WHEN a.id IS NOT NULL AND ${fits("p.date")} THEN p.amount END), 0) AS amount,
        coalesce(sum(CASE WHEN a.id IS NOT NULL THEN NOT ${fits("p.date")} END), 0) AS otherwise
      FROM documents d LEFT JOIN entries e ON e.document_id = d.id AND e.payment_id IS NULL
        LEFT JOIN postings p ON p.entry_id = e.id AND p.live = 1
        LEFT JOIN accounts a ON a.id = p.account_id AND a.role ${OF_PARTIES}
      WHERE d.id IN (${chosen}) GROUP BY d.id) WHERE NOT (${NO_GAP})`,
];

/** What chosen payments keep apart, worked out from their entries and allocations. */
const paymentsAnew = (chosen: string): [string, string] => [
  `DELETE FROM payment_gaps WHERE payment_id IN (${chosen})`,
  `INSERT INTO payment_gaps (payment_id, debtors, creditors, otherwise) SELECT * FROM (
      SELECT payment, sum(debtors) AS debtors, sum(creditors) AS creditors, sum(otherwise) AS otherwise FROM (
        SELECT y.id AS payment, CASE a.role WHEN 'receivable' THEN p.amount ELSE 0 END AS debtors,
          CASE a.role WHEN 'payable' THEN p.amount ELSE 0 END AS creditors, p.date <> y.date AS otherwise
        FROM payments y CROSS JOIN entries e ON e.payment_id = y.id CROSS JOIN postings p ON p.entry_id = e.id AND p.live = 1
          CROSS JOIN accounts a ON a.id = p.account_id AND a.role ${OF_PARTIES}
        WHERE y.id IN (${chosen})
        UNION ALL
        SELECT y.id, ${offDebtors} * x.base, ${offCreditors} * x.base, d.date > y.date OR d.state <> 'posted'
        FROM payments y CROSS JOIN allocations x ON x.payment_id = y.id AND x.live = 1
          CROSS JOIN documents d ON d.id = x.document_id
        WHERE y.id IN (${chosen})) GROUP BY payment) WHERE NOT (${NO_REST})`,
];

const PAYING_IT = `SELECT payment_id FROM allocations WHERE document_id = new.id AND live = 1`;
const ENTRIES_ON_IT = `SELECT entry_id FROM postings WHERE client_id = new.client_id AND live = 1 AND account_id = new.id`;

const counts = (row: Row) =>
  `${row}.live = 1 AND (SELECT role FROM accounts WHERE id = ${row}.account_id) ${OF_PARTIES}`;

const isOfDocument = (row: Row) => `${counts(row)} AND ${paymentOf(row)} IS NULL`;
const isOfPayment = (row: Row) => `${counts(row)} AND ${paymentOf(row)} IS NOT NULL`;
const POSTINGS = { table: "postings", columns: "entry_id, account_id, date, amount, live" };

const inTurn = (...statements: string[]): string => statements.map((one) => `${one};`).join("\n    ");

/**
 * Documents and payments of which the entries on the accounts of debtors and creditors are not just what the open items
 * say, kept by triggers in the transaction of what they compare. So agreeing these accounts costs what is apart, not all
 * documents of all years. Who has no row here, and a document that is dated on its day in the ledger, keeps nothing apart
 * on any day; all others are worked out for the day that is asked for.
 * - `document_gaps.amount`: what it is to have on the account of its side less what its entries have there on its day
 * - `payment_gaps.debtors`, `creditors`: what its entries have there less what its allocations take off
 * - `otherwise`: how many postings and allocations are not where these sums expect them
 */
export const partyGaps: Migration = {
  name: "2026-11-30-party-gaps",
  statements: [
    `CREATE TABLE document_gaps (
    document_id INTEGER PRIMARY KEY REFERENCES documents,
    amount INTEGER NOT NULL,
    otherwise INTEGER NOT NULL
  )`,
    `CREATE TABLE payment_gaps (
    payment_id INTEGER PRIMARY KEY REFERENCES payments,
    debtors INTEGER NOT NULL,
    creditors INTEGER NOT NULL,
    otherwise INTEGER NOT NULL
  )`,
    ...documentsAnew("SELECT id FROM documents"),
    ...paymentsAnew("SELECT id FROM payments"),
    `CREATE INDEX documents_in_ledger_later ON documents (client_id) WHERE ledger_date <> date`,
    `CREATE INDEX entries_alone ON entries (client_id, date) WHERE document_id IS NULL AND payment_id IS NULL AND live = 1`,
    ...keptBy({ ...POSTINGS, name: "postings_of_documents", when: isOfDocument }, ofDocument),
    ...keptBy({ ...POSTINGS, name: "postings_of_payments", when: isOfPayment }, ofPayment),
    ...keptBy(
      {
        table: "allocations",
        name: "allocations_of_parties",
        columns: "payment_id, document_id, base, live",
        when: (row) => `${row}.live = 1`,
      },
      allocation,
    ),
    trigger(
      "documents_to_gaps",
      "AFTER INSERT ON documents",
      `INSERT INTO document_gaps (document_id, amount, otherwise) VALUES (new.id, ${due("new")}, 0);`,
      `${due("new")} <> 0`,
    ),
    trigger(
      "documents_anew_to_gaps",
      "AFTER UPDATE OF kind, date, ledger_date, gross, state ON documents",
      inTurn(...documentsAnew("new.id"), ...paymentsAnew(PAYING_IT)),
      `(old.kind, old.date, old.ledger_date, old.gross, old.state)
        <> (new.kind, new.date, new.ledger_date, new.gross, new.state)`,
    ),
    trigger(
      "documents_off_gaps",
      "BEFORE DELETE ON documents",
      `DELETE FROM document_gaps WHERE document_id = old.id;`,
    ),
    trigger("payments_anew_to_gaps", "AFTER UPDATE OF date ON payments", inTurn(...paymentsAnew("new.id"))),
    trigger(
      "payments_off_gaps",
      "BEFORE DELETE ON payments",
      `DELETE FROM payment_gaps WHERE payment_id = old.id;`,
    ),
    trigger(
      "accounts_to_gaps",
      "AFTER UPDATE OF role ON accounts",
      inTurn(
        ...documentsAnew(`SELECT document_id FROM entries WHERE id IN (${ENTRIES_ON_IT})`),
        ...paymentsAnew(`SELECT payment_id FROM entries WHERE id IN (${ENTRIES_ON_IT})`),
      ),
      "old.role IS NOT new.role",
    ),
  ],
};
