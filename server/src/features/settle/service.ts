import { FiscalError } from "@fiscalon/core/errors";
import { accountInRole } from "@fiscalon/core/ledger/account";
import type { Posting } from "@fiscalon/core/ledger/posting";
import { displayAmount, parseAmount } from "@fiscalon/core/money/amount";
import { settlementPostings } from "@fiscalon/core/returns/settlementPostings";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import type { RegistrationRecord, ReturnRecord } from "../../db/models.ts";
import { notFound } from "../../errors.ts";
import { loadSetup, registrationIn } from "../clients/loadSetup.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";
import { boxesNow, evaluated, figuresOf } from "../returns/evaluation.ts";
import { adjustmentsOf, factGroups, levyTotals } from "../returns/queries.ts";
import { returnRecord } from "../returns/records.ts";

/** The closing entry of a period as it would be posted now, or was. */
export async function closingEntry(
  db: Database,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  net: number,
  tx?: Tx,
): Promise<Posting[]> {
  const { boxes } = await boxesNow(db, r, end, tx);
  const { allowance, carried } = figuresOf(r, end, boxes);
  const adjustments = await adjustedBy(db, r, end, tx);
  const figures = { net, adjustments, allowance, carried };
  return settlementPostings(await levyTotals(db, r.id, end, tx), figures, setup.plain.accounts);
}

/** What adjustments change in what is owed: the return with them, less the return without. */
async function adjustedBy(db: Database, r: RegistrationRecord, end: string, tx?: Tx): Promise<number> {
  const adjustments = await adjustmentsOf(db, r.id, end, tx);
  if (adjustments.length === 0) return 0;
  const groups = await factGroups(db, r.id, end, tx);
  const net = (own: typeof adjustments) => {
    const { net: due, allowance, carried } = figuresOf(r, end, evaluated(r, end, groups, own));
    return due + allowance - carried;
  };
  return net(adjustments) - net([]);
}

/** Posts the closing entry of a filed period: the running tax accounts to zero, the net to what is due. */
export async function settleReturn(
  db: Database,
  actor: Actor,
  clientId: number,
  rid: string,
  end: string,
): Promise<void> {
  await db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    const r = registrationIn(setup, rid);
    const record = await returnRecord(db, r.id, end, tx);
    if (record?.state !== "filed") {
      throw new FiscalError(
        "settle/wrong-state",
        "A period is settled once it is filed. File the return first.",
      );
    }
    await postSettlement(db, tx, actor, setup, r, record);
  });
}

export async function postSettlement(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  r: RegistrationRecord,
  record: ReturnRecord,
): Promise<void> {
  const postings = await closingEntry(db, setup, r, record.periodEnd, record.net ?? 0, tx);
  const entry = await insertEntry(db, tx, actor, setup, r, {
    kind: "settlement",
    date: record.periodEnd,
    periodEnd: record.periodEnd,
    text: `${r.levies.join(", ")} of the period to ${record.periodEnd}`,
    postings,
  });
  await db.models.returns.update(
    { state: "settled", settledAt: actor.at, settledBy: actor.person, settlementEntry: entry },
    { where: { id: record.id }, transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: setup.client.id,
    action: "settle",
    entity: "return",
    id: r.id,
    after: { period: record.periodEnd, entry },
  });
}

export interface TaxPaymentInput {
  date: string;
  kind: "payment" | "refund" | "interest" | "penalty";
  amount: string;
  reference?: string;
}

