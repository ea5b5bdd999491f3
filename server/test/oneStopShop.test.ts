import { afterAll, beforeAll, expect, test } from "vitest";
import type { RegisterView } from "@fiscalon/contract/registers";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { SettlementView } from "@fiscalon/contract/settlement";
import type { TrailStep } from "@fiscalon/contract/trail";
import { INCLUSIVE, periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const [Q1, Q2] = ["2026-03-31", "2026-06-30"];
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const german = (levies: string[]): Country => ({
  pack: "eu-de",
  country: "DE",
  number: "DE271828000",
  frequency: "quarterly",
  anchor: Q1,
  levies,
});
const to = (member: string, more: Record<string, unknown> = {}) => ({
  with: member,
  consumer: true,
  ...INCLUSIVE,
  ...more,
});
const register = async (books: { registration: string }, end: string, id = "oss") => {
  const all = await server.ok<RegisterView[]>("GET", `${books.registration}/returns/${end}/registers`);
  return all.find((one) => one.id === id)?.rows ?? [];
};

// eu.md example 9 (VATD art. 369g): tax by member from the sum of values, in cents.
test("takings of a quarter by member, with the rate of each; due, closed, and moved", async () => {
  const books = await periodBooks(server, german(["OSS"]));
  await books.post(["sales-invoice", "OSG", "120.00", to("FR")], "2026-01-10");
  await books.post(["sales-invoice", "OSS", "251.00", to("FI")], "2026-02-10");
  await books.post(["sales-invoice", "OSG", "73.20", to("IT")], "2026-02-11");
  await books.post(["sales-invoice", "OSG", "58.50", to("LU")], "2026-03-31");
  const boxes = await books.boxes(Q1);
  expect(boxes).toMatchObject({ "FR.G": "100", "FR.G.t": "20", "FI.S": "200", "FI.S.t": "51" });
  expect(boxes).toMatchObject({ "IT.due": "13.20", "LU.due": "8.50", T1: "92.70", T3: "92.70" });
  const view = await server.ok<ReturnView>("GET", `${books.registration}/returns/${Q1}`);
  expect(view.due).toBe("2026-04-30");
  expect((await register(books, Q1)).map(([member, what, , , , , , tax]) => [member, what, tax])).toEqual([
    ["FI", "Services", 51_00],
    ["FI", "Balance", 51_00],
    ["FR", "Goods", 20_00],
    ["FR", "Balance", 20_00],
    ["IT", "Goods", 13_20],
    ["IT", "Balance", 13_20],
    ["LU", "Goods", 8_50],
    ["LU", "Balance", 8_50],
  ]);
  const lists = await server.ok<RegisterView[]>("GET", `${books.registration}/returns/${Q1}/registers`);
  for (const ref of lists.flatMap(({ opens }) => opens))
    expect(
      (await server.call("GET", `${books.base}/trail?ref=${encodeURIComponent(ref ?? "")}`)).status,
    ).toBe(200);
  const rid = books.registration.split("/").at(-1);
  const opened: string[] = [];
  for (let ref: string | null = `box/${rid}/${Q1}/T1`; ref !== null;) {
    const step: TrailStep = await server.ok("GET", `${books.base}/trail?ref=${encodeURIComponent(ref)}`);
    opened.push(ref);
    ref = ref.startsWith("line/") ? null : (step.parts[0]?.ref ?? null);
  }
  const box = (id: string) => `box/${rid}/${Q1}/${id}`;
  expect(opened.slice(0, 5)).toEqual(["T1", "FI.pay", "FI.due", "FI.S.t", "FI.S"].map(box));
  expect(opened.at(-1)).toMatch(/^line\//);
  const total = await server.ok<TrailStep>("GET", `${books.base}/trail?ref=${encodeURIComponent(box("T1"))}`);
  expect(total.arithmetic).toEqual(["Σ pay", "92.70 = 92.70"]);
  // What the law of the member of identification charges for being late, or asks of unpaid bills, is not for this tax.
  const late = await server.ok<SettlementView>("GET", `${books.registration}/settlements/${Q1}`);
  expect(late.lateCharges.proposed).toEqual([]);
  await books.expectSameAfterBookFile();
  await books.seal(Q1);
  await books.settle(Q1);
  expect(await books.left(Q1)).toBe(0);
});

// VATD art. 369g(2): goods sent from another member stand apart, each rate and member by itself.
test("goods from another member and reduced rates are rows of their own, rounded once a row", async () => {
  const books = await periodBooks(server, german(["OSS"]));
  const net = (member: string, more: Record<string, unknown> = {}) =>
    to(member, { prices: "exclusive", ...more });
  await books.post(["sales-invoice", "OSG", "10.03", net("FR")], "2026-01-10");
  await books.post(["sales-invoice", "OSG", "10.03", net("FR")], "2026-01-11"); // 2.006 each: 4.01 together
  await books.post(["sales-invoice", "OSG2", "10.00", net("FR")], "2026-01-12"); // 5.5 %
  await books.post(
    ["sales-invoice", "OSG", "50.00", net("FR", { attributes: { dispatch: "PL" } })],
    "2026-01-13",
  );
  // Sent from Poland to a consumer at home: at the rate of home, by the one-stop shop.
  await books.post(
    ["sales-invoice", "OSG", "100.00", net("DE", { attributes: { dispatch: "PL" } })],
    "2026-01-14",
  );
  const boxes = await books.boxes(Q1);
  expect(boxes).toMatchObject({ "FR.G": "30.06", "FR.G.t": "4.56", "FR.D.PL": "50", "FR.D.PL.t": "10" });
  expect(boxes).toMatchObject({ "FR.due": "14.56", "DE.D.PL.t": "19", T1: "33.56" });
  expect((await register(books, Q1)).filter(([member]) => member === "FR")).toEqual([
    ["FR", "Goods from another member", "PL", "standard", "20", "", 50_00, 10_00],
    ["FR", "Goods", "", "standard", "20", "", 20_06, 4_01],
    ["FR", "Goods", "", "reduced", "5.5", "", 10_00, 55],
    ["FR", "Balance", "", "", "", "", "", 14_56],
  ]);
  expect(await books.left(Q1)).toBe(0);
  const typed = { box: "FR.C", amount: "-3.00", reason: "Corrected before these books", evidence: "" };
  await server.ok("POST", `${books.registration}/returns/${Q1}/adjustments`, typed);
  expect(await books.boxes(Q1)).toMatchObject({ "FR.C": "-3", "FR.due": "11.56" });
  expect((await register(books, Q1)).filter(([, what]) => what === "Correction")).toEqual([
    ["FR", "Correction", "", "", "", "", "", -3_00],
  ]);
  const { rows: contacts } = await server.ok<{ rows: { id: number; name: string }[] }>(
    "GET",
    `${books.base}/contacts`,
  );
  const misspelt = server.call("POST", `${books.base}/documents`, {
    kind: "sales-invoice",
    date: "2026-01-15",
    prices: "exclusive",
    number: "X-2",
    contact: contacts.find(({ name }) => name === "Consumer in FR")?.id,
    lines: [{ code: "OSG", amount: "10.00", attributes: { dispatch: "pl" } }],
  });
  expect((await misspelt).body).toMatchObject({ error: { code: "tax/none-applies" } });
  const refused = await server.call("POST", `${books.base}/documents`, {
    kind: "sales-invoice",
    date: "2026-01-15",
    prices: "exclusive",
    number: "X-1",
    contact: null,
    lines: [{ code: "OSG", amount: "10.00" }],
  });
  expect(refused.status).toBe(422);
  expect(refused.body).toMatchObject({ error: { code: "tax/none-applies" } });
});

// VATD art. 369g(4): corrections by member and period on a later return; a member's total may be negative.
test("what belongs to an earlier quarter is a correction of it, and a member's negative balance is not set off", async () => {
  const books = await periodBooks(server, german(["OSS"]));
  const sold = await books.post(["sales-invoice", "OSG", "240.00", to("FR")], "2026-02-01");
  await books.post(["sales-invoice", "OSG", "122.00", to("IT")], "2026-02-01");
  await books.seal(Q1);
  await books.settle(Q1);
  await books.post(["sales-invoice", "OSG", "60.00", to("FR")], "2026-04-10");
  await books.post(["sales-credit-note", "OSG", "120.00", to("FR", { corrects: sold.number })], "2026-04-12");
  await books.post(["sales-invoice", "OSG", "61.00", to("IT")], "2026-03-20"); // turns up late
  const boxes = await books.boxes(Q2);
  expect(boxes).toMatchObject({
    "FR.G.t": "10",
    "FR.C": "-20",
    "FR.due": "-10",
    "IT.C": "11",
    "IT.due": "11",
  });
  expect(boxes).toMatchObject({ T1: "11", T2: "10", T3: "1" });
  expect((await register(books, Q2)).filter(([, what]) => what === "Correction")).toEqual([
    ["FR", "Correction", "", "", "", Q1, "", -20_00],
    ["IT", "Correction", "", "", "", Q1, "", 11_00],
  ]);
  expect((await register(books, Q2, "oss-record")).length).toBe(3);
  await books.seal(Q2);
  await books.settle(Q2);
  expect(await books.left(Q2)).toBe(0);
});

// eu.md example 12 (VATD art. 59c): 8,200 last year, 9,640 so far, the next sale to France passes 10,000.
test("the very sale that passes the limit of the union bears the tax of the other member", async () => {
  const books = await periodBooks(server, german(["VAT"]), "2025-01-01");
  const goods = (member: string) => to(member, { prices: "exclusive", supply: "goods" });
  await books.post(["sales-invoice", "S19", "8200.00", goods("AT")], "2025-05-05");
  await books.post(["sales-invoice", "S19", "9640.00", goods("FR")], "2026-01-20");
  // Neither a general service nor a business counts.
  await books.post(["sales-invoice", "S19", "5000.00", to("FR", { supply: "services" })], "2026-01-21");
  await books.post(["sales-invoice", "IGL", "7000.00", { with: "FR" }], "2026-01-22");
  const findings = async () => {
    const view = await server.ok<ReturnView>("GET", `${books.registration}/returns/${Q1}`);
    return view.findings.filter(({ check }) => check === "distance-sales");
  };
  expect(await findings()).toEqual([]);
  const passing = await books.post(["sales-invoice", "S19", "420.00", goods("FR")], "2026-02-02");
  const [found] = await findings();
  expect(found?.document).toBe(passing.id);
  expect(found?.text).toContain("10,060.00");
  expect(found?.text).toContain(passing.number);
  // More than the limit in the year before: the other member's tax is due from the first sale on.
  await books.post(["sales-invoice", "S19", "1800.01", goods("AT")], "2025-06-05");
  const [sinceJanuary] = await findings();
  expect(sinceJanuary?.text).toContain("all of 2026. 2 lines of this return");
  await books.post(["sales-credit-note", "S19", "1800.01", goods("AT")], "2025-07-05");
  expect((await findings())[0]?.text).toBe(found?.text);
  // Registered for the one-stop shop, the rules propose the customer's state, and the sale bears its tax.
  await server.ok("POST", `${books.base}/registrations`, {
    pack: "eu-de",
    levies: ["OSS"],
    from: "2026-01-01",
    to: null,
    frequency: "quarterly",
    basis: "accrual",
    number: null,
  });
  const path = `${books.base}/documents`;
  const { contact, input } = await server.ok<{ contact: { id: number }; input: object }>(
    "GET",
    `${path}/${passing.id}`,
  );
  const lines = [{ amount: "420.00", supply: "goods" }];
  const { id } = await server.ok<{ id: number }>("PUT", `${path}/${passing.id}`, {
    ...input,
    contact: contact.id,
    lines,
  });
  const after = await server.ok<{ input: { lines: { code: string }[] }; tax: number }>(
    "GET",
    `${path}/${id}`,
  );
  expect([after.input.lines[0]?.code, after.tax]).toEqual(["OSG", 84_00]);
  expect(await findings()).toEqual([]);
});

test("a member that nothing was sold to takes an adjustment; what is no member is refused, and so is the cash basis", async () => {
  const books = await periodBooks(server, german(["OSS"]));
  const path = `${books.registration}/returns/${Q1}`;
  const { families } = await server.ok<ReturnView>("GET", path);
  expect(families.map(({ id, members }) => [id, members.length])).toEqual(
    ["*.S", "*.E.*", "*.G", "*.D.*", "*.C"].map((id) => [id, 27]),
  );
  const adjusted = (box: string) =>
    server.call("POST", `${path}/adjustments`, { box, amount: "40", reason: "sold at a fair", evidence: "" });
  expect((await adjusted("AT.C")).status).toBe(201);
  expect((await adjusted("FR.D.PL")).status).toBe(201);
  expect(await books.boxes(Q1)).toMatchObject({ "AT.C": "40", "FR.D.PL.t": "8", T1: "48" });
  for (const box of ["XX.C", "FR.D.XX", "*.C"]) expectRefusal(await adjusted(box), "returns/no-box", "box");
  expectRefusal(await books.change({ basis: "cash" }), "registration/basis", "basis");
});
