import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

type Boxes = { boxes: { id: string; amount: string; exact: string; contributions: { amount: string }[] }[] };
interface View {
  state: string;
  hash: string;
  filed: { receipt: Record<string, string> } | null;
  sentWithoutAnswer: string | null;
  findings: {
    key: string;
    check: string;
    severity: string;
    document: number | null;
    accepted: object | null;
  }[];
  drift: object[];
  boxes: { id: string; amount: number }[];
}
const PERIOD = "2026-06-30";
const mode = (wanted: string) =>
  fetch(`${server.address}/simulators/authority/mode`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ mode: wanted }),
  });

async function acceptAll(registration: string, period: string): Promise<void> {
  const view = await server.ok<View>("GET", `${registration}/returns/${period}`);
  for (const { key } of view.findings.filter((one) => one.accepted === null)) {
    await server.ok("POST", `${registration}/returns/${period}/acceptances`, {
      key,
      reason: "checked for this test",
    });
  }
}

describe("a whole quarter over HTTP", () => {
  /** Figures of VAT Notice 700/12 worked through: the same quarter as in the core tests, posted and summed by the server. */
  test("documents, boxes, findings, seal, file, settle, pay, late item", async () => {
    const { base, registration } = await newClient(server);
    const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
      name: "Oxbow Timber",
      country: "GB",
      taxNumber: "100000034",
    });
    const post = (kind: string, code: string, amount: string, number: string, more = {}) =>
      server.ok<{ id: number }>(
        "POST",
        `${base}/documents`,
        document(kind, "2026-05-11", [{ amount, code }], { number, contact: contact.id, ...more }),
      );
    await post("sales-invoice", "S20", "9400.00", "1");
    await post("sales-invoice", "S20", "2136.00", "2", { prices: "inclusive" });
    await post("sales-invoice", "R5", "1100.00", "3");
    await post("sales-invoice", "Z", "640.00", "4");
    await post("sales-invoice", "XG", "2000.00", "5");
    await post("sales-credit-note", "S20", "260.00", "6");
    const bill = await post("purchase-bill", "S20", "3725.00", "a");
    await post("purchase-bill", "RCS", "600.00", "b");
    await post("purchase-bill", "PVA20", "1450.00", "c");
    await post("purchase-bill", "BL20", "150.00", "d");
    await post("purchase-bill", "CL50", "380.00", "e");
    await post("purchase-credit-note", "S20", "85.00", "f");

    const { boxes } = await server.ok<Boxes>("GET", `${registration}/returns?from=2026-04-01&to=${PERIOD}`);
    expect(boxes.map((box) => box.amount)).toEqual([
      "2649.00",
      "0.00",
      "2649.00",
      "1176.00",
      "1473.00",
      "15260",
      "6220",
      "0",
      "0",
    ]);
    const sums = boxes.map((box) =>
      box.contributions.reduce((sum, part) => sum + Number(part.amount) * 100, 0),
    );
    expect(sums.map((sum) => Math.round(sum))).toEqual(
      boxes.map((box) => Math.round(Number(box.exact) * 100)),
    );

    const sealing = await server.call<{ error: { code: string } }>(
      "POST",
      `${registration}/returns/${PERIOD}/file`,
      { declared: true },
    );
    expect([sealing.status, sealing.body.error.code]).toEqual([409, "returns/wrong-state"]);
    await acceptAll(registration, PERIOD);
    const sealed = await server.ok<View>("POST", `${registration}/returns/${PERIOD}/seal`);
    expect(sealed).toMatchObject({ state: "sealed", drift: [] });
    expect(sealed.hash).toMatch(/^[0-9a-f]{64}$/);
    const change = await server.call<{ error: { code: string } }>(
      "POST",
      `${base}/documents/${bill.id}/void`,
      { reason: "not wanted" },
    );
    expect([change.status, change.body.error.code]).toEqual([409, "document/sealed"]);

    const filed = await server.ok<View>("POST", `${registration}/returns/${PERIOD}/file`, { declared: true });
    expect(filed.state).toBe("filed");
    expect(filed.filed?.receipt["formBundleNumber"]).toMatch(/^\d{12}$/);

    const late = await server.ok<{ id: number; ledgerDate: string }>(
      "POST",
      `${base}/documents`,
      document("purchase-bill", "2026-06-02", [{ amount: "50.00", code: "S20" }], {
        number: "late",
        contact: contact.id,
      }),
    );
    expect(late.ledgerDate).toBe("2026-07-01");
    const settlement = `${registration}/settlements/${PERIOD}`;
    const before = await server.ok<{
      entry: { postings: { account: string; amount: number; before: number }[] };
    }>("GET", settlement);
    expect(before.entry.postings.map((p) => [p.account, p.amount, p.before])).toEqual([
      ["2200", 264900, -264900],
      ["1200", -117600, 117600],
      ["2210", -147300, 0],
    ]);
    await server.ok("POST", settlement);
    const wrong = await server.call<{ error: { code: string; field: string } }>(
      "POST",
      `${settlement}/payments`,
      { date: "2026-08-05", kind: "refund", amount: "1473.00" },
    );
    expect(wrong.body.error).toMatchObject({ code: "settle/wrong-way", field: "kind" });
    const paid = await server.ok<{ outstanding: number; continuity: { closing: number; ledger: number }[] }>(
      "POST",
      `${settlement}/payments`,
      { date: "2026-08-05", kind: "payment", amount: "1473.00" },
    );
    expect(paid.outstanding).toBe(0);
    expect(paid.continuity).toMatchObject([{ closing: 0, ledger: 0 }]);

    const next = await server.ok<{ late: { number: string; own: string; input: number }[] }>(
      "GET",
      `${registration}/settlements/2026-09-30`,
    );
    expect(next.late).toMatchObject([{ number: "late", own: PERIOD, input: 1000 }]);
    for (const period of [PERIOD, "2026-09-30"]) {
      const agreement = await server.ok<{ left: number; columns: { difference: number }[] }>(
        "GET",
        `${registration}/agreements/${period}/control`,
      );
      expect([period, agreement.left, agreement.columns.map((c) => c.difference)]).toEqual([
        period,
        0,
        [0, 0, 0],
      ]);
    }
  });

  test("an adjustment, a journal on a tax account and its explanation, all in the agreement", async () => {
    const { base, registration } = await newClient(server);
    await server.ok(
      "POST",
      `${base}/documents`,
      document("sales-invoice", "2026-05-11", [{ amount: "100.00", code: "S20" }]),
    );
    const journal = document("journal", "2026-05-20", [
      { account: "2200", amount: "-14.20", text: "mugs" },
      { account: "6200", amount: "14.20" },
    ]);
    await server.ok("POST", `${base}/documents`, journal);
    const path = `${registration}/agreements/${PERIOD}/control`;
    const open = await server.ok<{ left: number; uncoded: { entry: number; amount: number }[] }>("GET", path);
    expect([open.left, open.uncoded.map((one) => one.amount)]).toEqual([1420, [-1420]]);
    await server.ok("PUT", `${base}/entries/${open.uncoded[0]?.entry}/explanation`, {
      reason: "agreed with the client",
    });
    expect(await server.ok("GET", path)).toMatchObject({ left: 0 });

    const adjustment = { box: "4", amount: "33.00", reason: "fuel receipts found", evidence: "box file" };
    const view = await server.ok<View>("POST", `${registration}/returns/${PERIOD}/adjustments`, adjustment);
    expect(view.boxes.map((box) => box.amount).slice(0, 5)).toEqual([2000, 0, 2000, 3300, 1300]);
    const refused = await server.call<{ error: { code: string } }>(
      "POST",
      `${registration}/returns/${PERIOD}/adjustments`,
      { ...adjustment, box: "5" },
    );
    expect(refused.body.error.code).toBe("returns/computed-box");
    await acceptAll(registration, PERIOD);
    await server.ok("POST", `${registration}/returns/${PERIOD}/seal`);
    await server.ok("POST", `${registration}/returns/${PERIOD}/file`, { declared: true });
    const settled = await server.ok<{ entry: { postings: { amount: number }[] } }>(
      "POST",
      `${registration}/settlements/${PERIOD}`,
    );
    expect(settled.entry.postings.reduce((sum, p) => sum + p.amount, 0)).toBe(0);
  });

  test("a document without a registration waits, and is counted once there is one", async () => {
    const { base, id } = await newClient(server, { name: "Unregistered Ltd", country: "GB" });
    const sale = document("sales-invoice", "2026-05-11", [{ amount: "100.00", code: "S20" }]);
    const preview = await server.ok<{ effect: { warnings: { code: string; text: string }[] } }>(
      "POST",
      "/price",
      { client: id, document: sale },
    );
    expect(preview.effect.warnings[0]).toMatchObject({ code: "document/no-registration" });
    await server.ok("POST", `${base}/documents`, sale);
    const { registrations } = await server.ok<{ registrations: { id: number }[] }>(
      "POST",
      `${base}/registrations`,
      { pack: "gb", from: "2026-04-01", frequency: "quarterly", anchor: "2026-03-31" },
    );
    const { boxes } = await server.ok<Boxes>(
      "GET",
      `${base}/registrations/${registrations[0]?.id}/returns?from=2026-04-01&to=${PERIOD}`,
    );
    expect(boxes[0]?.amount).toBe("20.00");
    const overlap = await server.call<{ error: { code: string; field: string } }>(
      "POST",
      `${base}/registrations`,
      { pack: "gb", from: "2026-06-01", frequency: "monthly" },
    );
    expect(overlap.body.error.code).toBe("registration/overlap");
  });
});

