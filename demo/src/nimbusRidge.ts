import { addDays, daysIn } from "./quarters.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

const CUSTOMERS: [string, string, string, string][] = [
  ["c1", "Kootenay Velo", "CA", "BC"],
  ["c2", "Rideau Rollers", "CA", "ON"],
  ["c3", "Bluenose Bikes", "CA", "NS"],
  ["c4", "Atelier Cadre", "CA", "QC"],
  ["c5", "Prairie Spoke", "CA", "SK"],
  ["c6", "Cascade Cyclery", "US", ""],
];

/** The books of Nimbus Ridge Cycleworks Inc.: the place of each supply decides its levies (demo/README.md). */
export function nimbusRidge(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_718);
  const start = quarters[0]?.from ?? today;
  const documents = quarters.flatMap((quarter, index) => quarterDocuments(quarter, index, random));
  return {
    format: "fiscalon-book",
    version: 1,
    client: { name: "Nimbus Ridge Cycleworks Inc.", country: "CA" },
    places: [{ id: "p1", name: "Nelson workshop", country: "CA", region: "BC" }],
    registrations: [
      {
        id: "r1",
        pack: "ca",
        levies: ["GST", "HST"],
        number: `${inventedBusinessNumber("84316207")}RT0001`,
        from: start,
        frequency: "quarterly",
        anchor: quarters[0]?.to,
      },
      {
        id: "r2",
        pack: "ca",
        levies: ["BCPST"],
        number: "PST10423387",
        from: start,
        frequency: "monthly",
        anchor: endOfMonth(start),
      },
    ],
    items: [
      { id: "i1", name: "Touring frame", unitPrice: "940.00", supply: "goods", taxClass: "standard" },
      { id: "i2", name: "Wheel building", unitPrice: "85.00", supply: "services", taxClass: "pst-exempt" },
    ],
    contacts: [
      ...CUSTOMERS.map(([id, name, country, region]) => ({ id, name, country, region: region || null })),
      {
        id: "s1",
        name: "Selkirk Tubing",
        country: "CA",
        region: "BC",
        taxNumber: `${inventedBusinessNumber("73120958")}RT0001`,
        standing: { GST: "registered" },
      },
      { id: "s2", name: "Northgate Courier", country: "CA", region: "BC", standing: { GST: "registered" } },
    ],
    documents: documents
      .filter((document) => document.date <= today)
      .sort((a, b) => (a.date < b.date ? -1 : 1)),
  };
}

/** An invented business number: eight digits and the check digit of the Luhn rule. */
export function inventedBusinessNumber(eight: string): string {
  const sum = [...eight].reduce((total, digit, index) => {
    const doubled = index % 2 === 1 ? Number(digit) * 2 : Number(digit);
    return total + (doubled > 9 ? doubled - 9 : doubled);
  }, 0);
  return `${eight}${(10 - (sum % 10)) % 10}`;
}

function endOfMonth(date: string): string {
  return new Date(Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)), 0)).toISOString().slice(0, 10);
}

type Document = Record<string, unknown> & { date: string };

function quarterDocuments(quarter: Quarter, index: number, random: Random): Document[] {
  const day = () => addDays(quarter.from, random.whole(0, daysIn(quarter) - 1));
  const sales = Array.from({ length: 24 }, (_, n) => ({
    kind: "sales-invoice",
    number: `NR-${index + 1}${String(n + 1).padStart(2, "0")}`,
    date: day(),
    contact: random.pick(CUSTOMERS)[0],
    prices: "exclusive",
    lines: [
      {
        text: "Touring frame",
        quantity: String(random.whole(1, 3)),
        unitPrice: "940.00",
        item: "i1",
        supply: "goods",
        taxClass: "standard",
      },
      { text: "Wheel building", amount: random.amount(85, 340), supply: "services", taxClass: "pst-exempt" },
    ],
  }));
  const bills = Array.from({ length: 8 }, (_, n) => ({
    kind: "purchase-bill",
    number: `ST-${index + 1}${n + 1}`,
    date: day(),
    contact: "s1",
    prices: "exclusive",
    lines: [
      { text: "Steel tubing for resale", amount: random.amount(300, 1_900), code: "G5", account: "5000" },
    ],
  }));
  const courier = {
    kind: "purchase-bill",
    number: `NC-${index + 1}`,
    date: day(),
    contact: "s2",
    prices: "exclusive",
    lines: [
      {
        text: "GST paid at the border by the courier",
        amount: random.amount(40, 120),
        code: "TXO",
        account: "5200",
        attributes: { document: `B3-${20_400 + index}` },
      },
    ],
  };
  return [...sales, ...bills, courier];
}
