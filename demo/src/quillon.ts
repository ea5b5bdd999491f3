import { bookOf, dealsDone, line } from "./bookMaker.ts";
import type { Quarter } from "./quarters.ts";
import { keptOfQuillon } from "./keptDocuments.ts";
import { addDays } from "./quarters.ts";
import { Random } from "./random.ts";
import { inventedVatNumber } from "./saltmarshKiln.ts";

/** Quillon Bookkeeping Services: services alone, and one capital purchase large enough to matter to a flat rate. */
export function quillon(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_404);
  const clients = ["Orchard Nursery", "Weir Cottage Lets", "Bramley Cabs", "Fosse Fencing", "Tallow & Wick"];
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "sales-invoice",
        number: "QB-",
        perQuarter: [28, 34],
        parties: clients.map((_, n) => `c${n}`),
        lines: (r) => [
          line(r, "Bookkeeping and payroll papers", [90, 460], "S20", "4000", { supply: "services" }),
        ],
      },
      {
        kind: "purchase-bill",
        number: "SW-",
        perQuarter: [3, 3],
        parties: ["s1"],
        lines: (r) => [line(r, "Software, monthly", [38, 44], "S20", "6250")],
      },
      {
        kind: "expense",
        number: "EXP-",
        perQuarter: [5, 9],
        more: { prices: "inclusive" },
        lines: (r) => [line(r, "Train and stationery", [8, 70], r.next() < 0.5 ? "Z" : "S20", "6500")],
      },
    ],
    random,
    today,
  );
  return bookOf(
    { name: "Quillon Bookkeeping Services", country: "GB" },
    {
      places: [{ id: "p1", name: "Cirencester office", country: "GB" }],
      registrations: [
        {
          id: "r1",
          pack: "gb",
          number: inventedVatNumber("2330988"),
          from: quarters[0]?.from,
          frequency: "quarterly",
          anchor: quarters[0]?.to,
          schemes: [
            {
              scheme: "gb-flat-rate",
              from: quarters[0]?.from,
              to: null,
              settings: { sector: "accountancy" },
            },
          ],
        },
      ],
      contacts: [
        ...clients.map((name, n) => ({ id: `c${n}`, name, country: "GB" })),
        {
          id: "s1",
          name: "Ledgerlight Software",
          country: "GB",
          taxNumber: inventedVatNumber("2644127"),
          registered: true,
        },
        { id: "s2", name: "Cotswold Office Machines", country: "GB", registered: null },
      ],
      templates: keptOfQuillon(today),
      documents: [
        ...documents,
        {
          kind: "purchase-bill",
          number: "COM-7781",
          date: addDays(quarters[4]?.from ?? today, 18),
          contact: "s2",
          prices: "inclusive",
          note: "no number of the supplier on the bill",
          lines: [
            { text: "Copier and scanner, one purchase", amount: "2748.00", code: "CAP20", account: "0100" },
          ],
        },
      ],
    },
  );
}
