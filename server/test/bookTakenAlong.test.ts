import { afterAll, beforeAll, expect, test } from "vitest";
import { blankJurisdiction } from "@fiscalon/core/jurisdictions/blankJurisdiction";
import {
  GB_CLIENT,
  clientsOf,
  document,
  newClient,
  nextVatNumber,
  startServer,
} from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";
import { day, nightBar, world } from "./support/world.ts";

let here: TestServer;
let there: TestServer;
beforeAll(async () => {
  here = await startServer();
  there = await startServer();
});
afterAll(async () => {
  await here.close();
  await there.close();
});

type Refusal = { error: { code: string; field: string } };
type Row = Record<string, unknown>;
interface Book {
  codes: { code: string }[];
  documents: (Row & { number: string; sourceKey?: string; papers?: Row[] })[];
  payments: Row[];
  acceptances: { finding: string }[];
  imports: Row[];
  bank: { lines: (Row & { entry?: string; ignored?: string })[] }[];
  terminals: { transactions: (Row & { document?: string })[] }[];
  files: Record<string, string>;
}

const PDF = "%PDF-1.4\n% a paper with an umlaut: ü\n";

const quarterEnd = (date: string) => {
  const month = Math.ceil(Number(date.slice(5, 7)) / 3) * 3;
  return new Date(Date.UTC(Number(date.slice(0, 4)), month, 0)).toISOString().slice(0, 10);
};

/** Books with something of everything that comes in. */
async function fullBooks() {
  const { base, registration } = await newClient(here);
  const contact = await here.ok<{ id: number }>("POST", `${base}/contacts`, { name: "Oxbow", country: "GB" });
  const bill = (number: string, more: object = {}) =>
    here.ok<{ id: number }>(
      "POST",
      `${base}/documents`,
      document("purchase-bill", day(8), [{ amount: "50.00", code: "S20" }], {
        contact: contact.id,
        number,
        ...more,
      }),
    );
  const first = await bill("OX-1");
  await bill("OX-1", { duplicateReason: "delivered twice" });
  await here.upload(`${base}/documents/${first.id}/attachments`, "OX-1.pdf", PDF);
  const wrong = await bill("OX-2");
  await here.ok("POST", `${base}/documents/${wrong.id}/void`, { reason: "meant for somebody else" });
  const journal = await here.ok<{ id: number }>(
    "POST",
    `${base}/documents`,
    document("journal", day(8), [
      { amount: "3.00", account: "2200" },
      { amount: "-3.00", account: "4000" },
    ]),
  );
  const { id: kept } = (
    await here.upload(
      `${base}/imports?direction=sale`,
      "register.csv",
      `Invoice No,Date,Customer,Net,VAT,Gross\nT-1,${day(9)},Tern,100.00,20.00,120.00\n`,
    )
  ).body;
  await here.job(`${base}/imports/${kept}/post`);

  await world(here, "terminal/merchants/BAR-9", nightBar("BANK-9"));
  const terminal = await here.ok<{ id: number; mapping: object }>("POST", `${base}/terminals`, {
    merchant: "BAR-9",
    key: "night-key",
    name: "Bar",
    zone: "Europe/London",
    cutOff: "04:00",
    start: day(12),
  });
  await here.ok("PUT", `${base}/terminals/${terminal.id}/mapping`, {
    mapping: {
      ...terminal.mapping,
      taxes: { "VAT 20": { code: "S20", account: "4000" }, "no VAT": { code: "Z", account: "4000" } },
    },
  });
  await here.ok("POST", `${base}/terminals/${terminal.id}/fetch`);

  const statement = [
    "Date,Description,Paid out,Paid in,Balance",
    `${day(5)},TERN,,120.00,120.00`,
    `${day(4)},OXBOW OX-1,60.00,,60.00`,
    `${day(3)},Coffee,4.00,,56.00`,
    `${day(2)},Not ours,,1.00,57.00`,
    `${day(1)},Later,,9.00,66.00`,
  ].join("\n");
  await here.ok("POST", `${base}/bank`, { account: "1000", number: "BANK-9" });
  await here.upload(`${base}/bank/1000/statements`, "bank.csv", statement);
  const { rows: lines } = await here.ok<{ rows: { id: number; amount: number }[] }>(
    "GET",
    `${base}/bank/1000/lines`,
  );
  const match = (amount: number, body: object) =>
    here.ok("POST", `${base}/bank-lines/${lines.find((line) => line.amount === amount)?.id}/match`, body);
  const sale = await here.ok<{ rows: { id: number; number: string }[] }>(
    "GET",
    `${base}/documents?kind=sales-invoice`,
  );
  await match(120_00, { documents: [{ document: sale.rows[0]?.id, amount: "120.00" }] });
  await match(-60_00, { documents: [{ document: first.id, amount: "60.00" }], contact: contact.id });
  await match(-4_00, { post: { account: "6800", code: "EX" } });
  await match(1_00, { ignore: "paid to us by mistake, sent back" });

  const running = quarterEnd(day(8));
  const view = () =>
    here.ok<{ findings: { key: string; check: string; accepted: object | null }[] }>(
      "GET",
      `${registration}/returns/${running}`,
    );
  const twin = (await view()).findings.find(({ check }) => check === "duplicate");
  await here.call("POST", `${registration}/returns/${running}/acceptances`, {
    key: twin?.key,
    reason: "two deliveries",
  });
  const control = await here.ok<{ uncoded: { entry: number }[] }>(
    "GET",
    `${registration}/agreements/${running}/control`,
  );
  await here.ok("PUT", `${base}/entries/${control.uncoded[0]?.entry}/explanation`, {
    reason: "till difference",
  });
  expect(journal.id).toBeGreaterThan(0);
  return { base, running };
}

