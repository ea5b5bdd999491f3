import { afterAll, beforeAll, expect, test } from "vitest";
import type { SchemeEffect } from "@fiscalon/contract/schemeEffect";
import type { ReturnView } from "@fiscalon/contract/returns";
import { british, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const [Q1, Q2, Q3] = ["2026-03-31", "2026-06-30", "2026-09-30"];

test("what a scheme would do to open periods is what it does once it is kept, and nothing is kept by asking", async () => {
  const books = await periodBooks(server, british());
  await books.post(["sales-invoice", "S20", "1000.00"], "2026-02-10");
  await books.post(["sales-invoice", "S20", "7000.00"], "2026-05-10");
  await books.post(["purchase-bill", "S20", "2000.00", { supply: "goods" }], "2026-05-11");
  await books.post(["sales-invoice", "S20", "4000.00"], "2026-08-10");
  await books.seal(Q1);
  const schemes = [{ scheme: "gb-flat-rate", from: "2026-04-01", to: null, settings: { sector: "retail" } }];
  const ask = (body: object) => server.ok<SchemeEffect>("POST", `${books.registration}/schemes/effect`, body);
  const netOf = async (end: string) => {
    const { net } = await server.ok<ReturnView>("GET", `${books.registration}/returns/${end}`);
    return net;
  };
  const before = [await netOf(Q2), await netOf(Q3)];
  const effect = await ask({ schemes });
  expect(effect.turnover).toMatchObject({ net: 12_000_00, withTax: 14_400_00 });
  // The sealed quarter is not asked about; of the others those that have begun.
  const ends = effect.periods.map(({ to }) => to);
  expect(ends).not.toContain(Q1);
  expect(ends.slice(0, 2)).toEqual([Q2, Q3]);
  expect(effect.periods.slice(0, 2).map(({ now }) => now)).toEqual(before);
  expect([await netOf(Q2), await netOf(Q3)]).toEqual(before);
  expect((await books.change({ schemes })).status).toBe(200);
  expect([await netOf(Q2), await netOf(Q3)]).toEqual(effect.periods.slice(0, 2).map(({ then }) => then));
  // Left again, asked from the other side.
  const back = await ask({ schemes: [] });
  expect(back.periods.slice(0, 2).map(({ then }) => then)).toEqual(before);
  expectRefusal(
    await server.call("POST", `${books.registration}/schemes/effect`, {
      schemes: [{ ...schemes[0], from: "2026-04-02" }],
    }),
    "scheme/start",
    "schemes[0].from",
  );
});
