import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { BankLinePage } from "@fiscalon/contract/bank";
import type { OpenItemPage, PaymentPage } from "@fiscalon/contract/payments";
import type { DocumentPage } from "@fiscalon/contract/views";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let base: string;
let ids: number[];
beforeAll(async () => {
  server = await startServer();
  ({ base } = await newClient(server));
  const parties = await Promise.all(
    ["Zephyr", "alder", "Marsh"].map((name) =>
      server.ok<{ id: number }>("POST", `${base}/contacts`, { name, country: "GB" }),
    ),
  );
  ids = [];
  for (const [index, [kind, amount]] of (
    [
      ["sales-invoice", "100.00"],
      ["sales-credit-note", "40.00"],
      ["purchase-bill", "70.00"],
      ["sales-invoice", "5.00"],
    ] as const
  ).entries()) {
    const body = document(kind, `2026-05-0${index + 1}`, [{ text: "x", amount, code: "S20" }], {
      number: `N-${index + 1}`,
      contact: parties[index % 3]?.id,
    });
    ids.push((await server.ok<{ id: number }>("POST", `${base}/documents`, body)).id);
  }
});
afterAll(() => server.close());

const refused = (path: string, body?: object) =>
  server.call<{ error: { code: string; message: string; field?: string } }>(
    body ? "POST" : "GET",
    `${base}${path}`,
    body,
  );

describe("lists in the order that is asked for", () => {
  const numbers = async (query: string) =>
    (await server.ok<DocumentPage>("GET", `${base}/documents?${query}`)).rows.map(({ number }) => number);

  test.each([
    ["", ["N-4", "N-3", "N-2", "N-1"]],
    ["sort=date", ["N-1", "N-2", "N-3", "N-4"]],
    ["sort=number&descending=true", ["N-4", "N-3", "N-2", "N-1"]],
    ["sort=gross", ["N-2", "N-4", "N-3", "N-1"]],
    ["sort=gross&descending=true", ["N-1", "N-3", "N-4", "N-2"]],
    ["sort=party", ["N-2", "N-3", "N-4", "N-1"]],
    ["sort=party&search=N-", ["N-2", "N-3", "N-4", "N-1"]],
  ])("documents, %s", async (query, order) => expect(await numbers(query)).toEqual(order));

  test("pages of an order never overlap, whatever it is", async () => {
    for (const sort of ["date", "kind", "number", "party", "net", "tax", "gross"]) {
      const pages = await Promise.all(
        [0, 1, 2, 3].map((offset) => numbers(`sort=${sort}&limit=1&offset=${offset}`)),
      );
      expect([sort, pages.flat()]).toEqual([sort, await numbers(`sort=${sort}`)]);
    }
  });

  test("open items by what is open, the wrong name of a column is refused with those there are", async () => {
    const open = await server.ok<OpenItemPage>("GET", `${base}/open-items?sort=open&on=2026-06-01`);
    expect(open.rows.map(({ open: amount }) => amount)).toEqual([6_00, 48_00, 84_00, 120_00]);
    const wrong = await refused("/documents?sort=gross;DROP%20TABLE%20documents");
    expect([wrong.status, wrong.body.error.field]).toEqual([400, "sort"]);
    expect((await refused("/payments?sort=on_account")).status).toBe(400);
    expect(
      (await server.ok<PaymentPage>("GET", `${base}/payments?sort=amount&descending=true`)).rows,
    ).toEqual([]);
  });
});

describe("several at once: all of them or none", () => {
  test("documents are taken out with one reason; one that cannot be keeps all of them in", async () => {
    const [first = 0, second = 0, , last = 0] = ids;
    const sold = await server.ok<{ contact: { id: number } }>("GET", `${base}/documents/${first}`);
    await server.ok("POST", `${base}/payments`, {
      kind: "receipt",
      date: "2026-05-20",
      amount: "10.00",
      contact: sold.contact.id,
      allocations: [{ document: first, amount: "10.00" }],
    });
    const both = await refused("/documents/void", { documents: [last, first], reason: "typed twice" });
    expect(both.status).toBeGreaterThanOrEqual(400);
    expect(await server.ok("GET", `${base}/documents/${last}`)).toMatchObject({ state: "posted" });

    expect(
      (
        await server.call("POST", `${base}/documents/void`, {
          documents: [last, second],
          reason: "typed twice",
        })
      ).status,
    ).toBe(204);
    for (const id of [last, second])
      expect(await server.ok("GET", `${base}/documents/${id}`)).toMatchObject({ state: "void" });
    const again = await refused("/documents/void", { documents: [last], reason: "typed twice" });
    expect([again.status, again.body.error.code]).toEqual([409, "document/wrong-state"]);
    expect(again.body.error.message).toContain("N-4");
  });

  test.each([
    [{ documents: [], reason: "because" }, "documents"],
    [{ documents: [1, 1], reason: "because" }, "documents[1]"],
    [{ documents: [1] }, "reason"],
    [{ documents: [1], reason: "x" }, "reason"],
  ])("%j is refused at %s", async (body, field) =>
    expect((await refused("/documents/void", body)).body.error.field).toBe(field),
  );

  test("lines of the bank: the best proposal of each that was chosen, refused where one has none", async () => {
    const csv = "Date,Description,Amount\n21/05/2026,Zephyr N-1,110.00\n22/05/2026,Window cleaner,-15.00\n";
    await server.upload(`${base}/bank/1000/statements`, "bank.csv", csv);
    const lines = async () => (await server.ok<BankLinePage>("GET", `${base}/bank/1000/lines`)).rows;
    const [paid, cleaner] = (await lines()).sort((a, b) => b.amount - a.amount);
    expect(paid?.proposals.length).toBeGreaterThan(0);
    const none = await refused("/bank/accept", { account: "1000", lines: [paid?.id, cleaner?.id] });
    expect([none.status, none.body.error.code]).toEqual([422, "bank/no-proposal"]);
    expect(await lines()).toHaveLength(2);
    expect(await server.ok("POST", `${base}/bank/accept`, { account: "1000", lines: [paid?.id] })).toEqual({
      accepted: 1,
    });
    expect(await lines()).toHaveLength(1);
    const twice = await refused("/bank/accept", { account: "1000", lines: [paid?.id] });
    expect(twice.body.error.code).toBe("bank/wrong-state");
  });
});

