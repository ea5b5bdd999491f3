import { afterAll, beforeAll, expect, onTestFinished, test, vi } from "vitest";
import { found } from "@fiscalon/core/at";
import type { BoxesBetween, ReturnView } from "@fiscalon/contract/returns";
import type { MethodComparison } from "@fiscalon/contract/compareMethods";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import type { PricePreview } from "@fiscalon/contract/views";
import type { SettlementView } from "@fiscalon/contract/settlement";
import type { TrailStep } from "@fiscalon/contract/trail";
import { british, periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const [Q1, Q2, Q3] = ["2026-03-31", "2026-06-30", "2026-09-30"];
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const inForce = (sector: string, from = "2026-01-01", to: string | null = null) => ({
  scheme: "gb-flat-rate",
  from,
  to,
  settings: { sector },
});

async function trader(schemes: object[], country: Partial<Country> = {}) {
  const client = await periodBooks(server, british(country));
  const join = (list: object[]) => client.change({ schemes: list });
  if (schemes.length > 0) expect((await join(schemes)).status).toBe(200);
  return {
    ...client,
    join,
    workpaper: async (end: string) =>
      (await server.ok<SchemeView[]>("GET", `${client.registration}/returns/${end}/schemes`))[0],
    view: (end: string) => server.ok<ReturnView>("GET", `${client.registration}/returns/${end}`),
    settlement: (end: string) =>
      server.ok<SettlementView>("GET", `${client.registration}/settlements/${end}`),
  };
}
type Trader = Awaited<ReturnType<typeof trader>>;

/** The quarter of E22: sales of 14,400 with tax and 300 at zero, goods of 540, a chair of 2,640. */
async function hairdresser({ post }: Trader, goods: string, month = "2026-05") {
  await post(["sales-invoice", "S20", "13400.00", { prices: "inclusive" }], `${month}-04`);
  await post(["sales-invoice", "S20", "1000.00", { prices: "inclusive" }], `${month}-20`);
  await post(["sales-invoice", "Z", "300.00"], `${month}-21`);
  await post(["purchase-bill", "S20", goods, { supply: "goods" }], `${month}-06`);
  await post(["purchase-bill", "S20", "900.00", { supply: "services" }], `${month}-07`);
  await post(["purchase-bill", "CAP20", "2200.00"], `${month}-08`);
  await post(["purchase-bill", "CAP20", "500.00"], `${month}-09`);
}

// VAT Notice 733; E22 of gb.md. The client is in its first year, so a percent less than in the second (E22: 1,911.00).
test("the flat rate of turnover with tax, a dear asset deducted, the rest set aside and told", async () => {
  const client = await trader([inForce("hair")]);
  await hairdresser(client, "450.00");
  const boxes = { "1": "1764", "3": "1764", "4": "440", "5": "1324", "6": "14700", "7": "2200" };
  expect(await client.boxes(Q2)).toEqual(boxes);
  const paper = await client.workpaper(Q2);
  expect(paper?.steps.map(({ box, amount }) => [box, amount])).toEqual([
    ["6", 14_700_00],
    [null, 540_00],
    ["1", 1_764_00],
    ["4", 440_00],
    ["7", 2_200_00],
  ]);
  expect(paper?.settings).toEqual([{ name: "Sector", value: "Hairdressing or other beauty treatment" }]);
  // Charged 2,400.00; deducted without it 90 + 180 + 440 + 100.
  expect(
    paper?.setAside.map(({ code, direction, tax, recoverable }) => [code, direction, tax, recoverable]),
  ).toEqual(
    expect.arrayContaining([
      ["S20", "sale", 2_400_00, 0],
      ["S20", "purchase", 270_00, 270_00],
      ["CAP20", "purchase", 540_00, 540_00],
    ]),
  );
  expect(paper?.gain).toBe(1_764_00 - 440_00 - (2_400_00 - 270_00 - 540_00));
  const { findings } = await client.view(Q2);
  expect(findings.map(({ check }) => check)).not.toContain("more-than-rounding");

  const rid = client.registration.split("/").at(-1);
  const step = await server.ok<TrailStep>("GET", `${client.base}/trail?ref=box/${rid}/${Q2}/1`);
  const [part] = step.parts;
  expect(part?.amount).toBe(1_764_00);
  const below = await server.ok<TrailStep>("GET", `${client.base}/trail?ref=${part?.ref}`);
  expect(below.arithmetic).toEqual(["14,700.00 × 12 % = 1,764.00"]);
  expect(below.parts.reduce((sum, { amount }) => sum + (amount ?? 0), 0)).toBe(14_700_00);

  await client.seal(Q1);
  await client.seal(Q2);
  await server.ok("POST", `${client.registration}/returns/${Q2}/reopen`);
  expect(await client.boxes(Q2)).toEqual(boxes);
  await client.seal(Q2);
  await client.settle(Q2);
  expect(await client.left(Q2)).toBe(0);
  const rows = await server.ok<{ code: string; closing: number }[]>(
    "GET",
    `${client.base}/trial-balance?from=2026-04-01&to=${Q2}`,
  );
  const of = (code: string) => rows.find((row) => row.code === code)?.closing ?? 0;
  // What was charged and not declared is income, beside it nothing is in rounding.
  expect([of("4950"), of("7940"), of("7910"), of("2210"), of("1200"), of("2200")]).toEqual([
    -266_00, 0, 0, -1_324_00, 0, 0,
  ]);
  expect((await client.settlement(Q2)).outstanding).toBe(1_324_00);
  expectRefusal(await client.join([inForce("retail")]), "scheme/sealed", "schemes");
  expect((await client.join([inForce("hair", "2026-01-01", Q2)])).status).toBe(200);

  const book = await server.ok("GET", `${client.base}/book`);
  const { id } = await server.ok<{ id: number }>("POST", "/books", book);
  expect(await server.ok("GET", `/clients/${id}/book`)).toEqual(book);
});

// Limited cost: goods of 240.00 are below 294.00, E22 and 7.1 of gb.md: 16.5 %, here less one in the first year.
test("a limited cost trader pays the higher rate", async () => {
  const client = await trader([inForce("hair")]);
  await hairdresser(client, "200.00");
  expect(await client.boxes(Q2)).toMatchObject({ "1": "2278.50", "6": "14700" }); // 14,700 × 15.5 %
  const paper = await client.workpaper(Q2);
  expect(found(paper?.steps ?? [], ({ id }) => id.startsWith("limited-cost"), "the test").arithmetic).toBe(
    "240.00 against 2 % of 14,700.00 = 294.00, and 250.00 for 3 months",
  );
});

// Example of gb.md 7.11: registered 10 February 2026, sector 12 %, the quarter to 31 March 2027.
test("the discount of the first year ends inside a quarter", async () => {
  const client = await trader([]);
  const { id } = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/clients", {
    name: "Laundry",
    country: "GB",
    place: { name: "Shop", country: "GB" },
    registration: {
      pack: "gb",
      from: "2026-02-10",
      frequency: "quarterly",
      anchor: Q1,
      number: nextVatNumber(),
      schemes: [inForce("laundry", "2026-02-10")],
    },
  });
  const { registrations } = await server.ok<{ registrations: { id: number }[] }>("GET", `/clients/${id}`);
  const base = `/clients/${id}`;
  const sell = (date: string, amount: string, number: string) =>
    server.ok("POST", `${base}/documents`, {
      kind: "sales-invoice",
      number,
      date,
      prices: "inclusive",
      lines: [{ code: "S20", amount }],
    });
  await sell("2027-02-09", "6000.00", "A");
  await sell("2027-02-10", "9000.00", "B");
  await server.ok("POST", `${base}/documents`, {
    kind: "expense",
    date: "2027-02-10",
    prices: "inclusive",
    lines: [{ code: "S20", amount: "400.00", supply: "goods" }],
  });
  const { boxes } = await server.ok<ReturnView>(
    "GET",
    `${base}/registrations/${registrations[0]?.id}/returns/2027-03-31`,
  );
  expect(found(boxes, ({ id: box }) => box === "1", "box 1").amount).toBe(1_740_00);
  expect(found(boxes, ({ id: box }) => box === "6", "box 6").amount).toBe(15_000_00);
  expect(await client.workpaper(Q2)).toBeUndefined();
});

