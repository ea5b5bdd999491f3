import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind, KindDefinition } from "@fiscalon/core/model/documentKinds";
import { GB_CLIENT, newClient, nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const KINDS = Object.entries(DOCUMENT_KINDS) as [DocumentKind, KindDefinition][];
const [FROM, TO] = ["2021-10-01", "2021-12-31"];

/** GB hospitality was 12.5 % in the winter of 2021 and 20 % from April 2022: VAT Notice 709/1, from memory. */
const SALE_LINE = { text: "Dinner", amount: "100.00", code: "H", account: "4000" };
const PURCHASE_LINE = { text: "Clay", amount: "100.00", code: "S20", account: "5000" };

async function books() {
  const { base, registration } = await newClient(server, {
    ...GB_CLIENT,
    registration: {
      ...GB_CLIENT.registration,
      number: nextVatNumber(),
      from: "2021-10-01",
      anchor: "2021-12-31",
    },
  });
  const party = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Tern and Company",
    country: "GB",
    taxNumber: nextVatNumber(),
  });
  const boxes = async (from = FROM, to = TO) => {
    const path = `${registration}/returns?from=${from}&to=${to}`;
    const view = await server.ok<{ boxes: { id: string; exact: string }[] }>("GET", path);
    return Object.fromEntries(view.boxes.map(({ id, exact }): [string, string] => [id, exact]));
  };
  const balances = async () => {
    const rows = await server.ok<{ code: string; closing: number }[]>(
      "GET",
      `${base}/trial-balance?from=2021-01-01&to=2026-12-31`,
    );
    expect(rows.reduce((sum, { closing }) => sum + closing, 0)).toBe(0);
    return Object.fromEntries(
      rows.filter(({ closing }) => closing !== 0).map((row) => [row.code, row.closing]),
    );
  };
  return { base, boxes, balances, contact: party.id };
}

function bodyOf(kind: DocumentKind, contact: number, more: object = {}): object {
  const { direction, restTo } = DOCUMENT_KINDS[kind] as KindDefinition;
  const own = {
    kind,
    number: "K-1",
    date: "2021-11-11",
    prices: "exclusive",
    contact,
    ...(kind === "import-declaration"
      ? { lines: [{ ...PURCHASE_LINE, code: "IMP", amount: "0.00", typedTax: { VAT: "20.00" } }] }
      : {}),
  };
  if ("lines" in own) return { ...own, ...more };
  if (direction !== null)
    return { ...own, lines: [direction === "sale" ? SALE_LINE : PURCHASE_LINE], ...more };
  const debit = { amount: "40.00", account: "6100" };
  const lines = restTo === null ? [debit, { amount: "-40.00", account: "4000" }] : [debit];
  return { ...own, contact: null, lines, ...more };
}

interface Kept {
  id: number;
  state: string;
  net: number;
  tax: number;
  gross: number;
  input: { kind: string; number: string };
}

describe.each(KINDS)("%s", (kind, definition) => {
  test("is posted, read, corrected and taken out; the books are as if it had never been", async () => {
    const { base, boxes, balances, contact } = await books();
    const [noBoxes, noBalances] = [await boxes(), await balances()];
    const posted = await server.ok<Kept>("POST", `${base}/documents`, bodyOf(kind, contact));
    const [someBoxes, someBalances] = [await boxes(), await balances()];
    expect(someBalances).not.toEqual(noBalances);
    expect(JSON.stringify(someBoxes) === JSON.stringify(noBoxes)).toBe(definition.direction === null);
    const read = await server.ok<Kept>("GET", `${base}/documents/${posted.id}`);
    expect([read.input.kind, read.state, read.net + read.tax]).toEqual([kind, "posted", read.gross]);

    const corrected = await server.ok<Kept>(
      "PUT",
      `${base}/documents/${posted.id}`,
      bodyOf(kind, contact, { note: "another note" }),
    );
    expect((await server.ok<Kept>("GET", `${base}/documents/${posted.id}`)).state).toBe("superseded");
    expect([await boxes(), await balances()]).toEqual([someBoxes, someBalances]);
    const again = await server.call<{ error: { code: string } }>(
      "PUT",
      `${base}/documents/${posted.id}`,
      bodyOf(kind, contact),
    );
    expect([again.status, again.body.error.code]).toEqual([409, "document/wrong-state"]);

    await server.ok("POST", `${base}/documents/${corrected.id}/void`, { reason: "entered by mistake" });
    expect([await boxes(), await balances()]).toEqual([noBoxes, noBalances]);
  });

  test("its credit note keeps the rate of the original and takes all of it back", async () => {
    const { base, boxes, balances, contact } = await books();
    const { creditedBy } = definition;
    const before = await balances();
    await server.ok("POST", `${base}/documents`, bodyOf(kind, contact));
    const credit = async (by: DocumentKind) => {
      const body = bodyOf(kind, contact, { kind: by, number: "CN-1", corrects: "K-1", date: "2022-05-05" });
      return server.call<{ tax: number; error: { code: string } }>("POST", `${base}/documents`, body);
    };
    if (creditedBy === null) return;
    const invoice = await boxes();
    const { status, body } = await credit(creditedBy);
    expect(status).toBe(201);
    const credited = await boxes("2022-04-01", "2022-06-30");
    const tax = definition.direction === "sale" ? "1" : "4";
    expect(Number(credited[tax])).toBe(-Number(invoice[tax]));
    const owed = definition.counter === "receivable" || definition.counter === "payable";
    const left = await balances();
    // What was paid at once is owed back; what was owed is owed no more.
    expect(Object.keys(left).length).toBe(owed ? Object.keys(before).length : 2);
    expect(Number(invoice[tax])).not.toBe(0);
    expect(body.tax).not.toBe(0);
  });

  test("goes through the book file unchanged", async () => {
    const { base, contact } = await books();
    await server.ok("POST", `${base}/documents`, bodyOf(kind, contact));
    const book = await server.ok<{ documents: object[] }>("GET", `${base}/book`);
    expect(book.documents).toHaveLength(1);
    const copy = await server.ok<{ id: number }>("POST", "/books", book);
    expect(await server.ok("GET", `/clients/${copy.id}/book`)).toEqual(book);
  });
});
