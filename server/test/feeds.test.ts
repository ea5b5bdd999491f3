import { found, valueAt } from "@fiscalon/core/at";
import { groupBy } from "@fiscalon/core/groupBy";
import type { BalanceView } from "@fiscalon/contract/balances";
import type { TerminalDayPage } from "@fiscalon/contract/terminals";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { expectKeptSums } from "./support/keptSums.ts";
import { document, GB_CLIENT, newClient, nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";
import { day, nightBar, world } from "./support/world.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

type Refusal = { error: { code: string; field?: string; message: string } };
interface Transaction {
  id: string;
  at: string;
  kind: string;
  gross: number;
  fee: number;
}

/** Everything the simulated operator tells of a merchant, fetched here without the application. */
async function told<Told = Transaction>(
  merchant: string,
  key: string,
  what: "transactions" | "payouts" = "transactions",
): Promise<Told[]> {
  const base = `${server.address}/simulators/terminal/merchants/${merchant}`;
  const { token } = (await (
    await fetch(`${base}/authorise`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ key }),
    })
  ).json()) as { token: string };
  const rows: Told[] = [];
  for (let cursor = "", more = true; more;) {
    const answer = await fetch(`${base}/${what}?after=${encodeURIComponent(cursor)}`, {
      headers: { authorization: `Bearer ${token}` },
    });
    if (answer.status === 503) continue;
    const page = (await answer.json()) as { rows: Told[]; cursor: string; more: boolean };
    rows.push(...page.rows);
    ({ cursor, more } = page);
  }
  return rows;
}

/** What the documents of a kind add up to. */
async function sumOf(base: string, kind: string) {
  interface Sum {
    count: number;
    net: number;
    tax: number;
    gross: number;
  }
  const { sums } = await server.ok<{ sums: Sum[] }>("GET", `${base}/documents?kind=${kind}`);
  return sums[0] ?? { count: 0, net: 0, tax: 0, gross: 0 };
}

