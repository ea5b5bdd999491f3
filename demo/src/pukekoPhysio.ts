import { bookOf, dealsDone, line } from "./bookMaker.ts";
import { addDays } from "./quarters.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

/** Pukeko Physio Ltd: tax as it is paid, six months to a return, then two. */
export function pukekoPhysio(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_606);
  const start = quarters[0]?.from ?? today;
  const change = sixMonthsAfter(start);
  const patients = [
    "Insurer, accident claims",
    "Harbour Rugby Club",
    "Aroha Clinic rooms",
    "Kauri Rest Home",
  ];
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "sales-invoice",
        number: "PP-",
        perQuarter: [48, 58],
        parties: patients.map((_, n) => `c${n}`),
        more: { prices: "inclusive" },
        lines: (r) => [line(r, "Treatment sessions", [75, 520], "S15", "4000", { supply: "services" })],
      },
      {
        kind: "purchase-bill",
        number: "RT-",
        perQuarter: [3, 3],
        parties: ["s1"],
        more: { prices: "inclusive" },
        lines: (r) => [line(r, "Rooms, rent", [1900, 1900], "P15", "6000")],
      },
      {
        kind: "purchase-bill",
        number: "MS-",
        perQuarter: [5, 8],
        parties: ["s2"],
        more: { prices: "inclusive" },
        lines: (r) => [line(r, "Tape, bands, couch rolls", [40, 320], "P15", "5000")],
      },
    ],
    random,
    today,
  );
  return bookOf(
    { name: "Pukeko Physio Ltd", country: "NZ" },
    {
      places: [{ id: "p1", name: "Nelson rooms", country: "NZ" }],
      registrations: [
        {
          id: "r1",
          pack: "nz",
          number: "47203112",
          from: start,
          frequency: "six-monthly",
          anchor: addDays(change, -1),
          basis: "cash",
          changes: [
            { from: change, frequency: "two-monthly", anchor: endOfNextMonth(change), basis: "cash" },
          ],
        },
      ],
      contacts: [
        ...patients.map((name, n) => ({ id: `c${n}`, name, country: "NZ" })),
        { id: "s1", name: "Trafalgar Properties", country: "NZ", registered: true },
        { id: "s2", name: "Southern Physio Supplies", country: "NZ", registered: true },
      ],
      documents,
      payments: paymentsOf(documents, random, today),
    },
  );
}

/** Most is paid within two months, every ninth in two parts, some never; one receipt names nobody. */
function paymentsOf(
  documents: readonly { kind: string; number: string; date: string; contact?: unknown; lines?: unknown }[],
  random: Random,
  today: string,
): object[] {
  const payments: ({ date: string } & Record<string, unknown>)[] = [];
  documents.forEach((document, index) => {
    const [first] = document.lines as { amount: string }[];
    const cents = Math.round(Number(first?.amount) * 100);
    const parts = index % 9 === 0 ? [Math.floor(cents / 3), cents - Math.floor(cents / 3)] : [cents];
    let date = addDays(document.date, random.whole(3, 55));
    for (const part of parts) {
      if (date <= today && random.next() > 0.06) {
        const amount = (part / 100).toFixed(2);
        payments.push({
          kind: document.kind === "sales-invoice" ? "receipt" : "payment",
          date,
          contact: document.contact,
          amount,
          reference: document.number,
          allocations: [{ document: document.number, kind: document.kind, amount }],
        });
      }
      date = addDays(date, 30);
    }
  });
  payments.push({
    kind: "receipt",
    date: addDays(today, -40),
    amount: "230.00",
    reference: "no name on it",
  });
  return payments.filter(({ date }) => date <= today).sort((a, b) => (a.date < b.date ? -1 : 1));
}

function sixMonthsAfter(date: string): string {
  const [year = 0, month = 1] = date.split("-").map(Number);
  return new Date(Date.UTC(year, month - 1 + 6, 1)).toISOString().slice(0, 10);
}

function endOfNextMonth(first: string): string {
  const [year = 0, month = 1] = first.split("-").map(Number);
  return new Date(Date.UTC(year, month + 1, 0)).toISOString().slice(0, 10);
}