test("reverse charges, relief and sales of assets stay outside; an import is due and not deducted", async () => {
  const client = await trader([inForce("business", "2026-04-01")]);
  await client.post(["sales-invoice", "S20", "1200.00", { prices: "inclusive" }], "2026-02-02");
  await client.post(["sales-invoice", "S20", "12000.00", { prices: "inclusive" }], "2026-05-02");
  await client.post(["purchase-bill", "S20", "600.00", { supply: "goods" }], "2026-05-03");
  await client.post(["sales-invoice", "SA20", "1000.00"], "2026-05-04"); // 200.00 to box 1, 1,000 to box 6
  await client.post(["purchase-bill", "RCS", "500.00", { with: "FR" }], "2026-05-05"); // 100.00 in 1 and 4
  await client.post(["purchase-bill", "PVA20", "1000.00", { with: "CN" }], "2026-05-06"); // 200.00 in 1 only
  expect(await client.boxes(Q1)).toMatchObject({ "1": "200", "6": "1000" });
  // 12,000 × 11 % = 1,320.00
  expect(await client.boxes(Q2)).toEqual({
    "1": "1820",
    "3": "1820",
    "4": "100",
    "5": "1720",
    "6": "13500",
    "7": "500",
  });
  // A sale of March found late is taxed as it was then, one of May at the flat rate.
  await client.seal(Q1);
  await client.seal(Q2);
  await client.post(["sales-invoice", "S20", "1200.00", { prices: "inclusive" }], "2026-03-10");
  await client.post(["sales-invoice", "S20", "1200.00", { prices: "inclusive" }], "2026-05-10");
  expect(await client.boxes(Q3)).toMatchObject({ "1": "332", "6": "2200" }); // 200.00 and 11 % of 1,200.00
});

