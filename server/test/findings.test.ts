import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { ReturnView } from "@fiscalon/contract/returns";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Finding {
  key: string;
  check: string;
  severity: string;
  text: string;
  accepted: object | null;
}

const PERIOD = "2026-06-30";
const DAY = "2026-05-11";

/** Posts documents for a fresh client and says which checks speak up, and about what. */
async function findingsFor(contact: object | null, documents: object[]): Promise<Finding[]> {
  const { base, registration } = await newClient(server);
  const party =
    contact === null ? null : await server.ok<{ id: number }>("POST", `${base}/contacts`, contact);
  for (const one of documents) {
    await server.ok("POST", `${base}/documents`, party === null ? one : { ...one, contact: party.id });
  }
  return (await server.ok<{ findings: Finding[] }>("GET", `${registration}/returns/${PERIOD}`)).findings;
}

const GOOD = { name: "Fair & Square", country: "GB", taxNumber: "100000034", registered: true };
const bill = (lines: object[], more: object = {}) =>
  document("purchase-bill", DAY, lines, { number: "B-1", ...more });
const invoice = (lines: object[], more: object = {}) => document("sales-invoice", DAY, lines, more);
const spoken = (findings: Finding[]) => findings.map((one) => one.check);

/** One case for each check; the rule's source stands in the pack, core/src/jurisdictions/<country>/claims.ts. */
describe("a check speaks up", () => {
  const cases: [string, object | null, object[], RegExp][] = [
    ["no-code", GOOD, [bill([{ amount: "10.00", code: null }])], /line 1 of 10.00 has no tax code/],
    [
      "blocked",
      GOOD,
      [bill([{ amount: "208.00", code: "S20", account: "6600" }])],
      /VAT of 41.60 posted to Entertaining/,
    ],
    [
      "blocked",
      GOOD,
      [bill([{ amount: "380.00", code: "S20", account: "6550" }])],
      /with any private use it is half/,
    ],
    [
      "wages-coded",
      GOOD,
      [bill([{ amount: "900.00", code: "EX", account: "7000" }])],
      /outside the scope, but code EX/,
    ],
    [
      "foreign-vat",
      { name: "Loin", country: "FR" },
      [bill([{ amount: "50.00", code: "S20" }])],
      /is in FR, but VAT of 10.00/,
    ],
    [
      "unregistered-supplier",
      { name: "Small", country: "GB", registered: false },
      [bill([{ amount: "50.00", code: "S20" }])],
      /is not registered/,
    ],
    [
      "no-supplier-number",
      { name: "Nameless", country: "GB" },
      [bill([{ amount: "208.34", code: "S20" }])],
      /without the supplier's VAT registration number/,
    ],
    [
      "no-supplier-number",
      { name: "Wrong", country: "GB", taxNumber: "123456783" },
      [bill([{ amount: "300.00", code: "S20" }])],
      /do not fit the others/,
    ],
    [
      "duplicate",
      GOOD,
      [bill([{ amount: "9.00", code: "S20" }]), bill([{ amount: "9.00", code: "S20" }], { number: "B-2" })],
      /have the same date and the same total of 10.80/,
    ],
    [
      "duplicate",
      GOOD,
      [
        bill([{ amount: "9.00", code: "S20" }]),
        bill([{ amount: "8.00", code: "S20" }], { number: "b-1", duplicateReason: "sent twice" }),
      ],
      /number b-1 is in the books twice/,
    ],
    [
      "typed-tax",
      GOOD,
      [bill([{ amount: "100.00", code: "S20", typedTax: { VAT: "20.21" } }])],
      /typed VAT of 20.21; calculated 20.00/,
    ],
    [
      "tax-only",
      GOOD,
      [bill([{ amount: "0.00", code: "S20", typedTax: { VAT: "318.40" } }])],
      /VAT of 318.40 without a value/,
    ],
    [
      "reverse-charge-customer",
      { name: "Nobody", country: "GB" },
      [invoice([{ amount: "600.00", code: "DRS" }])],
      /needs a registered customer/,
    ],
    ["northern-ireland", GOOD, [bill([{ amount: "70.00", code: "EUA" }])], /Boxes 2, 9 hold goods/],
    [
      "import-certificate",
      GOOD,
      [bill([{ amount: "70.00", code: "IMP", typedTax: { VAT: "14.00" } }])],
      /no certificate/,
    ],
    ["exempt-sales", GOOD, [invoice([{ amount: "70.00", code: "EX" }])], /exempt sales of 70.00/],
    [
      "unusual",
      GOOD,
      [
        document("sales-invoice", "2025-05-11", [{ amount: "100.00", code: "Z" }]),
        invoice([{ amount: "126.00", code: "Z" }]),
      ],
      /Box 6 is 126.00, 26 % more/,
    ],
  ];
  test.each(cases)("%s", async (check, contact, documents, text) => {
    const findings = await findingsFor(contact, documents);
    const found = findings.find((one) => one.check === check);
    expect(spoken(findings)).toContain(check);
    expect(found?.text).toMatch(text);
  });

  test("on a document that no registration covers", async () => {
    const { base, registration } = await newClient(server, {
      name: "Changes Ltd",
      country: "GB",
      registration: {
        pack: "gb",
        from: "2025-01-01",
        to: "2026-05-15",
        frequency: "quarterly",
        anchor: "2026-03-31",
      },
    });
    await server.ok(
      "POST",
      `${base}/documents`,
      invoice([{ amount: "10.00", code: "S20" }], { date: "2026-05-20" }),
    );
    const { findings } = await server.ok<{ findings: Finding[] }>(
      "GET",
      `${registration}/returns/2026-05-15`,
    );
    expect(spoken(findings)).toEqual(["no-registration"]);
  });

  // GST101A: box 12 is three twenty-thirds of box 11, whatever tax the bill shows.
  test.each([
    ["15.00", []],
    ["14.99", []],
    ["14.00", ["typed-tax", "more-than-rounding"]],
  ])("on a return that works the tax out anew, where a bill of 100.00 shows %s", async (tax, said) => {
    const { base, registration } = await newClient(server, {
      name: "Fraction Ltd",
      country: "NZ",
      registration: { pack: "nz", from: "2025-01-01", frequency: "two-monthly", anchor: "2026-03-31" },
    });
    await server.ok("POST", `${base}/documents`, {
      ...bill([{ amount: "100.00", code: "P15", typedTax: { GST: tax } }]),
    });
    const { findings } = await server.ok<{ findings: Finding[] }>(
      "GET",
      `${registration}/returns/2026-05-31`,
    );
    expect(spoken(findings).sort()).toEqual([...said].sort());
    const apart = findings.find(({ check }) => check === "more-than-rounding");
    if (apart) expect(apart.text).toMatch(/comes to 0\.87 less than the tax of its documents/);
  });

  test("on a late item, and on one too old to claim", async () => {
    const { base, registration } = await newClient(server, {
      name: "Long Ago Ltd",
      country: "GB",
      registration: { pack: "gb", from: "2021-01-01", frequency: "annual", anchor: "2026-03-31" },
    });
    for (const year of [2021, 2022, 2023, 2024, 2025, 2026]) {
      await server.ok("POST", `${registration}/returns/${year}-03-31/seal`);
    }
    await server.ok(
      "POST",
      `${base}/documents`,
      bill([{ amount: "10.00", code: "S20" }], { date: "2021-02-10" }),
    );
    await server.ok("POST", `${base}/documents`, {
      ...bill([{ amount: "10.00", code: "S20" }], { date: "2026-02-10" }),
      kind: "sales-invoice",
    });
    const next = await server.ok<{ findings: Finding[] }>("GET", `${registration}/returns/2027-03-31`);
    expect(spoken(next.findings)).toEqual(["old", "late-item", "unpaid-input"]);
    expect(next.findings[0]?.text).toContain("too late");
    expect(next.findings[1]?.text).toContain("corrected on this return (method 1): 2.00 is within 10,000.00");
  });

  test("on a reverse charge of the client's own that lands on one side only, and it must be put right", async () => {
    const code = {
      code: "HALF",
      name: "Badly made reverse charge",
      treatment: "reverse-charge",
      direction: "purchase",
      components: [
        {
          levy: "VAT",
          rate: { kind: "percent", schedule: "gb.STD" },
          charged: "self-assessed",
          boxes: { purchase: "4 +r, 7 +n" },
        },
      ],
    };
    const copy = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/books", {
      format: "fiscalon-book",
      version: 1,
      client: { name: "Own code Ltd", country: "GB" },
      registrations: [{ id: "r1", pack: "gb", from: "2025-01-01", frequency: "quarterly" }],
      codes: [code],
      documents: [bill([{ amount: "100.00", code: "HALF" }])],
    });
    const path = `/clients/${copy.id}/registrations/r1/returns/${PERIOD}`;
    const { findings } = await server.ok<{ findings: Finding[] }>("GET", path);
    expect(spoken(findings)).toContain("self-assessed");
    const key = findings.find((one) => one.check === "self-assessed")?.key;
    const accepted = await server.call<{ error: { code: string } }>("POST", `${path}/acceptances`, {
      key,
      reason: "no matter",
    });
    expect([accepted.status, accepted.body.error.code]).toEqual([422, "findings/must-be-fixed"]);
  });
});

