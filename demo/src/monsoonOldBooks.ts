import { dealsDone } from "./bookMaker.ts";
import type { Document } from "./bookMaker.ts";
import type { Caller } from "./caller.ts";
import { closePeriod } from "./closePeriod.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

/** The last three quarters under the tax before GST. */
export const OLD_QUARTERS: readonly Quarter[] = [
  { from: "2016-10-01", to: "2016-12-31" },
  { from: "2017-01-01", to: "2017-03-31" },
  { from: "2017-04-01", to: "2017-06-30" },
];

/** Registered with the state for value added tax until GST took its place. */
export const OLD_REGISTRATION = {
  id: "r0",
  pack: "in-ka-vat",
  levies: ["VAT"],
  number: "29440077123",
  from: OLD_QUARTERS[0]?.from,
  to: OLD_QUARTERS[2]?.to,
  frequency: "quarterly",
  anchor: "2017-03-31",
};

/** Suppliers of those days, with the number of those days. */
export const OLD_SUPPLIERS = ["Hampi Spinners", "Tungabhadra Yarns", "Malnad Packings", "Raichur Cotton"].map(
  (name, n) => ({
    id: `k${n}`,
    name,
    country: "IN",
    region: "KA",
    taxNumber: `2944007${String(7310 + 271 * n)}`,
    registered: true,
  }),
);

/** Sales and purchases at the two rates, and hand-woven cloth that bore none. */
export function oldDocuments(customers: readonly string[]): Document[] {
  const random = new Random(20_170_630);
  return dealsDone(
    OLD_QUARTERS,
    [
      {
        kind: "sales-invoice",
        number: "OLD/",
        perQuarter: [46, 54],
        parties: customers,
        lines: (r) => [
          {
            text: "Cotton sarees",
            quantity: String(r.whole(2, 30)),
            unitPrice: r.amount(140, 900),
            code: "KV5.5",
            account: "4000",
          },
          ...(r.next() < 0.5
            ? [
                {
                  text: "Made-up furnishings",
                  quantity: String(r.whole(1, 8)),
                  unitPrice: r.amount(300, 1900),
                  code: "KV14.5",
                  account: "4000",
                },
              ]
            : [{ text: "Hand-woven cloth", amount: r.amount(400, 5200), code: "KVEX", account: "4000" }]),
        ],
      },
      {
        kind: "purchase-bill",
        number: "OY-",
        perQuarter: [32, 38],
        parties: OLD_SUPPLIERS.map(({ id }) => id),
        lines: (r) => [
          r.next() < 0.75
            ? { text: "Cotton yarn", amount: r.amount(900, 24_000), code: "KV5.5", account: "5000" }
            : { text: "Packing and fittings", amount: r.amount(300, 4000), code: "KV14.5", account: "5000" },
        ],
      },
    ],
    random,
    "2017-06-30",
  );
}

/** All of it was filed and paid long ago. */
export async function closeOldBooks(call: Caller, client: number): Promise<void> {
  const { registrations } = await call<{ registrations: { id: number; pack: string }[] }>(
    "GET",
    `/clients/${client}`,
  );
  const old = registrations.find(({ pack }) => pack === "in-ka-vat");
  for (const [index, { to }] of OLD_QUARTERS.entries()) {
    await closePeriod(call, `/clients/${client}/registrations/${old?.id}`, to, {
      reason: "Checked when it was filed in 2017.",
      reference: `KA-2017-${index + 1}`,
      settle: true,
    });
  }
}
