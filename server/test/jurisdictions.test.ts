import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { blankJurisdiction, withLevy } from "@fiscalon/core/jurisdictions/blankJurisdiction";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { document, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Client {
  id: number;
  registrations: { id: number }[];
}
type Refused = { error: { code: string; message: string; field?: string } };

const boxes = async (base: string, registration: number, end: string) => {
  const view = await server.ok<{ boxes: { id: string; amount: number }[] }>(
    "GET",
    `${base}/registrations/${registration}/returns/${end}`,
  );
  return Object.fromEntries(view.boxes.map(({ id, amount }) => [id, amount]));
};

describe("an own jurisdiction", () => {
  /** A fixed amount a bottle beside a percentage on a price that includes it; invented. */
  const own = (): OwnJurisdiction => {
    const start = withLevy(
      { ...blankJurisdiction(), id: "own-isle", country: "XZ", currency: "EUR", name: "Isle of Test" },
      "BOTTLE",
      false,
    );
    const [taxed, ...others] = start.codes;
    const [form] = start.forms;
    if (!taxed || !form) throw new Error("the blank jurisdiction has no code");
    const [percentage] = taxed.components;
    if (!percentage) throw new Error("the code has no levy");
    const bottle = {
      ...percentage,
      levy: "BOTTLE",
      rate: { kind: "per-unit" as const, schedule: "own.BOTTLE" },
      partOfLaterBases: true,
      recoverable: "0",
      boxes: { sale: "5 +t" },
    };
    return {
      ...start,
      schedules: {
        ...start.schedules,
        "own.BOTTLE": [{ from: "2000-01-01", to: null, rate: "0.25", source: "" }],
      },
      codes: [{ ...taxed, components: [bottle, percentage] }, ...others],
      forms: [
        {
          ...form,
          levies: ["TAX", "BOTTLE"],
          boxes: [
            ...form.boxes.map((box) =>
              box.id === "4" && box.kind === "formula" ? { ...box, formula: "[2] + [5] - [3]" } : box,
            ),
            {
              ...form.boxes[1],
              id: "5",
              title: "Bottle levy",
              short: "Bottle levy",
            } as (typeof form.boxes)[number],
          ],
        },
      ],
    };
  };
  test("is kept, exported, imported, computed and filed by reference; refused while wrong or in use", async () => {
    const file = { ...own(), format: "fiscalon-jurisdiction", version: 1 };
    const circular = {
      ...file,
      forms: file.forms.map((form) => ({
        ...form,
        boxes: form.boxes.map((box) => (box.id === "4" ? { ...box, formula: "[4] + 1" } : box)),
      })),
    };
    const refused = await server.call<Refused>("PUT", "/jurisdictions/own-isle", circular);
    expect([refused.status, refused.body.error.code]).toEqual([422, "returns/circular-boxes"]);
    await server.ok("PUT", "/jurisdictions/own-isle", file);
    const exported = await server.ok<OwnJurisdiction>("GET", "/jurisdictions/own-isle");
    await server.ok("DELETE", "/jurisdictions/own-isle");
    await server.ok("PUT", "/jurisdictions/own-isle", exported);
    expect(await server.ok("GET", "/jurisdictions/own-isle")).toEqual(exported);
    const client = await server.ok<Client>("POST", "/clients", {
      name: "Bottle shop",
      country: "XZ",
      registration: {
        pack: "own-isle",
        levies: ["TAX", "BOTTLE"],
        number: "1",
        from: "2026-01-01",
        to: null,
        frequency: "quarterly",
        anchor: "2026-03-31",
      },
    });
    const base = `/clients/${client.id}`;
    const line = { quantity: "10", unitPrice: "2.00", code: "S" };
    const sold = await server.ok<{ net: number; gross: number }>(
      "POST",
      `${base}/documents`,
      document("sales-invoice", "2026-02-11", [line]),
    );
    /** 10 × 2.00, 10 × 0.25 a bottle, 10 % of 22.50. */
    expect([sold.net, sold.gross]).toEqual([2000, 2000 + 250 + 225]);
    const registration = `${base}/registrations/${client.registrations[0]?.id}`;
    expect(await boxes(base, client.registrations[0]?.id ?? 0, "2026-03-31")).toMatchObject({
      "1": 2000,
      "2": 225,
      "5": 250,
      "4": 475,
    });
    await server.ok("POST", `${registration}/returns/2026-03-31/seal`);
    const without = await server.call<Refused>("POST", `${registration}/returns/2026-03-31/file`, {
      declared: true,
    });
    expect(without.body.error.code).toBe("returns/no-reference");
    const filed = await server.ok<{ state: string; filed: { receipt: { receiptId: string } } }>(
      "POST",
      `${registration}/returns/2026-03-31/file`,
      { declared: true, reference: "ISLE-1" },
    );
    expect([filed.state, filed.filed.receipt.receiptId]).toEqual(["filed", "ISLE-1"]);
    expect((await server.call<Refused>("DELETE", "/jurisdictions/own-isle")).body.error.code).toBe(
      "jurisdiction/in-use",
    );
    expect(
      (await server.call<Refused>("PUT", "/jurisdictions/gb", { ...file, id: "gb" })).body.error.code,
    ).toBe("jurisdiction/shipped");
  });
  test("a shipped pack is a file that can be kept under another id", async () => {
    for (const { id } of SHIPPED) {
      const file = await server.ok<OwnJurisdiction>("GET", `/jurisdictions/${id}`);
      await server.ok("PUT", `/jurisdictions/${file.id}`, file);
      await server.ok("DELETE", `/jurisdictions/${file.id}`);
    }
  });
});

test("the register of numbers: known, ended, unknown, busy, and numbers that cannot be", async () => {
  const ask = (number: string) =>
    server.call<{ state: string } & Refused>("GET", `/number-register?country=AU&number=${number}`);
  /** An ABN that passes its check and ends as wanted. */
  const abn = (end: string) => {
    for (let rest = 10_000_000_000; ; rest += 1_000_003) {
      const number = `${String(rest).slice(0, 11 - end.length)}${end}`;
      if (new Packs(SHIPPED).byId("au").checkNumber(number).ok) return number;
    }
  };
  for (const [end, state] of [
    ["41", "registered"],
    ["47", "ended"],
    ["00", "unknown"],
  ] as const) {
    expect((await ask(abn(end))).body.state).toBe(state);
  }
  for (const [number, status, code] of [
    [abn("99"), 502, "register/busy"],
    ["51824753557", 422, "register/bad-number"],
  ] as const) {
    const answer = await ask(number);
    expect([answer.status, answer.body.error.code]).toEqual([status, code]);
  }
});