describe("card takings, from the terminal to the bank", () => {
  test("days past midnight become one summary and one bill each, nothing twice, payouts meet the bank", async () => {
    const { base } = await newClient(server);
    await world(server, "terminal/merchants/BAR-1", nightBar("BANK-0001"));
    const body = {
      merchant: "BAR-1",
      key: "night-key",
      name: "Bar",
      zone: "Europe/London",
      cutOff: "04:00",
      start: day(30),
    };
    const wrong = await server.call<Refusal>("POST", `${base}/terminals`, { ...body, key: "guess" });
    expect([wrong.status, wrong.body.error.code, wrong.body.error.field]).toEqual([
      422,
      "terminal/refused",
      "key",
    ]);
    const terminal = await server.ok<{ id: number; mapping: object }>("POST", `${base}/terminals`, body);
    const fetchAll = () =>
      server.ok<{ fresh: number; days: number; bills: number; payouts: number; unmapped: string[] }>(
        "POST",
        `${base}/terminals/${terminal.id}/fetch`,
      );
    const before = await fetchAll();
    expect(before).toMatchObject({ days: 0, unmapped: ["VAT 20", "no VAT"] });
    await server.ok("PUT", `${base}/terminals/${terminal.id}/mapping`, {
      mapping: {
        ...terminal.mapping,
        taxes: { "VAT 20": { code: "S20", account: "4000" }, "no VAT": { code: "Z", account: "4000" } },
      },
    });
    const posted = await fetchAll();
    expect(posted).toMatchObject({ fresh: 0, payouts: 0, unmapped: [] });
    expect(await fetchAll()).toMatchObject({ fresh: 0, days: 0, bills: 0, payouts: 0 });

    /** Independent recomputation: London is UTC or one hour ahead; the day ends at four in the morning. */
    const summer = (at: string) => at >= "2026-03-29T01:00:00Z" && at < "2026-10-25T01:00:00Z";
    const tradingDay = (at: string) =>
      new Date(Date.parse(at) + (summer(at) ? 1 : 0) * 3_600_000 - 4 * 3_600_000).toISOString().slice(0, 10);
    const all = (await told("BAR-1", "night-key")).filter(({ at }) => tradingDay(at) >= day(30));
    const today = tradingDay(new Date().toISOString());
    const byDay = new Map<string, number>();
    for (const { at, gross } of all)
      if (tradingDay(at) < today) byDay.set(tradingDay(at), (byDay.get(tradingDay(at)) ?? 0) + gross);
    const days = await server.ok<{ rows: { date: string; gross: number }[]; total: number }>(
      "GET",
      `${base}/documents?kind=terminal-summary&limit=500`,
    );
    expect(new Map(days.rows.map((row) => [row.date, row.gross]))).toEqual(byDay);
    expect([posted.days, posted.bills]).toEqual([byDay.size, byDay.size]);
    const fees = await sumOf(base, "fee-bill");
    const expectedFees = all
      .filter(({ at }) => tradingDay(at) < today)
      .reduce((sum, { fee }) => sum + fee, 0);
    expect(fees.gross).toBe(expectedFees);

    // Days of the terminal, those that wait among them.
    const { rows } = await server.ok<TerminalDayPage>(
      "GET",
      `${base}/terminals/${terminal.id}/days?offset=0&limit=500`,
    );
    const sums = groupBy(all, ({ at }) => tradingDay(at));
    expect(
      rows.map(({ day: on, transactions, gross, fees: cost }) => [on, transactions, gross, cost]),
    ).toEqual(
      [...sums.keys()]
        .sort()
        .reverse()
        .map((on) => {
          const own = valueAt(sums, on);
          const sum = (field: "gross" | "fee") => own.reduce((total, one) => total + one[field], 0);
          return [on, own.length, sum("gross"), sum("fee")];
        }),
    );
    await expectKeptSums(server);

    // What is in transit on a day, worked out from what the operator tells and the payouts that were posted.
    const transit = async (on: string) =>
      found(
        await server.ok<BalanceView[]>("GET", `${base}/balances?on=${on}`),
        ({ id }) => id === "cards",
        "money of cards",
      );
    const payouts = (await told<{ date: string; amount: number }>("BAR-1", "night-key", "payouts")).slice(
      -before.payouts,
    );
    for (const on of [1, 2, 3, 5, 8, 13].map(day)) {
      const { left, causes, rest } = await transit(on);
      const taken = all
        .filter(({ at }) => tradingDay(at) < today && tradingDay(at) <= on)
        .reduce((sum, { gross, fee }) => sum + gross - fee, 0);
      const paid = payouts.filter(({ date }) => date <= on).reduce((sum, { amount }) => sum + amount, 0);
      expect([on, left, rest]).toEqual([on, taken - paid, 0]);
      expect(causes.every(({ id }) => id === "transit")).toBe(true);
    }

    const unknown = await server.call<Refusal>("POST", `${base}/bank`, {
      account: "1000",
      number: "NO-SUCH",
    });
    expect(unknown.body.error.code).toBe("bank/refused");
    await server.ok("POST", `${base}/bank`, { account: "1000", number: "BANK-0001" });
    const first = await server.ok<{ fresh: number }>("POST", `${base}/bank/1000/fetch`);
    expect(first.fresh).toBeGreaterThanOrEqual(before.payouts);
    expect(await server.ok("POST", `${base}/bank/1000/fetch`)).toMatchObject({ fresh: 0 });
    const { accepted } = await server.ok<{ accepted: number }>("POST", `${base}/bank/accept`, {
      account: "1000",
    });
    expect(accepted).toBe(before.payouts);
    const matched = await server.ok<{ total: number }>("GET", `${base}/bank/1000/lines?state=matched`);
    expect(matched.total).toBe(before.payouts);
  });
});

