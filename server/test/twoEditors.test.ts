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
