import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, test } from "vitest";
import { at, found } from "@fiscalon/core/at";
import type { StatementLetter } from "@fiscalon/contract/statements";
import { periodBooks } from "./support/periods.ts";
import { dropped } from "./support/statements.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const OCTOBER = "2026-10-31";
const HOME = "29";
// The portal's statement in its published field names, version of 2026; from memory.
const SAMPLE = readFileSync(new URL("samples/gstr2b.json", import.meta.url), "utf8");

async function indianBooks() {
  const books = await periodBooks(server, {
    pack: "in",
    country: "IN",
    region: HOME,
    frequency: "monthly",
    anchor: OCTOBER,
    number: "29AAKCH4821P1ZX",
  });
  const party = async (name: string, taxNumber: string | null, country = "IN") => {
    const region = taxNumber?.slice(0, 2) ?? null;
    const body = { name, country, region, registered: taxNumber !== null, taxNumber: taxNumber ?? "" };
    return (await server.ok<{ id: number }>("POST", `${books.base}/contacts`, body)).id;
  };
  const bill = (
    number: string,
    date: string,
    contact: number,
    lines: [string, string][],
    more: object = {},
  ) =>
    server.ok<{ id: number }>("POST", `${books.base}/documents`, {
      kind: "purchase-bill",
      prices: "exclusive",
      number,
      date,
      contact,
      lines: lines.map(([code, amount]) => ({ code, amount })),
      ...more,
    });
  return { ...books, party, bill };
}

test("GSTR-2B against the books: every outcome, credit held back and given back, and the month after", async () => {
  const books = await indianBooks();
  const timber = await books.party("Sample Timber Depot", "29AADCS9042L1ZU");
  const hardware = await books.party("Sample Hardware South", "33AAGCN2208J1ZP");
  const cartage = await books.party("Sample Cartage", "29AAHFG7713M1ZW");
  const other = await books.party("Sample Dyes", "29AAFCM1177Q1ZS");
  const abroad = await books.party("Sample Mills Abroad", null, "SG");
  await books.bill("SD/2026/884", "2026-10-02", timber, [["P18", "40000"]]);
  // The year left out, a rate mistaken: 5 % as 18 %.
  await books.bill("SD-901", "2026-10-17", timber, [
    ["P18", "12000"],
    ["P18", "3000"],
  ]);
  await books.bill("417", "2026-10-11", hardware, [["P18", "25000"]]);
  await books.bill("SC-71", "2026-10-28", cartage, [["R5", "6000"]]);
  await books.bill("4410926", "2026-10-08", abroad, [["IG18", "70000"]]);
  const missing = await books.bill("D-5", "2026-10-20", other, [["P18", "10000"]]);
  await books.bill("SDC/2026/31", "2026-10-21", timber, [["P18", "2000"]], { kind: "purchase-credit-note" });

  const statement = await dropped(
    server,
    books.base,
    books.registration,
    `kind=furnished&period=${OCTOBER}`,
    "2b.json",
    SAMPLE,
  );
  const view = await statement.view();
  expect(view.theirsTotal).toMatchObject({ rows: 7 });
  const outcomes = Object.fromEntries(
    (await statement.lines()).map((line) => [
      at([...line.ours, ...line.theirs], 0).number,
      [line.outcome, line.differs.join()],
    ]),
  );
  expect(outcomes).toEqual({
    "SD/2026/884": ["agreed", ""],
    "SD-901": ["amount", "tax"],
    "417": ["agreed", ""],
    "SC-71": ["agreed", ""],
    "4410926": ["agreed", ""],
    "D-5": ["only-ours", ""],
    "SDC/2026/31": ["agreed", ""],
    "000433": ["ineligible", ""],
  });
  // What is on neither side twice adds up to both sides.
  expect(view.oursTotal.tax - view.theirsTotal.tax).toBe(
    -view.outcomes.reduce((sum, one) => sum + one.theirsTax - one.oursTax, 0),
  );

  const { findings } = await server.ok<{ findings: { check: string; message: string }[] }>(
    "GET",
    `${books.registration}/returns/${OCTOBER}`,
  );
  expect(findings.filter(({ check }) => check === "statement")).toHaveLength(1);

  expect((await statement.post<{ changed: number }>("accept")).changed).toBe(5);
  const lines = await statement.lines();
  const alone = found(lines, ({ outcome }) => outcome === "only-ours", "a line of ours alone");
  const before = await books.boxes(OCTOBER);
  await statement.post("decisions", { lines: [alone.id], decision: "hold", reason: "not furnished yet" });
  await statement.post("match");
  const held = found(
    await statement.lines(),
    ({ outcome }) => outcome === "only-ours",
    "a line of ours alone",
  );
  expect(held).toMatchObject({ decision: { decision: "hold" }, ours: [{ held: "waiting" }] });
  const after = await books.boxes(OCTOBER);
  expect(Number(before["4A5.cgst"]) - Number(after["4A5.cgst"])).toBe(900);

  const letters = await statement.post<StatementLetter[]>("letter", { lines: [held.id] });
  expect(at(letters, 0)).toMatchObject({ party: "Sample Dyes" });
  expect(at(letters, 0).text).toContain("D-5 of 20 Oct 2026");
  expect(missing.id).toBeGreaterThan(0);

  // In November the supplier furnishes it: it is found, and its credit is on November's return.
  const november = JSON.parse(SAMPLE) as { data: { rtnprd: string; docdata: Record<string, unknown> } };
  november.data.rtnprd = "112026";
  const items = [{ num: 1, rt: 18, txval: 10000, igst: 0, cgst: 900, sgst: 900, cess: 0 }];
  const inv = [
    { inum: "D/5", typ: "R", dt: "20-10-2026", val: 11800, pos: "29", rev: "N", itcavl: "Y", items },
  ];
  november.data.docdata = { b2b: [{ ctin: "29AAFCM1177Q1ZS", trdnm: "Sample Dyes", supprd: "102026", inv }] };
  const next = await dropped(
    server,
    books.base,
    books.registration,
    "kind=furnished&period=2026-11-30",
    "2b-november.json",
    JSON.stringify(november),
  );
  const agreed = await next.lines("agreed");
  expect(agreed).toHaveLength(1);
  expect((await next.lines()).map(({ outcome }) => outcome).filter((one) => one === "only-ours")).toEqual([]);
  expect((await next.view()).releasable).toBe(1);
  expect((await next.post<{ changed: number }>("release")).changed).toBe(1);
  const book = await server.ok<{ statements: object[]; matchDecisions: object[] }>(
    "GET",
    `${books.base}/book`,
  );
  const { id: copy } = await server.ok<{ id: number }>("POST", "/books", book);
  const moved = await server.ok<typeof book>("GET", `/clients/${copy}/book`);
  expect(moved.statements).toEqual(book.statements);
  expect(moved.matchDecisions).toEqual(book.matchDecisions);
  const boxes = await books.boxes("2026-11-30");
  expect(Number(boxes["4A5.cgst"])).toBe(900);
});

