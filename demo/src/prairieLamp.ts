import { bookOf, dealsDone, line } from "./bookMaker.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

/** Prairie Lamp Co.: state, county and city rates on one line, resale certificates, exports. */
export function prairieLamp(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_261_212);
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "sales-invoice",
        number: "PL-",
        perQuarter: [34, 44],
        parties: ["c1", "c2"],
        more: { place: "p1" },
        lines: (r) => [line(r, "Table lamps", [90, 1_400], "ST", "4000", { supply: "goods" })],
      },
      {
        kind: "sales-invoice",
        number: "PR-",
        perQuarter: [8, 12],
        parties: ["c3"],
        more: { place: "p1" },
        lines: (r) => [line(r, "Lamps for resale", [400, 3_900], "RS", "4000", { supply: "goods" })],
      },
      {
        kind: "purchase-bill",
        number: "GL-",
        perQuarter: [8, 11],
        parties: ["s1"],
        more: { place: "p1" },
        lines: (r) => [line(r, "Glass and fittings for resale", [200, 1_900], "PR", "5000")],
      },
    ],
    random,
    today,
  );
  const start = quarters[0]?.from ?? today;
  return bookOf(
    { name: "Prairie Lamp Co.", country: "US" },
    {
      places: [{ id: "p1", name: "Chicago showroom", country: "US", region: "IL-CHI" }],
      registrations: [
        {
          id: "r1",
          pack: "us",
          levies: ["SALES:IL", "SALES:IL-COOK", "SALES:IL-CHI", "SALES:IL-RTA"],
          number: "40718826",
          from: start,
          frequency: "monthly",
          anchor: endOfMonth(start),
        },
      ],
      contacts: [
        { id: "c1", name: "Loop Interiors", country: "US", region: "IL-CHI" },
        { id: "c2", name: "Evening Reader Cafe", country: "US", region: "IL-CHI" },
        {
          id: "c3",
          name: "Lakeshore Home Resale",
          country: "US",
          region: "IL-CHI",
          standing: { "SALES:IL": "resale" },
        },
        { id: "s1", name: "Calumet Glass", country: "US", region: "IL" },
      ],
      documents: [
        ...documents,
        {
          kind: "sales-invoice",
          number: "PL-NOCERT",
          date: quarters[4]?.from,
          contact: "c1",
          place: "p1",
          prices: "exclusive",
          lines: [
            {
              text: "Lamps, sold as resale without a certificate",
              amount: "780.00",
              code: "RS",
              account: "4000",
              supply: "goods",
            },
          ],
        },
      ],
    },
  );
}

function endOfMonth(date: string): string {
  return new Date(Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)), 0)).toISOString().slice(0, 10);
}
