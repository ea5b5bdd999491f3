import fc from "fast-check";
import sqlite3 from "sqlite3";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { GB_CLIENT, document, newClient, nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let elsewhere: TestServer;
beforeAll(async () => {
  server = await startServer();
  elsewhere = await startServer();
});
afterAll(async () => {
  await server.close();
  await elsewhere.close();
});

const QUARTERS = ["2026-03-31", "2026-06-30", "2026-09-30"];
const SALE = ["S20", "R5", "Z", "EX"];
const PURCHASE = ["S20", "R5", "RCS", "PVA20", "CL50"];
const KINDS = ["sales-invoice", "purchase-bill", "sales-credit-note", "purchase-credit-note"] as const;
const pence = (n: number) => (n / 100).toFixed(2);

/** Something that is done to books. Numbers pick among what is there, so that any sequence makes sense. */
type Act =
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
const act: fc.Arbitrary<Act> = fc.oneof(
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

type Item = { document: number; kind: string; number: string; contact: number; open: number; gross: number };
type Page<T> = { rows: T[]; total: number };

/** Does what is asked for as a person would, and takes a refusal in words for an answer. */
class Books {
  readonly base: string;
  readonly registration: string;
  readonly contacts: { id: number; name: string }[];
  #serial = 0;

  constructor(base: string, registration: string, contacts: { id: number; name: string }[]) {
    this.base = base;
    this.registration = registration;
    this.contacts = contacts;
  }

  async try(method: string, path: string, body: object): Promise<void> {
    const { status, body: answer } = await server.call<{ error?: { code: string } }>(method, path, body);
    expect([status < 500, path, answer.error?.code === "server/failed"]).toEqual([true, path, false]);
  }

  #body(kind: string, monthNo: number, code: number, minor: number, contact: number, number: string): object {
    const codes = kind.startsWith("sales") ? SALE : PURCHASE;
    const line = { text: "Work", amount: pence(minor), code: codes[code % codes.length] };
    return document(kind, `2026-0${monthNo}-11`, [line], { contact, number });
  }

  async #chosen<T>(path: string, at: number): Promise<T | undefined> {
    const { rows } = await server.ok<Page<T>>("GET", `${this.base}/${path}`);
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
        const { contact } = await server.ok<{ contact: { id: number } }>(
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
        await server.upload(`${this.base}/bank/1000/statements`, "s.csv", csv);
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
    for (const end of QUARTERS) {
      const path = `${this.registration}/returns/${end}`;
      const { state, findings } = await server.ok<{ state: string; findings: { key: string }[] }>(
        "GET",
        path,
      );
      if (state === "filed" || state === "settled") continue;
      for (const { key } of findings)
        await server.call("POST", `${path}/acceptances`, { key, reason: "looked at" });
      await this.try("POST", `${path}/seal`, {});
      await this.try("POST", `${path}/file`, { declared: true });
      return;
    }
  }
}

type Balances = { code: string; closing: number }[];
const RANGE = "from=2026-01-01&to=2026-12-31";

/** What holds of any books, whatever was done to them. */
async function expectSound(on: TestServer, { base, registration }: Pick<Books, "base" | "registration">) {
  const balances = await on.ok<Balances>("GET", `${base}/trial-balance?${RANGE}`);
  const of = (code: string) => balances.find((row) => row.code === code)?.closing ?? 0;
  expect(balances.reduce((sum, row) => sum + row.closing, 0)).toBe(0);

  // What customers and suppliers owe by the ledger is what is open by document, less what is on account.
  const { rows: items } = await on.ok<Page<Item>>("GET", `${base}/open-items?limit=500`);
  const { rows: payments } = await on.ok<Page<{ kind: string; onAccount: number; state: string }>>(
    "GET",
    `${base}/payments?limit=500`,
  );
  const open = items.reduce((sum, item) => {
    const owed = item.kind === "sales-invoice" || item.kind === "purchase-credit-note" ? 1 : -1;
    return sum + owed * Math.abs(item.open);
  }, 0);
  const onAccount = payments
    .filter(({ state }) => state === "posted")
    .reduce((sum, { kind, onAccount: rest }) => sum + (kind === "receipt" ? -rest : rest), 0);
  expect(of("1100") + of("2100")).toBe(open + onAccount);

  for (const end of QUARTERS) {
    const control = await on.ok<{ left: number }>("GET", `${registration}/agreements/${end}/control`);
    expect([end, control.left]).toEqual([end, 0]);
  }
  return balances;
}

/** Asks the file itself. */
async function inDatabase<T>({ dataDir }: TestServer, sql: string): Promise<T[]> {
  const db = new sqlite3.Database(join(dataDir, "fiscalon.sqlite"), sqlite3.OPEN_READONLY);
  return new Promise((resolve, reject) => {
    db.all<T>(sql, (error, rows) => {
      db.close();
      if (error) reject(error);
      else resolve(rows);
    });
  });
}

async function expectWholeDatabase(on: TestServer) {
  expect(await inDatabase(on, "PRAGMA foreign_key_check")).toEqual([]);
  expect(
    await inDatabase(
      on,
      `SELECT e.id FROM entries e JOIN postings p ON p.entry_id = e.id WHERE e.live = 1 GROUP BY e.id HAVING sum(p.amount) <> 0`,
    ),
  ).toEqual([]);
  expect(
    await inDatabase(
      on,
      `SELECT l.id FROM bank_lines l JOIN entries e ON e.id = l.entry_id JOIN accounts a ON a.code = l.account AND a.client_id = l.client_id
       WHERE e.live = 0 OR l.amount <> (SELECT sum(p.amount) FROM postings p WHERE p.entry_id = e.id AND p.account_id = a.id)`,
    ),
  ).toEqual([]);
  expect(
    await inDatabase(
      on,
      `SELECT d.id FROM allocations a JOIN documents d ON d.id = a.document_id JOIN payments p ON p.id = a.payment_id
       WHERE a.live = 1 AND (d.state <> 'posted' OR p.state <> 'posted')`,
    ),
  ).toEqual([]);
  expect(
    await inDatabase(
      on,
      `SELECT d.id FROM documents d JOIN (SELECT document_id, sum(amount + difference) AS paid FROM allocations WHERE live = 1
         GROUP BY document_id) a ON a.document_id = d.id WHERE abs(a.paid) > abs(d.gross)`,
    ),
  ).toEqual([]);
  expect(await on.ok("GET", "/audit")).toMatchObject({ broken: null });
}

test.each(["accrual", "cash"])(
  "any life of books on the %s basis: they balance, agree, open items are the ledger's, and they move house unchanged",
  async (basis) => {
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 22 }), async (acts) => {
        const { base, registration } = await newClient(server, {
          ...GB_CLIENT,
          registration: { ...GB_CLIENT.registration, number: nextVatNumber(), basis },
        });
        const contacts = await Promise.all(
          ["Oxbow Joinery", "Tern and Company"].map((name) =>
            server.ok<{ id: number; name: string }>("POST", `${base}/contacts`, {
              name,
              country: "GB",
              taxNumber: nextVatNumber(),
              registered: true,
            }),
          ),
        );
        const books = new Books(base, registration, contacts);
        for (const one of acts) await books.perform(one);
        const balances = await expectSound(server, books);
        const book = await server.ok<object>("GET", `${base}/book`);
        const moved = await elsewhere.ok<{ id: number; registrations: { id: number }[] }>(
          "POST",
          "/books",
          book,
        );
        const there = {
          base: `/clients/${moved.id}`,
          registration: `/clients/${moved.id}/registrations/${moved.registrations[0]?.id}`,
        };
        expect(await elsewhere.ok("GET", `${there.base}/book`)).toEqual(book);
        expect(await expectSound(elsewhere, there)).toEqual(balances);
      }),
      { numRuns: 8, endOnFailure: true },
    );
    await expectWholeDatabase(server);
    await expectWholeDatabase(elsewhere);
  },
  240_000,
);
