import Papa from "papaparse";
import { describe, expect, test } from "vitest";
import { FiscalError } from "@fiscalon/core/errors";
import { journalDocuments, openingDocument } from "@fiscalon/core/formats/tables/journalTable";
import { contactRows, itemRows } from "@fiscalon/core/formats/tables/masterTables";
import { recogniseTable } from "@fiscalon/core/formats/tables/recogniseTable";
import type { TableName } from "@fiscalon/core/formats/tables/tableKinds";
import { parseAmount } from "@fiscalon/core/money/amount";

/** A file as the program reads it: recognised, then cut into cells; `more` is what a person said of it. */
function table(
  name: TableName,
  text: string,
  more: { leftOut?: number[]; mended?: [number, number, string][] } = {},
) {
  const { data } = Papa.parse<string[]>(text.trimEnd());
  const shape = recogniseTable(data, ",", name, "dmy");
  const mended = new Map<number, Map<number, string>>();
  for (const [row, column, value] of more.mended ?? [])
    mended.set(row, (mended.get(row) ?? new Map<number, string>()).set(column, value));
  const reading = {
    ...shape,
    digits: 2,
    leftOut: new Set(more.leftOut),
    mended,
    accounts: new Set(["1200", "4000", "6000", "6100", "2200"]),
    codes: new Set(["S20", "P20"]),
  };
  return { rows: data, reading, shape };
}

const refusal = (work: () => unknown): string => {
  try {
    work();
  } catch (error) {
    if (error instanceof FiscalError) return error.code;
    throw error;
  }
  return "";
};

/** What an entry is made of: account and amount, debits above zero. */
const entry = ({ input }: { input: { number: string; date: string; lines: readonly object[] } }) => [
  input.number,
  input.date,
  input.lines.map((line) => {
    const { account, amount, code } = line as { account?: string; amount: string; code?: string };
    return `${account} ${amount}${code === undefined ? "" : ` ${code}`}`;
  }),
];

// The shapes below are common practice, no source: debit and credit apart, or one signed amount; an entry is told by
// its number, or by its date where there is none.
describe("a journal", () => {
  const journal = (text: string, more?: Parameters<typeof table>[2]) => {
    const { rows, reading } = table("journal", text, more);
    const { documents, problems } = journalDocuments(rows, reading);
    return {
      entries: documents.map(entry),
      rows: documents.map((document) => document.rows),
      problems: problems.map(({ row, field, message }) => [row, field, message]),
    };
  };

  test("debits and credits of one number are one entry, and remember their rows", () => {
    const { entries, rows, problems } = journal(`Voucher no,Date,Account,Details,Debit,Credit
J1,31/03/2026,6000,Rent of March,"1,250.00",
J1,31/03/2026,1200,,,"1,250.00"
J2,30/04/2026,6000,Rent of April,1250.00,
J2,30/04/2026,1200,,,(1250.00)
`);
    expect(problems).toEqual([]);
    expect(entries).toEqual([
      ["J1", "2026-03-31", ["6000 1250.00", "1200 -1250.00"]],
      ["J2", "2026-04-30", ["6000 1250.00", "1200 -1250.00"]],
    ]);
    expect(rows).toEqual([
      [2, 3],
      [4, 5],
    ]);
  });

  test("without numbers an entry ends when it balances, also within one day", () => {
    const { entries } = journal(`Date,Nominal code,Amount
31/03/2026,6000,100.00
31/03/2026,1200,-60.00
31/03/2026,2200,-40.00
31/03/2026,6100,5.00
31/03/2026,1200,-5.00
01/04/2026,6000,7.00
01/04/2026,1200,-7.00
`);
    expect(entries).toEqual([
      ["row 2", "2026-03-31", ["6000 100.00", "1200 -60.00", "2200 -40.00"]],
      ["row 5", "2026-03-31", ["6100 5.00", "1200 -5.00"]],
      ["row 7", "2026-04-01", ["6000 7.00", "1200 -7.00"]],
    ]);
  });

  test.each([
    [
      "a debit too much",
      "J1,31/03/2026,6000,10.00,\nJ1,31/03/2026,1200,,9.99",
      "0.01 of credits are missing",
    ],
    [
      "a credit too much",
      "J1,31/03/2026,6000,9.99,\nJ1,31/03/2026,1200,,10.00",
      "0.01 of debits are missing",
    ],
    ["one side only", "J1,31/03/2026,6000,10.00,", "10.00 of credits are missing"],
    [
      "two days under one number are two entries",
      "J1,31/03/2026,6000,10.00,\nJ1,01/04/2026,1200,,10.00",
      "10.00 of credits are missing",
    ],
  ])("%s: the entry is not taken, and the missing money is named", (_what, body, missing) => {
    const { entries, problems } = journal(`Journal no,Date,Account,Debit,Credit\n${body}\n`);
    expect(entries).toEqual([]);
    expect(problems[0]?.[2]).toContain(missing);
  });

  test("an entry with a tax code may be open by its tax, which the code makes", () => {
    const { entries, problems } = journal(`Journal no,Date,Account,Debit,Credit,Tax code
J9,31/03/2026,6000,100.00,,P20
J9,31/03/2026,1200,,120.00,
`);
    expect(problems).toEqual([]);
    expect(entries).toEqual([["J9", "2026-03-31", ["6000 100.00 P20", "1200 -120.00"]]]);
  });

  test.each([
    ["31/02/2026,6000,1.00,,", "date", `"31/02/2026" is no date that exists.`],
    [",6000,1.00,,", "date", "The date is missing."],
    ["31/03/2026,6000,one,,", "debit", `"one" is not an amount.`],
    ["31/03/2026,6000,,,", "debit", "There is no amount."],
    ["31/03/2026,,1.00,,", "account", "The account is missing."],
    ["31/03/2026,9999,1.00,,", "account", "There is no account 9999 in the chart."],
    ["31/03/2026,6000,1.00,,S99", "code", "There is no tax code S99."],
  ])("a row %j is refused at its %s", (row, field, message) => {
    const { entries, problems } = journal(`Date,Account,Debit,Credit,Tax code\n${row}\n`);
    expect(entries).toEqual([]);
    expect(problems).toContainEqual([2, field, message]);
  });

  test("a row mended by hand is read as mended, one left out is not read", () => {
    const text = `Date,Account,Debit,Credit
31/02/2026,6000,5.00,
28/02/2026,1200,,5.00
28/02/2026,9999,77.00,
`;
    const { entries, problems } = journal(text, { mended: [[2, 0, "28/02/2026"]], leftOut: [4] });
    expect(problems).toEqual([]);
    expect(entries).toEqual([["row 2", "2026-02-28", ["6000 5.00", "1200 -5.00"]]]);
  });
});

