import { strFromU8, unzipSync } from "fflate";
import { readSheet } from "read-excel-file/node";
import Papa from "papaparse";
import { afterAll, beforeAll, expect, test } from "vitest";
import type { DetailPage, SummaryRow } from "@fiscalon/contract/reports";
import { british, periodBooks } from "./support/periods.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let base: string;
let registration: string;
const DAYS = "from=2026-04-01&to=2026-06-30";

beforeAll(async () => {
  server = await startServer();
  ({ base, registration } = await newClient(server));
  const post = (kind: string, date: string, lines: object[], more: object = {}) =>
    server.ok("POST", `${base}/documents`, document(kind, date, lines, more));
  await post("sales-invoice", "2026-05-11", [
    { amount: "100.00", code: "S20", text: '=HYPERLINK("http://x","y")' },
    { amount: "40.00", code: "Z" },
  ]);
  await post("sales-credit-note", "2026-05-20", [{ amount: "30.00", code: "S20" }], { number: "C-1" });
  await post("purchase-bill", "2026-06-01", [{ amount: "250.00", code: "S20" }], { number: "B-1" });
  await post("purchase-bill", "2026-06-02", [{ amount: "80.00", code: "RCS" }], { number: "B-2" });
  await post("sales-invoice", "2026-07-01", [{ amount: "999.00", code: "S20" }]);
});
afterAll(() => server.close());

const exported = (kind: string, format: string, more = "") =>
  fetch(`${server.address}/api${base}/reports/tax/export?${DAYS}&kind=${kind}&format=${format}${more}`);

test("the summary, the details and the boxes of the return say the same", async () => {
  const summary = await server.ok<SummaryRow[]>("GET", `${base}/reports/tax/summary?${DAYS}`);
  expect(
    summary.map(({ code, direction, lines, net, tax, recoverable }) => [
      code,
      direction,
      lines,
      net,
      tax,
      recoverable,
    ]),
  ).toEqual([
    ["S20", "sale", 2, 7000, 1400, 0],
    ["Z", "sale", 1, 4000, 0, 0],
    ["RCS", "purchase", 1, 8000, 1600, 1600],
    ["S20", "purchase", 1, 25000, 5000, 5000],
  ]);
  const details = await server.ok<DetailPage>("GET", `${base}/reports/tax/details?${DAYS}&limit=2`);
  expect([details.total, details.rows.length]).toEqual([5, 2]);
  const view = await server.ok<{ boxes: { id: string; amount: number }[] }>(
    "GET",
    `${registration}/returns/2026-06-30`,
  );
  const box = (id: string) => view.boxes.find((one) => one.id === id)?.amount;
  const sum = (key: "tax" | "recoverable", wanted: (row: SummaryRow) => boolean) =>
    summary.filter(wanted).reduce((total, row) => total + row[key], 0);
  expect(box("1")).toBe(sum("tax", ({ direction, code }) => direction === "sale" || code === "RCS"));
  expect(box("4")).toBe(sum("recoverable", () => true));
});

test("filters: side, code, days by the period reported in", async () => {
  const only = async (query: string) =>
    (await server.ok<SummaryRow[]>("GET", `${base}/reports/tax/summary?${query}`)).map(
      ({ code, direction }) => `${code} ${direction}`,
    );
  expect(await only(`${DAYS}&direction=purchase`)).toEqual(["RCS purchase", "S20 purchase"]);
  expect(await only(`${DAYS}&code=Z`)).toEqual(["Z sale"]);
  expect(await only("from=2026-09-30&to=2026-09-30&by=period")).toEqual(["S20 sale"]);
});

test("CSV: rows and totals add up, and a cell that begins like a formula is only text", async () => {
  const csv = await (await exported("by-code", "csv")).text();
  const rows = Papa.parse<string[]>(csv).data;
  expect(rows[0]?.slice(0, 3)).toEqual(["Tax point", "Number", "Party"]);
  expect(rows.find((row) => row[1] === "VAT sale S20 20 %")?.slice(-3)).toEqual(["70.00", "14.00", "0.00"]);
  expect(rows.flat().filter((cell) => cell.startsWith("="))).toEqual([]);
  expect(csv).toContain("'=HYPERLINK");
});

test("the workbook opens, amounts are numbers with their decimals, texts are no formulas", async () => {
  const bytes = Buffer.from(await (await exported("details", "xlsx")).arrayBuffer());
  const rows = await readSheet(bytes);
  expect(rows[0]?.[0]).toBe("Tax transactions");
  expect(rows[3]?.[3]).toBe('=HYPERLINK("http://x","y")');
  expect(rows[3]?.slice(9, 11)).toEqual([100, 20]);
  const files = unzipSync(bytes);
  const sheet = Object.entries(files).find(([name]) => name.endsWith("sheet1.xml"))?.[1];
  expect(strFromU8(sheet ?? new Uint8Array())).not.toContain("<f>");
  expect(strFromU8(files["xl/styles.xml"] ?? new Uint8Array())).toContain('formatCode="#,##0.00"');
});

test("the PDF is one, and a question without days is refused", async () => {
  const pdf = await exported("summary", "pdf");
  expect(pdf.headers.get("content-type")).toBe("application/pdf");
  expect(
    Buffer.from(await pdf.arrayBuffer())
      .subarray(0, 5)
      .toString(),
  ).toBe("%PDF-");
  expect((await server.call("GET", `${base}/reports/tax/summary`)).status).toBe(400);
});

// VATA s.55A: the supplier shows the rate and charges nothing, the buyer owes and deducts the tax (gb.md section 8).
test("reverse charges of both sides by themselves, with the tax that box 1 holds of them", async () => {
  const books = await periodBooks(server, british());
  await books.post(["sales-invoice", "DRS", "1000.00"], "2026-02-01");
  await books.post(["sales-invoice", "S20", "300.00"], "2026-02-02");
  await books.post(["purchase-bill", "DRP", "500.00"], "2026-02-03");
  await books.post(["purchase-bill", "RCS", "40.00", { with: "FR" }], "2026-02-04");
  const rows = async (charged: string) =>
    (
      await server.ok<SummaryRow[]>(
        "GET",
        `${books.base}/reports/tax/summary?from=2026-01-01&to=2026-03-31&charged=${charged}`,
      )
    ).map(({ code, net, tax, recoverable }) => [code, net, tax, recoverable]);
  const owed = [
    ["DRP", 500_00, 100_00, 100_00],
    ["RCS", 40_00, 8_00, 8_00],
  ];
  expect(await rows("self-assessed")).toEqual(owed);
  expect(await rows("declared-only")).toEqual([["DRS", 1000_00, 0, 0]]);
  expect(await rows("reverse")).toEqual([["DRS", 1000_00, 0, 0], ...owed]);
  expect(await books.boxes("2026-03-31")).toMatchObject({ "1": "168", "4": "108" });
});