// Errors of an earlier period are put right at what that period bore (VAT Notice 700/45); the rates are E22's, a percent
// less in the first year. Goods of the second quarter were below its share, so it was a limited cost quarter.
test("what turns up late bears the rate of its own time: another sector, limited cost, after the scheme was left", async () => {
  const client = await trader([inForce("hair", "2026-01-01", Q2), inForce("retail", "2026-07-01", Q3)]);
  const sell = (amount: string, date: string) =>
    client.post(["sales-invoice", "S20", amount, { prices: "inclusive" }], date);
  for (const date of ["2026-01-10", "2026-04-10", "2026-07-10", "2026-10-10"]) {
    await sell("12000.00", date);
    if (date !== "2026-04-10")
      await client.post(["purchase-bill", "S20", "600.00", { supply: "goods" }], date);
  }
  for (const end of [Q1, Q2, Q3]) await client.seal(end);
  await sell("1000.00", "2026-01-20"); // 12 %
  await sell("1000.00", "2026-04-20"); // 15.5 %
  await sell("1000.00", "2026-07-20"); // 7.5 less one
  const boxes = await client.boxes("2026-12-31");
  // 2,000.00 of the quarter itself, ordinary again, with its input tax of 120.00.
  expect(boxes).toMatchObject({ "1": "2340", "4": "120", "6": "13000" });
  const paper = await client.workpaper("2026-12-31");
  expect(
    paper?.steps.filter(({ box }) => box === "1").map(({ words, amount }) => [words.split(":")[0], amount]),
  ).toEqual([
    ["Of the period to 31 Mar 2026", 120_00],
    ["Of the period to 30 Jun 2026", 155_00],
    ["Of the period to 30 Sept 2026", 65_00],
  ]);
  expect((await client.view("2026-12-31")).findings.map(({ check }) => check)).not.toContain(
    "more-than-rounding",
  );
  for (const end of [Q1, Q2, Q3, "2026-12-31"]) expect(await client.left(end)).toBe(0);
});

