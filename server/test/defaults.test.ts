import { afterAll, beforeAll, expect, test } from "vitest";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Case {
  pack: string;
  country: string;
  ours: string;
  theirs: string;
  levies?: string[];
  sale: string;
  purchase: string;
}

/** ETA 165, AQST s. 16, CGST s.9 and 16; what a supply bears where nobody says more than where it is. From memory. */
const CASES: Case[] = [
  { pack: "ca", country: "CA", ours: "ON", theirs: "ON", sale: "HON", purchase: "HON" },
  { pack: "ca", country: "CA", ours: "ON", theirs: "NS", sale: "HNS", purchase: "HON" },
  { pack: "ca", country: "CA", ours: "ON", theirs: "AB", sale: "G5", purchase: "HON" },
  { pack: "ca", country: "CA", ours: "AB", theirs: "AB", sale: "G5", purchase: "G5" },
  { pack: "ca", country: "CA", ours: "BC", theirs: "BC", sale: "G5", purchase: "GBC" },
  {
    pack: "ca",
    country: "CA",
    ours: "QC",
    theirs: "QC",
    levies: ["GST", "HST", "QST"],
    sale: "GQ",
    purchase: "GQ",
  },
  { pack: "ca", country: "CA", ours: "QC", theirs: "QC", sale: "G5", purchase: "GQC" },
  { pack: "in", country: "IN", ours: "29", theirs: "29", sale: "S18", purchase: "P18" },
  { pack: "in", country: "IN", ours: "29", theirs: "27", sale: "S18", purchase: "P18" },
];

test.each(CASES)(
  "a line that says nothing but its price: $country, from $ours, other side in $theirs: $sale and $purchase",
  async ({ pack, country, ours, theirs, levies, sale, purchase }) => {
    const client = await server.ok<{ id: number }>("POST", "/clients", {
      name: `Nothing said in ${ours}`,
      country,
      place: { name: "Shop", country, region: ours },
      registration: {
        pack,
        from: "2025-04-01",
        frequency: "quarterly",
        anchor: "2026-03-31",
        ...(levies ? { levies } : {}),
      },
    });
    const base = `/clients/${client.id}`;
    const { id: contact } = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
      name: "Other side",
      country,
      region: theirs,
      registered: true,
    });
    const codeOf = async (kind: string) => {
      const { input } = await server.ok<{ input: { lines: { code: string }[] } }>(
        "POST",
        `${base}/documents`,
        { kind, date: "2026-06-02", number: `D-${kind}`, contact, lines: [{ amount: "100.00" }] },
      );
      return input.lines[0]?.code;
    };
    expect([await codeOf("sales-invoice"), await codeOf("purchase-bill")]).toEqual([sale, purchase]);
  },
);
