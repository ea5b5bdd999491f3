import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Client {
  id: number;
  places: { id: number; name: string }[];
  registrations: { id: number; levies: string[] }[];
}
interface Setup {
  codes: TaxCode[];
  archived: string[];
  saleCode: string | null;
  schedules: Record<string, object[]>;
  registrations: { pack: string }[];
}
type Refused = { error: { code: string; message: string; field?: string } };

async function canadian(): Promise<{ base: string; client: Client }> {
  const client = await server.ok<Client>("POST", "/clients", {
    name: "Nimbus Ridge Cycleworks Inc.",
    country: "CA",
    place: { name: "Nelson workshop", country: "CA", region: "BC" },
    registrations: [
      {
        pack: "ca",
        levies: ["GST"],
        from: "2024-01-01",
        to: null,
        frequency: "quarterly",
        anchor: "2026-03-31",
      },
      { pack: "ca", levies: ["BCPST"], from: "2024-01-01", to: null, frequency: "monthly" },
    ],
  });
  return { base: `/clients/${client.id}`, client };
}

const boxes = async (base: string, registration: number, end: string) => {
  const view = await server.ok<{ boxes: { id: string; amount: number }[] }>(
    "GET",
    `${base}/registrations/${registration}/returns/${end}`,
  );
  return Object.fromEntries(view.boxes.map(({ id, amount }) => [id, amount]));
};

describe("several agencies", () => {
  test("one line bears two levies, each on its own return, with its own due date and position", async () => {
    const { base, client } = await canadian();
    const [gst, pst] = client.registrations.map(({ id }) => id);
    await server.ok(
      "POST",
      `${base}/documents`,
      document("sales-invoice", "2026-08-11", [{ amount: "1000.00", code: "GBC" }]),
    );
    expect(await boxes(base, gst ?? 0, "2026-09-30")).toMatchObject({ "101": 100000, "103": 5000 });
    const provincial = await server.ok<{ due: string; net: number }>(
      "GET",
      `${base}/registrations/${pst}/returns/2026-08-31`,
    );
    /** BC PST is due on the last day of the next month; 30 September 2026 is the National Day for Truth and Reconciliation, a statutory holiday there. */
    expect(provincial.due).toBe("2026-10-01");
    /** Commission: under 333.33 the lesser of the tax and 22 (fact sheet CA, section on BC). */
    expect(provincial.net).toBe(7000 - 2200);
    const positions = await server.ok<{ registration: number; due: { to: string; net: number }[] }[]>(
      "GET",
      `${base}/positions`,
    );
    expect(positions.map(({ registration }) => registration)).toEqual([gst, pst]);
  });
  test.each([
    ["2025-12-31", "2026-02-02"],
    ["2024-02-29", "2024-04-02"],
  ])("BC PST for the month to %s is due on %s: weekends and Easter move it", async (end, due) => {
    const { base, client } = await canadian();
    const view = await server.ok<{ due: string }>(
      "GET",
      `${base}/registrations/${client.registrations[1]?.id}/returns/${end}`,
    );
    expect(view.due).toBe(due);
  });
  /** Fact sheets AE 28 days, AU, NZ, ZA with their holidays; dates worked out there by hand. */
  test.each([
    ["ae", "2026-01-31", "monthly", "2026-03-02"],
    ["nz", "2026-03-31", "two-monthly", "2026-05-07"],
    ["nz", "2025-11-30", "two-monthly", "2026-01-15"],
    ["za", "2025-12-31", "monthly", "2026-01-30"],
  ])("%s, period to %s, %s: due %s", async (pack, end, frequency, due) => {
    const client = await server.ok<Client>("POST", "/clients", {
      name: "Due dates",
      country: pack.toUpperCase(),
      registration: { pack, from: "2025-01-01", to: null, frequency, anchor: end },
    });
    const view = await server.ok<{ due: string }>(
      "GET",
      `/clients/${client.id}/registrations/${client.registrations[0]?.id}/returns/${end}`,
    );
    expect(view.due).toBe(due);
  });
  test("two registrations of one levy must not overlap; another country may be added", async () => {
    const { base } = await canadian();
    const again = await server.call<Refused>("POST", `${base}/registrations`, {
      pack: "ca",
      levies: ["GST", "HST"],
      from: "2026-01-01",
      to: null,
      frequency: "monthly",
    });
    expect(again.status).toBe(422);
    expect(again.body.error.code).toBe("registration/overlap");
    const abroad = await server.ok<Client>("POST", `${base}/registrations`, {
      pack: "gb",
      number: "980780684",
      from: "2026-01-01",
      to: null,
      frequency: "quarterly",
      anchor: "2026-03-31",
    });
    expect(abroad.registrations).toHaveLength(3);
    const setup = await server.ok<Setup>("GET", `${base}/setup`);
    expect(setup.codes.some(({ code, pack }) => code === "S20" && pack === "gb")).toBe(true);
  });
  test("another rhythm and basis from a day on: the running period ends before it, money without a document is a finding", async () => {
    const { base, registrationId } = await newZealander();
    await server.ok("PUT", `${base}/registrations/${registrationId}`, {
      changes: [{ from: "2026-04-01", frequency: "six-monthly", anchor: "2026-09-30", basis: "cash" }],
    });
    const periods = await server.ok<{ from: string; to: string }[]>(
      "GET",
      `${base}/registrations/${registrationId}/periods`,
    );
    expect(periods.map(({ to }) => to)).toContain("2026-03-31");
    expect(periods.find(({ from }) => from === "2026-04-01")?.to).toBe("2026-09-30");
    const findings = async (end: string) =>
      (
        await server.ok<{ findings: { check: string }[] }>(
          "GET",
          `${base}/registrations/${registrationId}/returns/${end}`,
        )
      ).findings.map(({ check }) => check);
    const money = (date: string) =>
      server.ok("POST", `${base}/payments`, { kind: "receipt", date, amount: "57.50", allocations: [] });
    await money("2026-01-15");
    await money("2026-05-15");
    expect(await findings("2026-01-31")).not.toContain("unallocated");
    expect(await findings("2026-09-30")).toContain("unallocated");
  });
});

