import { afterAll, beforeAll, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import type { ReturnView } from "@fiscalon/contract/returns";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("two people change the rules: the second is told with the rules as they are, and none is silently gone", async () => {
  const { base } = await newClient(server);
  const rulesNow = async () => (await server.ok<{ rules: SupplyRule[] }>("GET", `${base}/setup`)).rules;
  const seen = await rulesNow();
  const first = { ...at(seen, 0), words: "changed by the first" };
  const second = { ...at(seen, 1), words: "changed by the second" };
  const withRule = (rules: readonly SupplyRule[], rule: SupplyRule) =>
    rules.map((one) => (one.id === rule.id ? rule : one));
  await server.ok("PUT", `${base}/rules`, { rules: withRule(seen, first), seen });
  const late = await server.call<{ error: { code: string; details: { now: SupplyRule[] } } }>(
    "PUT",
    `${base}/rules`,
    {
      rules: withRule(seen, second),
      seen,
    },
  );
  expect([late.status, late.body.error.code]).toEqual([409, "rules/changed"]);
  expect(at(late.body.error.details.now, 0).words).toBe("changed by the first");
  expect(await rulesNow()).toEqual(withRule(seen, first));

  const { now } = late.body.error.details;
  await server.ok("PUT", `${base}/rules`, { rules: withRule(now, second), seen: now });
  expect(await rulesNow()).toEqual(withRule(withRule(seen, first), second));
});

/** How far the audit trail of a client goes, as an answer says it. */
async function seenNow(base: string): Promise<string> {
  const answer = await fetch(`${server.address}/api${base}/setup`);
  return answer.headers.get("audit-entry") ?? "";
}

interface Refused {
  error: { code: string; details: { entry: number; by: string; theirs: Record<string, unknown> } };
}

async function put(base: string, path: string, body: object, seen: string | number) {
  const answer = await fetch(`${server.address}/api${base}${path}`, {
    method: "PUT",
    headers: { "content-type": "application/json", "audit-entry": String(seen) },
    body: JSON.stringify(body),
  });
  return { status: answer.status, body: (await answer.json().catch(() => null)) as Refused };
}

test.each<[what: string, path: (base: string) => Promise<string>, first: object, second: object]>([
  [
    "contact",
    async (base) => {
      const { id } = await server.ok<{ id: number }>("POST", `${base}/contacts`, { name: "Two Desks" });
      return `/contacts/${id}`;
    },
    { name: "As the first has it" },
    { name: "As the second has it" },
  ],
  [
    "item",
    async (base) => {
      const { id } = await server.ok<{ id: number }>("POST", `${base}/items`, { name: "Chair" });
      return `/items/${id}`;
    },
    { name: "As the first has it" },
    { name: "As the second has it" },
  ],
  [
    "series, which has no number",
    async () => "/series/sales-invoice",
    { prefix: "A-", digits: 3 },
    { prefix: "B-", digits: 5 },
  ],
  [
    "rate by date, which has no number",
    async () => "/schedules/own.two",
    { rows: [{ from: "2025-01-01", to: null, rate: "5", source: "the first" }] },
    { rows: [{ from: "2025-01-01", to: null, rate: "7", source: "the second" }] },
  ],
  [
    "template, found by its name",
    async (base) => {
      await server.ok("PUT", `${base}/templates`, template("2026-03-01"));
      return "/templates";
    },
    template("2026-04-01"),
    template("2026-05-01"),
  ],
  [
    "balance of the authority's account, a part of a registration",
    async (base) => {
      const { registrations } = await server.ok<{ registrations: { id: number }[] }>("GET", `${base}/setup`);
      return `/registrations/${at(registrations, 0).id}/authority-balance`;
    },
    { on: "2026-03-31", amount: "100.00", note: "by telephone" },
    { on: "2026-03-31", amount: "120.00", note: "by letter" },
  ],
])(
  "two people change a %s: the second is refused with what is there now, until that is seen",
  async (_what, make, first, second) => {
    const { base } = await newClient(server);
    const path = await make(base);
    const seen = await seenNow(base);
    expect((await put(base, path, first, seen)).status).toBeLessThan(300);
    const late = await put(base, path, second, seen);
    expect([late.status, late.body.error.code]).toEqual([409, "request/overtaken"]);
    const { entry, by, theirs } = late.body.error.details;
    expect(by).toBe("Test person");
    const { amount: authorityBalance, ...rest } = { amount: undefined, ...first };
    expect(theirs).toMatchObject(authorityBalance === undefined ? rest : { ...rest, authorityBalance });
    expect((await put(base, path, second, entry)).status).toBeLessThan(300);
    // Nobody else did since: the same one may go on.
    expect((await put(base, path, second, await seenNow(base))).status).toBeLessThan(300);
  },
);

function template(nextOn: string) {
  const lines = [{ text: "Rent", amount: "500.00", code: "S20" }];
  return {
    name: "Rent",
    document: { ...document("sales-invoice", "2026-02-01", lines), number: "" },
    every: "monthly",
    nextOn,
    until: null,
    byItself: false,
  };
}

/** A quarter with one sale in it, its findings accepted, as someone looks at it who is about to seal it. */
async function lookedAt() {
  const books = await newClient(server);
  const { base, registration } = books;
  const one = `${registration}/returns/2026-03-31`;
  const sell = (number: string) =>
    server.ok(
      "POST",
      `${base}/documents`,
      document("cash-sale", "2026-02-10", [{ amount: "100.00", code: "S20" }], { number }),
    );
  await sell("1");
  const look = async () => {
    const { findings, boxes } = await server.ok<ReturnView>("GET", one);
    for (const { key, accepted } of findings)
      if (!accepted) await server.ok("POST", `${one}/acceptances`, { key, reason: "looked at" });
    return boxes.map(({ id: box, amount }) => ({ box, amount }));
  };
  return { ...books, one, sell, look };
}

test("a period is sealed and filed with the figures that were seen, or not at all", async () => {
  const { one, sell, look } = await lookedAt();
  const seen = await look();
  await sell("2");
  await look();
  const moved = await server.call<Moved>("POST", `${one}/seal`, { boxes: seen });
  expect([moved.status, moved.body.error.code]).toEqual([409, "returns/figures-moved"]);
  expect(moved.body.error.message).toContain("Box 1 is 40.00 now; it was 20.00 when you looked.");
  expect(moved.body.error.details.moved).toContainEqual({ box: "6", seen: 100_00, now: 200_00 });
  const sealed = await look();
  expect(await server.ok("POST", `${one}/seal`, { boxes: sealed })).toMatchObject({ state: "sealed" });

  // Somebody opens it again, posts, and seals anew, while the declaration of before is on another screen.
  await server.ok("POST", `${one}/reopen`);
  await sell("3");
  await server.ok("POST", `${one}/seal`, { boxes: await look() });
  const declared = { declared: true, boxes: sealed };
  const other = await server.call<Moved>("POST", `${one}/file`, declared);
  expect([other.status, other.body.error.code]).toEqual([409, "returns/figures-moved"]);
  expect(await server.ok("GET", one)).toMatchObject({ state: "sealed", sentWithoutAnswer: null });
  expect(await server.ok("POST", `${one}/file`, { declared: true, boxes: await look() })).toMatchObject({
    state: "filed",
  });
});

interface Moved {
  error: {
    code: string;
    message: string;
    details: { moved: { box: string; seen: number; now: number }[] };
  };
}

test("an import is posted the way that was seen: settings that somebody else chose meanwhile are looked at first", async () => {
  const { base } = await newClient(server);
  const csv = "Number,Date,Customer,Net,VAT\n1,03/02/2026,Reed,100.00,\n";
  const { body } = await server.upload(`${base}/imports?direction=sale`, "one.csv", csv);
  const path = `${base}/imports/${body.id}`;
  await server.ok("PUT", `${path}/settings`, { codeForBlank: "Z" });
  await server.job(`${path}/check`);
  const seen = await seenNow(base);
  await server.ok("PUT", `${path}/settings`, { codeForBlank: "EX" });
  await server.job(`${path}/check`);
  const late = await put(base, `/imports/${body.id}/settings`, { codeForBlank: "OS" }, seen);
  expect([late.status, late.body.error.code]).toEqual([409, "request/overtaken"]);
  const post = (upTo: string) => server.job(`${path}/post`, { "audit-entry": upTo });
  const refused = await post(seen);
  expect([refused.state, refused.error?.code]).toEqual(["failed", "request/overtaken"]);
  expect((await post(await seenNow(base))).state).toBe("done");
});

test("what somebody else did with something else, or only by the way, is in nobody's way", async () => {
  const { base } = await newClient(server);
  const make = (name: string) => server.ok<{ id: number }>("POST", `${base}/contacts`, { name });
  const [one, other] = [await make("One"), await make("Other")];
  const seen = await seenNow(base);
  await server.ok("PUT", `${base}/contacts/${other.id}`, { name: "Another" });
  await server.ok("PUT", `${base}/series/receipt`, { prefix: "R", digits: 3 });
  expect((await put(base, `/contacts/${one.id}`, { name: "One still" }, seen)).status).toBeLessThan(300);
  expect((await put(base, "/series/sales-invoice", { prefix: "S", digits: 3 }, seen)).status).toBeLessThan(
    300,
  );
});