describe("a trial balance", () => {
  const opening = (text: string) => {
    const { rows, reading } = table("trial-balance", text);
    return openingDocument(rows, reading, "2026-03-31");
  };
  const lines = (text: string) =>
    opening(text).documents.flatMap((document) => entry(document)[2] as string[]);

  test("becomes one document; nothing, blank rows and totals are left out", () => {
    const { documents, missing, problems } = opening(`Nominal code,Name,Debit,Credit
1200,Bank,"3,000.00",
4000,Sales,,2500.00
2200,VAT,,500.00
6000,Rent,0.00,
,,,
Total,,3000.00,3000.00
`);
    expect({ missing, problems }).toEqual({ missing: [], problems: [] });
    expect(documents.map(entry)).toEqual([
      ["Opening 2026-03-31", "2026-03-31", ["1200 3000.00", "4000 -2500.00", "2200 -500.00"]],
    ]);
    expect(documents[0]?.rows).toEqual([2, 3, 4]);
  });

  test("one column of balances, credits below zero, in any way people write it", () => {
    expect(lines("Account,Balance\n1200,3000.00\n4000,(2500.00)\n2200,500.00 CR\n")).toEqual([
      "1200 3000.00",
      "4000 -2500.00",
      "2200 -500.00",
    ]);
  });

  test("an account the chart lacks is told with its name, so that it can be added", () => {
    expect(opening("Code,Name,Debit,Credit\n7777,Kiln,12.00,\n1200,Bank,,12.00\n").missing).toEqual([
      { code: "7777", name: "Kiln", row: 2 },
    ]);
  });

  test("nothing but zeros is no document", () => {
    expect(opening("Account,Debit,Credit\n1200,0.00,\n4000,,0.00\n").documents).toEqual([]);
  });

  test("debits and credits that agree in the file agree in the document", () => {
    const rows = Array.from({ length: 60 }, (_, index) => ((index * 7919) % 10_007) + 1);
    const sum = rows.reduce((total, amount) => total + amount, 0);
    const text = (amount: number) => (amount / 100).toFixed(2);
    const body = rows.map((amount, index) => (index % 2 ? `6000,${text(amount)},` : `4000,,${text(amount)}`));
    const odd = rows.filter((_, index) => index % 2).reduce((total, amount) => total + amount, 0);
    const rest = sum - 2 * odd;
    const made = lines(`Account,Debit,Credit\n${body.join("\n")}\n1200,${text(rest)},\n`);
    const total = made.reduce((sofar, line) => sofar + parseAmount(line.split(" ")[1] ?? "", 2), 0);
    expect(total).toBe(0);
    expect(made).toHaveLength(rows.length + 1);
  });
});

