import { bookOf, dealsDone, line } from "./bookMaker.ts";
import type { Quarter } from "./quarters.ts";
import { addDays, calendarQuartersAround } from "./quarters.ts";
import { Random } from "./random.ts";

/**
 * Juniper Lane Bakehouse: five rates over the counter, two months to a return; online courses and hampers for consumers
 * in other members by the one-stop shop, a quarter to a return.
 */
export function juniperLane(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_261_111);
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "cash-sale",
        number: "TILL-",
        perQuarter: [78, 84],
        more: { prices: "inclusive" },
        lines: (r) => [
          line(r, "Bread", [120, 420], "Z", "4000"),
          line(r, "Cakes and biscuits", [60, 260], "R13", "4000"),
          line(r, "Coffee and hot food, sat in", [90, 380], "H", "4000"),
          line(r, "Soft drinks", [15, 80], "S23", "4000"),
        ],
      },
      {
        kind: "sales-invoice",
        number: "JL-",
        perQuarter: [14, 20],
        parties: ["c1", "c2"],
        lines: (r) => [line(r, "Bread, wholesale", [80, 460], "Z", "4000")],
      },
      {
        kind: "sales-invoice",
        number: "JN-",
        perQuarter: [2, 4],
        parties: ["c3"],
        lines: (r) => [line(r, "Cookery book, by post", [18, 90], "R9", "4000")],
      },
      {
        kind: "purchase-bill",
        number: "FL-",
        perQuarter: [10, 13],
        parties: ["s1"],
        lines: (r) => [line(r, "Flour and yeast", [140, 720], "Z", "5000")],
      },
      {
        kind: "purchase-bill",
        number: "EL-",
        perQuarter: [3, 3],
        parties: ["s2"],
        lines: (r) => [line(r, "Electricity", [260, 610], "EN", "6100")],
      },
      {
        kind: "purchase-bill",
        number: "EQ-",
        perQuarter: [2, 4],
        parties: ["s3"],
        lines: (r) => [line(r, "Tins and racks", [60, 380], "S23", "5000")],
      },
    ],
    random,
    today,
  );
  const online = calendarQuartersAround(today).slice(2);
  const sent = dealsDone(
    online,
    [
      {
        kind: "sales-invoice",
        number: "OC-",
        perQuarter: [9, 14],
        parties: ["o1", "o2", "o3"],
        more: { prices: "inclusive" },
        lines: (r) => [line(r, "Baking course, online", [90, 240], "OSS", "4100")],
      },
      {
        kind: "sales-invoice",
        number: "OH-",
        perQuarter: [4, 7],
        parties: ["o1", "o2"],
        more: { prices: "inclusive" },
        lines: (r) => [line(r, "Hamper, sent by post", [45, 160], "OSG", "4100")],
      },
    ],
    new Random(20_261_129),
    today,
  );
  return bookOf(
    { name: "Juniper Lane Bakehouse", country: "IE" },
    {
      places: [{ id: "p1", name: "Kinsale shop", country: "IE" }],
      registrations: [
        {
          id: "r1",
          pack: "ie",
          number: "6388047V",
          from: quarters[0]?.from,
          frequency: "two-monthly",
          anchor: addDays(secondMonthAfter(quarters[0]?.from ?? today), -1),
        },
        {
          id: "r2",
          pack: "ie",
          levies: ["OSS"],
          number: "6388047V",
          from: online[0]?.from,
          frequency: "quarterly",
          anchor: online[0]?.to,
        },
      ],
      contacts: [
        { id: "c1", name: "Haven Street Hotel", country: "IE", registered: true },
        { id: "c2", name: "Compass Hill School", country: "IE" },
        { id: "c3", name: "Reader by post", country: "IE" },
        { id: "o1", name: "Familie Ostermann", country: "DE", registered: false },
        { id: "o2", name: "Atelier Roussel", country: "FR", registered: false },
        { id: "o3", name: "Aino Lehtinen", country: "FI", registered: false },
        { id: "s1", name: "Bandon Mills", country: "IE", registered: true },
        { id: "s2", name: "Westcork Power", country: "IE", registered: true },
        { id: "s3", name: "Tinsmith & Daughter", country: "IE", registered: true },
      ],
      documents: [
        ...documents,
        ...sent,
        {
          kind: "purchase-bill",
          number: "OVEN-1",
          date: addDays(quarters[3]?.to ?? today, -9),
          contact: "s3",
          prices: "exclusive",
          lines: [
            { text: "Deck oven and its building in", amount: "18750.00", code: "S23", account: "0100" },
          ],
        },
        {
          kind: "purchase-bill",
          number: "DIN-3",
          date: addDays(quarters[4]?.from ?? today, 11),
          contact: "c1",
          prices: "exclusive",
          lines: [
            { text: "Staff dinner, tax deducted by mistake", amount: "310.00", code: "H", account: "6600" },
          ],
        },
      ],
    },
  );
}

function secondMonthAfter(first: string): string {
  const [year = 0, month = 1] = first.split("-").map(Number);
  return new Date(Date.UTC(year, month + 1, 1)).toISOString().slice(0, 10);
}
