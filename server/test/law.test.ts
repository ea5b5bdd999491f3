import { afterAll, beforeAll, expect, test } from "vitest";
import { at, found } from "@fiscalon/core/at";
import { doubtsOf } from "@fiscalon/core/jurisdictions/doubts";
import { amendedPack } from "@fiscalon/core/jurisdictions/amendedPack";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import type { BookFile } from "@fiscalon/contract/book";
import type { LawChangeRow, LawFile, LawTaken, LawTouched } from "@fiscalon/contract/law";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { TrailStep } from "@fiscalon/contract/trail";
import { periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const QUARTER = "2026-06-30";
const TEXAS = { pack: "us", country: "US", region: "TX-HOU", levies: ["SALES:TX"], number: "" };
const houston = () => periodBooks(server, { ...TEXAS, frequency: "quarterly", anchor: QUARTER });
/** Invented: no such decision of the city is known. */
const CITY: LawChange = {
  kind: "rate",
  pack: "us",
  source: "a table of the comptroller, read on 3 May 2026",
  schedule: "us.TX-HOU",
  from: "2026-05-01",
  to: null,
  rate: "1.25",
};
const law = (change: object) => server.call<{ id: number }[]>("POST", "/law", { change });
const touched = (change: object) => server.ok<LawTouched>("POST", "/law/touched", { change });
const takeAllBack = async () => {
  for (const { id } of await server.ok<LawChangeRow[]>("GET", "/law"))
    await server.ok("DELETE", `/law/${id}`);
};

test("a corrected rate: told before, open documents worked out anew, sealed ones left, taken back", async () => {
  const books = await houston();
  await books.post(["sales-invoice", "ST", "1000.00"], "2026-02-10");
  await books.seal("2026-03-31");
  const april = await books.post(["sales-invoice", "ST", "1000.00"], "2026-04-10");
  const may = await books.post(["sales-invoice", "ST", "1000.00"], "2026-05-10");
  const gross = async ({ id }: { id: number }) =>
    (await server.ok<{ gross: number }>("GET", `${books.base}/documents/${id}`)).gross;
  expect(await gross(may)).toBe(108250); // 6.25 + 1 + 1

  const { clients } = await touched(CITY);
  const mine = found(clients, ({ client }) => books.base.endsWith(`/${client}`), "this client");
  expect([mine.documents, mine.first.map(({ id }) => id), mine.returns.map(({ end }) => end)]).toEqual([
    1,
    [may.id],
    [QUARTER],
  ]);
  expect(await gross(may)).toBe(108250);

  expect((await law(CITY)).status).toBe(200);
  expect([await gross(april), await gross(may)]).toEqual([108250, 108500]);
  expect((await server.ok<ReturnView>("GET", `${books.registration}/returns/2026-03-31`)).drift).toEqual([]);
  const step = await server.ok<TrailStep>("GET", `${books.base}/trail?ref=line/${may.id}/1`);
  expect(step.words.join(" ")).toContain("1.25 % since 1 May 2026 (a table of the comptroller");
  expectRefusal(await law(CITY), "law/known", "change");

  const book = await server.ok<BookFile>("GET", `${books.base}/book`);
  expect(found(book.schedules?.["us.TX-HOU"] ?? [], ({ to }) => to === null, "the last row").rate).toBe(
    "1.25",
  );
  await takeAllBack();
  expect(await gross(may)).toBe(108250);
  // The books brought along keep the rate they were computed with.
  const again = await server.ok<{ id: number }>("POST", "/books", {
    ...book,
    client: { ...book.client, name: "Houston again" },
  });
  const copy = await server.ok<BookFile>("GET", `/clients/${again.id}/book`);
  expect({ ...copy, client: book.client }).toEqual(book);
});

test("books that come from where the same was corrected follow the law of the practice", async () => {
  const books = await houston();
  await books.post(["sales-invoice", "ST", "1000.00"], "2026-05-10");
  await server.ok("POST", "/law", { change: CITY });
  const book = await server.ok<BookFile>("GET", `${books.base}/book`);
  const { id } = await server.ok<{ id: number }>("POST", "/books", {
    ...book,
    client: { ...book.client, name: "Houston, moved" },
  });
  const gross = async () =>
    (
      await server.ok<{ rows: { gross: number }[] }>("GET", `/clients/${id}/documents?search=&limit=10`)
    ).rows.map((row) => row.gross);
  expect(await gross()).toEqual([108500]);
  await takeAllBack();
  expect(await gross()).toEqual([108250]);
});

test("a rate that is one client's own counts in the formulas of its form too", async () => {
  const books = await periodBooks(server, {
    pack: "nz",
    country: "NZ",
    frequency: "two-monthly",
    anchor: "2026-01-31",
    number: "",
  });
  await books.post(["sales-invoice", "S15", "100.00"], "2026-05-10");
  const rows = [{ from: "2010-10-01", to: null, rate: "10", source: "invented" }];
  await server.ok("PUT", `${books.base}/schedules/nz.STD`, { rows });
  const { boxes } = await server.ok<ReturnView>("GET", `${books.registration}/returns/2026-05-31`);
  expect(found(boxes, ({ id }) => id === "8", "box 8").amount).toBe(1000);
});

test("a due day put off for one period, and the title of a box", async () => {
  const books = await periodBooks(server, {
    pack: "nz",
    country: "NZ",
    frequency: "two-monthly",
    anchor: "2026-01-31",
    number: "",
  });
  await books.post(["sales-invoice", "S15", "100.00"], "2026-05-10");
  await books.post(["sales-invoice", "S15", "100.00"], "2026-07-10");
  const view = (end: string) => server.ok<ReturnView>("GET", `${books.registration}/returns/${end}`);
  const [before, later] = [await view("2026-05-31"), await view("2026-07-31")];
  const source = "a notice after the storm, invented";
  const put: LawChange = {
    kind: "due",
    pack: "nz",
    source,
    frequency: "two-monthly",
    levy: null,
    ends: { from: "2026-05-31", to: "2026-05-31" },
    months: 2,
    day: 15,
    shift: "next",
  };
  const title: LawChange = {
    kind: "title",
    pack: "nz",
    source,
    form: "nz-gst101a",
    box: "5",
    title: "All sales",
  };
  const ends = async (change: LawChange) =>
    (await touched(change)).clients
      .filter(({ client }) => books.base.endsWith(`/${client}`))
      .flatMap(({ returns }) => returns.map(({ end }) => end));
  const formId = found(SHIPPED, ({ id }) => id === "nz", "nz").forms[0]?.id ?? "";
  expect(await ends(put)).toEqual(["2026-05-31"]);
  expect(await ends({ ...title, form: formId })).toEqual(["2026-05-31", "2026-07-31"]);
  await server.ok("POST", "/law", { change: put });
  await server.ok("POST", "/law", { change: { ...title, form: formId } });
  const now = await view("2026-05-31");
  expect([before.due, now.due, (await view("2026-07-31")).due]).toEqual([
    before.due,
    "2026-07-15",
    later.due,
  ]);
  expect(found(now.boxes, ({ id }) => id === "5", "box 5").title).toBe("All sales");
  await takeAllBack();
});

test("what a return rests on is told until it is confirmed; another figure is another question", async () => {
  const books = await houston();
  await books.post(["sales-invoice", "ST", "1000.00"], "2026-05-10");
  const keys = async () =>
    (await server.ok<ReturnView>("GET", `${books.registration}/returns/${QUARTER}`)).doubts.map(
      ({ key }) => key,
    );
  expect(await keys()).toEqual(
    expect.arrayContaining(["rate/us.TX-HOU/2018-01-01", "rate/us.TX-HOU-MTA/2018-01-01"]),
  );
  expect((await keys()).some((key) => key.includes("AUS"))).toBe(false);
  const confirm = { kind: "confirm", pack: "us", source: "comptroller's page, 3 May", value: "1" };
  const city = { ...confirm, subject: "rate/us.TX-HOU/2018-01-01" };
  expectRefusal(await law({ ...city, value: "2" }), "law/unknown", "change.subject");
  expect((await law(city)).status).toBe(200);
  expect(await keys()).not.toContain("rate/us.TX-HOU/2018-01-01");
  expect(await keys()).toContain("rate/us.TX-HOU-MTA/2018-01-01");

  const file = await server.ok<LawFile>("GET", "/law/file");
  await takeAllBack();
  expect(await keys()).toContain("rate/us.TX-HOU/2018-01-01");
  expect(await server.ok<LawTaken>("POST", "/law/file", file)).toEqual({ added: 1, known: 0 });
  expect(await server.ok<LawTaken>("POST", "/law/file", file)).toEqual({ added: 0, known: 1 });
  expect(await keys()).not.toContain("rate/us.TX-HOU/2018-01-01");
  const wrong = { ...file, changes: [CITY, { ...city, subject: "rate/us.NOWHERE/2018-01-01" }] };
  expectRefusal(await server.call("POST", "/law/file", wrong), "law/unknown", "changes[1].subject");
  expect((await server.ok<LawChangeRow[]>("GET", "/law")).length).toBe(1);
  await takeAllBack();
});

test("every doubt of every pack has a key of its own, a reason, and goes away once it is confirmed", () => {
  for (const pack of SHIPPED) {
    const doubts = doubtsOf(pack);
    expect(pack.law?.asOf).toMatch(/^20\d\d-\d\d$/);
    expect(new Set(doubts.map(({ key }) => key)).size).toBe(doubts.length);
    for (const doubt of doubts) {
      expect([doubt.says, doubt.source, doubt.about]).not.toContain("");
      const change = { kind: "confirm", pack: pack.id, source: "x" } as const;
      const after = amendedPack(pack, [{ ...change, subject: doubt.key, value: doubt.value }]);
      expect(doubtsOf(after)).toEqual(doubts.filter(({ key }) => key !== doubt.key));
      const other = amendedPack(pack, [{ ...change, subject: doubt.key, value: `${doubt.value}1` }]);
      expect(doubtsOf(other)).toEqual(doubts);
    }
  }
});

test("a new row cuts what stands on its days, and only that", () => {
  const gb = found(SHIPPED, ({ id }) => id === "gb", "gb");
  const change: LawChange = {
    kind: "rate",
    pack: "gb",
    source: "invented",
    schedule: "gb.STD",
    from: "2010-06-01",
    to: "2011-06-30",
    rate: "18",
  };
  const before = gb.schedules["gb.STD"] ?? [];
  const after = amendedPack(gb, [change]).schedules["gb.STD"] ?? [];
  const rateOn = (rows: typeof after, day: string) =>
    rows.filter((row) => row.from <= day && (row.to === null || day <= row.to)).map(({ rate }) => rate);
  for (const day of ["1999-01-01", "2009-06-01", "2010-05-31", "2011-07-01", "2026-01-01"])
    expect(rateOn(after, day)).toEqual(rateOn(before, day));
  for (const day of ["2010-06-01", "2011-01-04", "2011-06-30"]) expect(rateOn(after, day)).toEqual(["18"]);
  expect(at(after, 0)).toEqual(at(before, 0));
});
