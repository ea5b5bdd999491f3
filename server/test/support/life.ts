import fc from "fast-check";
import { expect } from "vitest";
import type { Land } from "./lands.ts";
import { document, newClient } from "./testServer.ts";
import type { TestServer } from "./testServer.ts";

const KINDS = ["sales-invoice", "purchase-bill", "sales-credit-note", "purchase-credit-note"] as const;
const pence = (n: number) => (n / 100).toFixed(2);

/** Something that is done to books. Numbers pick among what is there, so that any sequence makes sense. */
export type Act =
  | { do: "document"; kind: (typeof KINDS)[number]; month: number; code: number; amount: number; to: number }
  | { do: "correct"; pick: number; month: number; code: number; amount: number }
  | { do: "void"; pick: number }
  | { do: "pay"; pick: number; month: number; share: number; writtenOff: boolean }
  | { do: "voidPayment"; pick: number }
  | { do: "statement"; pick: number; month: number; share: number }
  | { do: "unmatch"; pick: number }
  | { do: "close" };

const pick = fc.nat(50);
const month = fc.integer({ min: 1, max: 8 });
const share = fc.constantFrom(25, 50, 100, 100, 120);
const amount = fc.integer({ min: 1, max: 90_000 });
export const act: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant("document" as const),
      kind: fc.constantFrom(...KINDS),
      month,
      code: fc.nat(4),
      amount,
      to: fc.nat(1),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constant("correct" as const), pick, month, code: fc.nat(4), amount }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("void" as const), pick }) },
  {
    weight: 5,
    arbitrary: fc.record({ do: fc.constant("pay" as const), pick, month, share, writtenOff: fc.boolean() }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("voidPayment" as const), pick }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant("statement" as const), pick, month, share }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("unmatch" as const), pick }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("close" as const) }) },
);

export type Item = {
  document: number;
  kind: string;
  number: string;
  contact: number;
  open: number;
  gross: number;
};
export type Page<T> = { rows: T[]; total: number };

/** Does what is asked for as a person would, and takes a refusal in words for an answer. */
export class Books {
  readonly #server: TestServer;
  readonly land: Land;
  readonly base: string;
  readonly registration: string;
  readonly contacts: readonly { id: number; name: string }[];
  #serial = 0;

  private constructor(
    server: TestServer,
    land: Land,
    base: string,
    registration: string,
    contacts: { id: number; name: string }[],
  ) {
    this.#server = server;
    this.land = land;
    this.base = base;
    this.registration = registration;
    this.contacts = contacts;
  }

  /** A new client of a country with two contacts in it. */
  static async begin(server: TestServer, land: Land): Promise<Books> {
    const { base, registration } = await newClient(server, land.client());
    const contacts = [];
    for (const name of ["Oxbow Joinery", "Tern and Company"])
      contacts.push(
        await server.ok<{ id: number; name: string }>("POST", `${base}/contacts`, {
          name,
          country: land.country,
          region: land.region,
          registered: true,
        }),
      );
    return new Books(server, land, base, registration, contacts);
  }

  /** The same books through another process over the same data. */
  on(server: TestServer): Books {
    const books = new Books(server, this.land, this.base, this.registration, [...this.contacts]);
    books.#serial = this.#serial;
    return books;
  }

