import { bookOf, dealsDone, line } from "./bookMaker.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";
import { inventedVatNumber } from "./saltmarshKiln.ts";

/** Larkspur Strings: pre-owned violins and guitars on the margin scheme, repairs at the standard rate. */
export function larkspurStrings(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_303);
  const instruments = ["Violin, Mirecourt", "Parlour guitar", "Viola, workshop", "Cello bow", "Mandolin"];
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "sales-invoice",
        number: "LS-",
        perQuarter: [12, 18],
        parties: ["c1", "c2", "c3"],
        more: { prices: "inclusive" },
        lines: (r) => {
          const cost = r.whole(180, 1400);
          const amount = (cost * (1.15 + r.next() * 0.5)).toFixed(2);
          return [
            {
              text: `${r.pick(instruments)}, pre-owned`,
              amount,
              code: "MGS",
              account: "4000",
              supply: "goods",
              attributes: { cost: `${cost}.00` },
            },
          ];
        },
      },
      {
        kind: "purchase-bill",
        number: "BUY-",
        perQuarter: [13, 19],
        parties: ["s1", "s2"],
        lines: (r) => [
          line(r, `${r.pick(instruments)}, bought from a private person`, [150, 1300], "MGP", "5000"),
        ],
      },
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
        lines: (r) => [line(r, "Strings, bridges, varnish", [60, 410], "S20", "5000")],
      },
    ],
    random,
    today,
  );
  const due = quarters[4];
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
        { id: "s2", name: "Estate of M. Holm", country: "GB", registered: false },
        {
          id: "s3",
          name: "Fiddlewood Supplies",
          country: "GB",
          taxNumber: inventedVatNumber("2780412"),
          registered: true,
        },
      ],
      documents: [
        ...documents,
        {
          kind: "purchase-bill",
          number: "BUY-WRONG",
          date: due?.to,
          contact: "s3",
          prices: "exclusive",
          note: "bought from a registered dealer with tax on the bill: must not be on the margin scheme",
          lines: [
            { text: "Guitar, dealer stock, tax on the bill", amount: "620.00", code: "MGP", account: "5000" },
          ],
        },
      ],
    },
  );
}
