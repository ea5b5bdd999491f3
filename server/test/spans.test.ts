import fc from "fast-check";
import { afterAll, beforeAll, expect, test } from "vitest";
import type { DetailPage, SummaryRow } from "@fiscalon/contract/reports";
import type { BoxesBetween } from "@fiscalon/contract/returns";
import { at } from "@fiscalon/core/at";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const MONTHS = [
  ["2026-04-01", "2026-04-30"],
  ["2026-05-01", "2026-05-31"],
  ["2026-06-01", "2026-06-30"],
] as const;
const QUARTER = ["2026-04-01", "2026-06-30"] as const;

/** Thirty documents on the first, the last and other days of three months, odd amounts, each side, some credits. */
async function booksOf(pack: JurisdictionPack) {
  const region = pack.regions?.[0]?.code ?? null;
  const rhythm = at(pack.rhythms, 0);
  const client = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/clients", {
    name: `Spans ${pack.id}`,
    country: pack.country,
    place: { name: "Shop", country: pack.country, region },
    registration: { pack: pack.id, from: "2025-01-01", frequency: rhythm.frequency, anchor: rhythm.anchor },
  });
  const base = `/clients/${client.id}`;
  const codes = pack.codes.flatMap(expandCode).filter(({ to }) => to === null);
  const drawn = fc.record({
    code: fc.constantFrom(...codes),
    purchase: fc.boolean(),
    credit: fc.boolean(),
    cents: fc.integer({ min: 1, max: 500_000 }),
    day: fc.constantFrom(...MONTHS.flat(), "2026-05-11", "2026-06-17"),
  });
  for (const [index, { code, purchase, credit, cents, day }] of fc
    .sample(drawn, { seed: 11, numRuns: 30 })
    .entries()) {
    const side = code.direction === "both" ? (purchase ? "purchase" : "sale") : code.direction;
    await server.call("POST", `${base}/documents`, {
      kind: usualKind(side, credit),
      number: `D-${index}`,
      date: day,
      prices: "exclusive",
      lines: [
        {
          amount: (cents / 100).toFixed(2),
          quantity: "2",
          code: code.code,
          account: side === "sale" ? "4000" : "6000",
          attributes: Object.fromEntries((code.inputs ?? []).map((name) => [name, "7.50"])),
        },
      ],
    });
  }
  return { base, registration: `${base}/registrations/${at(client.registrations, 0).id}` };
}

/** Boxes that are nothing but sums: not worked out from others, not moved against another, without rounded shares. */
function plainSums(pack: JurisdictionPack): Set<string> {
  const boxes = pack.forms.flatMap((form) => form.boxes);
  const against = boxes.flatMap((box) =>
    box.kind === "sum" && box.negativeTo !== undefined ? [box.id, box.negativeTo] : [],
  );
  const shares = [...JSON.stringify(pack.codes).matchAll(/([^\s"]+) [+-]\d+\/\d+/g)].map(([, id]) => id);
  const others = new Set([...against, ...shares]);
  return new Set(boxes.flatMap(({ id, kind }) => (kind === "sum" && !others.has(id) ? [id] : [])));
}

const minor = (text: string) => Math.round(Number(text) * 100);
const keyOf = ({ code, direction, rate, levy }: SummaryRow) => `${code} ${direction} ${levy} ${rate}`;

test.each(SHIPPED.map((pack) => [pack.id, pack] as const))(
  "%s: a span of days is the sum of its parts, in boxes, in reports, and down to the lines",
  async (_id, pack) => {
    const { base, registration } = await booksOf(pack);
    const boxesOf = async ([from, to]: readonly [string, string]) =>
      new Map(
        (await server.ok<BoxesBetween>("GET", `${registration}/returns?from=${from}&to=${to}`)).boxes.map(
          ({ id, exact }): [string, number] => [id, minor(exact)],
        ),
      );
    const sums = plainSums(pack);
    const [whole, ...parts] = [await boxesOf(QUARTER), ...(await Promise.all(MONTHS.map(boxesOf)))];
    let moved = 0;
    for (const [box, amount] of whole) {
      if (!sums.has(box)) continue;
      if (amount !== 0) moved += 1;
      expect([box, parts.reduce((sum, part) => sum + (part.get(box) ?? 0), 0)]).toEqual([box, amount]);
    }
    expect(moved).toBeGreaterThan(1);

    const summaryOf = ([from, to]: readonly [string, string]) =>
      server.ok<SummaryRow[]>("GET", `${base}/reports/tax/summary?from=${from}&to=${to}`);
    const all = await summaryOf(QUARTER);
    const months = (await Promise.all(MONTHS.map(summaryOf))).flat();
    for (const row of all) {
      const same = months.filter((one) => keyOf(one) === keyOf(row));
      for (const measure of ["lines", "net", "tax", "recoverable"] as const)
        expect([keyOf(row), measure, same.reduce((sum, one) => sum + one[measure], 0)]).toEqual([
          keyOf(row),
          measure,
          row[measure],
        ]);
    }
    const [from, to] = QUARTER;
    const details = await server.ok<DetailPage>(
      "GET",
      `${base}/reports/tax/details?from=${from}&to=${to}&limit=500`,
    );
    expect(details.total).toBe(all.reduce((sum, { lines }) => sum + lines, 0));
    for (const measure of ["net", "tax", "recoverable"] as const)
      expect(details.rows.reduce((sum, row) => sum + row[measure], 0)).toBe(
        all.reduce((sum, row) => sum + row[measure], 0),
      );
  },
);
