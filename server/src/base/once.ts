import { createHash } from "node:crypto";
import type { FastifyInstance, FastifyRequest } from "fastify";
import { FiscalError } from "@fiscalon/core/errors";
import type { Around, Work } from "./work.ts";

/** The header with which a sender names a request, so that sending it again does nothing more. */
export const ONCE = "idempotency-key";

const MOST_KEY = 100;
/** Answers that are longer are not kept: the request is still done once only. */
const MOST_ANSWER = 500_000;
/** Keys are forgotten after so many days. */
const DAYS = 7;

interface KeptAnswer {
  request: string;
  status: number | null;
  answer: string | null;
}

/** A request with a key, while it is worked on. */
interface Named {
  key: string;
  /** Whether its key was taken in a transaction that changed something. */
  taken: boolean;
  /** The work it began with: its answer is kept in the same file. */
  work: Work;
  /** When its answer is kept. */
  kept: Promise<void>;
}

const named = new WeakMap<FastifyRequest, Named>();

/**
 * What goes with the first change of a request that has a key: the key is taken in the same transaction, so that of two
 * with one key exactly one is done, whatever is killed when.
 * @throws FiscalError `request/repeated`, `request/key-reused`
 */
export async function onceOf(
  request: FastifyRequest,
  work: Work,
): Promise<{ around?: Around; replay?: KeptAnswer }> {
  const key = keyOf(request);
  if (key === null) return {};
  const asked = askedOf(request);
  const known =
    fresh.get(freshOf(work, key)) ??
    (await work.row<KeptAnswer>("SELECT request, status, answer FROM once_keys WHERE key = $1", [key]));
  if (known) {
    if (known.request !== asked) throw reused();
    if (known.status === null || known.answer === null) throw repeated();
    return { replay: known };
  }
  const one: Named = { key, taken: false, work, kept: Promise.resolve() };
  named.set(request, one);
  return {
    around: {
      begin: async (writing) => {
        if (one.taken) return;
        const there = await writing.row("SELECT 1 FROM once_keys WHERE key = $1", [key]);
        if (there) throw repeated();
        const old = new Date(Date.parse(writing.at) - DAYS * 86_400_000).toISOString();
        await writing.run("DELETE FROM once_keys WHERE created_at < $1", [old]);
        await writing.run("INSERT INTO once_keys (key, request, created_at) VALUES ($1, $2, $3)", [
          key,
          asked,
          writing.at,
        ]);
        one.taken = true;
      },
    },
  };
}

/** Answers given a moment ago that are still on their way into the database: nobody waits for that. */
const fresh = new Map<string, KeptAnswer>();

function freshOf({ folder }: Work, key: string): string {
  return `${folder} ${key}`;
}

/** When the answer of a request is kept. */
export async function keptAnswer(request: FastifyRequest): Promise<void> {
  await named.get(request)?.kept;
}

/** Keeps what was answered, so that the same request gets the same answer. */
export function keepAnswers(app: FastifyInstance): void {
  app.addHook("onSend", async (request, reply, payload: unknown) => {
    const one = named.get(request);
    if (one?.taken !== true || reply.statusCode >= 300) return payload;
    const answer = payload === null || payload === undefined ? "" : payload;
    if (typeof answer !== "string" || answer.length > MOST_ANSWER) return payload;
    const { key, work } = one;
    fresh.set(freshOf(work, key), { request: askedOf(request), status: reply.statusCode, answer });
    one.kept = work
      .write((writing) =>
        writing.run("UPDATE once_keys SET status = $2, answer = $3 WHERE key = $1", [
          key,
          reply.statusCode,
          answer,
        ]),
      )
      .catch((error: unknown) => request.log.error(error, "an answer could not be kept"))
      .finally(() => fresh.delete(freshOf(work, key)));
    return payload;
  });
}

function keyOf({ method, headers }: FastifyRequest): string | null {
  if (method === "GET" || method === "HEAD") return null;
  const key = headers[ONCE];
  if (typeof key !== "string" || key === "") return null;
  if (key.length <= MOST_KEY) return key;
  throw new FiscalError("request/invalid", `A key has up to ${MOST_KEY} signs.`, ONCE);
}

function askedOf({ method, url, body }: FastifyRequest): string {
  const content = body === undefined ? "" : JSON.stringify(body);
  return `${method} ${url} ${createHash("sha256").update(content).digest("hex")}`;
}

function repeated(): FiscalError {
  return new FiscalError(
    "request/repeated",
    "This was done already. Look at the list before you do it again.",
  );
}

function reused(): FiscalError {
  return new FiscalError(
    "request/key-reused",
    "Another request had this key. Give each request one of its own.",
    ONCE,
  );
}
