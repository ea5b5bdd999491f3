import { afterAll, beforeAll, expect, test } from "vitest";
import type { BookFile } from "@fiscalon/contract/book";
import type { TrailStep } from "@fiscalon/contract/trail";
import type { DocumentView, OriginalView, TouchedDocuments } from "@fiscalon/contract/views";
import { british, INCLUSIVE, periodBooks } from "./support/periods.ts";
import type { Row } from "./support/periods.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

/**
 * A rate that was wrong is corrected after a return was sealed with it. What was declared stays: on paper, in files, in
 * its trail, in what takes it back. Common practice, no source.
 */
const AT_22 = [
  { from: "2011-01-04", to: "2026-04-30", rate: "20", source: "drawn" },
  { from: "2026-05-01", to: null, rate: "22", source: "drawn" },
];

let server: TestServer;
let base: string;
let registration: string;
let declared: DocumentView;
beforeAll(async () => {
  server = await startServer();
  ({ base, registration } = await newClient(server));
  const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Oxbow",
    country: "GB",
  });
  const lines = [{ text: "Boards", amount: "100.00", code: "S20" }];
  declared = await server.ok("POST", `${base}/documents`, {
    ...document("sales-invoice", "2026-05-11", lines, { number: "SI-1" }),
    contact: contact.id,
  });
  await server.ok("POST", `${registration}/returns/2026-03-31/seal`);
  await server.ok("POST", `${registration}/returns/2026-06-30/seal`);
});
afterAll(() => server.close());

const text = async (path: string) => (await fetch(`${server.address}/api${path}`)).text();
const view = (id = declared.id) => server.ok<DocumentView>("GET", `${base}/documents/${id}`);

test("who corrects it is told what is declared already", async () => {
  const touched = await server.ok<TouchedDocuments>("POST", `${base}/schedules/gb.STD/touched`, {
    rows: AT_22,
  });
  expect(touched).toEqual({ count: 0, declared: 1, first: [] });
  expect((await view()).recordedRates).toEqual([]);
  await server.ok("PUT", `${base}/schedules/gb.STD`, { rows: AT_22 });
  const rate = { code: "S20", levy: "VAT", on: "2026-05-11", rate: "20" };
  expect(await view()).toMatchObject({ tax: 2000, gross: 12000, recordedRates: [rate] });
});

