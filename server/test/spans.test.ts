import { afterAll, beforeAll, expect, test } from "vitest";
import type { DetailPage, SummaryRow } from "@fiscalon/contract/reports";
import type { BoxesBetween } from "@fiscalon/contract/returns";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { booksOf, MONTHS } from "./support/drawnBooks.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const QUARTER = ["2026-04-01", "2026-06-30"] as const;

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
    const { base, registration } = await booksOf(server, pack, 11);
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
