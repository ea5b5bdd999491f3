import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { minorDigits } from "@fiscalon/core/money/currency";
import { parseAmount } from "@fiscalon/core/money/amount";
import type { PaymentBody } from "@fiscalon/contract/payments";
import type { Work, Writing } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import { loadSetup } from "../loadSetup.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { requireOwn } from "../requireOwn.ts";
import { nextInSeries } from "../series.ts";
import { endPayments, postPayments } from "./postPayments.ts";
import type { NewPayment } from "./postPayments.ts";
import { refuseFar } from "./refuseFar.ts";

export async function createPayment(work: Work, clientId: number, body: PaymentBody): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    return postOne(work, setup, await prepared(work, setup, body));
  });
}

/** Replaces a payment by a corrected version; the old one stays on record. */
export async function correctPayment(
  work: Work,
  clientId: number,
  paymentId: number,
  body: PaymentBody,
): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const old = await changeablePayment(work, clientId, paymentId);
    await endPayments(work, setup, [paymentId], { state: "superseded", reason: "corrected" });
    const payment = await prepared(work, setup, { ...body, number: body.number || old.number });
    return postOne(work, setup, { ...payment, supersedes: paymentId, sourceKey: old.sourceKey });
  });
}

/** Takes a payment out of the books; the documents it settled are open again. */
export async function voidPayment(
  work: Work,
  clientId: number,
  paymentId: number,
  reason: string,
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    await changeablePayment(work, clientId, paymentId);
    await endPayments(work, setup, [paymentId], { state: "void", reason });
    await work.record({
      action: "void",
      entity: "payment",
      id: paymentId,
      after: { reason },
    });
  });
}

async function postOne(work: Writing, setup: ClientSetup, payment: NewPayment): Promise<number> {
  const [id = 0] = await withoutPath("payments[0].", () => postPayments(work, setup, [payment]));
  await work.record({
    action: payment.supersedes === undefined ? "post" : "correct",
    entity: "payment",
    id,
    before: payment.supersedes === undefined ? undefined : { payment: payment.supersedes },
    after: payment,
  });
  return id;
}

/** A single payment's errors name its own fields. */
async function withoutPath<T>(path: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof FiscalError) || !error.field?.startsWith(path)) throw error;
    throw new FiscalError(error.code, error.message, error.field.slice(path.length), error.details);
  }
}

async function prepared(work: Writing, setup: ClientSetup, body: PaymentBody): Promise<NewPayment> {
  await requireOwn(work, setup.client.id, "contacts", body.contact, "contact");
  refuseFar(work, body.date);
  const payment = paymentFrom(body, setup);
  const number = body.number || (await nextInSeries(work, setup.client.id, body.kind));
  return { ...payment, number };
}

/** Amounts read into minor units. */
export function paymentFrom(body: PaymentBody, { client, plain }: ClientSetup): NewPayment {
  const currency = body.currency ?? client.currency;
  const digits = currency === client.currency ? plain.digits : minorDigits(currency);
  const money = (amount: string | undefined, field: string) =>
    withinField(field, () => parseAmount(amount ?? "0", digits));
  const amount = money(body.amount, "amount");
  const bank = withinField("bankAmount", () => parseAmount(body.bankAmount ?? "0", plain.digits));
  return {
    kind: body.kind,
    number: body.number ?? "",
    date: body.date,
    contact: body.contact ?? null,
    account: body.account || null,
    currency,
    amount,
    base: currency === client.currency ? amount : bank,
    reference: body.reference ?? "",
    note: body.note ?? "",
    allocations: body.allocations.map((one, index) => ({
      document: one.document,
      amount: money(one.amount, `allocations[${index}].amount`),
      difference: money(one.difference, `allocations[${index}].difference`),
      differenceAccount: one.differenceAccount || null,
    })),
  };
}

/** The sealed period that holds something a payment made reportable. */
export async function lockOfPayment(
  work: Work,
  paymentId: number,
): Promise<{ period: string; state: string } | null> {
  const row = await work.row<{ period: string; state: string }>(
    `SELECT r.period_end AS period, r.state FROM facts f JOIN returns r ON r.registration_id = f.registration_id
       AND r.period_end = f.period_end AND r.state IN ('sealed', 'filed', 'settled')
     WHERE f.payment_id = $1 AND f.live = 1 ORDER BY r.period_end LIMIT 1`,
    [paymentId],
  );
  return row ?? null;
}

async function changeablePayment(
  work: Writing,
  clientId: number,
  paymentId: number,
): Promise<{ number: string; sourceKey: string | null }> {
  const row = await work.row<{ number: string; state: string; sourceKey: string | null }>(
    "SELECT number, state, source_key AS sourceKey FROM payments WHERE id = $1 AND client_id = $2",
    [paymentId, clientId],
  );
  if (!row) throw notFound("This payment");
  if (row.state !== "posted") {
    throw new FiscalError(
      "payment/wrong-state",
      "This version was already replaced or taken out. Open the current one.",
    );
  }
  const lock = await lockOfPayment(work, paymentId);
  if (lock) {
    throw new FiscalError(
      "payment/sealed",
      `What this payment made reportable is on the return to ${displayDate(lock.period)}, which is ${lock.state}. Enter a payment the other way instead.`,
    );
  }
  return row;
}