test("papers, imported files, lines of the bank, terminals and reasons come along to another practice", async () => {
  const { base, running } = await fullBooks();
  const book = await here.ok<Book>("GET", `${base}/book`);
  const [bank] = book.bank;
  expect(bank?.lines.map(({ entry, ignored }) => [entry?.split("/")[1], ignored])).toEqual([
    ["payments", undefined],
    ["payments", undefined],
    ["documents", undefined],
    [undefined, "paid to us by mistake, sent back"],
    [undefined, undefined],
  ]);
  expect(Object.values(book.files).map((one) => Buffer.from(one, "base64").toString())).toContain(PDF);
  expect(book.acceptances[0]?.finding).toMatch(/^duplicate:\/documents\/1:\/documents\/0$/);
  expect(book.terminals[0]?.transactions.filter((one) => one.document).length).toBeGreaterThan(100);

  const copy = await there.ok<{ id: number; registrations: { id: number }[] }>("POST", "/books", book);
  const moved = `/clients/${copy.id}`;
  const registration = `${moved}/registrations/${copy.registrations[0]?.id}`;
  expect(await there.ok("GET", `${moved}/book`)).toEqual(book);

  const { rows } = await there.ok<{ rows: { id: number; number: string }[] }>(
    "GET",
    `${moved}/documents?kind=purchase-bill&limit=10`,
  );
  const papers = await Promise.all(
    rows.map(({ id }) => there.ok<{ id: number }[]>("GET", `${moved}/documents/${id}/attachments`)),
  );
  const [paper] = papers.flat();
  const served = await fetch(`${there.address}/api${moved}/attachments/${paper?.id}`);
  expect(await served.text()).toBe(PDF);

  const taken = book.documents.find((one) => one.number === "OX-2");
  expect(taken).toMatchObject({ void: "meant for somebody else" });
  expect(rows.map(({ number }) => number)).not.toContain("OX-2");

  const { findings } = await there.ok<{ findings: { check: string; accepted: { reason: string } | null }[] }>(
    "GET",
    `${registration}/returns/${running}`,
  );
  expect(findings.find(({ check }) => check === "duplicate")?.accepted?.reason).toBe("two deliveries");
  const control = await there.ok<{ left: number; uncoded: { reason: string }[] }>(
    "GET",
    `${registration}/agreements/${running}/control`,
  );
  expect([control.left, control.uncoded[0]?.reason]).toEqual([0, "till difference"]);

  // What was brought in before is known in the new place too.
  const again = await there.upload(
    `${moved}/imports?direction=sale`,
    "register.csv",
    `Invoice No,Date,Customer,Net,VAT,Gross\nT-1,${day(9)},Tern,100.00,20.00,120.00\n`,
  );
  const { result } = await there.job(`${moved}/imports/${again.body.id}/check`);
  expect(result).toMatchObject({ fresh: 0, alreadyThere: 1 });

  // The operator must be asked anew; nothing of what it tells is posted twice.
  const [terminal] = await there.ok<{ id: number; authorised: boolean }[]>("GET", `${moved}/terminals`);
  expect(terminal?.authorised).toBe(false);
  const unknown = await there.call<Refusal>("POST", `${moved}/terminals/${terminal?.id}/fetch`);
  expect(unknown.body.error.code).toBe("terminal/not-authorised");
  await world(there, "terminal/merchants/BAR-9", nightBar("BANK-9"));
  await there.ok("PUT", `${moved}/terminals/${terminal?.id}/key`, { key: "night-key" });
  expect(await there.ok("POST", `${moved}/terminals/${terminal?.id}/fetch`)).toMatchObject({
    fresh: 0,
    days: 0,
    payouts: 0,
  });
  const statement = `Date,Description,Paid out,Paid in,Balance\n${day(5)},TERN,,120.00,120.00\n`;
  const known = await there.upload(`${moved}/bank/1000/statements`, "bank.csv", statement);
  expect(known.body).toMatchObject({ fresh: 0, alreadyThere: 1 });
});

