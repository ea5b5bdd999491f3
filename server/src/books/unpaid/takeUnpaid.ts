import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import { found } from "@fiscalon/core/at";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { LineInput } from "@fiscalon/core/model/document";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import type { UnpaidRule } from "@fiscalon/core/model/unpaidRule";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { UnpaidBody } from "@fiscalon/contract/unpaid";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { loadSetup, registrationIn } from "../loadSetup.ts";
import type { ClientSetup } from "../loadSetup.ts";
import type { NewDocument } from "../documents/newDocument.ts";
import { postDocuments } from "../documents/postDocuments.ts";
import { periodEnding, requireOpen } from "../returns/periods.ts";
import { nextInSeries } from "../series.ts";
import { unpaidDocuments, unpaidRules } from "./unpaidItems.ts";
import type { UnpaidDocument } from "./unpaidItems.ts";

/**
 * Puts on the return of a period what a rule asks of unpaid documents: a journal for each, that names the document, with
 * its arithmetic. It is taken back by taking the journal out.
 * @returns how many journals were posted
 */
export async function takeUnpaid(
  work: Work,
  clientId: number,
  rid: string,
  end: string,
  body: UnpaidBody,
): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const r = registrationIn(setup, rid);
    const period = periodEnding(r, end);
    await requireOpen(work, r.id, end);
    const rule = unpaidRules(work, r, period).find(({ id }) => id === body.rule);
    if (!rule) throw notFound("This rule");
    const asked = await unpaidDocuments(work, r, rule, period);
    const journals: NewDocument[] = [];
    for (const id of body.documents) {
      const one = asked.find((document) => document.id === id);
      if (!one) throw nothingLeft(id);
      journals.push(await journalOf(work, setup, r, rule, period, one, body.account));
    }
    const ids = await postDocuments(work, setup, numbered(await firstNumber(work, setup), journals));
    for (const [index, id] of ids.entries()) {
      await work.record({
        action: "post",
        entity: "document",
        id,
        after: { ...journals[index]?.input, rule: rule.id },
      });
    }
    return ids.length;
  });
}

function nothingLeft(id: number): FiscalError {
  return new FiscalError(
    "unpaid/nothing-left",
    `Nothing is to be taken for document ${id} in this period any more: it was paid, or taken, in between. Look at the list again.`,
    "documents",
  );
}

async function firstNumber(work: Writing, { client }: ClientSetup): Promise<string> {
  return nextInSeries(work, client.id, "journal");
}

/** Numbers that follow each other, all given out in this write. */
function numbered(first: string, journals: readonly NewDocument[]): NewDocument[] {
  const digits = /\d+$/.exec(first)?.[0] ?? "1";
  const prefix = first.slice(0, first.length - digits.length);
  return journals.map((journal, index) => ({
    ...journal,
    input: { ...journal.input, number: prefix + String(Number(digits) + index).padStart(digits.length, "0") },
  }));
}

async function journalOf(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  rule: UnpaidRule,
  { from, to }: FilingPeriod,
  document: UnpaidDocument,
  account: string,
): Promise<NewDocument> {
  const { digits } = setup.plain;
  const { proposal, number } = document;
  const name = proposal.way === "relief" ? rule.relief : rule.back;
  const code = setup.effect.codes.get(name);
  if (!code) {
    throw new FiscalError(
      "unpaid/no-code",
      `The client has no code ${name}. Add it under Set up, Codes.`,
      "rule",
    );
  }
  // Relief of a seller and a repayment that comes back are debits of tax.
  const sign = (rule.direction === "sale") === (proposal.way === "relief") ? 1 : -1;
  const place = work.packs.byId(r.pack).placeAttribute;
  const attributes = {
    relieves: number,
    ...(place === undefined ? {} : await placeOf(work, document.id, place)),
  };
  const lines = taxLines(code, sign, proposal.taxes, digits).map((line): LineInput => ({
    ...line,
    text: `${rule.name}, ${number}`,
    account,
    attributes,
  }));
  const sum = proposal.taxes.reduce((total, { amount }) => total + amount, 0);
  const today = work.today > from ? work.today : from;
  return {
    input: {
      kind: "journal",
      number: "",
      date: today < to ? today : to,
      prices: "exclusive",
      lines: [...lines, { account, amount: formatAmount(-sign * sum, digits), code: null }],
    },
    contact: document.contact,
    place: document.place,
    note: arithmetic(rule, document, digits),
  };
}

/** The coded lines: the tax as the amount where the code holds one levy, else the tax of each levy beside an amount of 0. */
function taxLines(
  code: TaxCode,
  sign: number,
  taxes: readonly { levy: string; amount: number }[],
  digits: number,
): LineInput[] {
  if (code.amountIs === "tax")
    return taxes.map(({ amount }) => ({ code: code.code, amount: formatAmount(sign * amount, digits) }));
  return [
    {
      code: code.code,
      amount: "0",
      typedTax: Object.fromEntries(
        taxes.map(({ levy, amount }) => [levy, formatAmount(sign * amount, digits)]),
      ),
    },
  ];
}

/** The place a document says its supply is made from, so that what is put right lands in the same box. */
async function placeOf(work: Work, document: number, attribute: string): Promise<Record<string, string>> {
  const row = await work.row<{ place: string }>(
    `SELECT attributes ->> ('$.' || $2) AS place FROM lines WHERE document_id = $1
       AND attributes ->> ('$.' || $2) IS NOT NULL LIMIT 1`,
    [document, attribute],
  );
  return row ? { [attribute]: row.place } : {};
}

function arithmetic(rule: UnpaidRule, document: UnpaidDocument, digits: number): string {
  const own = minorDigits(document.currency);
  const share = `${displayAmount(document.unpaid, own)} of ${displayAmount(document.gross, own)} unpaid`;
  const steps = document.proposal.taxes.map(({ levy, amount }) => {
    const { tax, done } = found(document.taxes, (one) => one.levy === levy, levy);
    const before = done === 0 ? "" : `, ${displayAmount(done, digits)} done before`;
    return `${levy} ${displayAmount(tax, digits)} × ${share}${before}: ${document.proposal.way === "back" ? "back " : ""}${displayAmount(amount, digits)}`;
  });
  return `${rule.name}, ${document.number}: ${steps.join("; ")}. Time was over on ${displayDate(document.proposal.over)}: ${rule.says} (${rule.source}).`;
}
