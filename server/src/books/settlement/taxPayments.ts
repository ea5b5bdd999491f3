import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { accountInRole, accountsOfRegion } from "@fiscalon/core/model/account";
import type { Posting } from "@fiscalon/core/model/posting";
import { movesOwed, TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import type { TaxPaymentKind } from "@fiscalon/core/model/taxPaymentKinds";
import { displayAmount, parseAmount } from "@fiscalon/core/money/amount";
import { dueAccount, spreadOverDue } from "@fiscalon/core/returns/settlementPostings";
import type { OwedOn } from "@fiscalon/core/returns/settlementPostings";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord, ReturnRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { refuseFar } from "../payments/refuseFar.ts";
import { requireOpen } from "../returns/periods.ts";
import { isOpen, returnRecord, sealedNet } from "../returns/records.ts";
import { closingEntry } from "./closingEntry.ts";
import { noInstalments, ruleOfPeriod } from "./instalments.ts";
import { insertTaxEntry } from "./taxEntry.ts";

export interface TaxPaymentInput {
  date: string;
  kind: TaxPaymentKind;
  amount: string;
  reference?: string;
}

/** Records money that moved between the business and the authority, or a charge of the authority. */
export async function recordTaxPayment(
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  input: TaxPaymentInput,
): Promise<void> {
  refuseFar(work, input.date);
  const record = await returnRecord(work, r.id, end);
  const during = isOpen(record) && (input.kind === "instalment" || input.kind === "payment");
  if (during && ruleOfPeriod(work, r, end))
    return keepPayment(work, setup, r, end, record, { ...input, kind: "instalment" });
  if (input.kind === "instalment") throw isOpen(record) ? noInstalments(end) : afterSealing(end);
  if (record?.state !== "settled" && record?.state !== "filed") {
    throw new FiscalError(
      "settle/wrong-state",
      "Money is recorded against a period that is filed. File the return first.",
    );
  }
  refuseWrongWay(record, input, setup.plain.digits);
  await keepPayment(work, setup, r, end, record, input);
}

function afterSealing(end: string): FiscalError {
  return new FiscalError(
    "settle/wrong-state",
    `The return to ${displayDate(end)} is sealed: what is paid from now on is a payment, no instalment.`,
    "kind",
  );
}

async function keepPayment(
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  record: ReturnRecord | undefined,
  input: TaxPaymentInput,
): Promise<void> {
  const amount = parseAmount(input.amount, setup.plain.digits);
  if (amount <= 0)
    throw new FiscalError(
      "settle/amount",
      "Type the amount without a sign; the kind says the direction.",
      "amount",
    );
  const entry = await insertTaxEntry(work, setup, r, {
    kind: "tax-payment",
    date: input.date,
    periodEnd: end,
    text: `${TAX_PAYMENT_KINDS[input.kind].name}, ${work.packs.levyNames(r.levies)} to ${displayDate(end)}`,
    postings: await paymentPostings(work, setup, r, end, record, { kind: input.kind, amount }),
  });
  await work.run(
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
      work.at,
      work.person,
    ],
  );
  await work.record({
    action: "record",
    entity: "tax-payment",
    id: entry,
    after: { ...input, period: end },
  });
}

/** The usual slip: a refund entered as a payment, or the other way round. */
function refuseWrongWay(record: ReturnRecord, input: TaxPaymentInput, digits: number): void {
  const net = sealedNet(record);
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

/** The accounts that hold what the levies of a registration are due, in the order of the levies. */
export function dueAccounts({ plain }: ClientSetup, r: RegistrationRecord): string[] {
  const accounts = accountsOfRegion(plain.accounts, r.region);
  return [...new Set(r.levies.map((levy) => dueAccount(accounts, levy, r.levies[0] ?? null)))];
}

/**
 * What is still owed of a period on each of the accounts. Money that moves before the period is settled finds there what
 * its closing entry will put there.
 */
async function owedOf(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  record: ReturnRecord | undefined,
): Promise<OwedOn[]> {
  const posted = await work.rows<{ account: string; amount: number }>(
    `SELECT a.code AS account, sum(p.amount) AS amount FROM postings p JOIN entries e ON e.id = p.entry_id
       JOIN accounts a ON a.id = p.account_id
     WHERE e.registration_id = $1 AND e.period_end = $2 AND p.live = 1 GROUP BY a.code`,
    [r.id, end],
  );
  const coming =
    record === undefined || isOpen(record) || record.state === "settled"
      ? []
      : await closingEntry(work, setup, r, end, sealedNet(record));
  return dueAccounts(setup, r).map((account) => ({
    account,
    owed: [...posted, ...coming]
      .filter((one) => one.account === account)
      .reduce((owed, { amount }) => owed - amount, 0),
  }));
}

async function paymentPostings(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  record: ReturnRecord | undefined,
  { kind, amount }: { kind: TaxPaymentInput["kind"]; amount: number },
): Promise<Posting[]> {
  const accounts = accountsOfRegion(setup.plain.accounts, r.region);
  const owed = await owedOf(work, setup, r, end, record);
  const levy = owed.length > 1 ? null : (r.levies[0] ?? null);
  const posting = (account: string, value: number): Posting => ({
    account,
    amount: value,
    line: null,
    levy,
    text: TAX_PAYMENT_KINDS[kind].name,
  });
  if (TAX_PAYMENT_KINDS[kind].column === "charges")
    return [
      posting(accountInRole(accounts, "charges", r.levies[0] ?? null), amount),
      posting(at(owed, 0).account, -amount),
    ];
  const paid = -movesOwed({ kind, amount });
  return [
    ...spreadOverDue(paid, owed).map((one) => posting(one.account, one.owed)),
    posting(accountInRole(accounts, "bank"), -paid),
  ];
}

/** Takes back a payment that was recorded by mistake. */
export async function removeTaxPayment(work: Work, clientId: number, paymentId: number): Promise<void> {
  await work.write(async (work) => {
    const row = await work.row<{
      entry_id: number;
      kind: string;
      registration_id: number;
      period_end: string;
    }>(
      "SELECT entry_id, kind, registration_id, period_end FROM tax_payments WHERE id = $1 AND client_id = $2",
      [paymentId, clientId],
    );
    if (!row) throw notFound("This payment");
    if (row.kind === "instalment") await requireOpen(work, row.registration_id, row.period_end);
    await work.run("UPDATE postings SET live = 0 WHERE entry_id = $1", [row.entry_id]);
    await work.run("UPDATE entries SET live = 0 WHERE id = $1", [row.entry_id]);
    await work.run("DELETE FROM tax_payments WHERE id = $1", [paymentId]);
    await work.record({
      action: "remove",
      entity: "tax-payment",
      id: row.entry_id,
      before: row,
    });
  });
}
