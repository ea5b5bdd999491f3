import { afterAll, beforeAll, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import type { TrailStep } from "@fiscalon/contract/trail";
import type { ControlAgreementView, SettlementView } from "@fiscalon/contract/settlement";
import type { PeriodTile, ReturnView } from "@fiscalon/contract/returns";
import { document, GB_CLIENT, newClient, nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** A client of a pack, registered for all it has, with codes of it on an invoice and on its credit note. */
async function booksOf(pack: JurisdictionPack) {
  const region = pack.regions?.[0]?.code ?? null;
  const rhythm = at(pack.rhythms, 0);
  const client = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/clients", {
    name: `Trails ${pack.id}`,
    country: pack.country,
    place: { name: "Shop", country: pack.country, region },
    registration: { pack: pack.id, from: "2025-01-01", frequency: rhythm.frequency, anchor: rhythm.anchor },
  });
  const base = `/clients/${client.id}`;
  const rid = at(client.registrations, 0).id;
  const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Other side",
    country: pack.country,
    region,
  });
  let count = 0;
  for (const code of someOf(pack.codes.flatMap(expandCode)))
    for (const side of code.direction === "both" ? (["sale", "purchase"] as const) : [code.direction])
      for (const credit of [false, true]) {
        count += 1;
        await server.call("POST", `${base}/documents`, documentOf(code, side, credit, count, contact.id));
      }
  return { base, rid };
}

/** Codes from all over the list: of the largest packs not every one. */
function someOf(codes: readonly TaxCode[]): TaxCode[] {
  const step = Math.ceil(codes.length / MOST);
  return codes.filter((_, index) => index % step === 0);
}
const MOST = 12;

/** Every one has an amount of its own, so that two of them are never taken for one. */
function documentOf(
  code: TaxCode,
  side: "sale" | "purchase",
  credit: boolean,
  count: number,
  contact: number,
) {
  const on = code.to !== null && code.to < "2026-05-11" ? code.to : "2026-05-11";
  return {
    kind: usualKind(side, credit),
    number: `T-${count}`,
    date: on,
    prices: "exclusive",
    contact,
    lines: [
      {
        amount: (credit ? 10 : 100) + count / 100,
        quantity: "2",
        code: code.code,
        account: side === "sale" ? "4000" : "6000",
        attributes: Object.fromEntries((code.inputs ?? []).map((name) => [name, "7.50"])),
      },
    ].map((line) => ({ ...line, amount: line.amount.toFixed(2) })),
  };
}