describe("a check stays silent", () => {
  test("on documents that are in order", async () => {
    const findings = await findingsFor(GOOD, [
      invoice([
        { amount: "100.00", code: "S20" },
        { amount: "40.00", code: "Z" },
      ]),
      bill([{ amount: "500.00", code: "S20", account: "6200" }]),
      bill([{ amount: "208.00", code: "BL20", account: "6600" }], { number: "B-2" }),
      bill([{ amount: "900.00", code: "OS", account: "7000" }], { number: "B-3" }),
      bill(
        [{ amount: "0.00", code: "S20", typedTax: { VAT: "9.00" }, attributes: { document: "C88 11087" } }],
        { number: "B-4" },
      ),
      bill([{ amount: "100.00", code: "S20", typedTax: { VAT: "20.05" } }], { number: "B-5" }),
      bill(
        [
          {
            amount: "70.00",
            code: "IMP",
            typedTax: { VAT: "14.00" },
            attributes: { certificate: "2026-05" },
          },
        ],
        { number: "B-6" },
      ),
    ]);
    expect(findings).toEqual([]);
  });

  test("an acceptance with its reason stays until the finding changes, and can be taken back", async () => {
    const { base, registration } = await newClient(server);
    const party = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
      name: "Small",
      country: "GB",
      registered: false,
    });
    const { id } = await server.ok<{ id: number }>(
      "POST",
      `${base}/documents`,
      bill([{ amount: "50.00", code: "S20" }], { contact: party.id }),
    );
    const path = `${registration}/returns/${PERIOD}`;
    const look = async () => (await server.ok<{ findings: Finding[] }>("GET", path)).findings;
    const [finding] = await look();
    await server.ok("POST", `${path}/acceptances`, { key: finding?.key, reason: "registered last week" });
    expect((await look())[0]?.accepted).toMatchObject({ reason: "registered last week", by: "Test person" });
    await server.ok("DELETE", `${path}/acceptances?key=${encodeURIComponent(finding?.key ?? "")}`);
    expect((await look())[0]?.accepted).toBeNull();
    await server.ok(
      "PUT",
      `${base}/documents/${id}`,
      bill([{ amount: "50.00", code: "NV" }], { contact: party.id }),
    );
    expect(await look()).toEqual([]);
    const gone = await server.call<{ error: { code: string } }>("POST", `${path}/acceptances`, {
      key: finding?.key,
      reason: "too late",
    });
    expect([gone.status, gone.body.error.code]).toEqual([404, "findings/not-found"]);
  });
});