  async try(method: string, path: string, body: object): Promise<void> {
    const { status, body: answer } = await this.#server.call<{ error?: { code: string } }>(
      method,
      path,
      body,
    );
    expect([status < 500, path, answer.error?.code === "server/failed"]).toEqual([true, path, false]);
  }

  #body(kind: string, monthNo: number, code: number, minor: number, contact: number, number: string): object {
    const codes = kind.startsWith("sales") ? this.land.sale : this.land.purchase;
    const line = { text: "Work", amount: pence(minor), code: codes[code % codes.length] };
    return document(kind, `2026-0${monthNo}-11`, [line], { contact, number });
  }

  async #chosen<T>(path: string, at: number): Promise<T | undefined> {
    const { rows } = await this.#server.ok<Page<T>>("GET", `${this.base}/${path}`);
    return rows[at % Math.max(1, rows.length)];
  }

  async perform(one: Act): Promise<void> {
    switch (one.do) {
      case "document": {
        const contact = this.contacts[one.to]?.id ?? 0;
        this.#serial += 1;
        const body = this.#body(one.kind, one.month, one.code, one.amount, contact, `N${this.#serial}`);
        return this.try("POST", `${this.base}/documents`, body);
      }
      case "correct": {
        const old = await this.#chosen<{ id: number; kind: string; number: string }>(
          "documents?limit=100",
          one.pick,
        );
        if (!old || !KINDS.includes(old.kind as never)) return;
        const { contact } = await this.#server.ok<{ contact: { id: number } }>(
          "GET",
          `${this.base}/documents/${old.id}`,
        );
        const body = this.#body(old.kind, one.month, one.code, one.amount, contact.id, old.number);
        return this.try("PUT", `${this.base}/documents/${old.id}`, body);
      }
      case "void": {
        const old = await this.#chosen<{ id: number }>("documents?limit=100", one.pick);
        if (old)
          await this.try("POST", `${this.base}/documents/${old.id}/void`, { reason: "never happened" });
        return;
      }
      case "pay": {
        const item = await this.#chosen<Item>("open-items?limit=100", one.pick);
        if (!item) return;
        const part = Math.max(1, Math.floor((Math.abs(item.open) * Math.min(one.share, 100)) / 100));
        const rest = Math.abs(item.open) - part;
        const difference =
          one.writtenOff && rest > 0 ? { difference: pence(rest), differenceAccount: "6850" } : {};
        return this.try("POST", `${this.base}/payments`, {
          kind: item.open > 0 === item.kind.startsWith("sales") ? "receipt" : "payment",
          date: `2026-0${one.month}-20`,
          contact: item.contact,
          amount: pence(Math.max(part, Math.floor((part * one.share) / 100))),
          allocations: [{ document: item.document, amount: pence(part), ...difference }],
        });
      }
      case "voidPayment": {
        const payment = await this.#chosen<{ id: number }>("payments?limit=100", one.pick);
        if (payment)
          await this.try("POST", `${this.base}/payments/${payment.id}/void`, { reason: "bounced" });
        return;
      }
      case "statement": {
        const item = await this.#chosen<Item>("open-items?limit=100", one.pick);
        if (!item) return;
        const name = this.contacts.find(({ id }) => id === item.contact)?.name ?? "";
        const money = pence(Math.max(1, Math.floor((Math.abs(item.open) * Math.min(one.share, 100)) / 100)));
        const [out, into] =
          item.kind === "sales-invoice" || item.kind === "purchase-credit-note" ? ["", money] : [money, ""];
        const csv = `Date,Description,Paid out,Paid in\n2026-0${one.month}-21,${name} ${item.number},${out},${into}\n`;
        await this.#server.upload(`${this.base}/bank/1000/statements`, "s.csv", csv);
        return this.try("POST", `${this.base}/bank/accept`, { account: "1000" });
      }
      case "unmatch": {
        const line = await this.#chosen<{ id: number }>("bank/1000/lines?state=matched", one.pick);
        if (line) await this.try("POST", `${this.base}/bank-lines/${line.id}/unmatch`, {});
        return;
      }
      case "close":
        return this.#close();
    }
  }

  /** Accepts what may be accepted of the earliest open quarter, and seals and files it. */
  async #close(): Promise<void> {
    for (const end of this.land.ends) {
      const path = `${this.registration}/returns/${end}`;
      const { state, findings } = await this.#server.ok<{ state: string; findings: { key: string }[] }>(
        "GET",
        path,
      );
      if (state === "filed" || state === "settled") continue;
      for (const { key } of findings)
        await this.#server.call("POST", `${path}/acceptances`, { key, reason: "looked at" });
      await this.try("POST", `${path}/seal`, {});
      await this.try("POST", `${path}/file`, { declared: true, reference: "by hand" });
      return;
    }
  }
}
