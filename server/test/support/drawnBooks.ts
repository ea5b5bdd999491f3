import fc from "fast-check";
import { at } from "@fiscalon/core/at";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TestServer } from "./testServer.ts";

export const MONTHS = [
  ["2026-04-01", "2026-04-30"],
  ["2026-05-01", "2026-05-31"],
  ["2026-06-01", "2026-06-30"],
] as const;

/**
 * A client of a pack with thirty documents on the first, the last and other days of three months, odd amounts, each
 * side, any code, some credits.
 */
export async function booksOf(server: TestServer, pack: JurisdictionPack, seed: number) {
  const region = pack.regions?.[0]?.code ?? null;
  const rhythm = at(pack.rhythms, 0);
  const client = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/clients", {
    name: `Books ${pack.id} ${seed}`,
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
    .sample(drawn, { seed, numRuns: 30 })
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
