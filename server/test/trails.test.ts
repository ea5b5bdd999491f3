import { afterAll, beforeAll, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import type { TrailStep } from "@fiscalon/contract/trail";
import type { PeriodTile, ReturnView } from "@fiscalon/contract/returns";
import { startServer } from "./support/testServer.ts";
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
const MOST = 24;

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
      const inside = step.parts.flatMap((part) =>
        /^(box|group|line)\//.test(part.ref ?? "") ? [part.ref ?? ""] : [],
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
    const groups = [...seen].filter(([ref]) => ref.startsWith("group/"));
    for (const [ref, step] of groups) expect([ref, sumOf(step)]).toEqual([ref, step.amount]);
    // A group is told twice: on its box, and by itself.
    for (const step of seen.values())
      for (const part of step.parts)
        if (part.ref?.startsWith("group/"))
          expect([part.ref, seen.get(part.ref)?.amount]).toEqual([part.ref, part.amount]);
    const lines = [...seen].filter(([ref]) => ref.startsWith("line/"));
    expect(lines.length).toBeGreaterThan(groups.length / 4);
    for (const [ref, { words, arithmetic }] of lines) {
      expect([...words, ...arithmetic].join(" ").length, ref).toBeGreaterThan(20);
      expect([...words, ...arithmetic].join(" "), ref).not.toMatch(/undefined|NaN|\{|\[object/);
    }
  },
);

function sumOf({ parts }: TrailStep): number {
  return parts.reduce((sum, { amount }) => sum + (amount ?? 0), 0);
}