describe("lists of contacts and items", () => {
  const contacts = (text: string) => {
    const { rows, reading } = table("contacts", text);
    return contactRows(rows, reading);
  };
  const items = (text: string) => {
    const { rows, reading } = table("items", text);
    return itemRows(rows, reading);
  };

  test("contacts with country, region and number; countries in any case", () => {
    expect(
      contacts(`Customer name,Country,State,VAT reg no
Oxbow Ltd,gb,,GB123456789
Prairie Co,CA,AB,
Nameless only,,,
`),
    ).toEqual({
      problems: [],
      contacts: [
        { row: 2, name: "Oxbow Ltd", country: "GB", region: null, taxNumber: "GB123456789" },
        { row: 3, name: "Prairie Co", country: "CA", region: "AB", taxNumber: null },
        { row: 4, name: "Nameless only", country: null, region: null, taxNumber: null },
      ],
    });
  });

  test.each([
    [",GB", "name", "The name is missing."],
    ["Oxbow,England", "country", `"England" is no country of two letters, such as GB.`],
    ["oxbow LTD,GB", "name", "oxbow LTD is also in row 2. Leave one of them out."],
  ])("a contact %j is refused at its %s", (row, field, message) => {
    const { contacts: taken, problems } = contacts(`Name,Country\nOxbow Ltd,GB\n${row}\n`);
    expect(taken).toHaveLength(1);
    expect(problems.map((problem) => [problem.row, problem.field, problem.message])).toEqual([
      [3, field, message],
    ]);
  });

  test("items with price, kind, codes and accounts", () => {
    expect(
      items(`Item,Unit price,Kind,Sales code,Purchase code,Sales account,Expense account
Bowl,"1,012.50",Goods,S20,P20,4000,6000
Lesson,40,service,S20,,4000,
Thing,,,,,,
`).items,
    ).toEqual([
      item(2, "Bowl", "1012.50", "goods", ["S20", "P20", "4000", "6000"]),
      item(3, "Lesson", "40.00", "services", ["S20", null, "4000", null]),
      item(4, "Thing", null, null, [null, null, null, null]),
    ]);
  });

  test.each([
    [",1,,,", "name", "The name is missing."],
    ["Bowl,dear,,,", "unitPrice", `"dear" is not an amount.`],
    ["Bowl,1,Assembly,,", "supply", `"Assembly" is neither goods nor services.`],
    ["Bowl,1,,S99,", "saleCode", "There is no tax code S99."],
    ["Bowl,1,,,9999", "saleAccount", "There is no account 9999."],
  ])("an item %j is refused at its %s", (row, field, message) => {
    const { items: taken, problems } = items(`Name,Price,Type,Sale code,Sales account\n${row}\n`);
    expect(taken).toEqual([]);
    expect(problems.map((problem) => [problem.field, problem.message])).toEqual([[field, message]]);
  });
});

function item(
  row: number,
  name: string,
  unitPrice: string | null,
  supply: string | null,
  [saleCode, purchaseCode, saleAccount, purchaseAccount]: (string | null)[],
) {
  return {
    row,
    name,
    unitPrice,
    supply,
    taxClass: null,
    saleCode,
    purchaseCode,
    saleAccount,
    purchaseAccount,
  };
}

describe("what a table looks like", () => {
  test.each([
    [
      "titles above the headings are passed over",
      "Ledger of Oxbow,,\nto 31 March,,\nDate,Account,Debit\n",
      2,
    ],
    ["headings in the first row", "Date,Account,Debit\n31/03/2026,6000,1\n", 0],
  ])("%s", (_what, text, headerRow) => {
    expect(table("journal", text).shape.headerRow).toBe(headerRow);
  });

  test.each([
    ["a day above twelve in the first place", "31/03/2026", "dmy", true],
    ["a day above twelve in the second place", "03/31/2026", "mdy", true],
    ["the year in front", "2026-03-04", "ymd", true],
    ["nothing that tells it: as the client's country writes", "03/04/2026", "dmy", false],
  ])("the order of dates by %s", (_what, date, order, sure) => {
    const { shape } = table("journal", `Date,Account,Amount\n${date},6000,1.00\n`);
    expect([shape.dateOrder, shape.dateOrderSure]).toEqual([order, sure]);
  });

  test.each([
    ["an empty file", "", "formats/empty-file"],
    ["nothing but commas", ",,,\n,,,\n", "formats/empty-file"],
    ["a letter", "Dear accountant\nplease find enclosed\n", "formats/not-a-table"],
    ["bytes of something else", "a\u0000b,c,d\ne,f,g\n", "formats/not-a-table"],
    ["columns without headings", "31/03/2026,6000,1.00\n31/03/2026,1200,-1.00\n", "formats/no-header"],
    ["headings that lack the account", "Date,Debit,Credit\n31/03/2026,1.00,\n", "formats/no-header"],
  ])("%s is refused", (_what, text, code) => {
    expect(refusal(() => table("journal", text))).toBe(code);
  });

  test("each column is used once: `Account name` beside `Account` is the name", () => {
    expect(table("trial-balance", "Account,Account name,Debit,Credit\n1200,Bank,1,\n").shape.mapping).toEqual(
      {
        account: 0,
        name: 1,
        debit: 2,
        credit: 3,
      },
    );
  });
});