async function newZealander(): Promise<{ base: string; registrationId: number }> {
  const client = await server.ok<Client>("POST", "/clients", {
    name: "Pukeko Physio Ltd",
    country: "NZ",
    registration: {
      pack: "nz",
      from: "2025-01-01",
      to: null,
      frequency: "two-monthly",
      anchor: "2026-01-31",
    },
  });
  return { base: `/clients/${client.id}`, registrationId: client.registrations[0]?.id ?? 0 };
}

describe("codes", () => {
  test("made, refused without an account, made default of a place, archived once used", async () => {
    const { base } = await newClient(server);
    const setup = await server.ok<Setup>("GET", `${base}/setup`);
    const s20 = setup.codes.find(({ code }) => code === "S20");
    if (!s20) throw new Error("the pack has no S20");
    await server.ok("POST", `${base}/codes`, { ...s20, code: "SHOP", name: "Shop sales" });
    const [component] = s20.components;
    const split = (share: string) => ({
      ...s20,
      code: "SPLIT",
      components: [
        {
          ...component,
          splits: {
            invoice: [
              { share: "60", role: "output-tax" },
              { share, account: "2210" },
            ],
          },
        },
      ],
    });
    const refused = await server.call<Refused>("POST", `${base}/codes`, split("30"));
    expect([refused.status, refused.body.error.code, refused.body.error.field]).toEqual([
      422,
      "tax/shares",
      "components[0].splits.invoice",
    ]);
    await server.ok("POST", `${base}/codes`, split("40"));
    const posted = await server.ok<{ id: number }>(
      "POST",
      `${base}/documents`,
      document("sales-invoice", "2026-05-11", [{ amount: "100.00", code: "SPLIT" }]),
    );
    const entries = await server.ok<{ postings: { account: string; amount: string }[] }>("POST", "/price", {
      client: Number(base.split("/").at(-1)),
      document: document("sales-invoice", "2026-05-11", [{ amount: "100.00", code: "SPLIT" }]),
    });
    expect(
      entries.postings.filter(({ account }) => account.startsWith("22")).map(({ amount }) => amount),
    ).toEqual(["-12.00", "-8.00"]);
    expect((await server.call<Refused>("DELETE", `${base}/codes/SPLIT`)).body.error.code).toBe("code/in-use");
    await server.ok("POST", `${base}/codes/SPLIT/archive`, { archived: true });
    expect((await server.ok<Setup>("GET", `${base}/setup`)).archived).toEqual(["SPLIT"]);
    expect(posted.id).toBeGreaterThan(0);
    await server.ok("POST", `${base}/codes/SHOP/default`, { side: "sale", scope: "new", place: null });
    expect((await server.ok<Setup>("GET", `${base}/setup`)).saleCode).toBe("SHOP");
  });
  test("as CSV out and in again: the same codes, and formulas of spreadsheets are harmless", async () => {
    const { base } = await newClient(server);
    const before = (await server.ok<Setup>("GET", `${base}/setup`)).codes;
    const [first] = before;
    await server.ok("POST", `${base}/codes`, { ...first, code: "EVIL", name: '=HYPERLINK("x")' });
    const csv = await (await fetch(`${server.address}/api${base}/codes.csv`)).text();
    expect(csv).not.toMatch(/^=|,=|,"=/m);
    const other = await newClient(server);
    await server.ok("POST", `${other.base}/codes/import`, { csv });
    const after = (await server.ok<Setup>("GET", `${other.base}/setup`)).codes;
    expect(after.filter(({ code }) => code !== "EVIL")).toEqual(before);
    const bad = csv.replace("S20", "S20X").replace("gb.STD", "gb.NONE");
    const refused = await server.call<Refused>("POST", `${other.base}/codes/import`, { csv: bad });
    expect(refused.status).toBe(422);
    expect(refused.body.error.message).toMatch(/^Row \d+: /);
    expect(
      (await server.ok<Setup>("GET", `${other.base}/setup`)).codes.some(({ code }) => code === "S20X"),
    ).toBe(false);
  });
});

describe("rates by date", () => {
  /** The UK hospitality rate, 5 % to 30 September 2021, 12.5 % to 31 March 2022 (SI 2020/728, SI 2021/1156 as in the fact sheet). */
  test("documents on both sides of a change; a credit note keeps the rate of its invoice; a changed row says what it touches", async () => {
    const client = await server.ok<Client>("POST", "/clients", {
      name: "Quayside Inn",
      country: "GB",
      registration: {
        pack: "gb",
        number: "980780684",
        from: "2021-01-01",
        to: null,
        frequency: "quarterly",
        anchor: "2021-10-31",
      },
    });
    const base = `/clients/${client.id}`;
    const post = (kind: string, date: string, more: object) =>
      server.ok<{ tax: number }>(
        "POST",
        `${base}/documents`,
        document(kind, date, [{ amount: "100.00", code: "H" }], more),
      );
    expect((await post("sales-invoice", "2021-09-30", { number: "1" })).tax).toBe(500);
    expect((await post("sales-invoice", "2021-10-01", { number: "2" })).tax).toBe(1250);
    expect((await post("sales-credit-note", "2021-10-15", { number: "C1", corrects: "1" })).tax).toBe(500);
    expect((await post("sales-credit-note", "2021-10-16", { number: "C2", corrects: "2" })).tax).toBe(1250);
    const id = client.registrations[0]?.id ?? 0;
    expect((await boxes(base, id, "2021-10-31"))["1"]).toBe(500 + 1250 - 500 - 1250);
    const { schedules } = await server.ok<Setup>("GET", `${base}/setup`);
    const changed = (schedules["gb.HOSP"] as { from: string; rate: string }[]).map((row) =>
      row.from === "2021-10-01" ? { ...row, rate: "10" } : row,
    );
    const path = `${base}/schedules/gb.HOSP`;
    const touched = await server.ok<{ count: number; first: { number: string }[] }>(
      "POST",
      `${path}/touched`,
      { rows: changed },
    );
    expect(touched.first.map(({ number }) => number).sort()).toEqual(["2", "C2"]);
    await server.ok("PUT", path, { rows: changed });
    expect((await boxes(base, id, "2021-10-31"))["1"]).toBe(0);
    const invoice = await server.ok<{ rows: { number: string; tax: number }[] }>(
      "GET",
      `${base}/documents?search=&limit=10`,
    );
    expect(invoice.rows.find(({ number }) => number === "2")?.tax).toBe(1000);
    const overlap = [...changed, { from: "2021-11-01", to: null, rate: "7", source: "" }];
    const refused = await server.call<Refused>("PUT", path, { rows: overlap });
    expect(refused.body.error.code).toBe("tax/overlapping-rates");
  });
});
