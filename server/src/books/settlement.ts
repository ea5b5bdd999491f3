import { movesOwed, TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import type { TaxPaymentKind } from "@fiscalon/core/model/taxPaymentKinds";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { accountInRole } from "@fiscalon/core/model/account";
import type { Posting } from "@fiscalon/core/model/posting";
import type { OwedOn } from "@fiscalon/core/returns/settlementPostings";
import { displayAmount, parseAmount } from "@fiscalon/core/money/amount";
import { roundingAllowed } from "@fiscalon/core/returns/roundingAllowed";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import type { SettledFigures } from "@fiscalon/core/returns/settlementPostings";
import {
  differenceOf,
  dueAccount,
  settlementPostings,
  spreadOverDue,
} from "@fiscalon/core/returns/settlementPostings";
import type { Work, Writing } from "../base/work.ts";
import type { RegistrationRecord, ReturnRecord } from "../db/models.ts";
import { notFound } from "../base/errors.ts";
import { loadSetup, registrationIn } from "./loadSetup.ts";
import type { ClientSetup } from "./loadSetup.ts";
import { boxesNow, evaluated, figuresOf, formOf } from "./returns/evaluation.ts";
import { adjustmentsOf, factGroups, levyTotals, separateTotals } from "./returns/queries.ts";
import { returnRecord } from "./returns/records.ts";

/** The closing entry of a period as it would be posted now, or was. */
export async function closingEntry(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  net: number,
): Promise<Posting[]> {
  const { boxes } = await boxesNow(work, r, end);
  const figures = { ...(await settledFigures(work, r, end, boxes)), net };
  const declared = settlementPostings(await levyTotals(work, r.id, end), figures, setup.plain.accounts);
  const apart = await separateTotals(work, r.id, end);
  const owed = apart.reduce((sum, { output, input }) => sum + output - input, 0);
  const disclosed = settlementPostings(
    apart,
    { net: owed, adjustments: 0, allowance: 0, carried: 0, scheme: 0 },
    setup.plain.accounts,
  );
  return [...declared, ...disclosed.map((one) => ({ ...one, text: `${one.text}, put right separately` }))];
}

async function settledFigures(
  work: Work,
  r: RegistrationRecord,
  end: string,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
): Promise<SettledFigures> {
  const { net, allowance, carried, scheme } = figuresOf(work, r, end, boxes);
  return { net, allowance, carried, scheme, adjustments: await adjustedBy(work, r, end) };
}

/** What a return with these boxes comes to beyond its documents, and the most that rounding can explain; minor units. */
export async function apartFromLedger(
  work: Work,
  r: RegistrationRecord,
  end: string,
  boxes: readonly BoxResult[],
): Promise<{ difference: number; allowed: number }> {
  const groups = await factGroups(work, r.id, end);
  const lines = groups.reduce((sum, { count }) => sum + count, 0);
  return {
    difference: differenceOf(await levyTotals(work, r.id, end), await settledFigures(work, r, end, boxes)),
    allowed: roundingAllowed(formOf(work, r, end), lines, r.rounding),
  };
}

/** What adjustments change in what is owed: the return with them, less the return without. */
async function adjustedBy(work: Work, r: RegistrationRecord, end: string): Promise<number> {
  const adjustments = await adjustmentsOf(work, r.id, end);
  if (adjustments.length === 0) return 0;
  const groups = await factGroups(work, r.id, end);
  const net = (own: typeof adjustments) => {
    const { net: due, allowance, carried } = figuresOf(work, r, end, evaluated(work, r, end, groups, own));
    return due + allowance - carried;
  };
  return net(adjustments) - net([]);
}

/** Posts the closing entry of a filed period: the running tax accounts to zero, the net to what is due. */
export async function settleReturn(work: Work, clientId: number, rid: string, end: string): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const r = registrationIn(setup, rid);
    const record = await returnRecord(work, r.id, end);
    if (record?.state !== "filed") {
      throw new FiscalError(
        "settle/wrong-state",
        "A period is settled once it is filed. File the return first.",
      );
    }
    await postSettlement(work, setup, r, record);
  });
}

