import { afterAll, beforeAll, expect, test } from "vitest";
import type { ReturnView } from "@fiscalon/contract/returns";
import { periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const JULY = "2026-07-31";
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function maharashtra() {
  const books = await periodBooks(server, {
    pack: "in",
    country: "IN",
    number: "27AAPFM4417K1ZV",
    region: "27",
    frequency: "monthly",
    anchor: "2026-01-31",
  });
  const contact = async (name: string, registered: boolean, region = "27") =>
    (
      await server.ok<{ id: number }>("POST", `${books.base}/contacts`, {
        name,
        country: "IN",
        region,
        registered,
      })
    ).id;
  const post = (
    kind: string,
    number: string,
    date: string,
    party: number,
    code: string,
    amount: string,
    more = {},
  ) =>
    server.ok<{ id: number }>("POST", `${books.base}/documents`, {
      kind,
      number,
      date,
      prices: "exclusive",
      contact: party,
      lines: [{ code, amount }],
      ...more,
    });
  const answer = ({ id }: { id: number }, amends: boolean) =>
    server.call("PUT", `${books.registration}/returns/${JULY}/late/${id}`, {
      kind: "error",
      separately: false,
      amends,
      reason: "read wrongly",
    });
  return { ...books, contact, put: post, answer };
}

// in.md E19, with one more state and a note; the tables are those of GSTR-1, N 26/2022-CT, from memory.
test("what an earlier GSTR-1 held otherwise stands among its amendments, 3.1a takes the difference", async () => {
  const books = await maharashtra();
  const [shop, walkIn, afar] = [
    await books.contact("A shop", true),
    await books.contact("Customers at the counter", false),
    await books.contact("A household in Gujarat", false, "24"),
  ];
  await books.put("sales-invoice", "M/1", "2026-06-03", shop, "S18", "100000.00");
  await books.put("sales-invoice", "M/2", "2026-06-30", walkIn, "S5", "200000.00");
  await books.put("sales-invoice", "M/3", "2026-06-12", afar, "S18", "150000.00"); // 1,77,000 with tax: large
  await books.put("sales-credit-note", "C/1", "2026-06-20", shop, "S18", "4000.00", { corrects: "M/1" });
  await books.seal("2026-06-30");

  const late = { taxPoint: "2026-06-30" };
  const more = await books.put("sales-invoice", "M/1a", "2026-07-15", shop, "S18", "20000.00", late);
  const less = await books.put("sales-credit-note", "M/2a", "2026-07-15", walkIn, "S5", "15000.00", {
    corrects: "M/2",
    originalDate: "2026-06-30",
    ...late,
  });
  const far = await books.put("sales-credit-note", "M/3a", "2026-07-15", afar, "S18", "10000.00", {
    corrects: "M/3",
    originalDate: "2026-06-12",
    ...late,
  });
  const forgotten = await books.put("sales-invoice", "M/4", "2026-06-29", shop, "S18", "1000.00");
  const before = await books.boxes(JULY);
  expect(before).toMatchObject({ "g1.4A.txval": "21000", "g1.7A1.txval": "-15000", "3.1a.txval": "-4000" });

  for (const one of [more, less, far]) expect((await books.answer(one, true)).status).toBe(200);
  const boxes = await books.boxes(JULY);
  expect(boxes).toMatchObject({
    "g1.4A.txval": "1000",
    "g1.9A.b2ba.txval": "20000",
    "g1.9A.b2ba.cgst": "1800",
    "g1.9A.b2ba.sgst": "1800",
    "g1.10A.txval": "-15000",
    "g1.10A.cgst": "-375",
    "g1.9A.b2cla.txval": "-10000",
    "g1.9A.b2cla.igst": "-1800",
    "3.1a.txval": "-4000",
    "3.1a.cgst": before["3.1a.cgst"],
  });
  expect(Object.keys(boxes)).not.toContain("g1.7A1.txval");
  expect(Object.keys(boxes)).not.toContain("g1.9B.cdnur.txval");
  const { late: items } = await server.ok<ReturnView>("GET", `${books.registration}/returns/${JULY}`);
  expect(items.filter(({ amends }) => amends).map(({ number }) => number)).toEqual(["M/1a", "M/2a", "M/3a"]);

  // Worked out anew, they stay where they were put; elsewhere too.
  await server.ok("PUT", `${books.base}/schedules/in.C5`, {
    rows: [{ from: "2017-07-01", to: null, rate: "2.5", source: "the same as before" }],
  });
  expect(await books.boxes(JULY)).toEqual(boxes);
  const book = await server.ok("GET", `${books.base}/book`);
  const { id } = await server.ok<{ id: number }>("POST", "/books", book);
  expect(await server.ok("GET", `/clients/${id}/book`)).toEqual(book);

  for (const one of [more, less, far]) await books.answer(one, false);
  expect(await books.boxes(JULY)).toEqual(before);
  expect((await books.answer(forgotten, true)).status).toBe(200);
  expect(await books.boxes(JULY)).toMatchObject({ "g1.9A.b2ba.txval": "1000" });
});

test("only what stands in a table with amendments can amend", async () => {
  const books = await maharashtra();
  const shop = await books.contact("A supplier", true);
  await books.seal("2026-06-30");
  const bill = await books.put("purchase-bill", "B/1", "2026-06-30", shop, "P18", "500.00");
  expectRefusal(await books.answer(bill, true), "returns/nothing-amended", "amends");
});

// CGST s.9(5), GSTR-1 table 15: a restaurant's 1,000.00 through the operator, 25 + 25 in cash; the four kinds from memory.
test("table 15 has four kinds: by the supplier behind, and by the customer", async () => {
  const books = await maharashtra();
  const guest = await books.contact("A guest", false);
  const office = await books.contact("An office", true);
  const kinds = [
    [guest, { supplier: "URP" }, "1000.00"],
    [guest, { supplier: "27AAPFM4417K1ZV" }, "2000.00"],
    [office, { supplier: "URP" }, "3000.00"],
    [office, {}, "4000.00"],
  ] as const;
  for (const [index, [party, attributes, amount]] of kinds.entries())
    await books.put("sales-invoice", `E/${index}`, "2026-07-03", party, "EO5", amount, {
      lines: [{ code: "EO5", amount, attributes }],
    });
  expect(await books.boxes(JULY)).toMatchObject({
    "g1.15.urp2c.txval": "1000",
    "g1.15.urp2c.cgst": "25",
    "g1.15.b2c.txval": "2000",
    "g1.15.urp2b.sgst": "75",
    "g1.15.b2b.txval": "4000",
    "g1.15.txval": "10000",
    "g1.15.cgst": "250",
    "3.1.1i.txval": "10000",
  });
  const { findings } = await server.ok<ReturnView>("GET", `${books.registration}/returns/${JULY}`);
  const asked = findings.filter(({ check }) => check === "operator-supplier");
  expect(new Set(asked.map(({ text }) => text.split(":")[0])).size).toBe(1);
});
