import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { smallBooks } from "./support/smallBooks.ts";
import { shiftIds } from "./support/shiftIds.ts";
import { document, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

/**
 * A practice keeps the books of people who must not see each other's: what belongs to one client is not there for
 * another, whatever number is asked for.
 */
let server: TestServer;
let ours: Awaited<ReturnType<typeof smallBooks>>;
let theirs: Awaited<ReturnType<typeof smallBooks>>;
let things: Record<string, number>;
beforeAll(async () => {
  server = await startServer();
  ours = await smallBooks(server);
  theirs = await smallBooks(server);
  things = await everythingOf(theirs);
  await shiftIds(server, theirs.base, FAR);
  const far = (id: number) => id + FAR;
  things = Object.fromEntries(Object.entries(things).map(([name, id]) => [name, far(id)]));
  theirs = {
    ...theirs,
    reed: far(theirs.reed),
    bill: far(theirs.bill),
    invoice: far(theirs.invoice),
    receipt: far(theirs.receipt),
  };
});
afterAll(() => server.close());

/** Numbers of theirs begin so far beyond those of ours. */
const FAR = 10_000;
const END = "2026-03-31";
const SPAN = { from: "2026-01-01", to: END };
const NOWHERE = { code: null, account: "4000" };
const NO_MAPPING = { taxes: {}, surcharge: NOWHERE, tip: NOWHERE, fee: NOWHERE, bank: "1000" };

/** One of each thing that has a number, by the name the routes have for it. */
async function everythingOf({ base, registration, reed, bill, receipt, entryOf }: typeof theirs) {
  const made = async (path: string, body: object) =>
    (await server.ok<{ id: number }>("POST", `${base}/${path}`, body)).id;
  const item = await made("items", { name: "Bowl" });
  const templates = await server.ok<{ id: number }[]>("PUT", `${base}/templates`, {
    name: "Rent",
    document: document("purchase-bill", "2026-02-01", [{ amount: "10.00", code: "S20" }], { contact: reed }),
  });
  await server.upload(`${base}/documents/${bill}/attachments`, "paper.xml", `<?xml version="1.0"?><paper/>`);
  const papers = await server.ok<{ id: number }[]>("GET", `${base}/documents/${bill}/attachments`);
  const register = "Invoice No,Date,Customer,Net,VAT,Gross\nX1,03/02/2026,Someone,10.00,2.00,12.00\n";
  const dropped = (await server.upload(`${base}/imports?direction=sale`, "sales.csv", register)).body;
  await server.upload(
    `${base}/bank/1000/statements`,
    "s.csv",
    "Date,Description,Amount\n2026-02-20,REED,60.00\n",
  );
  const query = `kind=supplier&contact=${reed}&period=${END}`;
  const told = "Date,Reference,Charges\n2026-02-04,X-1,12.00\n";
  const statement = (await server.upload(`${registration}/statements?${query}`, "told.csv", told)).body;
  const lines = await server.ok<{ rows: { id: number }[] }>("GET", `${base}/bank/1000/lines?state=open`);
  const adjusted = await server.ok<{ adjustments: { id: number }[] }>(
    "POST",
    `${registration}/returns/${END}/adjustments`,
    {
      box: "1",
      amount: "3.00",
      reason: "till difference",
    },
  );
  const setup = await server.ok<{ places: { id: number }[] }>("GET", `${base}/setup`);
  return {
    document: bill,
    payment: receipt,
    contact: reed,
    item,
    own: at(setup.places, 0).id,
    template: at(templates, 0).id,
    attachment: at(papers, 0).id,
    import: dropped.id,
    line: at(lines.rows, 0).id,
    adjustment: at(adjusted.adjustments, 0).id,
    entry: await entryOf(60_00),
    rid: Number(registration.split("/").at(-1)),
    terminal: 1,
    statement: statement.id,
    sheet: (await server.upload(`${base}/register-sheets`, "sales.csv", register)).body.id,
  };
}

const CAPITAL_ITEM = {
  name: "Taken over",
  kind: "land",
  firstUse: "2026-01-01",
  net: "1",
  taxes: { VAT: "1" },
  yearEnds: 3,
};

/** A body that would be taken if the thing were one's own. */
function bodyFor(method: string, path: string): object | undefined {
  if (method === "GET" || method === "DELETE") return undefined;
  const bodies: Record<string, object> = {
    "PUT /clients/{id}/documents/{document}": document(
      "purchase-bill",
      "2026-02-04",
      [{ amount: "1.00", code: "S20" }],
      { number: "B-9" },
    ),
    "POST /clients/{id}/documents/{document}/void": { reason: "never happened" },
    "PUT /clients/{id}/payments/{payment}": {
      kind: "receipt",
      date: "2026-02-20",
      amount: "1.00",
      allocations: [],
    },
    "POST /clients/{id}/payments/{payment}/void": { reason: "bounced" },
    "PUT /clients/{id}/contacts/{contact}": { name: "Taken over" },
    "PUT /clients/{id}/items/{item}": { name: "Taken over" },
    "PUT /clients/{id}/places/{own}": { name: "Taken over" },
    "PUT /clients/{id}/entries/{entry}/explanation": { reason: "because" },
    "PUT /clients/{id}/imports/{import}/settings": { leftOut: [2] },
    "POST /clients/{id}/registrations/{rid}/unpaid/{period}": {
      rule: "bad-debt",
      documents: [1],
      account: "7920",
    },
    "POST /clients/{id}/registrations/{rid}/bridge/causes": {
      ...SPAN,
      keys: ["document/1/1"],
      cause: "Taken over",
    },
    "POST /clients/{id}/registrations/{rid}/bridge/agreement": { ...SPAN, note: "taken over" },
    "POST /clients/{id}/registrations/{rid}/agreements/{period}": { id: "control", note: "taken over" },
    "PUT /clients/{id}/registrations/{rid}/authority-balance": { on: END, amount: "1.00" },
    "POST /clients/{id}/registrations/{rid}/capital-items": CAPITAL_ITEM,
    "PUT /clients/{id}/registrations/{rid}/capital-items/{no}": CAPITAL_ITEM,
    "POST /clients/{id}/registrations/{rid}/methods": { answers: {} },
    "POST /clients/{id}/registrations/{rid}/schemes/effect": { schemes: [] },
    "PUT /clients/{id}/collection/customers/{contact}/deducts": { deducts: true },
    "PUT /clients/{id}/collection/customers/{contact}/opening": {
      year: "2026-03-31",
      amount: "1.00",
      evidence: "taken over",
    },
    "POST /clients/{id}/bank-lines/{line}/match": { ignore: "not ours" },
    "PUT /clients/{id}/registrations/{rid}": { to: "2027-12-31" },
    "POST /clients/{id}/registrations/{rid}/returns/{period}/acceptances": {
      key: "twin/1",
      reason: "fine here",
    },
    "POST /clients/{id}/registrations/{rid}/returns/{period}/adjustments": {
      box: "1",
      amount: "1.00",
      reason: "till",
    },
    "PUT /clients/{id}/registrations/{rid}/returns/{period}/late/{document}": {
      kind: null,
      separately: true,
      reason: "taken over",
    },
    "POST /clients/{id}/registrations/{rid}/returns/{period}/file": { declared: true },
    "POST /clients/{id}/registrations/{rid}/returns/{period}/reopen": { reason: "forgot one" },
    "POST /clients/{id}/registrations/{rid}/returns/{period}/state": { state: "in-review" },
    "POST /clients/{id}/registrations/{rid}/settlements/{period}/payments": {
      date: "2026-05-01",
      kind: "payment",
      amount: "1.00",
    },
    "PUT /clients/{id}/register-sheets/{sheet}/mapping": {
      accounts: [3],
      returns: [3],
      tax: null,
      date: null,
      party: null,
      rate: null,
      told: "",
    },
    "PUT /clients/{id}/statements/{statement}/settings": { tolerance: 0, days: 3, sureFrom: 90 },
    "POST /clients/{id}/statements/{statement}/decisions": { lines: [1], decision: "wait" },
    "POST /clients/{id}/statements/{statement}/decisions/undo": { lines: [1] },
    "POST /clients/{id}/statements/{statement}/letter": { lines: [1] },
    "PUT /clients/{id}/terminals/{terminal}/key": { key: "night-key" },
    "PUT /clients/{id}/terminals/{terminal}/mapping": { mapping: NO_MAPPING },
  };
  return bodies[`${method} ${path}`] ?? {};
}

/** The question after a path that cannot be asked without one. */
function queryFor(method: string, path: string): string {
  if (path.endsWith("/bridge/by")) return `?by=month&from=${SPAN.from}&to=${SPAN.to}`;
  if (path.endsWith("/bridge/by/lines")) return `?by=month&key=2026-01&from=${SPAN.from}&to=${SPAN.to}`;
  if (path.endsWith("/bridge/file") || path.endsWith("/year/file"))
    return `?format=csv&from=${SPAN.from}&to=${SPAN.to}`;
  if ((path.includes("/bridge") || path.endsWith("/year")) && method === "GET")
    return `?from=${SPAN.from}&to=${SPAN.to}`;
  if (path.endsWith("/registrations/{rid}/statements") && method === "POST")
    return `?kind=supplier&period=${END}`;
  if (
    path.endsWith("/register-sheets/{sheet}/file") ||
    path.endsWith("/statements/{statement}/file") ||
    path.endsWith("/agreements/{period}/file")
  )
    return "?format=csv";
  if (path.endsWith("/capital-items/export")) return "?format=csv";
  if (path.includes("/collection/")) return `?day=${END}`;
  if (path.endsWith("/returns")) return `?from=2026-01-01&to=${END}`;
  return method === "DELETE" && path.endsWith("/acceptances") ? "?key=twin%2F1" : "";
}

const bookOf = async ({ base }: typeof theirs) => JSON.stringify(await server.ok("GET", `${base}/book`));

test("every route below a client: a thing of another client is not there", async () => {
  const api = await server.ok<{ paths: Record<string, Record<string, object>> }>("GET", "/openapi.json");
  const before = [await bookOf(ours), await bookOf(theirs)];
  const ourId = ours.base.split("/").at(-1) ?? "";
  let asked = 0;
  for (const [full, methods] of Object.entries(api.paths)) {
    const path = full.slice("/api".length);
    const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name = ""]) => name);
    if (!path.startsWith("/clients/{id}/") || !names.some((name) => name in things)) continue;
    const filled = path
      .replace("{id}", ourId)
      .replace("{period}", END)
      .replace(/\{(\w+)\}/g, (_, name: string) => String(things[name] ?? 1));
    for (const method of Object.keys(methods).map((name) => name.toUpperCase())) {
      if (path.endsWith("/attachments") && method === "POST") continue;
      asked += 1;
      const { status } = await server.call(method, filled + queryFor(method, path), bodyFor(method, path));
      expect([method, path, status]).toEqual([method, path, 404]);
    }
  }
  expect(asked).toBeGreaterThan(35);
  expect([await bookOf(ours), await bookOf(theirs)]).toEqual(before);
});