test("its paper, its file and its trail say what was declared", async () => {
  const invoice = await text(`${base}/documents/${declared.id}/e-invoice`);
  expect(invoice).toMatch(/<cbc:Percent>20<\/cbc:Percent>/);
  expect(invoice).toMatch(/<cbc:PayableAmount currencyID="GBP">120.00<\/cbc:PayableAmount>/);
  const file = await text(`${base}/export/audit-file?from=2026-04-01&to=2026-06-30`);
  expect(file).toMatch(/<TaxPercentage>20<\/TaxPercentage>/);
  expect(file).not.toMatch(/22\.00/);
  const step = await server.ok<TrailStep>("GET", `${base}/trail?ref=line/${declared.id}/1`);
  expect(step.amount).toBe(2000);
  expect(step.arithmetic).toEqual([expect.stringContaining("100.00 × 20 % = 20.00")]);
  expect(step.words).toContainEqual(expect.stringMatching(/^VAT 20 % on 11 May 2026 \(recorded with/));
});

test("a credit note takes back what was declared, a new invoice bears the new rate", async () => {
  const query = `kind=sales-credit-note&number=SI-1&contact=${declared.contact?.id}`;
  const { original } = await server.ok<{ original: OriginalView }>(
    "GET",
    `${base}/documents/original?${query}`,
  );
  expect(original).toMatchObject({ date: "2026-05-11", gross: 12000, recordedRates: [{ rate: "20" }] });
  const lines = [{ amount: "100.00", code: "S20" }];
  const credit = await server.ok<DocumentView>(
    "POST",
    `${base}/documents`,
    document("sales-credit-note", "2026-07-02", lines, { number: "SCN-1", corrects: "SI-1" }),
  );
  expect(credit).toMatchObject({ tax: 2000, gross: 12000, recordedRates: [{ rate: "20" }] });
  const anew = document("sales-invoice", "2026-07-02", lines, { number: "SI-2" });
  expect(await server.ok("POST", `${base}/documents`, anew)).toMatchObject({ tax: 2200, recordedRates: [] });
});

test("a line that bears the rate of another day follows that day, and keeps its rate once it is declared", async () => {
  const other = await newClient(server);
  const lines = [
    { amount: "100.00", code: "S20", attributes: { rateOn: "2026-04-20" } },
    { amount: "100.00", code: "S20" },
  ];
  const split = document("sales-invoice", "2026-06-11", lines, { number: "SPLIT" });
  const { id } = await server.ok<DocumentView>("POST", `${other.base}/documents`, split);
  const april = (rate: string) => ({
    rows: [
      { from: "2011-01-04", to: "2026-03-31", rate: "20", source: "drawn" },
      { from: "2026-04-01", to: "2026-04-30", rate, source: "drawn" },
      { from: "2026-05-01", to: null, rate: "20", source: "drawn" },
    ],
  });
  const moved = await server.ok<TouchedDocuments>("PUT", `${other.base}/schedules/gb.STD`, april("15"));
  expect(moved).toMatchObject({ count: 1, declared: 0 });
  const path = `${other.base}/documents/${id}`;
  expect(await server.ok("GET", path)).toMatchObject({ tax: 3500, recordedRates: [] });
  for (const end of ["2026-03-31", "2026-06-30"])
    await server.ok("POST", `${other.registration}/returns/${end}/seal`);
  const late = await server.ok<TouchedDocuments>("PUT", `${other.base}/schedules/gb.STD`, april("17"));
  expect(late).toMatchObject({ count: 0, declared: 1 });
  expect(await server.ok("GET", path)).toMatchObject({
    tax: 3500,
    recordedRates: [{ code: "S20", levy: "VAT", on: "2026-04-20", rate: "15" }],
  });
});

/** A tax beside percentages: a threshold and a rate in a formula, the limit of a credit, the rate in a margin. */
test.each([
  [
    "au",
    [["sales-invoice", "LC", "100000.00"] as Row, ["purchase-bill", "CL", "90000.00"] as Row],
    { "au.LCT": "60000", "au.LCTRATE": "25", "au.CAR": "40000" },
    ["au.CAR", "au.LCT", "au.LCTRATE"],
  ],
  [
    "gb",
    [["sales-invoice", "MGS", "300.00", { attributes: { cost: "180.00" }, ...INCLUSIVE }] as Row],
    { "gb.STD": "25" },
    ["gb.STD"],
  ],
] as const)(
  "%s: what its codes are worked out with beside a percentage stays, too",
  async (pack, rows, rates, schedules) => {
    const country = pack === "gb" ? british() : { ...british(), pack, country: "AU", number: "51824753556" };
    const books = await periodBooks(server, country);
    const posted: { id: number; number: string }[] = [];
    for (const row of rows) posted.push(await books.post(row, "2026-02-10"));
    await books.seal("2026-03-31");
    const seen = () =>
      Promise.all(posted.map(({ id }) => server.ok<DocumentView>("GET", `${books.base}/documents/${id}`)));
    const arithmetic = () =>
      Promise.all(
        posted.map(async ({ id }) => {
          const step = await server.ok<TrailStep>("GET", `${books.base}/trail?ref=line/${id}/1`);
          return [step.amount, step.arithmetic];
        }),
      );
    const [first, told] = [await seen(), await arithmetic()];
    for (const [schedule, rate] of Object.entries(rates)) {
      const body = { rows: [{ from: "2000-01-01", to: null, rate, source: "drawn" }] };
      const change = await server.ok<TouchedDocuments>("PUT", `${books.base}/schedules/${schedule}`, body);
      expect(change.count).toBe(0);
      expect(change.declared).toBeGreaterThan(0);
    }
    const after = await seen();
    expect(await arithmetic()).toEqual(told);
    const left = after.flatMap(({ recordedRates }) => recordedRates.map(({ schedule }) => schedule));
    expect(left.filter((one) => one !== undefined).sort()).toEqual(schedules);
    const [sale] = rows;
    const more = { ...sale[3], corrects: posted[0]?.number };
    const { id: taken } = await books.post(["sales-credit-note", sale[1], sale[2], more], "2026-07-02");
    const credit = await server.ok<DocumentView>("GET", `${books.base}/documents/${taken}`);
    expect([credit.tax, credit.gross]).toEqual([first[0]?.tax, first[0]?.gross]);
    const book = await server.ok<BookFile>("GET", `${books.base}/book`);
    const { id } = await server.ok<{ id: number }>("POST", "/books", {
      ...book,
      client: { ...book.client, name: "Moved" },
    });
    const again = await server.ok<BookFile>("GET", `/clients/${id}/book`);
    expect([again.documents, again.returns]).toEqual([book.documents, book.returns]);
  },
);

test("the books move house with it", async () => {
  const book = await server.ok<BookFile>("GET", `${base}/book`);
  const { id } = await server.ok<{ id: number }>("POST", "/books", {
    ...book,
    client: { ...book.client, name: "Wrackline Joinery, moved" },
  });
  const again = await server.ok<BookFile>("GET", `/clients/${id}/book`);
  expect(again.documents?.map(({ recordedRates = [] }) => recordedRates.map(({ rate }) => rate))).toEqual([
    ["20"],
    ["20"],
    [],
  ]);
  expect([again.documents, again.returns]).toEqual([book.documents, book.returns]);
});
