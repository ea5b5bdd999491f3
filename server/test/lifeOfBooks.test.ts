import fc from "fast-check";
import { afterAll, beforeAll, expect, test } from "vitest";
import { LANDS } from "./support/lands.ts";
import { act, Books } from "./support/life.ts";
import { expectSound, expectWholeDatabase } from "./support/sound.ts";
import { startServer } from "./support/testServer.ts";
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

test.each(Object.entries(LANDS))(
  "any life of books, %s: they balance, agree, open items are the ledger's, and they move house unchanged",
  async (_name, land) => {
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 22 }), async (acts) => {
        const books = await Books.begin(server, land);
        for (const one of acts) await books.perform(one);
        const balances = await expectSound(server, land, books);
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
      }),
      { numRuns: 4, endOnFailure: true },
    );
    await expectWholeDatabase(server);
    await expectWholeDatabase(elsewhere);
  },
  240_000,
);