test("an invoice the supplier amended a month later stands in the place of the first; what was agreed is asked again", async () => {
  const books = await indianBooks();
  const mill = await books.party("Sample Dyes", "29AAFCM1177Q1ZS");
  await books.bill("D-5", "2026-10-20", mill, [["P18", "10000"]]);
  const items = (txval: number) => [
    { num: 1, rt: 18, txval, igst: 0, cgst: txval * 0.09, sgst: txval * 0.09, cess: 0 },
  ];
  const list = (month: string, docdata: object) =>
    JSON.stringify({ data: { gstin: "29AAKCH4821P1ZX", rtnprd: `${month}2026`, docdata } });
  const head = { ctin: "29AAFCM1177Q1ZS", trdnm: "Sample Dyes" };
  const invoice = { inum: "D-5", typ: "R", dt: "20-10-2026", pos: "29", rev: "N", itcavl: "Y" };
  const drop = (month: string, docdata: object) =>
    dropped(
      server,
      books.base,
      books.registration,
      `kind=furnished&period=2026-${month}-30`.replace("10-30", "10-31"),
      `${month}.json`,
      list(month, docdata),
    );
  const october = await drop("10", { b2b: [{ ...head, inv: [{ ...invoice, items: items(10000) }] }] });
  expect((await october.post<{ changed: number }>("accept")).changed).toBe(1);
  const amendment = { ...invoice, inum: "D-5A", oinum: "D-5", oidt: "20-10-2026", items: items(9000) };
  const november = await drop("11", { b2ba: [{ ...head, inv: [amendment] }] });
  expect(
    (await november.lines()).map(({ outcome, ours, theirs }) => [
      outcome,
      ours[0]?.number,
      theirs[0]?.number,
    ]),
  ).toEqual([["amount", "D-5", "D-5A"]]);
});

test("the statement of another registration, and what is no statement, are refused with what to do", async () => {
  const books = await indianBooks();
  const upload = (name: string, content: string) =>
    server.upload(`${books.registration}/statements?kind=furnished&period=${OCTOBER}`, name, content);
  const wrong = await upload("2b.json", SAMPLE.replace("29AAKCH4821P1ZX", "29AAFCM1177Q1ZS"));
  expect(wrong).toMatchObject({ status: 422, body: { error: { code: "statements/other-registration" } } });
  const none = await upload("2b.json", '{"data": {"gstin": "29AAKCH4821P1ZX"}}');
  expect(none).toMatchObject({ status: 422, body: { error: { code: "formats/not-furnished" } } });
});
