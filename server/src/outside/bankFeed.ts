import { setTimeout as sleep } from "node:timers/promises";
import { FiscalError } from "@fiscalon/core/errors";
import { readXml } from "@fiscalon/core/formats/xml/readXml";
import { readCamt053 } from "@fiscalon/core/formats/bank/camt053";
import type { BankStatement } from "@fiscalon/core/formats/bank/bankStatement";

const TIMEOUT_MS = 8000;
const TRIES = 4;

/** The bank's interface for account information: consent, then statements as camt.053, page by page. */
export class BankFeed {
  readonly #base: string;
  constructor(base: string) {
    this.#base = base;
  }

  /** Asks the holder's consent to read an account. */
  async consent(number: string): Promise<{ consent: string; until: string }> {
    const response = await this.#ask("/consents", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ account: number }),
    });
    return (await response.json()) as { consent: string; until: string };
  }

  /** Every statement of the account between two days. */
  async statements(number: string, consent: string, from: string, to: string): Promise<BankStatement[]> {
    const found: BankStatement[] = [];
    for (let page: string | null = "1"; page !== null;) {
      const query: string = new URLSearchParams({ from, to, page }).toString();
      const response: Response = await this.#ask(
        `/accounts/${encodeURIComponent(number)}/statement?${query}`,
        {
          headers: { authorization: `Consent ${consent}` },
        },
      );
      found.push(...readCamt053(readXml(await response.text())));
      page = response.headers.get("next-page");
    }
    return found;
  }

  /** A busy bank is asked again a little later; anything else it refuses is told in words. */
  async #ask(path: string, init: RequestInit): Promise<Response> {
    for (let attempt = 1; ; attempt += 1) {
      let response: Response;
      try {
        response = await fetch(this.#base + path, { ...init, signal: AbortSignal.timeout(TIMEOUT_MS) });
      } catch {
        throw new FiscalError("bank/unreachable", "The bank does not answer. Try again in a while.");
      }
      if (response.ok) return response;
      if ((response.status === 429 || response.status === 503) && attempt < TRIES) {
        await sleep(Number(response.headers.get("retry-after") ?? "1") * 250 * attempt);
        continue;
      }
      const body = (await response.json().catch(() => ({}))) as { message?: string; code?: string };
      throw new FiscalError(
        response.status === 401 ? "bank/consent" : "bank/refused",
        response.status === 401
          ? "The consent to read this account has ended. Connect the account again."
          : (body.message ?? "The bank refused the question."),
      );
    }
  }
}