describe("a business that is not registered", () => {
  test("takings and fees are posted whole, payouts reach the account told", async () => {
    const { base } = await newClient(server, {
      name: "Samphire Stall",
      country: "GB",
      place: { name: "Wells", country: "GB" },
    });
    await world(server, "terminal/merchants/STALL-1", { ...nightBar("BANK-0002"), surchargePercent: 2 });
    await server.ok("POST", `${base}/accounts`, { code: "1010", name: "Second bank", type: "asset" });
    const { id: terminal, mapping } = await server.ok<{ id: number; mapping: { bank: string } }>(
      "POST",
      `${base}/terminals`,
      {
        merchant: "STALL-1",
        key: "night-key",
        name: "Stall",
        zone: "Europe/London",
        cutOff: "04:00",
        start: day(10),
      },
    );
    expect(mapping).toMatchObject({ surcharge: { code: null }, bank: "1000" });
    const map = (more: object) =>
      server.call<Refusal>("PUT", `${base}/terminals/${terminal}/mapping`, {
        mapping: {
          ...mapping,
          taxes: { "VAT 20": { code: null, account: "4000" }, "no VAT": { code: null, account: "4000" } },
          fee: { code: null, account: "6800" },
          tip: { code: null, account: "4900" },
          ...more,
        },
      });
    expect((await map({ bank: "4000" })).body.error).toMatchObject({
      code: "terminal/payout-account",
      field: "mapping.bank",
    });
    expect((await map({ bank: "1010" })).status).toBe(200);
    const posted = await server.ok<{ days: number; payouts: number }>(
      "POST",
      `${base}/terminals/${terminal}/fetch`,
    );
    expect(posted.days).toBeGreaterThanOrEqual(9);
    const [takings, fees] = [await sumOf(base, "terminal-summary"), await sumOf(base, "fee-bill")];
    expect([takings.tax, takings.net, fees.tax, fees.net]).toEqual([0, takings.gross, 0, fees.gross]);
    const accounts = await server.ok<{ code: string; closing: number }[]>(
      "GET",
      `${base}/trial-balance?from=${day(60)}&to=${day(0)}`,
    );
    const balance = (code: string) => accounts.find((row) => row.code === code)?.closing ?? 0;
    expect(balance("1000")).toBe(0);
    expect(balance("1010")).toBeGreaterThan(0);
    expect(balance("4000") + balance("4900")).toBe(-takings.gross);
    expect(balance("6800")).toBe(fees.gross);
  });
});

