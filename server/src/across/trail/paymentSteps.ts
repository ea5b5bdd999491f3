import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { displayAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import { PAYMENT_KINDS } from "@fiscalon/core/model/paymentKinds";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import type { Work } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import { paymentsOfDocument, paymentView } from "../../books/payments/queries.ts";
import { entryParts } from "./ledgerSteps.ts";
import type { TrailScope } from "./trailScope.ts";

/** A payment: the documents it settles, what it made reportable, and its entry. */
export async function paymentStep(
  { work, setup }: TrailScope,
  [id = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const payment = await paymentView(work, setup, Number(id));
  const released = await work.rows<{ levy: string; tax: number; end: string | null }>(
    `SELECT levy, sum(tax) AS tax, period_end AS end FROM facts WHERE payment_id = $1 AND live = 1
     GROUP BY levy, period_end`,
    [payment.id],
  );
  return {
    ref,
    title: `${PAYMENT_KINDS[payment.kind].name} ${payment.number}`,
    amount: payment.amount,
    digits: minorDigits(payment.currency),
    words: [
      ...(payment.currency === setup.client.currency
        ? []
        : [
            `${payment.currency}; the bank made ${setup.client.currency} ${displayAmount(payment.base, setup.plain.digits)} of it.`,
          ]),
      `${payment.contact ? `${payment.contact.name}, ` : ""}${displayDate(payment.date)}.`,
      ...(payment.reference === "" ? [] : [`Reference ${payment.reference}.`]),
      ...released.map(
        ({ levy, tax, end }) =>
          `Made ${levy} of ${displayAmount(tax, setup.plain.digits)} reportable${end === null ? "" : ` in the period to ${displayDate(end)}`}.`,
      ),
    ],
    parts: [
      ...payment.allocations.map((one): TrailPart => ({
        ref: `document/${one.document}`,
        label: `${DOCUMENT_KINDS[one.kind].name} ${one.number}`,
        detail: one.difference === 0 ? "settled" : "settled, with a write-off",
        amount: one.amount + one.difference,
      })),
      ...(payment.onAccount === 0
        ? []
        : [{ ref: null, label: "Stays on account", detail: "", amount: payment.onAccount }]),
      ...(await entryParts(work, "e.payment_id = $1 AND e.live = 1", [payment.id])),
    ],
    arithmetic: [],
    open: { label: "Open payment", path: `books/payments/${payment.id}` },
  };
}

/** What is open of a document: its gross less what payments settled. */
export async function openStep(
  { work, setup }: TrailScope,
  [id = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const [document] = await loadDocuments(work, "d.id = $1 AND d.client_id = $2", [
    Number(id),
    setup.client.id,
  ]);
  if (!document) throw notFound("This document");
  const toPay = document.foreignGross ?? document.gross;
  const settled = await paymentsOfDocument(work, document.id);
  const open = settled.reduce((sum, one) => sum - one.amount - one.difference, toPay);
  return {
    ref,
    title: `Open of ${document.input.number}`,
    amount: open,
    digits: minorDigits(document.input.currency ?? setup.client.currency),
    words: ["The gross of the document less everything that settled it."],
    parts: [
      { ref: `document/${id}`, label: "Gross", detail: displayDate(document.input.date), amount: toPay },
      ...settled.map((one): TrailPart => ({
        ref: `payment/${one.payment}`,
        label: one.number,
        detail: displayDate(one.date),
        amount: -one.amount - one.difference,
      })),
    ],
    arithmetic: [],
    open: { label: "Open document", path: `books/documents/${document.id}` },
  };
}

/** On the cash basis: what each payment made reportable of a line, and what still waits. */
export async function releaseParts(work: Work, document: number, line: number): Promise<TrailPart[]> {
  const rows = await work.rows<{
    payment: number | null;
    number: string | null;
    levy: string;
    on: string;
    tax: number;
    held: number;
    waits: number;
  }>(
    `SELECT f.payment_id AS payment, p.number, f.levy, f.tax_point AS "on", f.tax, f.held,
       f.tax - coalesce((SELECT sum(r.tax) FROM facts r WHERE r.release_of = f.id AND r.live = 1), 0) AS waits
     FROM facts f LEFT JOIN payments p ON p.id = f.payment_id
     WHERE f.document_id = $1 AND f.line = $2 AND f.live = 1 AND (f.held = 1 OR f.release_of IS NOT NULL)
     ORDER BY f.held, f.tax_point, f.id`,
    [document, line],
  );
  return rows.map((row) =>
    row.held === 1
      ? {
          ref: null,
          label: `${row.levy} that waits for payment`,
          detail: "on no return yet",
          amount: row.waits,
        }
      : {
          ref: row.payment === null ? null : `payment/${row.payment}`,
          label: `${row.levy} reportable by ${row.number ?? "the change of basis"}`,
          detail: displayDate(row.on),
          amount: row.tax,
        },
  );
}
