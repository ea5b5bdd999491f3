import { randomUUID } from "node:crypto";
import { setTimeout as sleep } from "node:timers/promises";
import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { addDays } from "@fiscalon/core/calendar/date";
import { writeCamt053 } from "@fiscalon/core/formats/bank/camt053";
import type { StatementLine } from "@fiscalon/core/formats/bank/bankStatement";
import type { Database } from "../db/database.ts";

const PAGE = 200;
const CONSENT_DAYS = 90;
/** Every so many questions the bank asks to come back later, as banks do. */
const BUSY_EACH = 9;

type WorldLine = StatementLine & { currency: string };

/**
 * A bank as its interface for account information shows it: consent for ninety days, statements as camt.053 in
 * pages, now and then too busy. What happens on its accounts is told to it with `PUT /accounts/:number/lines`; payouts
 * of simulated card terminals arrive by themselves (`payouts`).
 */
export async function bankSimulator(
  app: FastifyInstance,
  {
    db,
    today,
    payouts,
    delayMs = 120,
  }: {
    db: Database;
    today: () => string;
    payouts: (number: string, to: string) => Promise<WorldLine[]>;
    delayMs?: number;
  },
): Promise<void> {
  const consents = new Map<string, { account: string; until: string }>();
  let questions = 0;

  app.put<{ Params: { number: string }; Body: WorldLine[] }>(
    "/accounts/:number/lines",
    { schema: { hide: true, body: Joi.array().items(Joi.object().unknown(true)).max(100_000) } },
    async (request, reply) => {
      await db.write((tx) =>
        db.run(
          `INSERT OR REPLACE INTO simulated_bank_lines (account, id, date, amount, currency, party, text, reference)
           SELECT $1, value ->> 'id', value ->> 'date', value ->> 'amount', value ->> 'currency', value ->> 'party',
             value ->> 'text', value ->> 'reference' FROM json_each($2)`,
          [request.params.number, JSON.stringify(request.body)],
          tx,
        ),
      );
      return reply.status(204).send();
    },
  );

  app.post<{ Body: { account: string } }>(
    "/consents",
    { schema: { hide: true, body: Joi.object({ account: Joi.string().max(40).required() }) } },
    async (request, reply) => {
      await sleep(delayMs);
      const lines = await linesOf(request.body.account, "9999-12-31");
      if (lines.length === 0) {
        return reply
          .status(404)
          .send({ code: "ACCOUNT_UNKNOWN", message: "The bank has no account of this number. Check it." });
      }
      const consent = randomUUID();
      const until = addDays(today(), CONSENT_DAYS);
      consents.set(consent, { account: request.body.account, until });
      return { consent, until };
    },
  );

  app.get<{ Params: { number: string }; Querystring: { from: string; to: string; page: number } }>(
    "/accounts/:number/statement",
    {
      schema: {
        hide: true,
        querystring: Joi.object({
          from: Joi.string().required(),
          to: Joi.string().required(),
          page: Joi.number().integer().min(1).default(1),
        }),
      },
    },
    async (request, reply) => {
      await sleep(delayMs);
      questions += 1;
      if (questions % BUSY_EACH === 0) {
        return reply
          .status(429)
          .header("retry-after", "1")
          .send({ code: "TOO_MANY_REQUESTS", message: "The bank is busy. Ask again in a moment." });
      }
      const { number } = request.params;
      const consent = consents.get((request.headers.authorization ?? "").replace(/^Consent /, ""));
      if (consent?.account !== number || consent.until < today())
        return reply.status(401).send({ code: "CONSENT_EXPIRED", message: "There is no valid consent." });
      const { from, to, page } = request.query;
      const all = await linesOf(number, to);
      const before = all.filter((line) => line.date < from);
      const wanted = all.filter((line) => line.date >= from);
      const shown = wanted.slice((page - 1) * PAGE, page * PAGE);
      const sum = (lines: readonly WorldLine[]) => lines.reduce((total, { amount }) => total + amount, 0);
      const opening = sum(before) + sum(wanted.slice(0, (page - 1) * PAGE));
      if (wanted.length > page * PAGE) reply.header("next-page", String(page + 1));
      const currency = all[0]?.currency ?? "GBP";
      const statement = { account: number, currency, opening, closing: opening + sum(shown), lines: shown };
      return reply.type("application/xml").send(writeCamt053(statement, `${today()}T06:00:00Z`));
    },
  );

  async function linesOf(number: string, to: string): Promise<WorldLine[]> {
    const lines = await db.rows<WorldLine>(
      `SELECT id, date, amount, currency, party, text, reference FROM simulated_bank_lines
       WHERE account = $1 AND date <= $2`,
      [number, to],
    );
    const paidOut = await payouts(number, to < today() ? to : today());
    return [...lines, ...paidOut].sort((a, b) =>
      a.date < b.date ? -1 : a.date > b.date ? 1 : a.id < b.id ? -1 : 1,
    );
  }
}