test("every route says in the API's documents what it answers; only files and streams do not", async () => {
  type Route = { responses?: Record<string, { content?: object }> };
  const api = await server.ok<{ paths: Record<string, Record<string, Route>> }>("GET", "/openapi.json");
  const silent = Object.entries(api.paths).flatMap(([path, methods]) =>
    Object.entries(methods)
      .filter(
        ([, { responses = {} }]) =>
          !Object.keys(responses).some((status) => status === "204" || responses[status]?.content),
      )
      .map(([method]) => `${method.toUpperCase()} ${path.replace("/api", "")}`),
  );
  expect(silent.filter((route) => !route.includes("/simulators/")).sort()).toEqual([
    "GET /clients/{id}/attachments/{attachment}",
    "GET /clients/{id}/codes.csv",
    "GET /clients/{id}/collection/statement",
    "GET /clients/{id}/documents/{document}/e-invoice",
    "GET /clients/{id}/documents/{document}/pdf",
    "GET /clients/{id}/export/audit-file",
    "GET /clients/{id}/export/csv",
    "GET /clients/{id}/imports/{import}/rejected",
    "GET /clients/{id}/pieces/export",
    "GET /clients/{id}/pieces/{no}/pdf",
    "GET /clients/{id}/register-sheets/{sheet}/file",
    "GET /clients/{id}/registrations/{rid}/agreements/{period}/file",
    "GET /clients/{id}/registrations/{rid}/bridge/file",
    "GET /clients/{id}/registrations/{rid}/capital-items/export",
    "GET /clients/{id}/registrations/{rid}/returns/{period}/pdf",
    "GET /clients/{id}/registrations/{rid}/returns/{period}/registers/{register}",
    "GET /clients/{id}/registrations/{rid}/returns/{period}/schemes/{scheme}",
    "GET /clients/{id}/registrations/{rid}/year/file",
    "GET /clients/{id}/reports/tax/export",
    "GET /clients/{id}/statements/{statement}/file",
    "GET /jobs/{id}/events",
    "GET /law/file",
  ]);
});

test("rows and what all come to are asked for apart, and are the same as together", async () => {
  const page = (query: string) => server.ok<DocumentPage>("GET", `${base}/documents?${query}`);
  for (const query of ["search=", "search=N-", "search=zeph", "search=N-4&code=S20", "search=nothing"]) {
    const both = await page(`${query}&limit=2`);
    expect(await page(`${query}&limit=2&part=rows`)).toEqual({ total: null, sums: null, rows: both.rows });
    expect(await page(`${query}&part=sums`)).toEqual({ ...both, rows: [] });
    // Found among the newest, or looked up: in another order they are looked up.
    const [all, looked] = [await page(query), await page(`${query}&sort=date&descending=true`)];
    expect(all.rows).toEqual(looked.rows);
  }
});

test("the contact somebody else's list means: by number, by name where no number is known of it", async () => {
  const other = (await newClient(server)).base;
  const add = (name: string, taxNumber: string | null, region: string | null = null) =>
    server.ok("POST", `${other}/contacts`, { name, country: "GB", taxNumber, region });
  await add("Mill Lane", null);
  await add("Mill", "GB 980 780 684");
  await add("Mill", null, "SCT");
  const meant = async (name: string, number: string) =>
    (
      await server.ok<{ contact: { name: string; taxNumber: string | null } | null }>(
        "GET",
        `${other}/contacts/meant?${new URLSearchParams({ name, number })}`,
      )
    ).contact;
  expect(await meant("somebody", "980780684")).toMatchObject({ name: "Mill" });
  expect(await meant("Mill Lane", "305177772")).toMatchObject({ name: "Mill Lane", taxNumber: null });
  expect(await meant("Mill", "")).toMatchObject({ name: "Mill" });
  expect(await meant("Nobody", "")).toBeNull();
  const regions = await server.ok<object[]>("GET", `${other}/contacts/regions`);
  expect(regions).toHaveLength(2);
  expect(regions).toEqual(
    expect.arrayContaining([
      { country: "GB", region: null },
      { country: "GB", region: "SCT" },
    ]),
  );
});
