import { afterAll, beforeAll, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { newClient, startServer } from "./support/testServer.ts";
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
    expect(theirs).toMatchObject(first);
    expect((await put(base, path, second, entry)).status).toBeLessThan(300);
    // Nobody else did since: the same one may go on.
    expect((await put(base, path, second, await seenNow(base))).status).toBeLessThan(300);
  },
);

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
