import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { requireOwn } from "../../books/requireOwn.ts";
import { ERRORS } from "@fiscalon/contract/errors";
import { isSure } from "@fiscalon/core/agree/bankMatching";
import { valueAt } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { AcceptBody, BankLineView, MatchBody } from "@fiscalon/contract/bank";
import type { Work, Writing } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import { postPayments } from "../../books/payments/postPayments.ts";
import { paymentFrom } from "../../books/payments/service.ts";
import { nextInSeries } from "../../books/series.ts";
import { recordTaxPayment } from "../../books/settlement/taxPayments.ts";
import { openLines } from "./lines.ts";

type Line = Pick<BankLineView, "id" | "date" | "amount" | "party" | "text" | "reference"> & {
  account: string;
  externalId: string;
};

/** Says what a line of the bank is; what is not in the books yet is posted with it. */
export async function matchLine(
  work: Work,
  clientId: number,
  lineId: number,
  body: MatchBody,
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    await matchOne(work, setup, await openLine(work, clientId, lineId), body);
  });
}

/**
 * Accepts the best proposal of the lines named, or of every line where nothing else comes near. All of them or none.
 * @throws FiscalError `bank/no-proposal`, `bank/wrong-state`
 */
export async function acceptBest(
  work: Work,
  clientId: number,
  { account, lines: wanted }: AcceptBody,
): Promise<{ accepted: number }> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const open = await openLines(work, setup, account);
    const lines = wanted
      ? wanted.map((id) => namedLine(open, id))
      : open.filter(({ proposals }) => isSure(proposals));
    for (const line of lines) {
      const [best] = line.proposals;
      if (!best || best.kind === "wrong-way") {
        throw new FiscalError(
          "bank/no-proposal",
          `${displayDate(line.date)}, ${line.party || line.text}: nothing in the books fits this line well enough. Choose what it is by hand.`,
          "lines",
        );
      }
      const money = (amount: number) => formatAmount(amount, setup.plain.digits);
      const body: MatchBody =
        best.kind === "documents"
          ? {
              documents: best.documents.map((one) => ({ ...one, amount: money(one.amount) })),
              contact: best.contact,
            }
          : best.kind === "tax"
            ? { tax: { registration: best.registration, period: best.period } }
            : { entry: best.entry };
      await matchOne(work, setup, await openLine(work, clientId, line.id), body);
    }
    return { accepted: lines.length };
  });
}

function namedLine(open: readonly BankLineView[], id: number): BankLineView {
  const line = open.find((one) => one.id === id);
  if (line) return line;
  throw new FiscalError("bank/wrong-state", ERRORS["bank/wrong-state"].says, "lines");
}

/** Takes a match back. What was posted with it stays and can be taken out by itself. */
export async function unmatchLine(work: Work, clientId: number, lineId: number): Promise<void> {
  await work.write(async (work) => {
    const line = await work.row<{ state: string; entry: number | null }>(
      "SELECT state, entry_id AS entry FROM bank_lines WHERE id = $1 AND client_id = $2",
      [lineId, clientId],
    );
    if (!line) throw notFound("This line");
    await work.run("UPDATE bank_lines SET state = 'open', entry_id = NULL, reason = NULL WHERE id = $1", [
      lineId,
    ]);
    await work.record({
      action: "unmatch",
      entity: "bank-line",
      id: lineId,
      before: line,
    });
  });
}

async function openLine(work: Writing, clientId: number, lineId: number): Promise<Line> {
  const line = await work.row<Line & { state: string }>(
    `SELECT id, account, external_id AS externalId, date, amount, party, text, reference, state FROM bank_lines
     WHERE id = $1 AND client_id = $2`,
    [lineId, clientId],
  );
  if (!line) throw notFound("This line");
  if (line.state !== "open")
    throw new FiscalError("bank/wrong-state", "This line is matched already. Take the match back first.");
  return line;
}

async function matchOne(work: Writing, setup: ClientSetup, line: Line, body: MatchBody): Promise<void> {
  if (body.ignore !== undefined) {
    await work.run("UPDATE bank_lines SET state = 'ignored', reason = $2 WHERE id = $1", [
      line.id,
      body.ignore,
    ]);
  } else {
    const entry = await entryFor(work, setup, line, body);
    await work.run("UPDATE bank_lines SET state = 'matched', entry_id = $2 WHERE id = $1", [line.id, entry]);
  }
  await work.record({
    action: "match",
    entity: "bank-line",
    id: line.id,
    after: body,
  });
}

