import fc from "fast-check";
import { afterAll, beforeAll, expect, test } from "vitest";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const KINDS = [
  "sales-invoice",
  "sales-credit-note",
  "purchase-bill",
  "purchase-credit-note",
  "cash-sale",
  "expense",
] as const;
const SALE = ["S20", "R5", "Z", "EX", "XG", "DRS"];
const PURCHASE = ["S20", "R5", "Z", "BL20", "CL50", "RCS", "PVA20", "DRP", "NV", "OS"];
const pence = (n: number) => (n / 100).toFixed(2);

interface Sketch {
  kind: (typeof KINDS)[number];
  day: number;
  inclusive: boolean;
  lines: { amount: number; sale: number; purchase: number; typed: number | null }[];
}

const sketch: fc.Arbitrary<Sketch> = fc.record({
  kind: fc.constantFrom(...KINDS),
  day: fc.integer({ min: 1, max: 28 }),
  inclusive: fc.boolean(),
  lines: fc.array(
    fc.record({
      amount: fc.integer({ min: 0, max: 250_000 }),
      sale: fc.nat(SALE.length - 1),
      purchase: fc.nat(PURCHASE.length - 1),
      typed: fc.option(fc.integer({ min: 0, max: 9000 }), { freq: 6 }),
    }),
    { minLength: 1, maxLength: 3 },
  ),
});

const isSale = (kind: string) => kind.startsWith("sales") || kind === "cash-sale";

function bodyOf(one: Sketch, index: number): object {
  const lines = one.lines.map((line) => {
    const code = isSale(one.kind) ? SALE[line.sale] : PURCHASE[line.purchase];
    const typed =
      line.typed !== null && (code === "S20" || code === "R5")
        ? { typedTax: { VAT: pence(line.typed) } }
        : {};
    return { amount: pence(line.amount), code, ...typed };
  });
  const day = String(one.day).padStart(2, "0");
  return document(one.kind, `2026-05-${day}`, lines, {
    number: `N${index}`,
    prices: one.inclusive ? "inclusive" : "exclusive",
  });
}

/** Rates and boxes once more, as plainly as can be, in pence: nothing of core is used here. */
function boxesByHand(sketches: readonly Sketch[]): number[] {
  const box = { "1": 0, "4": 0, "6": 0, "7": 0 };
  for (const one of sketches) {
    const sign = one.kind.endsWith("credit-note") ? -1 : 1;
    for (const line of one.lines) {
      const code = (isSale(one.kind) ? SALE[line.sale] : PURCHASE[line.purchase]) ?? "";
      const rate = { S20: 20, BL20: 20, CL50: 20, RCS: 20, PVA20: 20, DRP: 20, R5: 5 }[code] ?? 0;
      const charged = ["S20", "R5", "BL20", "CL50"].includes(code);
      const half = (numerator: number, denominator: number) =>
        Math.floor((2 * numerator + denominator) / (2 * denominator));
      const taken =
        one.inclusive && charged ? half(line.amount * rate, 100 + rate) : half(line.amount * rate, 100);
      const tax = line.typed !== null && (code === "S20" || code === "R5") ? line.typed : taken;
      const net = one.inclusive && charged ? line.amount - tax : line.amount;
      const deducted = code === "BL20" ? 0 : code === "CL50" ? half(tax, 2) : tax;
      if (isSale(one.kind)) {
        if (code !== "DRS") box["1"] += sign * tax;
        box["6"] += sign * net;
        continue;
      }
      if (["RCS", "PVA20", "DRP"].includes(code)) box["1"] += sign * tax;
      if (code === "RCS") box["6"] += sign * net;
      box["4"] += sign * deducted;
      if (code !== "OS") box["7"] += sign * net;
    }
  }
  return [box["1"], box["4"], box["6"], box["7"]];
}

type Boxes = { boxes: { id: string; exact: string; contributions: { amount: string }[] }[] };

