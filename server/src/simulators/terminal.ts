import { createHash } from "node:crypto";
import { setTimeout as sleep } from "node:timers/promises";
import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { addDays } from "@fiscalon/core/calendar/date";
import type { StatementLine } from "@fiscalon/core/formats/bank/bankStatement";
import type { TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";
import type { Database } from "../db/database.ts";
import type { Payout } from "../outside/terminalOperator.ts";
import { payoutOf, takingsOf } from "./merchant.ts";
import type { Merchant } from "./merchant.ts";

const PAGE = 500;
const BUSY_EACH = 11;

/**
 * An operator of card terminals: merchants, their transactions and payouts, by pages that go on from a cursor. What a
 * merchant took follows from its name and the day, so that fetching again gives the same. Now and then it is busy.
 */
export async function terminalSimulator(
  app: FastifyInstance,
  { db, now, delayMs = 60 }: { db: Database; now: () => string; delayMs?: number },
): Promise<void> {
  let questions = 0;

  app.put<{ Params: { merchant: string }; Body: Merchant }>(
    "/merchants/:merchant",
    { schema: { hide: true, body: Joi.object().unknown(true) } },
    async (request, reply) => {
      await db.write((tx) =>
        db.run(
          "INSERT OR REPLACE INTO simulated_merchants (merchant, settings) VALUES ($1, $2)",
          [request.params.merchant, JSON.stringify(request.body)],
          tx,
        ),
      );
      return reply.status(204).send();
    },
  );

  app.post<{ Params: { merchant: string }; Body: { key: string } }>(
    "/merchants/:merchant/authorise",
    { schema: { hide: true, body: Joi.object({ key: Joi.string().required() }) } },
    async (request, reply) => {
      await sleep(delayMs);
      const merchant = await merchantOf(db, request.params.merchant);
      if (!merchant)
        return reply
          .status(404)
          .send({ code: "MERCHANT_UNKNOWN", message: "There is no such merchant. Check the number." });
      if (merchant.key !== request.body.key) {
        return reply.status(403).send({
          code: "KEY_REFUSED",
          message: "The operator does not accept this key. Copy it again from their pages.",
        });
      }
      return { token: tokenOf(request.params.merchant, merchant) };
    },
  );

  for (const what of ["transactions", "payouts"] as const) {
    app.get<{ Params: { merchant: string }; Querystring: { after: string } }>(
      `/merchants/:merchant/${what}`,
      { schema: { hide: true, querystring: Joi.object({ after: Joi.string().allow("").default("") }) } },
      async (request, reply) => {
        await sleep(delayMs);
        questions += 1;
        if (questions % BUSY_EACH === 0)
          return reply.status(503).send({ code: "BUSY", message: "Try again in a moment." });
        const { merchant: name } = request.params;
        const merchant = await merchantOf(db, name);
        if (!merchant || request.headers.authorization !== `Bearer ${tokenOf(name, merchant)}`)
          return reply
            .status(401)
            .send({ code: "TOKEN", message: "The terminal has to be connected again." });
        return what === "transactions"
          ? pageOf(name, merchant, request.query.after, now())
          : payoutPage(name, merchant, request.query.after, now());
      },
    );
  }
}

/** The lines payouts make on the bank account they go to. */
export async function payoutLines(
  db: Database,
  number: string,
  to: string,
): Promise<(StatementLine & { currency: string })[]> {
  const rows = await db.rows<{ merchant: string; settings: string }>(
    "SELECT merchant, settings FROM simulated_merchants",
  );
  return rows.flatMap(({ merchant: name, settings }) => {
    const merchant = JSON.parse(settings) as Merchant;
    if (merchant.bankAccount !== number) return [];
    return payoutsUpTo(name, merchant, to).map((payout) => ({
      id: `PO-${payout.id}`,
      date: payout.date,
      amount: payout.amount,
      currency: merchant.currency,
      party: "Card operator (simulated)",
      text: `Payout ${payout.id}`,
      reference: payout.id,
    }));
  });
}

async function merchantOf(db: Database, name: string): Promise<Merchant | undefined> {
  const row = await db.row<{ settings: string }>(
    "SELECT settings FROM simulated_merchants WHERE merchant = $1",
    [name],
  );
  return row ? (JSON.parse(row.settings) as Merchant) : undefined;
}

function tokenOf(name: string, { key }: Merchant): string {
  return createHash("sha256").update(`${name} ${key}`).digest("hex");
}

/** A page of transactions after the cursor `day/index`, in order of day. */
function pageOf(
  name: string,
  merchant: Merchant,
  after: string,
  now: string,
): { rows: TerminalTransaction[]; cursor: string; more: boolean } {
  const [fromDay = "", index = "0"] = after.split("/");
  const rows: TerminalTransaction[] = [];
  let cursor = after;
  for (let day = fromDay || merchant.from; day <= now.slice(0, 10); day = addDays(day, 1)) {
    const done = takingsOf(name, merchant, day).filter(({ at }) => at <= now);
    const start = day === fromDay ? Number(index) : 0;
    const taken = done.slice(start, start + PAGE - rows.length);
    rows.push(...taken);
    if (taken.length > 0) cursor = `${day}/${start + taken.length}`;
    if (rows.length >= PAGE) return { rows, cursor, more: true };
  }
  return { rows, cursor, more: false };
}

function payoutPage(
  name: string,
  merchant: Merchant,
  after: string,
  now: string,
): { rows: Payout[]; cursor: string; more: boolean } {
  const rows = payoutsUpTo(name, merchant, now.slice(0, 10)).filter(({ date }) => date > after);
  return { rows, cursor: rows.at(-1)?.date ?? after, more: false };
}

function payoutsUpTo(name: string, merchant: Merchant, to: string): Payout[] {
  const payouts: Payout[] = [];
  for (let day = merchant.from; addDays(day, 2) <= to; day = addDays(day, 1)) {
    const payout = payoutOf(name, merchant, day);
    if (payout) payouts.push(payout);
  }
  return payouts;
}
