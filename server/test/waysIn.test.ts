import { afterAll, beforeAll, expect, test } from "vitest";
import { droppedOn } from "./support/dropped.ts";
import { newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** Places where the tax depends on where the other side is. Rates as their jurisdictions have them. */
const SUPPLIES = [
  {
    what: "Karnataka to Maharashtra: integrated tax",
    country: "IN",
    region: "KA",
    registration: {
      pack: "in",
      number: "29AAPFM4417K1ZR",
      from: "2026-04-01",
      frequency: "monthly",
      anchor: "2026-04-30",
    },
    there: "MH",
    written: "27-Maharashtra",
    date: "2026-04-15",
    tax: "180.00",
    code: "S18",
    accounts: ["Output tax, IGST"],
  },
  {
    what: "within Karnataka: central and state tax",
    country: "IN",
    region: "KA",
    registration: {
      pack: "in",
      number: "29AAPFM4417K1ZR",
      from: "2026-04-01",
      frequency: "monthly",
      anchor: "2026-04-30",
    },
    there: "KA",
    written: "29",
    date: "2026-04-15",
    tax: "180.00",
    code: "S18",
    accounts: ["Output tax, CGST", "Output tax, SGST"],
  },
  {
    what: "British Columbia to Ontario: harmonised tax at the rate there",
    country: "CA",
    region: "BC",
    registration: {
      pack: "ca",
      number: "123456782RT0001",
      from: "2026-01-01",
      frequency: "quarterly",
      anchor: "2026-03-31",
    },
    there: "ON",
    written: "Ontario",
    date: "2026-02-15",
    tax: "130.00",
    code: "",
    accounts: ["Output tax, GST/HST"],
  },
];

/** What a document came to: every account it moved, in minor units. */
async function movedAccounts(base: string): Promise<[string, number][]> {
  const rows = await server.ok<{ name: string; closing: number }[]>(
    "GET",
    `${base}/trial-balance?from=2026-01-01&to=2026-12-31`,
  );
  return rows.filter(({ closing }) => closing !== 0).map(({ name, closing }) => [name, closing]);
}

test.each(SUPPLIES)(
  "$what, typed, imported, from a template, out of a book and computed anew",
  async (one) => {
    const make = () =>
      newClient(server, {
        name: "Weavers",
        country: one.country,
        place: { name: "Shed", country: one.country, region: one.region },
        registration: one.registration,
      });
    const withContact = async (base: string) =>
      server.ok<{ id: number }>("POST", `${base}/contacts`, {
        name: "Buyer",
        country: one.country,
        region: one.there,
      });
    const body = (contact: number) => ({
      kind: "sales-invoice",
      number: "A1",
      date: one.date,
      prices: "exclusive",
      contact,
      lines: [{ amount: "1000.00", supply: "goods", ...(one.code === "" ? {} : { code: one.code }) }],
    });

    const typed = await make();
    const buyer = await withContact(typed.base);
    await server.ok("POST", `${typed.base}/documents`, body(buyer.id));
    const expected = await movedAccounts(typed.base);
    expect(expected.map(([name]) => name).filter((name) => name.startsWith("Output tax"))).toEqual(
      one.accounts,
    );

    const imported = await make();
    const register = `Invoice No,Date,Customer,Place of supply,Net,Tax\nA1,${one.date},Buyer,${one.written},1000.00,${one.tax}\n`;
    const dropped = await droppedOn(server, imported.base, "sales.csv", register, "direction=sale", {
      chosen: { "ADV18/DE18/EO18/S18": "S18" },
    });
    expect(dropped.report.problems).toEqual([]);
    expect((await dropped.post()).state).toBe("done");
    expect(await movedAccounts(imported.base)).toEqual(expected);

    const recurring = await make();
    const again = await withContact(recurring.base);
    await server.ok("PUT", `${recurring.base}/templates`, {
      name: "Monthly",
      document: body(again.id),
      every: "yearly",
      nextOn: one.date,
    });
    await server.ok("POST", `${recurring.base}/templates/post-due`);
    expect(await movedAccounts(recurring.base)).toEqual(expected);

    const book = await server.ok<object>("GET", `${typed.base}/book`);
    const copy = await server.ok<{ id: number }>("POST", "/books", book);
    expect(await movedAccounts(`/clients/${copy.id}`)).toEqual(expected);
  },
);

test("a customer told in two regions is asked about: tax goes by the region of the contact", async () => {
  const { base } = await newClient(server, {
    name: "Signs",
    country: "CA",
    place: { name: "Shop", country: "CA", region: "BC" },
    registration: {
      pack: "ca",
      number: "123456782RT0001",
      from: "2026-01-01",
      frequency: "quarterly",
      anchor: "2026-03-31",
    },
  });
  const register = `Invoice No,Date,Customer,Customer GST number,Place of supply,Net,Tax
1,2026-02-15,Buyer,,Ontario,1000.00,130.00
2,2026-02-16,Buyer,,Alberta,1000.00,50.00
3,2026-02-17,Twin,105452877RT0001,Ontario,1000.00,130.00
4,2026-02-18,Twin Trading,105452877 RT 0001,Alberta,1000.00,50.00
5,2026-02-19,Twin Trading,105452877 RT 0001,Ontario,1000.00,130.00
`;
  const { report } = await droppedOn(server, base, "two.csv", register, "direction=sale");
  const told = report.problems.filter(({ field }) => field === "partyRegion");
  expect(told.map(({ row }) => row)).toEqual([3, 5]);
  expect(told[1]?.message).toMatch(/^Twin Trading has the tax number of Twin, which is in ON/);
});