test("any books: boxes as worked out by hand, entries in balance, control accounts agreed, corrections without a trace", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(sketch, { minLength: 1, maxLength: 12 }), async (sketches) => {
      const { base, registration } = await newClient(server);
      const ids: number[] = [];
      for (const [index, one] of sketches.entries()) {
        ids.push((await server.ok<{ id: number }>("POST", `${base}/documents`, bodyOf(one, index))).id);
      }
      const read = async () => {
        const { boxes } = await server.ok<Boxes>(
          "GET",
          `${registration}/returns?from=2026-04-01&to=2026-06-30`,
        );
        return ["1", "4", "6", "7"].map((id) =>
          Math.round(Number(boxes.find((one) => one.id === id)?.exact) * 100),
        );
      };
      expect(await read()).toEqual(boxesByHand(sketches).map((n) => n || 0));

      const balance = await server.ok<{ closing: number }[]>(
        "GET",
        `${base}/trial-balance?from=2026-04-01&to=2026-06-30`,
      );
      expect(balance.reduce((sum, row) => sum + row.closing, 0)).toBe(0);
      const control = await server.ok<{ left: number }>(
        "GET",
        `${registration}/agreements/2026-06-30/control`,
      );
      expect(control.left).toBe(0);

      const [first] = sketches;
      if (!first || ids[0] === undefined) return;
      const changed = await server.ok<{ id: number }>(
        "PUT",
        `${base}/documents/${ids[0]}`,
        document(first.kind, "2026-05-03", [{ amount: "1.00", code: "Z" }], { number: "N0" }),
      );
      await server.ok("PUT", `${base}/documents/${changed.id}`, bodyOf(first, 0));
      expect(await read()).toEqual(boxesByHand(sketches).map((n) => n || 0));
    }),
    { numRuns: 12, endOnFailure: true },
  );
}, 120_000);

interface Step {
  amount: number | null;
  parts: { ref: string | null; amount: number | null }[];
  total?: number;
}

test("every figure opens: each trail from boxes, agreement and continuity goes down to lines and adds up", async () => {
  const { base, registration } = await newClient(server);
  const rid = registration.split("/").at(-1);
  const sketches = fc.sample(sketch, { seed: 7, numRuns: 14 });
  for (const [index, one] of sketches.entries())
    await server.ok("POST", `${base}/documents`, bodyOf(one, index));
  await server.ok("POST", `${registration}/returns/2026-06-30/adjustments`, {
    box: "1",
    amount: "3.10",
    reason: "till difference",
  });
  const view = await server.ok<{ findings: { key: string; severity: string }[] }>(
    "GET",
    `${registration}/returns/2026-06-30`,
  );
  for (const { key } of view.findings)
    await server.ok("POST", `${registration}/returns/2026-06-30/acceptances`, { key, reason: "fine here" });
  await server.ok("POST", `${registration}/returns/2026-06-30/seal`);
  const filed = await server.ok<{ net: number }>("POST", `${registration}/returns/2026-06-30/file`, {
    declared: true,
  });
  await server.ok("POST", `${registration}/settlements/2026-06-30`);
  const money = {
    date: "2026-08-01",
    kind: filed.net < 0 ? "refund" : "payment",
    amount: pence(Math.abs(filed.net)),
  };
  if (filed.net !== 0) await server.ok("POST", `${registration}/settlements/2026-06-30/payments`, money);

  const seen = new Set<string>();
  const walk = async (ref: string): Promise<Step> => {
    const step = await server.ok<Step>("GET", `${base}/trail?ref=${encodeURIComponent(ref)}`);
    if (seen.has(ref)) return step;
    seen.add(ref);
    const adds =
      /^(box|group|agreement|continuity|account)\//.test(ref) &&
      step.parts.every((part) => part.amount !== null);
    if (adds && step.amount !== null && step.parts.length > 0 && !/^box\/.*\/(5|6|7)$/.test(ref)) {
      expect([ref, step.parts.reduce((sum, part) => sum + (part.amount ?? 0), 0)]).toEqual([
        ref,
        step.amount,
      ]);
    }
    for (const part of step.parts) if (part.ref !== null) await walk(part.ref);
    return step;
  };
  for (const box of ["1", "2", "3", "4", "5", "6", "7", "8", "9"]) await walk(`box/${rid}/2026-06-30/${box}`);
  for (const account of ["1200", "2200", "2210"]) {
    for (const row of [
      "opening",
      "declared",
      "timing",
      "settlement",
      "payments",
      "uncodedTotal",
      "closing",
    ]) {
      await walk(`agreement/${rid}/2026-06-30/${account}/${row}`);
    }
    await walk(`account/${account}/2026-04-01/2026-06-30`);
  }
  for (const column of ["opening", "declared", "charges", "paid", "refunded", "closing", "ledger"]) {
    await walk(`continuity/${rid}/2026-06-30/${column}`);
  }
  const lines = [...seen].filter((ref) => ref.startsWith("line/"));
  expect(lines.length).toBeGreaterThanOrEqual(sketches.reduce((sum, one) => sum + one.lines.length, 0) - 3);
  const unknown = await server.call("GET", `${base}/trail?ref=box/${rid}/2026-06-30/12`);
  expect(unknown.status).toBe(404);
});
