import { addDays, daysIn } from "./quarters.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

const SHOPS = ["Bindi Creek Bottleshop", "Wattle & Vine Cellars", "Corella Street Grocer", "Saltbush Hotel"];

/** The books of Honeygum Meadery Pty Ltd: mead bears wine tax, and GST on top of it (demo/README.md). */
export function honeygumMeadery(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_702);
  const documents = quarters.flatMap((quarter, index) => [
    ...wholesale(quarter, index, random),
    ...cellarDoor(quarter, index, random),
    ...purchases(quarter, index, random),
  ]);
  return {
    format: "fiscalon-book",
    version: 1,
    client: { name: "Honeygum Meadery Pty Ltd", country: "AU" },
    places: [{ id: "p1", name: "Beechworth meadery", country: "AU", region: "VIC" }],
    registrations: [
      {
        id: "r1",
        pack: "au",
        levies: ["GST", "WET"],
        number: inventedAbn("823904417"),
        from: quarters[0]?.from,
        frequency: "quarterly",
        anchor: quarters[0]?.to,
        rounding: { level: "line", mode: "half-up" },
      },
    ],
    items: [
      {
        id: "i1",
        name: "Mead, case of twelve",
        unitPrice: "168.00",
        supply: "goods",
        taxClass: "wine",
        saleAccount: "4000",
        statisticalCode: "2206.00",
      },
    ],
    contacts: [
      ...SHOPS.map((name, n) => ({ id: `c${n}`, name, country: "AU", standing: { GST: "registered" } })),
      { id: "c9", name: "Kauri Table Imports", country: "NZ" },
      {
        id: "s1",
        name: "Ironbark Apiaries",
        country: "AU",
        taxNumber: inventedAbn("517730926"),
        standing: { GST: "registered" },
      },
      { id: "s2", name: "Old Gaol Cooperage", country: "AU", standing: { GST: "not-registered" } },
    ],
    documents: documents
      .filter((document) => document.date <= today)
      .sort((a, b) => (a.date < b.date ? -1 : 1)),
  };
}

/** An invented ABN that passes its check: nine digits, and the two in front that fit them. */
export function inventedAbn(nine: string): string {
  const weights = [3, 5, 7, 9, 11, 13, 15, 17, 19];
  const sum = weights.reduce((total, weight, index) => total + weight * Number(nine[index]), 0);
  for (let front = 10; front <= 99; front += 1) {
    const [first, second] = [Math.floor(front / 10), front % 10];
    if (((first - 1) * 10 + second + sum) % 89 === 0) return `${front}${nine}`;
  }
  throw new Error(`No ABN ends in ${nine}.`);
}

type Document = Record<string, unknown> & { date: string };

function wholesale(quarter: Quarter, index: number, random: Random): Document[] {
  return Array.from({ length: random.whole(16, 22) }, (_, n) => ({
    kind: "sales-invoice",
    number: `HM-${index + 1}${String(n + 1).padStart(2, "0")}`,
    date: addDays(quarter.from, random.whole(0, daysIn(quarter) - 1)),
    contact: n === 5 ? "c9" : `c${random.whole(0, SHOPS.length - 1)}`,
    prices: "exclusive",
    lines: [
      {
        text: "Traditional mead",
        quantity: String(random.whole(1, 9)),
        unitPrice: "168.00",
        item: "i1",
        account: "4000",
        supply: "goods",
        taxClass: "wine",
      },
      { text: "Delivery", amount: random.amount(12, 40), taxClass: "standard", supply: "services" },
    ],
  }));
}

function cellarDoor(quarter: Quarter, index: number, random: Random): Document[] {
  return Array.from({ length: 13 }, (_, week) => ({
    kind: "cash-sale",
    number: `DOOR-${index + 1}${String(week + 1).padStart(2, "0")}`,
    date: addDays(quarter.from, Math.min(week * 7 + 6, daysIn(quarter) - 1)),
    prices: "inclusive",
    lines: [
      { text: "Bottles at the cellar door", amount: random.amount(400, 1_300), code: "WR", account: "4000" },
      { text: "Tasting tours", amount: random.amount(90, 320), code: "S10", account: "4900" },
    ],
  }));
}

/** Honey is food and GST-free; in the quarter that is due a barrel repairer without registration is coded as if he had charged GST. */
function purchases(quarter: Quarter, index: number, random: Random): Document[] {
  const honey = Array.from({ length: 6 }, (_, n) => ({
    kind: "purchase-bill",
    number: `IA-${index + 1}${n + 1}`,
    date: addDays(quarter.from, random.whole(0, daysIn(quarter) - 1)),
    contact: "s1",
    prices: "exclusive",
    lines: [
      { text: "Stringybark honey", amount: random.amount(900, 2_400), code: "PF", account: "5000" },
      { text: "Drums and freight", amount: random.amount(80, 260), code: "P10", account: "5200" },
    ],
  }));
  if (index !== 4) return honey;
  return [
    ...honey,
    {
      kind: "purchase-bill",
      number: "OGC-77",
      date: addDays(quarter.from, 40),
      contact: "s2",
      prices: "inclusive",
      lines: [{ text: "Barrel repair", amount: "660.00", code: "P10", account: "6700" }],
    },
  ];
}
