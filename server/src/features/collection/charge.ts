import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { accountInRole } from "@fiscalon/core/model/account";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import type { CollectionChargeBody } from "@fiscalon/contract/collection";
import type { Work, Writing } from "../../base/work.ts";
import { oneOf } from "../../db/kindSql.ts";
import { collecting } from "../../books/collection/collects.ts";
import type { Collecting } from "../../books/collection/collects.ts";
import { customerYears, sumsOf } from "../../books/collection/customerYears.ts";
import type { CustomerYear } from "../../books/collection/customerYears.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** What a debit note is: an open item of the customer. */
const NOTE: DocumentKind = "sales-invoice";
/** How numbers of debit notes for collected tax begin. */
const PREFIX = "TCS-";
const DIGITS = 4;

/**
 * Charges customers what their receipts up to a day came to and no document has charged: a debit note each, with its
 * arithmetic. It is taken back by taking the note out.
 * @returns how many were posted
 */
export async function chargeCustomers(
  work: Work,
  clientId: number,
  { to, customers }: CollectionChargeBody,
): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const own = await collecting(work, setup);
    const years = new Map((await customerYears(work, setup, own, to)).map((one) => [one.contact, one]));
    let next = await nextNumber(work, clientId);
    const notes = customers.map((contact): NewDocument => {
      const year = years.get(contact);
      if (!year || sumsOf(year).left <= 0) throw nothingLeft(contact);
      const number = PREFIX + String(next).padStart(DIGITS, "0");
      next += 1;
      return noteOf(setup, own, year, number, to < work.today ? to : work.today);
    });
    const ids = await postDocuments(work, setup, notes);
    for (const [index, id] of ids.entries())
      await work.record({
        action: "post",
        entity: "document",
        id,
        after: { ...notes[index]?.input },
      });
    return ids.length;
  });
}

function nothingLeft(contact: number): FiscalError {
  return new FiscalError(
    "collection/nothing-left",
    `Nothing is left to charge to customer ${contact}: it was charged, or its receipts changed, in between. Look at the list again.`,
    "customers",
  );
}

async function nextNumber(work: Writing, clientId: number): Promise<number> {
  const { last } = await work.one<{ last: number | null }>(
    `SELECT max(CAST(substr(number, $2) AS INTEGER)) AS last FROM documents
     WHERE client_id = $1 AND ${oneOf("kind", [NOTE])} AND number GLOB $3`,
    [clientId, PREFIX.length + 1, `${PREFIX}[0-9]*`],
  );
  return (last ?? 0) + 1;
}

function noteOf(
  { plain }: ClientSetup,
  { rule }: Collecting,
  year: CustomerYear,
  number: string,
  date: string,
): NewDocument {
  const { left, charged } = sumsOf(year);
  const show = (amount: number) => displayAmount(amount, plain.digits);
  const steps = year.receipts
    .filter(({ tax }) => tax !== 0)
    .map(
      ({ receipt, excess, rate, tax }) =>
        `${receipt.number} of ${displayDate(receipt.date)}: ${show(excess)} × ${rate} % = ${show(tax)}`,
    );
  const before = charged === 0 ? "" : ` Charged before: ${show(charged)}.`;
  return {
    input: {
      kind: NOTE,
      number,
      date,
      prices: "exclusive",
      lines: [
        {
          text: rule.name,
          code: rule.code,
          account: accountInRole(plain.accounts, "collected-at-source"),
          amount: formatAmount(left, plain.digits),
        },
      ],
    },
    contact: year.contact,
    place: null,
    note: `Receipts above ${show(rule.above)} in the fiscal year: ${steps.join("; ")}.${before}`,
  };
}