test.each(SHIPPED.map((pack) => [pack.id, pack] as const))(
  "%s: every box opens down to documents and their rule, and what is inside adds up to it",
  async (_id, pack) => {
    const { base, rid } = await booksOf(pack);
    const registration = `${base}/registrations/${rid}`;
    const tiles = await server.ok<PeriodTile[]>("GET", `${registration}/periods`);
    const tile = tiles.find(({ from, to }) => from <= "2026-05-11" && "2026-05-11" <= to);
    const end = tile?.to ?? "";
    const view = await server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
    const seen = new Map<string, TrailStep>();
    const walk = async (ref: string): Promise<TrailStep> => {
      const known = seen.get(ref);
      if (known) return known;
      const step = await server.ok<TrailStep>("GET", `${base}/trail?ref=${encodeURIComponent(ref)}`);
      seen.set(ref, step);
      expect(
        JSON.stringify([step.title, step.words, step.parts.map(({ label, detail }) => [label, detail])]),
      ).not.toMatch(/\d{4}-\d\d-\d\d/);
      const inside = step.parts.flatMap((part) =>
        /^(box|group|declared|line)\//.test(part.ref ?? "") ? [part.ref ?? ""] : [],
      );
      await Promise.all(inside.map(walk));
      return step;
    };
    for (const box of view.boxes) {
      const step = await walk(`box/${rid}/${end}/${box.id}`);
      expect([box.id, step.amount]).toEqual([box.id, box.amount]);
      if (box.amount !== 0) expect(step.parts.length, box.id).toBeGreaterThan(0);
      if (box.kind === "formula") expect(step.arithmetic.length, box.id).toBe(2);
      else expect([box.id, sumOf(step)]).toEqual([box.id, box.exact]);
    }
    for (const figure of ["output", "input", "net"] as const) {
      const step = await walk(`position/${rid}/${end}/${figure}`);
      expect([figure, Math.abs(step.amount ?? 0)]).toEqual([figure, Math.abs(tile?.[figure] ?? 0)]);
    }
    const { entry } = await server.ok<SettlementView>("GET", `${registration}/settlements/${end}`);
    for (const { account, amount, ref } of entry.postings) {
      const step = await walk(ref);
      expect([account, Math.abs(step.amount ?? 0)]).toEqual([account, Math.abs(amount)]);
    }
    const { columns } = await server.ok<ControlAgreementView>(
      "GET",
      `${registration}/agreements/${end}/control`,
    );
    for (const column of columns)
      for (const row of ["declared", "timing", "uncodedTotal"] as const) {
        const step = await walk(`agreement/${rid}/${end}/${column.account}/${row}`);
        expect([column.account, row, step.amount]).toEqual([column.account, row, column[row]]);
        if (step.parts.length > 0)
          expect([column.account, row, sumOf(step)]).toEqual([column.account, row, column[row]]);
        else expect([column.account, row, column[row]]).toEqual([column.account, row, 0]);
      }
    const groups = [...seen].filter(([ref]) => /^(group|declared)\//.test(ref));
    for (const [ref, step] of groups) expect([ref, sumOf(step)]).toEqual([ref, step.amount]);
    // A group is told twice: on its box, and by itself.
    for (const step of seen.values())
      for (const part of step.parts)
        if (/^(group|declared)\//.test(part.ref ?? ""))
          expect([part.ref, seen.get(part.ref ?? "")?.amount]).toEqual([part.ref, part.amount]);
    const lines = [...seen].filter(([ref]) => ref.startsWith("line/"));
    expect(lines.length).toBeGreaterThan(4);
    for (const [ref, { words, arithmetic }] of lines) {
      expect([...words, ...arithmetic].join(" ").length, ref).toBeGreaterThan(20);
      expect([...words, ...arithmetic].join(" "), ref).not.toMatch(/undefined|NaN|\{|\[object/);
    }
  },
);

function sumOf({ parts }: TrailStep): number {
  return parts.reduce((sum, { amount }) => sum + (amount ?? 0), 0);
}

/** On the cash basis a receipt decides what is reported: £120 of an invoice of £240, and £100 for another day. */
test("a receipt opens to what it settled, what it made reportable and what stays on account; so does what is open", async () => {
  const { base, registration } = await newClient(server, {
    ...GB_CLIENT,
    registration: { ...GB_CLIENT.registration, number: nextVatNumber(), basis: "cash" },
  });
  const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Oxbow",
    country: "GB",
  });
  const invoice = await server.ok<{ id: number }>(
    "POST",
    `${base}/documents`,
    document("sales-invoice", "2026-02-10", [{ amount: "200.00", code: "S20" }], { contact: contact.id }),
  );
  const receipt = await server.ok<{ id: number }>("POST", `${base}/payments`, {
    kind: "receipt",
    date: "2026-03-20",
    amount: "220.00",
    contact: contact.id,
    allocations: [{ document: invoice.id, amount: "120.00" }],
  });
  const step = (ref: string) => server.ok<TrailStep>("GET", `${base}/trail?ref=${encodeURIComponent(ref)}`);
  const paid = await step(`payment/${receipt.id}`);
  expect(paid.amount).toBe(220_00);
  expect(paid.parts.slice(0, 2).map(({ label, amount }) => [label, amount])).toEqual([
    [expect.stringMatching(/^Sales invoice /), 120_00],
    ["Stays on account", 100_00],
  ]);
  expect(paid.words.join(" ")).toContain("Made VAT of 20.00 reportable in the period to 31 Mar 2026.");
  const open = await step(`open/${invoice.id}`);
  expect([open.amount, sumOf(open)]).toEqual([120_00, 120_00]);
  expect(open.parts.map(({ ref }) => ref)).toEqual([`document/${invoice.id}`, `payment/${receipt.id}`]);
  const line = await step(`line/${invoice.id}/1`);
  const tax = line.parts.filter(({ label }) => label.startsWith("VAT "));
  expect(tax.map(({ amount }) => amount).sort()).toEqual([20_00, 20_00]);

  const rid = registration.split("/").at(-1);
  const box = await step(`box/${rid}/2026-03-31/1`);
  expect([box.amount, sumOf(box)]).toEqual([20_00, 20_00]);
  const gone = await server.call("GET", `${base}/trail?ref=payment/${receipt.id + 1}`);
  expect(gone.status).toBe(404);
});

/** India's credit ledger goes from month to month: common practice of form GSTR-3B, from memory. */
test("a box that carries something over opens the period before, whatever became of that since", async () => {
  const client = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/clients", {
    name: "Credits",
    country: "IN",
    place: { name: "Shop", country: "IN", region: "29" },
    registration: { pack: "in", from: "2026-01-01", frequency: "monthly", anchor: "2026-01-31" },
  });
  const base = `/clients/${client.id}`;
  const rid = at(client.registrations, 0).id;
  const supplier = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Supplier",
    country: "IN",
    region: "29",
    registered: true,
  });
  const bill = (date: string, amount: string) =>
    server.ok(
      "POST",
      `${base}/documents`,
      document("purchase-bill", date, [{ amount, taxClass: "standard", supply: "goods" }], {
        contact: supplier.id,
        number: `B-${date}`,
      }),
    );
  await bill("2026-04-10", "1000.00");
  const step = (ref: string) => server.ok<TrailStep>("GET", `${base}/trail?ref=${encodeURIComponent(ref)}`);
  const carried = await step(`box/${rid}/2026-05-31/op.cgst`);
  expect(carried.parts.map(({ ref }) => ref)).toEqual([`box/${rid}/2026-04-30/cl.cgst`]);
  const before = await step(at(carried.parts, 0).ref ?? "");
  expect([before.amount, carried.amount]).toEqual([90_00, 90_00]);
  await bill("2026-04-20", "100.00");
  expect((await step(`box/${rid}/2026-05-31/op.cgst`)).amount).toBe(99_00);
  const span = await server.ok<{ boxes: { id: string; exact: string }[] }>(
    "GET",
    `${base}/registrations/${rid}/returns?from=2026-05-01&to=2026-05-31`,
  );
  expect(span.boxes.find(({ id }) => id === "op.cgst")?.exact).toBe("99.00");
});
