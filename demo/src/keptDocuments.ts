/** First day of the month of a date, moved by whole months. */
function firstOfMonth(date: string, months: number): string {
  const [year = 0, month = 1] = date.split("-").map(Number);
  return new Date(Date.UTC(year, month - 1 + months, 1)).toISOString().slice(0, 10);
}

/** Documents Saltmarsh Kiln keeps: one posted by itself, one that waits to be posted, one used when asked for. */
export function keptOfSaltmarsh(today: string): object[] {
  return [
    {
      name: "Bookkeeping for the quarter",
      every: "quarterly",
      nextOn: firstOfMonth(today, 2),
      byItself: true,
      document: {
        kind: "purchase-bill",
        date: firstOfMonth(today, 2),
        contact: "s9",
        place: "p1",
        lines: [{ text: "Bookkeeping for the quarter", amount: "480.00", code: "S20", account: "6400" }],
      },
    },
    {
      name: "Web shop and hosting",
      every: "monthly",
      begins: firstOfMonth(today, -1),
      nextOn: firstOfMonth(today, 0),
      document: {
        kind: "purchase-bill",
        date: firstOfMonth(today, 0),
        contact: "s5",
        place: "p1",
        lines: [{ text: "Web shop and hosting", amount: "60.00", code: "RCS", account: "6250" }],
      },
    },
    {
      name: "Studio class for a hotel party",
      document: {
        kind: "sales-invoice",
        date: today,
        contact: "c3",
        place: "p1",
        lines: [
          {
            text: "Studio class, half a day",
            quantity: "12",
            unitPrice: "65.00",
            code: "S20",
            account: "4000",
          },
          { text: "Glazing handbook", quantity: "12", unitPrice: "14.00", code: "Z", account: "4050" },
        ],
      },
    },
  ];
}

/** What Quillon invoices every month without being asked. */
export function keptOfQuillon(today: string): object[] {
  return [
    ["c0", "Orchard Nursery", "185.00"],
    ["c2", "Bramley Cabs", "140.00"],
  ].map(([contact, name, amount]) => ({
    name: `Retainer, ${name}`,
    every: "monthly",
    nextOn: firstOfMonth(today, 1),
    byItself: true,
    document: {
      kind: "sales-invoice",
      date: firstOfMonth(today, 1),
      contact,
      lines: [{ text: "Bookkeeping, monthly retainer", amount, code: "S20", account: "4000" }],
    },
  }));
}
