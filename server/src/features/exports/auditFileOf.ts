import { at } from "@fiscalon/core/at";
import { sideOf } from "../../db/kindSql.ts";
import type {
  AuditFile,
  AuditInvoice,
  AuditLine,
  AuditParty,
} from "@fiscalon/core/formats/auditfile/auditFile";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import { accountInRole } from "@fiscalon/core/model/account";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import type { Work } from "../../base/work.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { addSurroundings } from "../../books/documents/addSurroundings.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";
import { trialBalance } from "../../books/ledger.ts";

/** The books between two days as an audit file: chart with balances, parties, codes, ledger, invoices. */
export async function auditFileOf(
  work: Work,
  clientId: number,
  from: string,
  to: string,
): Promise<AuditFile> {
  const setup = await loadSetup(work, clientId);
  const documents = await loadDocuments(
    work,
    `d.client_id = $1 AND d.state = 'posted' AND d.opening = 0 AND d.date BETWEEN $2 AND $3
       AND ${sideOf("d.kind")} IS NOT NULL`,
    [clientId, from, to],
  );
  await addSurroundings(work, setup, documents);
  const invoices = documents.map((document) => ({ document, invoice: invoiceIn(document, setup) }));
  const side = (direction: string) =>
    invoices
      .filter(({ document }) => DOCUMENT_KINDS[document.input.kind].direction === direction)
      .map(({ invoice }) => invoice);
  const { customers, suppliers } = await partiesOf(work, clientId, documents);
  const { client, plain } = setup;
  return {
    country: client.country,
    currency: client.currency,
    made: work.today,
    company: {
      id: "",
      name: client.name,
      taxNumber: setup.registrations[0]?.number ?? "",
      country: client.country,
    },
    from,
    to,
    accounts: (await trialBalance(work, clientId, from, to)).map(
      ({ code, name, type, opening, closing }) => ({
        code,
        name,
        type: type as AuditFile["accounts"][number]["type"],
        opening,
        closing,
      }),
    ),
    customers,
    suppliers,
    taxes: plain.codes.flatMap((code) =>
      code.components.slice(0, 1).map(({ levy, rate }) => ({
        levy,
        code: code.code,
        name: code.name,
        percentage:
          rate.kind === "percent" ? (rowInForce(plain.schedules[rate.schedule], to)?.rate ?? "0") : "0",
      })),
    ),
    transactions: await transactionsOf(work, clientId, from, to),
    sales: side("sale"),
    purchases: side("purchase"),
  };
}

function invoiceIn({ input, contact }: StoredDocument, setup: ClientSetup): AuditInvoice {
  const { priced } = documentEffect(input, setup.effect);
  const { sign, direction } = DOCUMENT_KINDS[input.kind];
  const usual = accountInRole(setup.plain.accounts, direction === "sale" ? "sales" : "purchases");
  return {
    number: input.number,
    date: input.date,
    taxPoint: input.taxPoint ?? null,
    party: contact === null ? "" : String(contact),
    credit: sign < 0,
    annulled: false,
    lines: priced.lines.map((line): AuditLine => {
      const typed = input.lines[line.no - 1];
      return {
        account: typed?.account ?? usual,
        text: typed?.text ?? line.code?.name ?? "Supply",
        quantity: typed?.quantity ?? "1",
        net: line.net,
        taxes: line.taxes
          .filter(({ component }) => component.charged === "charged")
          .map(({ component, rate, tax }) => ({
            levy: component.levy,
            code: line.code?.code ?? "",
            percentage: component.rate.kind === "percent" ? (rate ?? "0") : "0",
            amount: tax,
          })),
      };
    }),
    net: priced.net,
    gross: priced.gross,
  };
}

async function partiesOf(
  work: Work,
  clientId: number,
  documents: readonly StoredDocument[],
): Promise<{ customers: AuditParty[]; suppliers: AuditParty[] }> {
  const rows = await work.rows<{
    id: number;
    name: string;
    taxNumber: string | null;
    country: string | null;
  }>("SELECT id, name, tax_number AS taxNumber, country FROM contacts WHERE client_id = $1 ORDER BY id", [
    clientId,
  ]);
  const used = (direction: string) =>
    new Set(
      documents
        .filter(({ input }) => DOCUMENT_KINDS[input.kind].direction === direction)
        .map(({ contact }) => contact),
    );
  const parties = (ids: ReadonlySet<number | null>) =>
    rows
      .filter(({ id }) => ids.has(id))
      .map(({ id, name, taxNumber, country }) => ({
        id: String(id),
        name,
        taxNumber: taxNumber ?? "",
        country: country ?? "",
      }));
  return { customers: parties(used("sale")), suppliers: parties(used("purchase")) };
}

async function transactionsOf(
  work: Work,
  clientId: number,
  from: string,
  to: string,
): Promise<AuditFile["transactions"]> {
  const rows = await work.rows<{
    id: number;
    date: string;
    entry: string;
    account: string;
    text: string;
    amount: number;
  }>(
    `SELECT e.id, e.date, e.text AS entry, a.code AS account, p.text, p.amount
     FROM entries e JOIN postings p ON p.entry_id = e.id JOIN accounts a ON a.id = p.account_id
     WHERE e.client_id = $1 AND e.live = 1 AND e.date BETWEEN $2 AND $3 ORDER BY e.date, e.id, p.id`,
    [clientId, from, to],
  );
  return [...groupBy(rows, (row) => row.id)].map(([id, own]) => ({
    id: String(id),
    date: at(own, 0).date,
    text: at(own, 0).entry,
    lines: own.map(({ account, text, amount }) => ({ account, text, amount })),
  }));
}
