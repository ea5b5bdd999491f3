import { FiscalError, withinField } from "@fiscalon/core/errors";
import { minorDigits } from "@fiscalon/core/money/currency";
import { parseAmount } from "@fiscalon/core/money/amount";
import type { PaymentBody } from "@fiscalon/contract/payments";
import { recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import { notFound } from "../../errors.ts";
import { loadSetup } from "../clients/loadSetup.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";
import { requireOwn } from "../documents/service.ts";
import { nextInSeries } from "../series/service.ts";
import { endPayments, postPayments } from "./postPayments.ts";
import type { NewPayment } from "./postPayments.ts";

export async function createPayment(
  db: Database,
  actor: Actor,
  clientId: number,
  body: PaymentBody,
): Promise<number> {
  return db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    return postOne(db, tx, actor, setup, await prepared(db, tx, setup, body));
  });
}

/** Replaces a payment by a corrected version; the old one stays on record. */
export async function correctPayment(
  db: Database,
  actor: Actor,
  clientId: number,
  paymentId: number,
  body: PaymentBody,
): Promise<number> {
  return db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    const old = await changeablePayment(db, tx, clientId, paymentId);
    await endPayments(db, tx, actor, setup, [paymentId], { state: "superseded", reason: "corrected" });
    const payment = await prepared(db, tx, setup, { ...body, number: body.number || old.number });
    return postOne(db, tx, actor, setup, { ...payment, supersedes: paymentId, sourceKey: old.sourceKey });
  });
}

/** Takes a payment out of the books; the documents it settled are open again. */
export async function voidPayment(
  db: Database,
  actor: Actor,
  clientId: number,
  paymentId: number,
  reason: string,
): Promise<void> {
  await db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    await changeablePayment(db, tx, clientId, paymentId);
    await endPayments(db, tx, actor, setup, [paymentId], { state: "void", reason });
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "void",
      entity: "payment",
      id: paymentId,
      after: { reason },
    });
  });
}

async function postOne(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  payment: NewPayment,
): Promise<number> {
  const [id = 0] = await withoutPath("payments[0].", () => postPayments(db, tx, actor, setup, [payment]));
  await recordChange(db, tx, actor, {
    client: setup.client.id,
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

async function prepared(db: Database, tx: Tx, setup: ClientSetup, body: PaymentBody): Promise<NewPayment> {
  await requireOwn(db, tx, setup.client.id, "contacts", body.contact, "contact");
  const payment = paymentFrom(body, setup);
  const number = body.number || (await nextInSeries(db, tx, setup.client.id, body.kind));
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
  db: Database,
  paymentId: number,
  tx?: Tx,
): Promise<{ period: string; state: string } | null> {
  const row = await db.row<{ period: string; state: string }>(
    `SELECT r.period_end AS period, r.state FROM facts f JOIN returns r ON r.registration_id = f.registration_id
       AND r.period_end = f.period_end AND r.state IN ('sealed', 'filed', 'settled')
     WHERE f.payment_id = $1 AND f.live = 1 ORDER BY r.period_end LIMIT 1`,
    [paymentId],
    tx,
  );
  return row ?? null;
}

async function changeablePayment(
  db: Database,
  tx: Tx,
  clientId: number,
  paymentId: number,
): Promise<{ number: string; sourceKey: string | null }> {
  const row = await db.row<{ number: string; state: string; sourceKey: string | null }>(
    "SELECT number, state, source_key AS sourceKey FROM payments WHERE id = $1 AND client_id = $2",
    [paymentId, clientId],
    tx,
  );
  if (!row) throw notFound("This payment");
  if (row.state !== "posted") {
    throw new FiscalError(
      "payment/wrong-state",
      "This version was already replaced or taken out. Open the current one.",
    );
  }
  const lock = await lockOfPayment(db, paymentId, tx);
  if (lock) {
    throw new FiscalError(
      "payment/sealed",
      `What this payment made reportable is on the return to ${lock.period}, which is ${lock.state}. Enter a payment the other way instead.`,
    );
  }
  return row;
}