describe("the gateway misbehaves", () => {
  async function sealedQuarter() {
    const client = await newClient(server);
    await server.ok(
      "POST",
      `${client.base}/documents`,
      document("sales-invoice", "2026-05-11", [{ amount: "100.00", code: "S20" }]),
    );
    await server.ok("POST", `${client.registration}/returns/${PERIOD}/seal`);
    return `${client.registration}/returns/${PERIOD}`;
  }

  test.each([
    ["failing", "authority/unreachable"],
    ["slow", "authority/unreachable"],
    ["not-authorised", "authority/refused"],
  ])("%s: a clear refusal, nothing filed, and it works afterwards", async (wanted, code) => {
    const path = await sealedQuarter();
    await mode(wanted);
    const refused = await server.call<{ error: { code: string } }>("POST", `${path}/file`, {
      declared: true,
    });
    await mode("normal");
    expect([refused.status, refused.body.error.code]).toEqual([502, code]);
    expect(await server.ok("GET", path)).toMatchObject({ state: "sealed", filed: null });
    expect(await server.ok("POST", `${path}/file`, { declared: true })).toMatchObject({ state: "filed" });
  });

  test("the answer is lost: what the authority holds is fetched and compared", async () => {
    const path = await sealedQuarter();
    await mode("lost-answer");
    const filed = await server.ok<View>("POST", `${path}/file`, { declared: true });
    await mode("normal");
    expect(filed.filed?.receipt["confirmedBy"]).toContain("viewing the return");
  });

  test("the answer is lost and the authority falls silent: it stays sent, is not opened, and is asked for later", async () => {
    const path = await sealedQuarter();
    await mode("lost-then-failing");
    const unknown = await server.call<{ error: { code: string } }>("POST", `${path}/file`, {
      declared: true,
    });
    expect([unknown.status, unknown.body.error.code]).toEqual([502, "authority/no-answer"]);
    const shown = await server.ok<View>("GET", path);
    expect([shown.state, shown.filed, shown.sentWithoutAnswer]).toEqual(["sealed", null, expect.any(String)]);
    const reopened = await server.call<{ error: { code: string } }>("POST", `${path}/reopen`);
    expect([reopened.status, reopened.body.error.code]).toEqual([409, "returns/being-sent"]);
    // Wherever the books go, it goes with them.
    const [, client = "", end = ""] = /clients\/(\d+)\/.+\/(.+)$/.exec(path) ?? [];
    const book = await server.ok<object>("GET", `/clients/${client}/book`);
    const moved = await server.ok<{ id: number }>("POST", "/books", book);
    const { registrations } = await server.ok<{ registrations: { id: number }[] }>(
      "GET",
      `/clients/${moved.id}`,
    );
    const there = `/clients/${moved.id}/registrations/${registrations[0]?.id}/returns/${end}`;
    expect((await server.ok<View>("GET", there)).sentWithoutAnswer).toBe(shown.sentWithoutAnswer);
    expect(await server.ok("GET", `/clients/${moved.id}/book`)).toEqual(book);
    await mode("normal");
    const filed = await server.ok<View>("POST", `${path}/file`, { declared: true });
    expect(filed).toMatchObject({ state: "filed", sentWithoutAnswer: null });
    expect(filed.filed?.receipt).toMatchObject({
      confirmedBy: expect.stringContaining("viewing the return"),
    });
    expect(filed.filed?.receipt["simulated"]).toContain("no authority has it");
  });

  test("without the declaration nothing is sent", async () => {
    const path = await sealedQuarter();
    const refused = await server.call<{ error: { code: string; message: string } }>("POST", `${path}/file`, {
      declared: false,
    });
    expect([refused.status, refused.body.error.message]).toEqual([
      400,
      "Read the declaration and confirm it before filing.",
    ]);
  });
});
