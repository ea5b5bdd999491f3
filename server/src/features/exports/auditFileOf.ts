import type { Readable } from "node:stream";
import type {
  AuditInvoice,
  AuditLine,
  AuditParty,
  AuditTransaction,
} from "@fiscalon/core/formats/auditfile/auditFile";
import { auditFileParts } from "@fiscalon/core/formats/auditfile/writeAuditFile";
import type { AuditFrame, AuditTotals } from "@fiscalon/core/formats/auditfile/writeAuditFile";
import { groupBy } from "@fiscalon/core/groupBy";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { Direction } from "@fiscalon/core/model/taxCode";
import { accountInRole } from "@fiscalon/core/model/account";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import type { Work } from "../../base/work.ts";
import { documentIds, loadDocuments } from "../../books/documents/loadDocuments.ts";
import { recordedEffects } from "../../books/documents/recordedEffects.ts";
import type { RecordedEffect } from "../../books/documents/recordedEffects.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { trialBalance } from "../../books/ledger.ts";
import { signOf, sideOf } from "../../db/kindSql.ts";
import { backPressed } from "../../exports/backPressed.ts";

/** So many entries or documents are read, written and sent before others have their turn. */
const AT_ONCE = 500;

interface Span {
  from: string;
  to: string;
}

/**
 * The books between two days as an audit file (chart with balances, parties, codes, ledger, invoices), as a stream: some
 * entries and documents are read, written and sent before the next ones are, all of one moment of the books.
 */
export async function auditFileOf(work: Work, clientId: number, span: Span): Promise<Readable> {
  const setup = await loadSetup(work, clientId);
  const { ready, sent, failed, stream } = backPressed();
  const send = (text: string, isLast = false) => sent(Buffer.from(text), isLast);
  work
    .atOneMoment(async (work) => {
      const { frame, ...textOf } = auditFileParts(await frameOf(work, setup, span));
      send(frame[0]);
      for await (const some of transactionsIn(work, clientId, span)) {
        send(some.map(textOf.transaction).join(""));
        await ready();
      }
      for (const [direction, before] of [
        ["sale", frame[1]],
        ["purchase", frame[2]],
      ] as const) {
        send(before);
        for await (const some of invoicesIn(work, setup, direction, span)) {
          send(some.map(textOf[direction]).join(""));
          await ready();
        }
      }
      send(frame[3], true);
    })
    .catch(failed);
  return stream;
}

/** Documents `d` of client $1 and one side between $2 and $3. */
const ofSide = (direction: Direction) => `d.client_id = $1 AND d.state = 'posted' AND d.opening = 0
  AND d.date BETWEEN $2 AND $3 AND ${sideOf("d.kind")} = '${direction}'`;

async function frameOf(work: Work, setup: ClientSetup, { from, to }: Span): Promise<AuditFrame> {
  const { client, plain } = setup;
  const bind = [client.id, from, to] as const;
  const balances = await trialBalance(work, client.id, from, to);
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
    accounts: balances.map(({ code, name, type, opening, closing }) => ({
      code,
      name,
      type: type as AuditFrame["accounts"][number]["type"],
      opening,
      closing,
    })),
    customers: await partiesOf(work, "sale", bind),
    suppliers: await partiesOf(work, "purchase", bind),
    taxes: plain.codes.flatMap((code) =>
      code.components.slice(0, 1).map(({ levy, rate }) => ({
        levy,
        code: code.code,
        name: code.name,
        percentage:
          rate.kind === "percent" ? (rowInForce(plain.schedules[rate.schedule], to)?.rate ?? "0") : "0",
      })),
    ),
    totals: {
      transactions: await work.one<AuditTotals>(
        `SELECT count(DISTINCT e.id) AS count, coalesce(sum(max(p.amount, 0)), 0) AS debit,
           coalesce(sum(max(-p.amount, 0)), 0) AS credit
         FROM entries e CROSS JOIN postings p ON p.entry_id = e.id
         WHERE e.client_id = $1 AND e.live = 1 AND e.date BETWEEN $2 AND $3`,
        [...bind],
      ),
      sales: await netsOf(work, "sale", bind),
      purchases: await netsOf(work, "purchase", bind),
    },
  };
}

type Bound = readonly [client: number, from: string, to: string];

/** Invoices and credit notes of a side, by where their net stands. */
function netsOf(work: Work, direction: Direction, bind: Bound): Promise<AuditTotals> {
  const credit = direction === "sale" ? 1 : -1;
  const sum = (sign: number) => `coalesce(sum(CASE WHEN ${signOf("d.kind")} = ${sign} THEN d.net END), 0)`;
  return work.one(
    `SELECT count(*) AS count, ${sum(-credit)} AS debit, ${sum(credit)} AS credit
     FROM documents d WHERE ${ofSide(direction)}`,
    [...bind],
  );
}

function partiesOf(work: Work, direction: Direction, bind: Bound): Promise<AuditParty[]> {
  return work.rows(
    `SELECT CAST(id AS TEXT) AS id, name, coalesce(tax_number, '') AS taxNumber, coalesce(country, '') AS country
     FROM contacts WHERE client_id = $1
       AND EXISTS (SELECT 1 FROM documents d WHERE d.contact_id = contacts.id AND ${ofSide(direction)}) ORDER BY contacts.id`,
    [...bind],
  );
}

async function* transactionsIn(
  work: Work,
  clientId: number,
  { from, to }: Span,
): AsyncGenerator<AuditTransaction[]> {
  let last: { date: string; id: number } | undefined = { date: from, id: 0 };
  while (last) {
    const entries: { id: number; date: string; text: string }[] = await work.rows(
      `SELECT id, date, text FROM entries
       WHERE client_id = $1 AND live = 1 AND date BETWEEN $2 AND $3 AND (date, id) > ($2, $4)
         AND EXISTS (SELECT 1 FROM postings p WHERE p.entry_id = entries.id) ORDER BY date, id LIMIT $5`,
      [clientId, last.date, to, last.id, AT_ONCE],
    );
    const lines = groupBy(
      await work.rows<{ entry: number; account: string; text: string; amount: number }>(
        `SELECT p.entry_id AS entry, a.code AS account, p.text, p.amount
         FROM postings p JOIN accounts a ON a.id = p.account_id
         WHERE p.entry_id IN (SELECT value FROM json_each($1)) ORDER BY p.id`,
        [JSON.stringify(entries.map(({ id }) => id))],
      ),
      ({ entry }) => entry,
    );
    yield entries.map(({ id, date, text }) => ({
      id: String(id),
      date,
      text,
      lines: (lines.get(id) ?? []).map(({ entry: _, ...line }) => line),
    }));
    last = entries.at(-1);
  }
}

async function* invoicesIn(
  work: Work,
  setup: ClientSetup,
  direction: Direction,
  { from, to }: Span,
): AsyncGenerator<AuditInvoice[]> {
  const ids = await documentIds(work, ofSide(direction), [setup.client.id, from, to]);
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    const slice = JSON.stringify(ids.slice(at, at + AT_ONCE));
    const documents = await loadDocuments(work, "d.id IN (SELECT value FROM json_each($1))", [slice]);
    yield (await recordedEffects(work, setup, documents)).map((one) => invoiceOf(one, setup));
  }
}

function invoiceOf({ document, effect }: RecordedEffect, setup: ClientSetup): AuditInvoice {
  const { input, contact } = document;
  const { priced } = effect;
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