/** The entry that a line is, posted now where it is not in the books yet. */
async function entryFor(work: Writing, setup: ClientSetup, line: Line, body: MatchBody): Promise<number> {
  if (body.entry !== undefined) return knownEntry(work, setup, line, body.entry);
  if (body.documents) return paymentEntry(work, setup, line, body.documents, body.contact ?? null);
  if (body.tax) return taxEntry(work, setup, line, body.tax);
  if (body.post) return postedEntry(work, setup, line, body.post);
  throw new FiscalError("bank/nothing", "Say what this line is.");
}

async function knownEntry(work: Writing, setup: ClientSetup, line: Line, entry: number): Promise<number> {
  const row = await work.row<{ amount: number | null; taken: number }>(
    `SELECT (SELECT sum(p.amount) FROM postings p WHERE p.entry_id = e.id AND p.live = 1 AND p.account_id = $3) AS amount,
       EXISTS (SELECT 1 FROM bank_lines b WHERE b.entry_id = e.id AND b.account = $4) AS taken
     FROM entries e WHERE e.id = $1 AND e.client_id = $2 AND e.live = 1`,
    [entry, setup.client.id, valueAt(setup.accountIds, line.account), line.account],
  );
  if (!row) throw notFound("This entry");
  if (row.taken === 1)
    throw new FiscalError(
      "bank/taken",
      "This entry is matched with another line of the bank already.",
      "entry",
    );
  if (row.amount !== line.amount) {
    const turned = row.amount === -line.amount;
    throw new FiscalError(
      turned ? "bank/wrong-way" : "bank/other-amount",
      turned
        ? "The entry is the other way round: money in where the bank says out. Correct the entry, then match it."
        : "The entry moved another amount on this account. Correct it, or choose another.",
      "entry",
    );
  }
  return entry;
}

async function paymentEntry(
  work: Writing,
  setup: ClientSetup,
  line: Line,
  documents: NonNullable<MatchBody["documents"]>,
  contact: number | null,
): Promise<number> {
  await requireOwn(work, setup.client.id, "contacts", contact, "contact");
  const kind = line.amount > 0 ? "receipt" : "payment";
  const payment = paymentFrom(
    {
      kind,
      number: await nextInSeries(work, setup.client.id, kind),
      date: line.date,
      contact,
      account: line.account,
      amount: formatAmount(Math.abs(line.amount), setup.plain.digits),
      reference: line.reference || line.text.slice(0, 200),
      allocations: documents,
    },
    setup,
  );
  const [id = 0] = await postPayments(work, setup, [payment]);
  return entryOf(work, "payment_id", id);
}

async function taxEntry(
  work: Writing,
  setup: ClientSetup,
  line: Line,
  { registration, period }: NonNullable<MatchBody["tax"]>,
): Promise<number> {
  await recordTaxPayment(work, setup, registrationIn(setup, String(registration)), period, {
    date: line.date,
    kind: line.amount < 0 ? "payment" : "refund",
    amount: formatAmount(Math.abs(line.amount), setup.plain.digits),
    reference: line.reference || line.text.slice(0, 200),
  });
  return work.lastId("entries");
}

/** Money for something no document stands for yet: a sale or an expense paid at once, or a journal without a code. */
async function postedEntry(
  work: Writing,
  setup: ClientSetup,
  line: Line,
  { account, code, text }: NonNullable<MatchBody["post"]>,
): Promise<number> {
  const { digits } = setup.plain;
  const words = text || [line.party, line.text].filter(Boolean).join(", ").slice(0, 200);
  const kind = code ? (line.amount > 0 ? "cash-sale" : "expense") : "journal";
  const amount = formatAmount(Math.abs(line.amount), digits);
  const lines = code
    ? [{ text: words, amount, code, codeReason: "typed", account }]
    : [
        { text: words, amount: formatAmount(line.amount, digits), account: line.account },
        { text: words, amount: formatAmount(-line.amount, digits), account },
      ];
  const [id = 0] = await postDocuments(work, setup, [
    {
      input: {
        kind,
        number: await nextInSeries(work, setup.client.id, kind),
        date: line.date,
        prices: "inclusive",
        ...(code ? { paidThrough: line.account } : {}),
        lines,
      },
      contact: null,
      place: null,
      sourceKey: `bank-line:${line.account}:${line.externalId}`,
    },
  ]);
  return entryOf(work, "document_id", id);
}

async function entryOf(work: Writing, column: "payment_id" | "document_id", id: number): Promise<number> {
  const entry = await work.one<{ id: number }>(
    `SELECT id FROM entries WHERE ${column} = $1 ORDER BY id DESC LIMIT 1`,
    [id],
  );
  return entry.id;
}