export async function postSettlement(
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  record: ReturnRecord,
): Promise<void> {
  const postings = await closingEntry(work, setup, r, record.periodEnd, sealedNet(record));
  const entry = await insertEntry(work, setup, r, {
    kind: "settlement",
    date: record.periodEnd,
    periodEnd: record.periodEnd,
    text: `${work.packs.levyNames(r.levies)} of the period to ${record.periodEnd}`,
    postings,
  });
  await work.models.returns.update(
    { state: "settled", settledAt: work.at, settledBy: work.person, settlementEntry: entry },
    { where: { id: record.id }, ...work.options },
  );
  await work.record({
    client: setup.client.id,
    action: "settle",
    entity: "return",
    id: r.id,
    after: { period: record.periodEnd, entry },
  });
}

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
  const record = await returnRecord(work, r.id, end);
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
  const entry = await insertEntry(work, setup, r, {
    kind: "tax-payment",
    date: input.date,
    periodEnd: end,
    text: `${TAX_PAYMENT_KINDS[input.kind].name}, ${work.packs.levyNames(r.levies)} to ${end}`,
    postings: await paymentPostings(work, setup, r, record, { kind: input.kind, amount }),
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
    client: setup.client.id,
    action: "record",
    entity: "tax-payment",
    id: entry,
    after: { ...input, period: end },
  });
}

/** What a sealed return comes to. */
function sealedNet({ net, periodEnd }: ReturnRecord): number {
  if (net === null) throw new RangeError(`The return to ${periodEnd} is sealed without what it comes to.`);
  return net;
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
  return [...new Set(r.levies.map((levy) => dueAccount(plain.accounts, levy, r.levies[0] ?? null)))];
}

/**
 * What is still owed of a period on each of the accounts. Money that moves before the period is settled finds there what
 * its closing entry will put there.
 */
async function owedOf(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  record: ReturnRecord,
): Promise<OwedOn[]> {
  const end = record.periodEnd;
  const posted = await work.rows<{ account: string; amount: number }>(
    `SELECT a.code AS account, sum(p.amount) AS amount FROM postings p JOIN entries e ON e.id = p.entry_id
       JOIN accounts a ON a.id = p.account_id
     WHERE e.registration_id = $1 AND e.period_end = $2 AND p.live = 1 GROUP BY a.code`,
    [r.id, end],
  );
  const coming = record.state === "settled" ? [] : await closingEntry(work, setup, r, end, sealedNet(record));
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
  record: ReturnRecord,
  { kind, amount }: { kind: TaxPaymentInput["kind"]; amount: number },
): Promise<Posting[]> {
  const { accounts } = setup.plain;
  const owed = await owedOf(work, setup, r, record);
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

interface EntryInput {
  kind: "settlement" | "tax-payment";
  date: string;
  periodEnd: string;
  text: string;
  postings: readonly Posting[];
}

async function insertEntry(
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  { kind, date, periodEnd, text, postings }: EntryInput,
): Promise<number> {
  const id = (await work.lastId("entries")) + 1;
  const clientId = setup.client.id;
  const { createdAt, createdBy } = work.made;
  await work.insertRows(
    "entries",
    ["id", "client_id", "kind", "date", "registration_id", "period_end", "text", "created_at", "created_by"],
    [[id, clientId, kind, date, r.id, periodEnd, text, createdAt, createdBy]],
  );
  await work.insertRows(
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
  );
  return id;
}

/** Takes back a payment that was recorded by mistake. */
export async function removeTaxPayment(work: Work, clientId: number, paymentId: number): Promise<void> {
  await work.write(async (work) => {
    const row = await work.row<{ entry_id: number }>(
      "SELECT entry_id FROM tax_payments WHERE id = $1 AND client_id = $2",
      [paymentId, clientId],
    );
    if (!row) throw notFound("This payment");
    await work.run("UPDATE postings SET live = 0 WHERE entry_id = $1", [row.entry_id]);
    await work.run("UPDATE entries SET live = 0 WHERE id = $1", [row.entry_id]);
    await work.run("DELETE FROM tax_payments WHERE id = $1", [paymentId]);
    await work.record({
      client: clientId,
      action: "remove",
      entity: "tax-payment",
      id: row.entry_id,
      before: row,
    });
  });
}