test("an own jurisdiction comes along, once; another one under its id is refused", async () => {
  const own = {
    ...blankJurisdiction(),
    format: "fiscalon-jurisdiction",
    version: 1,
    id: "own-moved",
    country: "XM",
    name: "Moved",
  };
  await here.ok("PUT", "/jurisdictions/own-moved", own);
  const client = await here.ok<{ id: number }>("POST", "/clients", {
    name: "Mover",
    country: "XM",
    registration: {
      pack: "own-moved",
      number: "1",
      from: "2026-01-01",
      frequency: "quarterly",
      anchor: "2026-03-31",
    },
  });
  await here.ok(
    "POST",
    `/clients/${client.id}/documents`,
    document("sales-invoice", "2026-02-03", [{ amount: "50.00", code: "S" }]),
  );
  const book = await here.ok<Book>("GET", `/clients/${client.id}/book`);
  expect(book.codes.map(({ code }) => code)).toEqual(["S", "N"]);
  for (let times = 0; times < 2; times += 1) {
    const copy = await there.ok<{ id: number; registrations: { id: number }[] }>("POST", "/books", book);
    expect(await there.ok("GET", `/clients/${copy.id}/book`)).toEqual(book);
    const { boxes } = await there.ok<{ boxes: { id: string; amount: number }[] }>(
      "GET",
      `/clients/${copy.id}/registrations/${copy.registrations[0]?.id}/returns/2026-03-31`,
    );
    expect(boxes.map(({ amount }) => amount)).toEqual([5000, 500, 0, 500]);
  }
  const other = { ...book, jurisdictions: [{ ...own, name: "Another" }] };
  const { body } = await there.call<Refusal>("POST", "/books", other);
  expect([body.error.code, body.error.field]).toEqual(["book/jurisdiction-differs", "jurisdictions[0].id"]);

  // Where the book is refused, the jurisdiction is not kept either.
  const broken = {
    ...other,
    jurisdictions: [{ ...own, id: "own-broken" }],
    documents: [{ kind: "sales-invoice", date: "2026-02-03", lines: [{ amount: "1.00", code: "NO-SUCH" }] }],
    registrations: [],
  };
  expect((await there.call<Refusal>("POST", "/books", broken)).body.error.code).toBe("tax/unknown-code");
  expect((await there.call("GET", "/jurisdictions/own-broken")).status).toBe(404);
});

test("a book without papers leaves their contents and the imported files out", async () => {
  const { base } = await newClient(here);
  const { id } = await here.ok<{ id: number }>(
    "POST",
    `${base}/documents`,
    document("sales-invoice", day(8), [{ amount: "50.00", code: "S20" }]),
  );
  await here.upload(`${base}/documents/${id}/attachments`, "paper.pdf", PDF);
  const book = await here.ok<Book>("GET", `${base}/book?papers=false`);
  expect([book.files, book.documents[0]?.papers]).toEqual([{}, undefined]);
});

