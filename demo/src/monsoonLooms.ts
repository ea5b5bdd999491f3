import { bookOf, dealsDone, line } from "./bookMaker.ts";
import { olderInvoices, olderReceipts, UNKNOWN_CUSTOMER } from "./monsoonCollections.ts";
import { OLD_REGISTRATION, OLD_SUPPLIERS, oldDocuments } from "./monsoonOldBooks.ts";
import type { Quarter } from "./quarters.ts";
import { addDays } from "./quarters.ts";
import { Random } from "./random.ts";

const STATES = ["29", "29", "29", "27", "33", "07", "36"];
const REGIONS: Record<string, string> = { "29": "KA", "27": "MH", "33": "TN", "07": "DL", "36": "TG" };
const NAMES = ["Cauvery", "Sahyadri", "Deccan", "Palani", "Yamuna", "Godavari", "Nilgiri", "Vaigai"];
const TRADES = ["Textiles", "Handlooms", "Fabrics", "Exports", "Sarees", "Furnishings"];

/**
 * Monsoon Looms LLP: thousands of documents, inside and across the border of the state, transport on reverse charge; and
 * older books under the two rates before GST.
 */
export function monsoonLooms(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_808);
  const customers = parties(random, "c", 46);
  const suppliers = parties(random, "s", 38);
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "sales-invoice",
        number: "ML/",
        perQuarter: [900, 980],
        parties: customers.map(({ id }) => id),
        lines: (r) => [
          {
            text: r.pick(["Cotton sarees", "Table linen", "Silk stoles", "Furnishing fabric"]),
            quantity: String(r.whole(2, 60)),
            unitPrice: r.amount(140, 1900),
            supply: "goods",
            taxClass: r.next() < 0.7 ? "gst-5" : "gst-18",
            account: "4000",
          },
        ],
      },
      {
        kind: "purchase-bill",
        number: "Y-",
        perQuarter: [620, 690],
        parties: suppliers.map(({ id }) => id),
        lines: (r) => [
          {
            text: r.pick(["Cotton yarn", "Dyes", "Zari thread", "Packing cartons"]),
            amount: r.amount(900, 38_000),
            supply: "goods",
            taxClass: r.next() < 0.8 ? "gst-5" : "gst-18",
            account: "5000",
          },
        ],
      },
      {
        kind: "purchase-bill",
        number: "TR-",
        perQuarter: [60, 80],
        parties: ["t1"],
        lines: (r) => [line(r, "Goods transport by road", [600, 5200], "R5", "5200", { supply: "services" })],
      },
      {
        kind: "sales-credit-note",
        number: "CN/",
        perQuarter: [14, 20],
        parties: customers.map(({ id }) => id),
        lines: (r) => [
          {
            text: "Pieces returned",
            amount: r.amount(200, 4000),
            supply: "goods",
            taxClass: "gst-5",
            account: "4000",
          },
        ],
      },
    ],
    random,
    today,
  );
  const due = quarters[4];
  return bookOf(
    { name: "Monsoon Looms LLP", country: "IN" },
    {
      places: [{ id: "p1", name: "Ilkal weaving shed", country: "IN", region: "KA" }],
      registrations: [
        OLD_REGISTRATION,
        {
          id: "r1",
          pack: "in",
          number: inventedGstin("29", "AAPFM4417K"),
          from: quarters[0]?.from,
          frequency: "monthly",
          anchor: endOfMonth(quarters[0]?.from ?? today),
          options: { collection: "receipt" },
        },
      ],
      contacts: [
        ...customers,
        ...suppliers,
        ...OLD_SUPPLIERS,
        UNKNOWN_CUSTOMER,
        {
          id: "t1",
          name: "Tungabhadra Roadways",
          country: "IN",
          region: "KA",
          standing: { CGST: "unregistered" },
        },
      ],
      documents: [
        ...oldDocuments(customers.slice(0, 12).map(({ id }) => id)),
        ...olderInvoices,
        ...documents,
        {
          kind: "purchase-bill",
          number: "Y-TWICE",
          date: addDays(due?.from ?? today, 9),
          contact: "s3",
          prices: "exclusive",
          lines: [
            { text: "Cotton yarn", amount: "18440.00", supply: "goods", taxClass: "gst-5", account: "5000" },
          ],
        },
        {
          kind: "purchase-bill",
          number: "Y-TWICE-2",
          date: addDays(due?.from ?? today, 9),
          contact: "s3",
          prices: "exclusive",
          lines: [
            { text: "Cotton yarn", amount: "18440.00", supply: "goods", taxClass: "gst-5", account: "5000" },
          ],
        },
      ],
      payments: olderReceipts,
    },
  );
}

function parties(random: Random, prefix: string, count: number) {
  return Array.from({ length: count }, (_, n) => {
    const state = STATES[n % STATES.length] ?? "29";
    const letters = Array.from({ length: 5 }, () => String.fromCharCode(65 + random.whole(0, 25))).join("");
    const pan = `${letters.slice(0, 3)}F${letters.slice(4)}${random.whole(1000, 9999)}K`;
    return {
      id: `${prefix}${n}`,
      name: `${NAMES[n % NAMES.length]} ${TRADES[Math.floor(n / NAMES.length) % TRADES.length]}${n >= 40 ? " II" : ""}`,
      country: "IN",
      region: REGIONS[state],
      taxNumber: inventedGstin(state, pan),
      registered: true,
    };
  });
}

const ALPHABET = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";

/** An invented GSTIN that passes its check: state, PAN, first registration, Z and the check character. */
export function inventedGstin(state: string, pan: string): string {
  const front = `${state}${pan}1Z`;
  const sum = [...front].reduce((total, letter, index) => {
    const product = ALPHABET.indexOf(letter) * (index % 2 === 0 ? 1 : 2);
    return total + Math.floor(product / 36) + (product % 36);
  }, 0);
  return `${front}${ALPHABET[(36 - (sum % 36)) % 36] ?? "0"}`;
}

function endOfMonth(date: string): string {
  return new Date(Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)), 0)).toISOString().slice(0, 10);
}