/** Records money that moved between the business and the authority, or a charge of the authority. */
export async function recordTaxPayment(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  input: TaxPaymentInput,
): Promise<void> {
  const record = await returnRecord(db, r.id, end, tx);
  if (record?.state !== "settled" && record?.state !== "filed") {
    throw new FiscalError(
      "settle/wrong-state",
      "Money is recorded against a period that is filed. File the return first.",
    );
  }
  const amount = parseAmount(input.amount, setup.plain.digits);
  if (amount <= 0)
    throw new FiscalError(
      "settle/amount",
      "Type the amount without a sign; the kind says the direction.",
      "amount",
    );
  refuseWrongWay(record, input, setup.plain.digits);
  const entry = await insertEntry(db, tx, actor, setup, r, {
    kind: "tax-payment",
    date: input.date,
    periodEnd: end,
    text: `${NAME[input.kind]}, ${r.levies.join(", ")} to ${end}`,
    postings: paymentPostings(input.kind, amount, r, setup),
  });
  await db.run(
    `INSERT INTO tax_payments (client_id, registration_id, period_end, date, kind, amount, reference, entry_id, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [
      setup.client.id,
      r.id,
      end,
      input.date,
      input.kind,
      amount,
      input.reference ?? "",
      entry,
      actor.at,
      actor.person,
    ],
    tx,
  );
  await recordChange(db, tx, actor, {
    client: setup.client.id,
    action: "record",
    entity: "tax-payment",
    id: entry,
    after: { ...input, period: end },
  });
}

const NAME = { payment: "Payment", refund: "Refund", interest: "Interest", penalty: "Penalty" };

/** The usual slip: a refund entered as a payment, or the other way round. */
function refuseWrongWay(record: ReturnRecord, input: TaxPaymentInput, digits: number): void {
  const net = record.net ?? 0;
  const shown = displayAmount(Math.abs(net), digits);
  if (input.kind === "payment" && net < 0) {
    throw new FiscalError(
      "settle/wrong-way",
      `The return reclaims ${shown}: money comes in. Record it as a refund.`,
      "kind",
    );
  }
  if (input.kind === "refund" && net > 0) {
    throw new FiscalError(
      "settle/wrong-way",
      `The return owes ${shown}: money goes out. Record it as a payment.`,
      "kind",
    );
  }
}

function paymentPostings(
  kind: TaxPaymentInput["kind"],
  amount: number,
  r: RegistrationRecord,
  setup: ClientSetup,
): Posting[] {
  const levy = r.levies[0] ?? null;
  const accounts = setup.plain.accounts;
  const due = accountInRole(accounts, "due-to-authority", levy);
  const bank = accountInRole(accounts, "bank");
  const sides = {
    payment: [due, bank],
    refund: [bank, due],
    interest: [accountOfCharges(), due],
    penalty: [accountOfCharges(), due],
  }[kind];
  const text = NAME[kind];
  return [
    { account: sides[0] ?? "", amount, line: null, levy, text },
    { account: sides[1] ?? "", amount: -amount, line: null, levy, text },
  ];
  function accountOfCharges(): string {
    return accountInRole(accounts, "charges", levy);
  }
}

interface EntryInput {
  kind: "settlement" | "tax-payment";
  date: string;
  periodEnd: string;
  text: string;
  postings: readonly Posting[];
}

async function insertEntry(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  r: RegistrationRecord,
  { kind, date, periodEnd, text, postings }: EntryInput,
): Promise<number> {
  const id = (await db.lastId("entries", tx)) + 1;
  const clientId = setup.client.id;
  const { createdAt, createdBy } = made(actor);
  await db.insertRows(
    "entries",
    ["id", "client_id", "kind", "date", "registration_id", "period_end", "text", "created_at", "created_by"],
    [[id, clientId, kind, date, r.id, periodEnd, text, createdAt, createdBy]],
    tx,
  );
  await db.insertRows(
    "postings",
    ["entry_id", "client_id", "account_id", "date", "amount", "line", "levy", "text"],
    postings.map((p) => [
      id,
      clientId,
      setup.accountIds.get(p.account),
      date,
      p.amount,
      p.line,
      p.levy,
      p.text,
    ]),
    tx,
  );
  return id;
}

/** Takes back a payment that was recorded by mistake. */
export async function removeTaxPayment(
  db: Database,
  actor: Actor,
  clientId: number,
  paymentId: number,
): Promise<void> {
  await db.write(async (tx) => {
    const row = await db.row<{ entry_id: number }>(
      "SELECT entry_id FROM tax_payments WHERE id = $1 AND client_id = $2",
      [paymentId, clientId],
      tx,
    );
    if (!row) throw notFound("This payment");
    await db.run("UPDATE postings SET live = 0 WHERE entry_id = $1", [row.entry_id], tx);
    await db.run("UPDATE entries SET live = 0 WHERE id = $1", [row.entry_id], tx);
    await db.run("DELETE FROM tax_payments WHERE id = $1", [paymentId], tx);
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "remove",
      entity: "tax-payment",
      id: row.entry_id,
      before: row,
    });
  });
}