test("boxes of single days and of several periods are under the scheme too", async () => {
  const client = await trader([inForce("hair")]);
  await hairdresser(client, "450.00", "2026-02");
  await hairdresser(client, "450.00", "2026-05");
  const between = async (from: string, to: string) => {
    const { boxes } = await server.ok<BoxesBetween>(
      "GET",
      `${client.registration}/returns?from=${from}&to=${to}`,
    );
    return Object.fromEntries(boxes.map(({ id, amount }) => [id, amount]));
  };
  const year = await between("2026-01-01", Q2);
  expect([year["1"], year["4"], year["6"], year["7"]]).toEqual(["3528.00", "880.00", "29400", "4400"]);
  const [first, rest] = [
    await between("2026-05-01", "2026-05-10"),
    await between("2026-05-11", "2026-05-31"),
  ];
  expect([first["1"], first["4"], first["6"]]).toEqual(["1608.00", "440.00", "13400"]);
  expect([rest["1"], rest["4"], rest["6"]]).toEqual(["156.00", "0.00", "1300"]);
});

// VAT Notice 733, section 15: a single purchase of 2,000 or more with tax, whatever the parts on the bill.
test("the goods of one bill are one purchase, and its trail opens each line", async () => {
  const client = await trader([inForce("hair")]);
  const line = (text: string, amount: string) => ({ text, amount, code: "CAP20" });
  await server.ok("POST", `${client.base}/documents`, {
    kind: "purchase-bill",
    number: "SET-1",
    date: "2026-05-05",
    prices: "exclusive",
    lines: [line("Table", "1000.00"), line("Chairs", "800.00")],
  });
  expect(await client.boxes(Q2)).toMatchObject({ "4": "360", "7": "1800" });
  const paper = await client.workpaper(Q2);
  const rid = client.registration.split("/").at(-1);
  for (const { id, box, amount } of paper?.steps ?? []) {
    const step = await server.ok<TrailStep>("GET", `${client.base}/trail?ref=scheme/${rid}/${Q2}/${id}`);
    expect(step.amount).toBe(amount);
    if (box === "4") expect(step.parts).toHaveLength(1);
  }
});

test("while a document is typed the scheme is reckoned with", async () => {
  const client = await trader([inForce("hair")]);
  const moved = async (kind: string, code: string, amount: string, more: object = {}) => {
    const document = {
      kind,
      date: "2026-05-04",
      prices: "inclusive",
      number: "X",
      lines: [{ code, amount, ...more }],
    };
    const { boxes } = await server.ok<PricePreview>("POST", "/price", {
      client: Number(client.base.split("/").at(-1)),
      document,
    });
    return Object.fromEntries(boxes.map(({ box, amount: by }) => [box, by]));
  };
  expect(await moved("sales-invoice", "S20", "1200.00")).toEqual({ "1": "144.00", "6": "1200.00" });
  expect(await moved("sales-credit-note", "S20", "600.00")).toEqual({ "1": "-72.00", "6": "-600.00" });
  expect(await moved("purchase-bill", "S20", "120.00")).toEqual({});
  expect(await moved("purchase-bill", "CAP20", "2400.00")).toEqual({ "4": "400.00", "7": "2000.00" });
  expect(await moved("purchase-bill", "CAP20", "1200.00")).toEqual({});
  expect(await moved("sales-invoice", "SA20", "1200.00")).toEqual({ "1": "200.00", "6": "1000.00" });
});

