import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { droppedOn } from "./support/dropped.ts";
import type { Dropped } from "./support/dropped.ts";
import { newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const dropped = (...given: Dropped) => droppedOn(server, ...given);

describe("what is taken along comes in elsewhere", () => {
  const boxesOf = async (registration: string) =>
    (
      await server.ok<{ boxes: { id: string; exact: string }[] }>(
        "GET",
        `${registration}/returns?from=2026-04-01&to=2026-06-30`,
      )
    ).boxes.map(({ id, exact }) => [id, exact]);

  test("the books as an audit file give another client the same return", async () => {
    const { base, registration } = await newClient(server);
    const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
      name: "Oxbow",
      country: "GB",
    });
    const post = (kind: string, number: string, lines: object[], more: object = {}) =>
      server.ok<{ id: number }>("POST", `${base}/documents`, {
        kind,
        number,
        date: "2026-05-07",
        contact: contact.id,
        prices: "exclusive",
        lines,
        ...more,
      });
    const { id } = await post("sales-invoice", "A1", [
      { text: "Bowl & lid", amount: "10.03", code: "S20" },
      { amount: "7.77", code: "R5", prices: "inclusive" },
      { amount: "3.00", code: "Z" },
    ]);
    const kept = await server.ok<{ net: number; tax: number; input: { lines: { prices?: string }[] } }>(
      "GET",
      `${base}/documents/${id}`,
    );
    // 7.77 ÷ 1.05 = 7.40, tax 0.37; 10.03 × 20 % = 2.006.
    expect([kept.net, kept.tax]).toEqual([10_03 + 7_40 + 3_00, 2_01 + 37]);
    expect(kept.input.lines.map(({ prices }) => prices)).toEqual([undefined, "inclusive", undefined]);
    await post("sales-credit-note", "C1", [{ amount: "5.00", code: "S20" }]);
    await post("purchase-bill", "B1", [{ amount: "99.99", code: "S20", typedTax: { VAT: "19.98" } }], {
      prices: "inclusive",
    });
    const file = await fetch(`${server.address}/api${base}/export/audit-file?from=2026-04-01&to=2026-06-30`);
    const other = await newClient(server);
    const { post: take, report } = await dropped(
      other.base,
      "theirs.xml",
      await file.text(),
      "content=audit-file",
    );
    expect(report.problems).toEqual([]);
    expect((await take()).state).toBe("done");
    expect(await boxesOf(other.registration)).toEqual(await boxesOf(registration));
  });

  test("an invoice sent as e-invoice becomes the buyer's bill, with itself as its paper; and it is printed", async () => {
    const { base } = await newClient(server);
    const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
      name: "Buyer Ltd",
      country: "GB",
    });
    const invoice = await server.ok<{ id: number; gross: number }>("POST", `${base}/documents`, {
      kind: "sales-invoice",
      date: "2026-05-07",
      contact: contact.id,
      prices: "inclusive",
      lines: [
        { text: "Chairs", quantity: "7", unitPrice: "9.99", code: "S20" },
        { text: "Book", amount: "12.50", code: "Z" },
      ],
    });
    const file = (what: string) => fetch(`${server.address}/api${base}/documents/${invoice.id}/${what}`);
    const xml = await (await file("e-invoice")).text();
    const pdf = Buffer.from(await (await file("pdf")).arrayBuffer());
    expect([pdf.subarray(0, 5).toString("latin1"), pdf.length > 5_000]).toEqual(["%PDF-", true]);

    const buyer = await newClient(server);
    const { report, post } = await dropped(buyer.base, "from-seller.xml", xml, "direction=purchase");
    expect([report.fresh, report.notices, report.problems]).toEqual([1, [], []]);
    expect((await post()).state).toBe("done");
    const { rows } = await server.ok<{ rows: { id: number; kind: string; gross: number; party: string }[] }>(
      "GET",
      `${buyer.base}/documents`,
    );
    expect(rows[0]).toMatchObject({
      kind: "purchase-bill",
      gross: invoice.gross,
      party: "Wrackline Joinery Ltd",
    });
    const papers = await server.ok<{ name: string }[]>(
      "GET",
      `${buyer.base}/documents/${rows[0]?.id}/attachments`,
    );
    expect(papers.map(({ name }) => name)).toEqual(["from-seller.xml"]);
  });

  test("series have no gaps of their own, and say which numbers are missing; kept documents are posted once a date", async () => {
    const { base, registration } = await newClient(server);
    const sell = (number = "") =>
      server.ok<{ id: number; input: { number: string } }>("POST", `${base}/documents`, {
        kind: "sales-invoice",
        number,
        date: "2026-05-07",
        lines: [{ amount: "1.00", code: "S20" }],
      });
    await server.ok("PUT", `${base}/series/sales-invoice`, { prefix: "2026/", digits: 3 });
    expect((await sell()).input.number).toBe("2026/001");
    const second = await sell();
    await server.ok("POST", `${base}/documents/${second.id}/void`, { reason: "typed twice" });
    await sell("2026/006");
    expect((await sell()).input.number).toBe("2026/007");
    const series = await server.ok<{ kind: string; missing: string[]; missingCount: number }[]>(
      "GET",
      `${base}/series`,
    );
    expect(series.find(({ kind }) => kind === "sales-invoice")).toMatchObject({
      missing: ["2026/003", "2026/004", "2026/005"],
      missingCount: 3,
    });

    const { findings } = await server.ok<{ findings: { check: string; text: string }[] }>(
      "GET",
      `${registration}/returns/2026-06-30`,
    );
    expect(findings.filter(({ check }) => check === "series-gap").map(({ text }) => text)).toEqual([
      expect.stringContaining("3 numbers from 2026/003 on are missing between 2026/002 and 2026/006"),
    ]);

    const rent = {
      kind: "purchase-bill",
      date: "2026-01-31",
      lines: [{ text: "Rent", amount: "500.00", code: "EX" }],
    };
    await server.ok("PUT", `${base}/templates`, {
      name: "Rent",
      document: rent,
      every: "monthly",
      nextOn: "2026-01-31",
      until: "2026-04-30",
    });
    const [kept] = await server.ok<{ due: string[] }[]>("GET", `${base}/templates`);
    expect(kept?.due).toEqual(["2026-01-31", "2026-02-28", "2026-03-31", "2026-04-30"]);
    expect(await server.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 4, failed: 0 });
    expect(await server.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 0, failed: 0 });
    const [after] = await server.ok<{ nextOn: string }[]>("GET", `${base}/templates`);
    expect(after?.nextOn).toBe("2026-05-31");
    const exported = await server.ok<{ series: object[]; templates: object[] }>("GET", `${base}/book`);
    expect([exported.series.length, exported.templates.length]).toEqual([1, 1]);
    const copy = await server.ok<{ id: number }>("POST", "/books", exported);
    expect(await server.ok("GET", `/clients/${copy.id}/book`)).toEqual(exported);
  });
});