const journal = {
  kind: "journal",
  number: "J-1",
  date: "2026-05-01",
  lines: [
    { amount: "1.00", account: "1000" },
    { amount: "-1.00", account: "4000" },
  ],
};
const line = { id: "a", date: "2026-05-01", amount: "1.00" };
test.each([
  [{ files: { ["0".repeat(64)]: "eA==" } }, "book/file-differs", `files.${"0".repeat(64)}`],
  [
    { documents: [{ ...journal, papers: [{ name: "x.pdf", file: "0".repeat(64) }] }] },
    "book/unknown-file",
    "documents[0].papers[0].file",
  ],
  [
    { bank: [{ account: "1000", lines: [{ ...line, entry: "/documents/4" }] }] },
    "book/unknown-row",
    "bank[0].lines[0].entry",
  ],
  [{ bank: [{ account: "1000", lines: [line, line] }] }, "request/invalid", "bank[0].lines[1]"],
  [{ bank: [{ account: "9999", lines: [line] }] }, "ledger/unknown-account", "bank[0].account"],
  [
    {
      documents: [
        { ...journal, sourceKey: "k" },
        { ...journal, sourceKey: "k" },
      ],
    },
    "book/double-id",
    "documents[1].sourceKey",
  ],
])("a book with %j is refused with the path, and no client is left behind", async (more, code, field) => {
  const before = await clientsOf(here);
  const { body } = await here.call<Refusal>("POST", "/books", {
    format: "fiscalon-book",
    version: 1,
    client: { name: "From a file Ltd", country: "GB" },
    ...more,
  });
  expect([body.error.code, body.error.field]).toEqual([code, field]);
  expect(await clientsOf(here)).toEqual(before);
});

/** Books with one thing wrong each, and the field of the file that is to be named. */
const WRONG: [string, object, string, string][] = [
  [
    "a region the country lacks, of a contact",
    { contacts: [{ id: "c", name: "Buyer", country: "CA", region: "ZZ" }] },
    "place/unknown-region",
    "contacts[0].region",
  ],
  [
    "a region the country lacks, of a place",
    { places: [{ id: "p", name: "Shop", country: "CA", region: "ZZ" }] },
    "place/unknown-region",
    "places[0].region",
  ],
];

test.each(WRONG)(
  "a book file is refused with the whole path of the field: %s",
  async (_, more, code, field) => {
    const book = { format: "fiscalon-book", version: 1, client: { name: "Wrong", country: "CA" }, ...more };
    const { body } = await here.call<{ error: { code: string; field: string } }>("POST", "/books", book);
    expect([body.error.code, body.error.field]).toEqual([code, field]);
  },
);

test("books that left the cash basis with bills unpaid tell the same boxes after moving house, twice", async () => {
  const { base, registration } = await newClient(here, {
    ...GB_CLIENT,
    registration: { ...GB_CLIENT.registration, number: nextVatNumber(), basis: "cash" },
  });
  const rid = registration.split("/").at(-1);
  const change = { from: "2026-04-01", frequency: "quarterly", anchor: "2026-06-30", basis: "accrual" };
  await here.ok("PUT", `${base}/registrations/${rid}`, { changes: [change] });
  for (const [number, date] of [
    ["L1", "2026-02-10"],
    ["L2", "2026-05-10"],
  ] as const)
    await here.ok("POST", `${base}/documents`, {
      ...document("sales-invoice", date, [{ amount: "100.00", code: "S20" }]),
      number,
    });
  const boxesOf = async (on: string) => {
    const { registrations } = await here.ok<{ registrations: { id: number }[] }>("GET", on);
    const amounts = ["2026-03-31", "2026-06-30"].map(async (end) => {
      const path = `${on}/registrations/${registrations[0]?.id}/returns/${end}`;
      const { boxes } = await here.ok<{ boxes: { amount: number }[] }>("GET", path);
      return boxes.map(({ amount }) => amount);
    });
    return Promise.all(amounts);
  };
  const boxes = await boxesOf(base);
  expect(boxes.map(([first]) => first)).toEqual([2000, 2000]);
  let on = base;
  for (const _ of [1, 2]) {
    const copy = await here.ok<{ id: number }>("POST", "/books", await here.ok<object>("GET", `${on}/book`));
    on = `/clients/${copy.id}`;
    expect(await boxesOf(on)).toEqual(boxes);
  }
});