describe("a bank statement against the books", () => {
  test("invoices, several at once, a part, a wrong-way entry and the rest", async () => {
    const { base, registration } = await newClient(server);
    const contact = (name: string) =>
      server.ok<{ id: number }>("POST", `${base}/contacts`, { name, country: "GB" });
    const [oxbow, tern] = [await contact("Oxbow Joinery Ltd"), await contact("Tern & Co")];
    const post = (kind: string, number: string, amount: string, who: number) =>
      server.ok<{ id: number }>(
        "POST",
        `${base}/documents`,
        document(kind, day(20), [{ amount, code: "Z" }], { contact: who, number }),
      );
    await post("sales-invoice", "INV-201", "150.00", oxbow.id);
    await post("sales-invoice", "INV-202", "75.00", oxbow.id);
    await post("sales-invoice", "INV-203", "40.00", oxbow.id);
    await post("purchase-bill", "T-77", "99.00", tern.id);
    const slip = await server.ok<{ id: number }>("POST", `${base}/payments`, {
      kind: "receipt",
      date: day(3),
      amount: "31.00",
      contact: tern.id,
      allocations: [],
    });
    const statement = [
      "Date,Description,Paid out,Paid in,Balance",
      `${day(5)},Oxbow Joinery INV-201 and inv 202,,225.00,225.00`,
      `${day(5)},TERN AND CO T77 part,60.00,,165.00`,
      `${day(3)},Tern & Co refund of deposit,31.00,,134.00`,
      `${day(2)},Monthly account fee,6.50,,127.50`,
      `${day(2)},Monthly account fee,6.50,,121.00`,
    ].join("\n");
    const upload = () => server.upload(`${base}/bank/1000/statements`, "bank.csv", statement);
    expect((await upload()).body).toMatchObject({ lines: 5, fresh: 5, alreadyThere: 0 });
    expect((await upload()).body).toMatchObject({ lines: 5, fresh: 0, alreadyThere: 5 });

    interface Line {
      id: number;
      amount: number;
      proposals: { kind: string; score: number; documents?: { document: number; amount: number }[] }[];
    }
    const open = async () => (await server.ok<{ rows: Line[] }>("GET", `${base}/bank/1000/lines`)).rows;
    const lines = await open();
    const best = (amount: number) => lines.find((line) => line.amount === amount)?.proposals[0];
    expect(best(225_00)).toMatchObject({
      kind: "documents",
      documents: [{ amount: 150_00 }, { amount: 75_00 }],
    });
    expect(best(-60_00)).toMatchObject({ kind: "documents", documents: [{ amount: 60_00 }] });
    expect(best(-31_00)).toMatchObject({ kind: "wrong-way" });
    expect(best(-6_50)).toBeUndefined();
    expect(await server.ok("POST", `${base}/bank/accept`, { account: "1000" })).toEqual({ accepted: 1 });

    const line = (amount: number) => lines.find((one) => one.amount === amount)?.id;
    const entry = (await server.ok<{ entry: number }>("GET", `${base}/payments/${slip.id}`)).entry;
    const turned = await server.call<Refusal>("POST", `${base}/bank-lines/${line(-31_00)}/match`, { entry });
    expect(turned.body.error.code).toBe("bank/wrong-way");
    await server.ok("POST", `${base}/bank-lines/${line(-60_00)}/match`, {
      documents: best(-60_00)?.documents?.map((one) => ({ ...one, amount: "60.00" })),
      contact: tern.id,
    });
    await server.ok("POST", `${base}/bank-lines/${line(-6_50)}/match`, {
      post: { account: "6800", code: "EX" },
    });
    const left = await server.ok<{ open: number }>("GET", `${base}/open-items`);
    expect(left.open).toBe(40_00 - 39_00);
    const fee = await sumOf(base, "expense");
    expect([fee.count, fee.gross]).toEqual([1, 6_50]);

    // Taking a payment out opens its line again.
    const { rows } = await server.ok<{ rows: { id: number; reference: string }[] }>(
      "GET",
      `${base}/payments`,
    );
    const receipt = rows.find(({ reference }) => reference.startsWith("Oxbow"));
    await server.ok("POST", `${base}/payments/${receipt?.id}/void`, { reason: "the bank turned it back" });
    expect((await open()).map((one) => one.amount)).toContain(225_00);
    expect(registration).toBeTruthy();
  });

  test("what is due to the authority is proposed by levy and period, and paid by it", async () => {
    const { base, registration } = await newClient(server, {
      ...GB_CLIENT,
      registration: { ...GB_CLIENT.registration, number: nextVatNumber(), from: "2026-01-01" },
    });
    await server.ok(
      "POST",
      `${base}/documents`,
      document("sales-invoice", "2026-03-10", [{ amount: "500.00", code: "S20" }]),
    );
    await server.ok("POST", `${registration}/returns/2026-03-31/seal`);
    await server.ok("POST", `${registration}/returns/2026-03-31/file`, { declared: true });
    await server.ok("POST", `${registration}/settlements/2026-03-31`);
    const statement = "Date,Description,Paid out,Paid in,Balance\n2026-05-05,HMRC VAT,100.00,,-100.00";
    await server.upload(`${base}/bank/1000/statements`, "bank.csv", statement);
    const { rows } = await server.ok<{
      rows: { id: number; proposals: { kind: string; label: string }[] }[];
    }>("GET", `${base}/bank/1000/lines`);
    expect(rows[0]?.proposals[0]).toMatchObject({
      kind: "tax",
      period: "2026-03-31",
      label: "VAT of the period to 31 Mar 2026",
    });
    expect(await server.ok("POST", `${base}/bank/accept`, { account: "1000" })).toEqual({ accepted: 1 });
    const { outstanding } = await server.ok<{ outstanding: number }>(
      "GET",
      `${registration}/settlements/2026-03-31`,
    );
    expect(outstanding).toBe(0);
  });
});
