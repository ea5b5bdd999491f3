import { afterAll, beforeAll, expect, test } from "vitest";
import type { PeriodTile, ReturnView } from "@fiscalon/contract/returns";
import type { SettlementView } from "@fiscalon/contract/settlement";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { booksOf } from "./support/drawnBooks.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** Nobody typed a tax: what the boxes round is all that may set a return apart from its documents. */
test.each(SHIPPED.flatMap((pack) => [5, 17, 23].map((seed) => [pack.id, seed, pack] as const)))(
  "%s, books %i: no return differs from its documents by more than rounding, and closing entries balance",
  async (_id, seed, pack) => {
    const { registration } = await booksOf(server, pack, seed);
    const periods = await server.ok<PeriodTile[]>("GET", `${registration}/periods`);
    let looked = 0;
    for (const { to, state } of periods) {
      if (state === "ahead" || to < "2026-04-30" || to > "2026-12-31") continue;
      const { findings, boxes } = await server.ok<ReturnView>("GET", `${registration}/returns/${to}`);
      const apart = findings.filter(({ check }) => check === "more-than-rounding");
      expect([to, ...apart.map(({ text }) => text)]).toEqual([to]);
      const { entry } = await server.ok<SettlementView>("GET", `${registration}/settlements/${to}`);
      expect(entry.postings.reduce((sum, { amount }) => sum + amount, 0)).toBe(0);
      if (boxes.some(({ amount }) => amount !== 0)) looked += 1;
    }
    expect(looked).toBeGreaterThan(0);
  },
);