test("the methods open to a client are compared for the last twelve months, nothing is written", async () => {
  vi.useFakeTimers({ toFake: ["Date"], now: new Date("2026-11-20T12:00:00Z") });
  onTestFinished(() => void vi.useRealTimers());
  const client = await trader([inForce("hair", "2026-01-01", Q2)]);
  for (const date of ["2026-02-04", "2026-05-04", "2026-08-04"]) {
    await client.post(["sales-invoice", "S20", "12000.00", { prices: "inclusive" }], date);
    await client.post(["purchase-bill", "S20", "600.00", { prices: "inclusive", supply: "goods" }], date);
  }
  const compare = (answers: object) =>
    server.ok<MethodComparison>("POST", `${client.registration}/methods`, { answers });
  const before = await server.ok("GET", `${client.base}/book`);
  const { periods, turnover, methods } = await compare({ sector: "business" });
  expect(periods.map(({ to }) => to)).toEqual([Q1, Q2, Q3]);
  expect(turnover).toMatchObject({ net: 30_000_00, withTax: 36_000_00 });
  expect(methods.map(({ id, output, input, now, bar }) => [id, output, input, now, bar])).toEqual([
    ["ordinary", [2_000_00, 2_000_00, 2_000_00], [100_00, 100_00, 100_00], true, null],
    // 12 % less one in the first year.
    ["gb-flat-rate", [1_320_00, 1_320_00, 1_320_00], [0, 0, 0], false, null],
  ]);
  expect(await server.ok("GET", `${client.base}/book`)).toEqual(before);
});

// VATA 1994 s.26A takes back what was deducted; on the scheme nothing is but the tax of dear assets.
test("bills that stay unpaid give nothing back that was never deducted", async () => {
  const client = await trader([inForce("hair")]);
  await client.post(["purchase-bill", "S20", "900.00"], "2026-01-07");
  await client.post(["purchase-bill", "CAP20", "2200.00"], "2026-01-08");
  await client.post(["purchase-bill", "S20", "500.00", { account: "6600" }], "2026-08-08"); // entertaining
  const { rules } = await server.ok<{ rules: { id: string; count: number; owed: number }[] }>(
    "GET",
    `${client.registration}/unpaid/${Q3}`,
  );
  expect(rules.map(({ id, count, owed }) => [id, count, owed])).toEqual([
    ["bad-debt", 0, 0],
    ["unpaid-input", 1, 440_00],
  ]);
  const checks = (await client.view(Q3)).findings.map(({ check }) => check);
  expect(checks).toContain("unpaid-input");
  expect(checks).not.toContain("blocked");
});

// SI 1995/2518 reg. 55M: 230,000 with tax in the year.
test("income above the limit of the scheme is a finding with the figure", async () => {
  const client = await trader([inForce("retail")]);
  await client.post(["sales-invoice", "S20", "230000.00", { prices: "inclusive" }], "2026-02-02");
  const checks = async () => (await client.view(Q2)).findings.filter(({ check }) => check === "scheme-limit");
  expect(await checks()).toEqual([]);
  await client.post(["sales-invoice", "Z", "0.01"], "2026-05-02");
  expect((await checks()).map(({ text }) => text)).toEqual([
    expect.stringContaining("is 230,000.01, above 230,000.00"),
  ]);
});

test("a scheme is joined and left with a filing period, with an answer to what it asks", async () => {
  const client = await trader([]);
  const refused: [object, string, string][] = [
    [inForce("hair", "2026-04-02"), "scheme/start", "schemes[0].from"],
    [inForce("hair", "2026-04-01", "2026-07-31"), "scheme/end", "schemes[0].to"],
    [inForce("juggling"), "scheme/setting", "schemes[0].settings"],
    [{ ...inForce("hair"), scheme: "gb-none" }, "scheme/unknown", "schemes[0].scheme"],
  ];
  for (const [one, code, field] of refused) expectRefusal(await client.join([one]), code as never, field);
  expectRefusal(
    await client.join([inForce("hair"), inForce("retail", "2026-07-01")]),
    "scheme/overlap",
    "schemes[0].to",
  );
  expect(
    (await client.join([inForce("hair", "2026-01-01", Q2), inForce("retail", "2026-07-01")])).status,
  ).toBe(200);
});
