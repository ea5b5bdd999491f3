import { bookOf, dealsDone, line } from "./bookMaker.ts";
import type { Line } from "./bookMaker.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";
import { PIECES, stringStock } from "./stringStock.ts";
import { inventedVatNumber } from "./saltmarshKiln.ts";

/** Larkspur Strings: pre-owned violins and guitars on the margin scheme, repairs at the standard rate. */
export function larkspurStrings(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_303);
  const workshop = dealsDone(
    quarters,
    [
      {
        kind: "cash-sale",
        number: "REP-",
        perQuarter: [16, 24],
        more: { prices: "inclusive" },
        lines: (r) => [line(r, "Repair and set-up", [35, 240], "S20", "4000", { supply: "services" })],
      },
      {
        kind: "purchase-bill",
        number: "STR-",
        perQuarter: [5, 8],
        parties: ["s3"],
        lines: (r) => [
          line(r, "Strings, bridges, varnish", [60, 410], "S20", "5000", r.next() < 0.3 ? spentOn(r) : {}),
        ],
      },
    ],
    random,
    today,
  );
  const stock = stringStock(quarters, random, today);
  const documents = [...workshop, ...stock.documents].sort((a, b) => (a.date < b.date ? -1 : 1));
  return bookOf(
    { name: "Larkspur Strings", country: "GB" },
    {
      places: [{ id: "p1", name: "Hebden workshop", country: "GB" }],
      registrations: [
        {
          id: "r1",
          pack: "gb",
          number: inventedVatNumber("2215307"),
          from: quarters[0]?.from,
          frequency: "quarterly",
          anchor: quarters[0]?.to,
        },
      ],
      contacts: [
        { id: "c1", name: "Wynter Quartet", country: "GB" },
        { id: "c2", name: "Private customer", country: "GB" },
        { id: "c3", name: "Alder School of Music", country: "GB" },
        { id: "s1", name: "Private seller", country: "GB", registered: false },
        {
          id: "s3",
          name: "Fiddlewood Supplies",
          country: "GB",
          taxNumber: inventedVatNumber("2780412"),
          registered: true,
        },
      ],
      documents,
      pieces: stock.piecesOf(documents),
    },
  );
}

/** What was spent on one of the pieces: no part of its price. */
function spentOn(random: Random): Line {
  return { attributes: { pieceCost: String(random.whole(1, PIECES)) } };
}
