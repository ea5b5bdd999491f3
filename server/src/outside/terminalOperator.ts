import { setTimeout as sleep } from "node:timers/promises";
import { FiscalError } from "@fiscalon/core/errors";
import type { TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";

const TIMEOUT_MS = 8000;
const TRIES = 4;

export interface Payout {
  id: string;
  date: string;
  amount: number;
}

export interface Page<T> {
  rows: T[];
  /** Where to go on; the same as before when nothing is new. */
  cursor: string;
  more: boolean;
}

/** The interface of the operator of card terminals: authorise, transactions and payouts by pages. */
export class TerminalOperator {
  readonly #base: string;
  constructor(base: string) {
    this.#base = base;
  }

  async authorise(merchant: string, key: string): Promise<string> {
    const body = await this.#ask<{ token: string }>(`/merchants/${encodeURIComponent(merchant)}/authorise`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ key }),
    });
    return body.token;
  }

  async transactions(merchant: string, token: string, after: string): Promise<Page<TerminalTransaction>> {
    return this.#page(merchant, token, "transactions", after);
  }

  async payouts(merchant: string, token: string, after: string): Promise<Page<Payout>> {
    return this.#page(merchant, token, "payouts", after);
  }

  #page<T>(merchant: string, token: string, what: string, after: string): Promise<Page<T>> {
    const path = `/merchants/${encodeURIComponent(merchant)}/${what}?after=${encodeURIComponent(after)}`;
    return this.#ask(path, { headers: { authorization: `Bearer ${token}` } });
  }

  async #ask<T>(path: string, init: RequestInit): Promise<T> {
    for (let attempt = 1; ; attempt += 1) {
      let response: Response;
      try {
        response = await fetch(this.#base + path, { ...init, signal: AbortSignal.timeout(TIMEOUT_MS) });
      } catch {
        throw new FiscalError("terminal/unreachable", "The operator does not answer. Try again in a while.");
      }
      if (response.ok) return (await response.json()) as T;
      if (response.status === 503 && attempt < TRIES) {
        await sleep(200 * attempt);
        continue;
      }
      const body = (await response.json().catch(() => ({}))) as { message?: string };
      throw new FiscalError(
        "terminal/refused",
        body.message ?? "The operator of the terminal refused the question.",
        response.status === 403 ? "key" : undefined,
      );
    }
  }
}
