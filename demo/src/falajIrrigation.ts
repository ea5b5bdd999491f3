import { bookOf, dealsDone, line } from "./bookMaker.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

/** Falaj Irrigation Supplies LLC: two emirates, zero-rated exports, exempt land, imports on reverse charge. */
export function falajIrrigation(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_261_010);
  const lastYear = Number(today.slice(0, 4)) - 1;
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "sales-invoice",
        number: "FI-D",
        perQuarter: [22, 30],
        parties: ["c1", "c2"],
        more: { place: "p1" },
        lines: (r) => [line(r, "Drip lines and valves", [900, 14_000], "S5", "4000", { supply: "goods" })],
      },
      {
        kind: "sales-invoice",
        number: "FI-R",
        perQuarter: [8, 12],
        parties: ["c3"],
        more: { place: "p2" },
        lines: (r) => [line(r, "Pump service", [400, 3_500], "S5", "4000", { supply: "services" })],
      },
      {
        kind: "sales-invoice",
        number: "FI-X",
        perQuarter: [4, 7],
        parties: ["c4"],
        more: { place: "p1" },
        lines: (r) => [
          line(r, "Sprinkler kits, exported", [2_000, 19_000], "ZX", "4100", { supply: "goods" }),
        ],
      },
      {
        kind: "sales-invoice",
        number: "FI-E",
        perQuarter: [1, 2],
        parties: ["c1"],
        more: { place: "p1" },
        lines: (r) => [line(r, "Bare land, let", [3_000, 5_000], "EX", "4900", { supply: "services" })],
      },
      {
        kind: "purchase-bill",
        number: "AG-",
        perQuarter: [9, 13],
        parties: ["s1"],
        more: { place: "p1" },
        lines: (r) => [line(r, "Polyethylene pipe", [1_200, 9_000], "P5", "5000")],
      },
      {
        kind: "purchase-bill",
        number: "DE-",
        perQuarter: [2, 4],
        parties: ["s2"],
        more: { place: "p1" },
        lines: (r) => [
          line(r, "Control valves, imported", [4_000, 22_000], "RC", "5000", { supply: "goods" }),
        ],
      },
    ],
    random,
    today,
  );
  return bookOf(
    { name: "Falaj Irrigation Supplies LLC", country: "AE" },
    {
      places: [
        { id: "p1", name: "Dubai yard", country: "AE", region: "DU" },
        { id: "p2", name: "Ras Al Khaimah depot", country: "AE", region: "RK" },
      ],
      registrations: [
        {
          id: "r1",
          pack: "ae",
          number: "100294771500003",
          from: quarters[0]?.from,
          frequency: "quarterly",
          anchor: quarters[0]?.to,
        },
      ],
      contacts: [
        { id: "c1", name: "Oasis Date Farms", country: "AE", region: "AZ" },
        { id: "c2", name: "Creekside Landscaping", country: "AE", region: "DU", registered: true },
        { id: "c3", name: "Jebel Nurseries", country: "AE", region: "RK" },
        { id: "c4", name: "Batinah Growers", country: "OM" },
        { id: "s1", name: "Gulf Extrusions (invented)", country: "AE", region: "SH", registered: true },
        { id: "s2", name: "Ventilbau Kestrel GmbH", country: "DE" },
      ],
      capitalItems: [
        {
          registration: "r1",
          no: 1,
          name: "Warehouse with yard, Jebel Ali",
          kind: "building",
          firstUse: `${lastYear - 1}-03-01`,
          net: "6400000.00",
          taxes: { VAT: "320000.00" },
          share: "95",
          yearEnds: 12,
          // Part of the yard was let as bare land.
          uses: { [`${lastYear - 1}-12-31`]: "95", [`${lastYear}-12-31`]: "90" },
          evidence: "JA-114",
        },
      ],
      documents: [
        ...documents,
        {
          kind: "purchase-bill",
          number: "AG-TYPED",
          date: quarters[4]?.from,
          contact: "s1",
          place: "p1",
          prices: "exclusive",
          lines: [
            {
              text: "Fittings, tax on the bill is far off",
              amount: "2000.00",
              code: "P5",
              account: "5000",
              typedTax: { VAT: "150.00" },
              typedReason: "as printed on the bill",
            },
          ],
        },
      ],
    },
  );
}
