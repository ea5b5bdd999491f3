import { afterAll, beforeAll, expect, test } from "vitest";
import { clientsOf, document, newClient, nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

type Error = { error: { code: string; field: string; message: string } };
const book = (more: object) => ({
  format: "fiscalon-book",
  version: 1,
  client: { name: "From a file Ltd", country: "GB" },
  ...more,
});
const registrations = [
  {
    id: "r1",
    pack: "gb",
    number: "980780684",
    from: "2025-01-01",
    frequency: "quarterly",
    anchor: "2026-03-31",
  },
];

test("import, export, import again: the same book, with sealed, filed and settled periods and a late item", async () => {
  const { base, registration } = await newClient(server);
  const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Oxbow",
    country: "GB",
    taxNumber: nextVatNumber(),
    registered: true,
  });
  const post = (kind: string, date: string, lines: object[], more: object = {}) =>
    server.ok("POST", `${base}/documents`, document(kind, date, lines, { contact: contact.id, ...more }));
  await post("sales-invoice", "2026-02-03", [{ text: "Stairs", amount: "120.00", code: "S20" }], {
    prices: "inclusive",
    discount: { percent: "10" },
  });
  await post(
    "purchase-bill",
    "2026-02-04",
    [
      { quantity: "3", unitPrice: "1.333333", code: "R5", typedTax: { VAT: "0.25" } },
      { amount: "9.99", code: null },
    ],
    { number: "B1", note: "typed" },
  );
  await server.ok("POST", `${registration}/returns/2026-03-31/adjustments`, {
    box: "1",
    amount: "5.00",
    reason: "till difference",
  });
  const view = await server.ok<{ findings: { key: string; severity: string; document: number }[] }>(
    "GET",
    `${registration}/returns/2026-03-31`,
  );
  const stop = view.findings.find((one) => one.severity === "stop");
  await server.ok(
    "PUT",
    `${base}/documents/${stop?.document}`,
    document(
      "purchase-bill",
      "2026-02-04",
      [
        { quantity: "3", unitPrice: "1.333333", code: "R5", typedTax: { VAT: "0.25" } },
        { amount: "9.99", code: "Z" },
      ],
      { number: "B1", contact: contact.id, note: "typed" },
    ),
  );
  for (const { key } of view.findings.filter((one) => one.severity === "check"))
    await server.call("POST", `${registration}/returns/2026-03-31/acceptances`, {
      key,
      reason: "fine as it is",
    });
  await server.ok("POST", `${registration}/returns/2026-03-31/seal`);
  await server.ok("POST", `${registration}/returns/2026-03-31/file`, { declared: true });
  await server.ok("POST", `${registration}/settlements/2026-03-31`);
  await server.ok("POST", `${registration}/settlements/2026-03-31/payments`, {
    date: "2026-05-06",
    kind: "payment",
    amount: "10.00",
    reference: "first part",
  });
  await post("purchase-bill", "2026-03-30", [{ amount: "7.00", code: "S20" }], { number: "LATE" });
  await post("sales-invoice", "2026-05-30", [{ amount: "70.00", code: "S20" }], { place: null });

  const first = await server.ok<Record<string, object[]>>("GET", `${base}/book`);
  expect(
    first["documents"]?.map((d) => [
      (d as { number: string }).number,
      (d as { reportedIn?: string }).reportedIn,
    ]),
  ).toContainEqual(["LATE", "2026-06-30"]);
  const copy = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/books", first);
  expect(await server.ok("GET", `/clients/${copy.id}/book`)).toEqual(first);
  const copied = `/clients/${copy.id}/registrations/${copy.registrations[0]?.id}`;
  for (const period of ["2026-03-31", "2026-06-30"]) {
    const [a, b] = await Promise.all(
      [registration, copied].map((path) =>
        server.ok<{ boxes: { amount: number }[] }>("GET", `${path}/returns/${period}`),
      ),
    );
    expect(b?.boxes.map((box) => box.amount)).toEqual(a?.boxes.map((box) => box.amount));
    const control = await server.ok<{ left: number }>("GET", `${copied}/agreements/${period}/control`);
    expect(control.left).toBe(0);
  }
});

