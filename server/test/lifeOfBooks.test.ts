import fc from "fast-check";
import { afterAll, beforeAll, expect, test } from "vitest";
import { expectBanksApart } from "./support/banksApart.ts";
import { expectKeptSums, expectPartiesApart, partyGaps } from "./support/keptSums.ts";
import { LANDS } from "./support/lands.ts";
import { act, Books } from "./support/life.ts";
import { expectSound, expectWholeDatabase } from "./support/sound.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

/** Days before, between and after documents (on the 11th), payments (20th) and lines of the bank (21st). */
const DAYS = ["2026-01-31", "2026-03-15", "2026-04-20", "2026-06-30", "2026-12-31"];

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

async function giveRoles(base: string, roles: Record<string, string | null>): Promise<void> {
  const { accounts } = await elsewhere.ok<{ accounts: { code: string }[] }>("GET", `${base}/setup`);
  for (const account of accounts)
    if (account.code in roles)
      await elsewhere.ok("PUT", `${base}/accounts/${account.code}`, {
        ...account,
        role: roles[account.code],
      });
}

test.each(Object.entries(LANDS))(
  "any life of books, %s: they balance, agree, open items are the ledger's, and they move house unchanged",
  async (_name, land) => {
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 22 }), async (acts) => {
        const books = await Books.begin(server, land);
        for (const one of acts) await books.perform(one);
        const balances = await expectSound(server, land, books);
        await expectPartiesApart(server, books.base, DAYS);
        await expectBanksApart(server, books.base, DAYS);
        const book = await server.ok<object>("GET", `${books.base}/book`);
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
        expect(await expectSound(elsewhere, land, there)).toEqual(balances);
        // Other accounts become those of debtors and creditors, with what stands on them; and back again.
        const gaps = await partyGaps(elsewhere, there.base);
        await giveRoles(there.base, { "1100": "payable", "2100": null, "1000": "receivable" });
        await expectPartiesApart(elsewhere, there.base, DAYS);
        await expectBanksApart(elsewhere, there.base, DAYS);
        await giveRoles(there.base, { "1100": "receivable", "2100": "payable", "1000": "bank" });
        expect(await partyGaps(elsewhere, there.base)).toEqual(gaps);
      }),
      { numRuns: 4, endOnFailure: true },
    );
    for (const on of [server, elsewhere]) {
      await expectWholeDatabase(on);
      await expectKeptSums(on);
    }
  },
  240_000,
);