test("a place without its region leaves tax in no box, which stops the return until the region is set", async () => {
  const client = await server.ok<{ id: number; places: { id: number }[]; registrations: { id: number }[] }>(
    "POST",
    "/clients",
    {
      name: "Falaj Irrigation Supplies LLC",
      country: "AE",
      place: { name: "Yard", country: "AE" },
      registration: {
        pack: "ae",
        from: "2026-01-01",
        to: null,
        frequency: "quarterly",
        anchor: "2026-03-31",
      },
    },
  );
  const base = `/clients/${client.id}`;
  await server.ok(
    "POST",
    `${base}/documents`,
    document("sales-invoice", "2026-02-11", [{ amount: "1000.00", code: "S5" }]),
  );
  const view = () =>
    server.ok<{ findings: { check: string; severity: string }[]; boxes: { id: string; amount: number }[] }>(
      "GET",
      `${base}/registrations/${client.registrations[0]?.id}/returns/2026-03-31`,
    );
  expect((await view()).findings).toContainEqual(
    expect.objectContaining({ check: "no-region", severity: "stop" }),
  );
  await server.ok("PUT", `${base}/places/${client.places[0]?.id}`, { region: "DU" });
  const after = await view();
  expect(after.findings.map(({ check }) => check)).not.toContain("no-region");
  expect(after.boxes.find(({ id }) => id === "1b.v")?.amount).toBe(5000);
});

describe("the law of the place", () => {
  /** Amounts up to which a claim needs no number of the supplier; sources and origin in each pack's claims.ts. */
  test.each([
    ["GB", "gb", "S20", 250_00, "SI 1995/2518 reg. 13 and 14"],
    ["AU", "au", "P10", 82_50, "GST Act 1999 s.29-70"],
    ["NZ", "nz", "P15", 200_00, "GST Act 1985 s.19H and 20(2)"],
    ["IE", "ie", "S23", 100_00, "VATCA 2010 s.66"],
  ])(
    "in %s a large claim without the supplier's number names its own limit and source",
    async (country, pack, code, limit, source) => {
      const { base, registration } = await newClient(server, {
        name: "Limits",
        country,
        registration: { pack, from: "2025-01-01", frequency: "quarterly", anchor: "2026-03-31" },
      });
      const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
        name: "No number",
        country,
      });
      for (const [number, gross] of [
        ["AT", limit],
        ["ABOVE", limit + 1],
      ] as const) {
        const line = { amount: (gross / 100).toFixed(2), code };
        await server.ok(
          "POST",
          `${base}/documents`,
          bill([line], { prices: "inclusive", number, contact: contact.id }),
        );
      }
      const { findings } = await server.ok<{ findings: (Finding & { source: string })[] }>(
        "GET",
        `${registration}/returns/${PERIOD}`,
      );
      const found = findings.filter(({ check }) => check === "no-supplier-number");
      expect(found.map(({ text, source: says }) => [text.slice(0, 5), says])).toEqual([["ABOVE", source]]);
    },
  );
});

test("the form of a return is there before its findings, and is the same return", async () => {
  const { base, registration } = await newClient(server);
  await server.ok("POST", `${base}/documents`, bill([{ amount: "10.00", code: null }]));
  const path = `${registration}/returns/${PERIOD}`;
  const checked = await server.ok<ReturnView>("GET", path);
  expect(checked.findings).not.toEqual([]);
  expect(await server.ok<ReturnView>("GET", `${path}?findings=false`)).toEqual({ ...checked, findings: [] });
});