test.each([
  [{ version: 2 }, "request/invalid", "version"],
  [
    { documents: [{ kind: "sales-invoice", date: "2026-05-01", lines: [{ amount: "x" }] }] },
    "request/invalid",
    "documents[0].lines[0].amount",
  ],
  [
    {
      documents: [{ kind: "sales-invoice", date: "2026-05-01", contact: "c9", lines: [{ amount: "1.00" }] }],
    },
    "book/unknown-id",
    "documents[0].contact",
  ],
  ...["contact", "place"].map((ref): [object, string, string] => [
    {
      templates: [
        {
          name: "Rent",
          document: { kind: "sales-invoice", date: "2026-05-01", [ref]: "x9", lines: [{ amount: "1.00" }] },
        },
      ],
    },
    "book/unknown-id",
    `templates[0].document.${ref}`,
  ]),
  [
    { payments: [{ kind: "receipt", date: "2026-05-01", amount: "1.00", contact: "c9" }] },
    "book/unknown-id",
    "payments[0].contact",
  ],
  [
    {
      documents: [
        { kind: "sales-invoice", date: "2026-05-01", lines: [{ amount: "1.00", code: "S20" }] },
        { kind: "sales-invoice", date: "2026-05-01", lines: [{ amount: "1.00", code: "S21" }] },
      ],
    },
    "tax/unknown-code",
    "documents[1].lines[0].code",
  ],
  [
    {
      documents: [
        { kind: "sales-invoice", date: "2026-05-01", currency: "EUR", lines: [{ amount: "1.00" }] },
      ],
    },
    "document/no-exchange-rate",
    "documents[0].exchange.rate",
  ],
  [
    { registrations: [{ ...registrations[0], number: "123456783" }] },
    "registration/bad-number",
    "registrations[0].number",
  ],
  [
    {
      registrations,
      returns: [
        {
          registration: "r1",
          period: "2026-03-31",
          state: "sealed",
          sealedAt: "2026-05-01T00:00:00Z",
          boxes: { "1": "3.00" },
        },
      ],
    },
    "book/box-differs",
    "returns[0].boxes.1",
  ],
])("a book with %j is refused with the path, and no client is left behind", async (more, code, field) => {
  const before = await clientsOf(server);
  const { body } = await server.call<Error>("POST", "/books", book(more));
  expect([body.error.code, body.error.field]).toEqual([code, field]);
  expect(await clientsOf(server)).toEqual(before);
});

test("the documents of the API describe every route and the book file", async () => {
  const api = await server.ok<{ paths: Record<string, object> }>("GET", "/openapi.json");
  expect(Object.keys(api.paths)).toEqual(
    expect.arrayContaining(["/api/books", "/api/price", "/api/clients/{id}/documents"]),
  );
  const schema = await server.ok<{ properties: Record<string, object>; required: string[] }>(
    "GET",
    "/book-schema.json",
  );
  expect(Object.keys(schema.properties)).toEqual(
    expect.arrayContaining(["client", "registrations", "documents", "returns"]),
  );
});

test("a figure is walked back from the box to the row of the file it came from", async () => {
  const { base, registration } = await newClient(server);
  const csv = "Invoice No,Date,Customer,Net,VAT,Gross\nT-1,11/05/2026,Oxbow,480.63,96.15,576.78\n";
  const { body } = await server.upload(`${base}/imports?direction=sale`, "small.csv", csv);
  await server.job(`${base}/imports/${body.id}/post`);
  const rid = registration.split("/").at(-1);
  type Step = {
    amount: number;
    words: string[];
    arithmetic: string[];
    parts: { ref: string; amount: number }[];
  };
  const step = (ref: string) => server.ok<Step>("GET", `${base}/trail?ref=${encodeURIComponent(ref)}`);
  const box = await step(`box/${rid}/2026-06-30/1`);
  const group = await step(box.parts[0]?.ref ?? "");
  const line = await step(group.parts[0]?.ref ?? "");
  expect([box.amount, group.amount, line.amount]).toEqual([9615, 9615, 9615]);
  expect(line.arithmetic).toEqual([
    "480.63 × 20 % = 96.126 → 96.13",
    "half up, by line",
    "typed from the paper: 96.15",
    "kept, 0.02 over",
  ]);
  expect(line.words.join(" ")).toContain("row 2 of small.csv");
});