describe("what a body names must be one's own, too", () => {
  const line = { amount: "1.00", code: "S20" };
  const templateOf = (more: object) => ({
    name: "Theirs",
    document: document("sales-invoice", "2026-02-03", [line], more),
  });
  const priceOf = (more: object) => ({
    client: Number(ours.base.split("/").at(-1)),
    document: document("sales-invoice", "2026-02-03", [line], more),
  });
  const refused: [what: string, ask: () => Promise<{ status: number }>][] = [
    [
      "the contact of a document",
      () =>
        server.call(
          "POST",
          `${ours.base}/documents`,
          document("sales-invoice", "2026-02-03", [line], { contact: theirs.reed }),
        ),
    ],
    [
      "the place of a document",
      () =>
        server.call(
          "POST",
          `${ours.base}/documents`,
          document("sales-invoice", "2026-02-03", [line], { place: things["own"] }),
        ),
    ],
    [
      "the document of a payment",
      () =>
        server.call("POST", `${ours.base}/payments`, {
          kind: "payment",
          date: "2026-02-20",
          amount: "1.00",
          allocations: [{ document: theirs.bill, amount: "1.00" }],
        }),
    ],
    [
      "the contact of a payment",
      () =>
        server.call("POST", `${ours.base}/payments`, {
          kind: "receipt",
          date: "2026-02-20",
          amount: "1.00",
          contact: theirs.reed,
        }),
    ],
    [
      "the contact of a template",
      () => server.call("PUT", `${ours.base}/templates`, templateOf({ contact: theirs.reed })),
    ],
    [
      "the place of a template",
      () => server.call("PUT", `${ours.base}/templates`, templateOf({ place: things["own"] })),
    ],
    [
      "the contact of a price asked for",
      () => server.call("POST", "/price", priceOf({ contact: theirs.reed })),
    ],
    [
      "the place of a price asked for",
      () => server.call("POST", "/price", priceOf({ place: things["own"] })),
    ],
    [
      "documents taken out together",
      () =>
        server.call("POST", `${ours.base}/documents/void`, {
          documents: [theirs.bill],
          reason: "never happened",
        }),
    ],
    [
      "lines of the bank accepted together",
      () => server.call("POST", `${ours.base}/bank/accept`, { account: "1000", lines: [things["line"]] }),
    ],
  ];
  test.each(refused)("%s", async (_what, ask) => {
    const before = [await bookOf(ours), await bookOf(theirs)];
    const { status } = await ask();
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
    expect([await bookOf(ours), await bookOf(theirs)]).toEqual(before);
  });

  test("a line of one's own bank is not matched with another's entry or document", async () => {
    await server.upload(
      `${ours.base}/bank/1000/statements`,
      "s.csv",
      "Date,Description,Amount\n2026-02-20,REED,60.00\n",
    );
    const { rows } = await server.ok<{ rows: { id: number }[] }>(
      "GET",
      `${ours.base}/bank/1000/lines?state=open`,
    );
    const match = (body: object) =>
      server.call("POST", `${ours.base}/bank-lines/${at(rows, 0).id}/match`, body);
    expect((await match({ entry: things["entry"] })).status).toBe(404);
    const own = [{ document: ours.invoice, amount: "40.00" }];
    expect((await match({ documents: own, contact: theirs.reed })).status).toBe(422);
    expect((await match({ documents: [{ document: theirs.invoice, amount: "60.00" }] })).status).toBe(422);
    expect(
      (await match({ tax: { registration: things["rid"], period: END } })).status,
    ).toBeGreaterThanOrEqual(400);
  });

  test.each(["document", "line", "payment", "entry", "adjustment", "open"])(
    "a trail of another's %s leads nowhere",
    async (kind) => {
      const own = {
        document: theirs.bill,
        line: `${theirs.bill}/1`,
        payment: theirs.receipt,
        entry: things["entry"],
        adjustment: things["adjustment"],
        open: theirs.bill,
      };
      const ref = encodeURIComponent(`${kind}/${own[kind as keyof typeof own]}`);
      expect((await server.call("GET", `${ours.base}/trail?ref=${ref}`)).status).toBe(404);
    },
  );

  test("lists, search and reports of one client hold nothing of another's", async () => {
    await server.ok("POST", `${theirs.base}/contacts`, { name: "Zanzibar Secret Ltd", country: "GB" });
    for (const path of [
      "contacts?search=Zanzibar",
      "documents?search=Zanzibar",
      "payments?limit=500",
      "open-items?limit=500",
      "changes",
      "imports",
      "book",
    ]) {
      const answer = await server.ok<object>("GET", `${ours.base}/${path}`);
      expect(JSON.stringify(answer)).not.toContain("Zanzibar");
    }
  });
});
