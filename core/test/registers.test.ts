import fc from "fast-check";
import Papa from "papaparse";
import { describe, expect, test } from "vitest";
import { recogniseRegister } from "@fiscalon/core/formats/registers/recogniseRegister";
import { registerAmount } from "@fiscalon/core/formats/registers/registerAmount";
import { registerDocuments } from "@fiscalon/core/incoming/registerDocuments";
import type { RegisterReading } from "@fiscalon/core/incoming/registerReading";
import { Packs } from "@fiscalon/core/model/packs";
import { readByRows, readRegister } from "./support/registers.ts";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { inPack } from "@fiscalon/core/packs/in/pack";
import { writtenLevies } from "@fiscalon/core/incoming/levyWords";

const REGISTER = `Sales day book;;;;;
Invoice No;Date;Customer;Net;VAT;Gross
A-1;03/07/2026;Reed & Co;1.000,00;200,00;1.200,00
A-2;14/07/2026;Oxbow;50,00;;50,00
A-3;31/06/2026;Oxbow;10,00;2,00;12,00
A-4;15/07/2026;Oxbow;10,00;1,30;11,30
A-1;20/07/2026;Reed & Co;7,00;1,40;8,40
C-1;21/07/2026;Reed & Co;-100,00;-20,00;-120,00
A-6;22/07/2026;Oxbow;10,03;2,00;12,03
A-6;22/07/2026;Oxbow;40,00;2,00;42,00
A-7;23/07/2026;Oxbow;10,00;2,00;12,50
Total;;;1.000,03;184,00;1.184,03
`;

describe("a sales register with dirt in it", () => {
  test("is recognised: separator, title line, decimal comma, day first", () => {
    expect(recogniseRegister(REGISTER, "mdy")).toMatchObject({
      delimiter: ";",
      headerRow: 1,
      decimal: ",",
      dateOrder: "dmy",
      mapping: { number: 0, date: 1, party: 2, net: 3, tax: 4, gross: 5 },
    });
  });

  test("good rows become documents, bad ones are named by row and column", () => {
    const content = readRegister(REGISTER);
    expect(
      content.documents.map((d) => [
        d.input.number,
        d.input.kind,
        d.input.lines.map((l) => [l.amount, l.code, l.typedTax?.["VAT"]]),
      ]),
    ).toEqual([
      ["A-1", "sales-invoice", [["1000.00", "S20", undefined]]],
      ["A-2", "sales-invoice", [["50.00", "Z", undefined]]],
      ["C-1", "sales-credit-note", [["100.00", "S20", undefined]]],
      [
        "A-6",
        "sales-invoice",
        [
          ["10.03", "S20", "2.00"],
          ["40.00", "R5", undefined],
        ],
      ],
    ]);
    expect(content.problems.map((p) => [p.row, p.field])).toEqual([
      [5, "date"],
      [6, "tax"],
      [7, "number"],
      [11, "gross"],
    ]);
    expect(content.problems[3]?.message).toBe("Net and tax make 12.00, not 12.50. Correct one of the three.");
    expect(content.notices[0]?.message).toContain(
      "It agrees: the rows above add up to 1,000.03 net and 184.00 tax.",
    );
  });

  test("mended and left-out rows are taken as such", () => {
    const content = readRegister(REGISTER, {
      leftOut: new Set([6, 7, 11]),
      mended: new Map([[5, new Map([[1, "30/06/2026"]])]]),
    });
    expect(content.problems).toEqual([]);
    expect(content.documents.map((d) => d.input.date)).toContain("2026-06-30");
  });

  test("blank tax without a chosen code is a problem, never a guess", () => {
    expect(readRegister(REGISTER, { codeForBlank: null }).problems.map((p) => p.row)).toContain(4);
  });
});

test.each([
  ["1,234.50", ".", 123450],
  ["1.234,50", ",", 123450],
  ["£ 12", ".", 1200],
  ["(12.00)", ".", -1200],
  ["12.00-", ".", -1200],
  ["-£12.00", ".", -1200],
  ["-GBP 12.00", ".", -1200],
  ["− € 1.234,50", ",", -123450],
  ["£-12", ".", -1200],
  ["12.00 CR", ".", -1200],
  ["-", ".", null],
  ["12.345", ".", undefined],
  ["1,23", ".", undefined],
  ["twelve", ".", undefined],
] as const)("the amount %s with decimal sign %s", (text, decimal, expected) => {
  expect(registerAmount(text, decimal, 2)).toBe(expected);
});

test.each([
  ["", "formats/empty-file"],
  ["just a letter\nwith two lines", "formats/not-a-table"],
  ["a,b,c,d\n1,2,3,4", "formats/no-header"],
  ["PK\u0003\u0004\u0000,\u0000,\u0000,", "formats/not-a-table"],
])("a file that is no register is refused", (text, code) => {
  expect(() => recogniseRegister(text, "dmy")).toThrow(expect.objectContaining({ code }));
});

describe("columns and amounts as offices write them", () => {
  test("headings of an Indian register: integrated tax is no rate, a buyer is a party, a GSTIN a tax number", () => {
    const head =
      "Invoice No,Invoice Date,Buyer,GSTIN of buyer,Place of Supply,Taxable Value,Central Tax,State/UT Tax,Integrated Tax,Invoice Value";
    const row = "1,13-04-2026,Alpha,,27-Maharashtra,100.00,,,18.00,118.00";
    const { mapping } = recogniseRegister(`${head}\n${row}\n`, "dmy", "register", writtenLevies([inPack]));
    expect(mapping).toEqual({
      number: 0,
      date: 1,
      party: 2,
      partyNumber: 3,
      partyRegion: 4,
      net: 5,
      "tax:CGST": 6,
      "tax:SGST": 7,
      "tax:IGST": 8,
      gross: 9,
    });
  });

  test("row by row it says what it says as a whole: lines of one number, the same again, dirt and all", () => {
    const row = fc.tuple(
      fc.constantFrom("A-1", "a-1", "A-2", "A-3", ""),
      fc.constantFrom("03/07/2026", "04/07/2026", "31/06/2026"),
      fc.constantFrom("Reed", "Oxbow"),
      fc.constantFrom("10.00;2.00", "20.00;4.00", "-5.00;-1.00", "10.00;1.30", "x;2.00"),
    );
    fc.assert(
      fc.property(fc.array(row, { maxLength: 12 }), (rows) => {
        const text = ["Invoice No;Date;Customer;Net;VAT", ...rows.map((one) => one.join(";")), ""].join("\n");
        expect(readByRows(text)).toEqual(readRegister(text));
      }),
    );
  });

  const india = (text: string, more: Partial<RegisterReading> = {}) => {
    const shape = recogniseRegister(text, "dmy", "register", writtenLevies([inPack]));
    const { data } = Papa.parse<string[]>(text, { delimiter: shape.delimiter });
    return registerDocuments(data, {
      ...shape,
      digits: 2,
      direction: "sale",
      codeForBlank: null,
      codeForZero: null,
      account: null,
      chosen: {},
      usual: null,
      rules: inPack.rules,
      packs: new Packs([inPack]),
      site: { country: "IN", region: "27" },
      find: () => undefined,
      ownNumbers: [],
      codes: new Map(inPack.codes.flatMap(expandCode).map((code) => [code.code, code])),
      schedules: inPack.schedules,
      accounts: new Set(),
      leftOut: new Set(),
      mended: new Map(),
      ...more,
    });
  };

  test("a column a levy, lakhs, CR and Dr: the levies are told apart", () => {
    const content =
      india(`Invoice No,Invoice Date,Customer,Taxable Value,Central Tax,State/UT Tax,Integrated Tax
1,01-04-2026,Alpha,"₹ 1,23,456.00","11,111.04","11,111.04",
2,02-04-2026,Beta,1000.00 CR,90.00 CR,90.00 CR,
`);
    expect(content.problems).toEqual([]);
    expect(content.documents.map(({ input }) => [input.kind, input.lines[0]?.amount])).toEqual([
      ["sales-invoice", "123456.00"],
      ["sales-credit-note", "1000.00"],
    ]);
    expect(content.net).toBe(12345600 - 100000);
    expect(content.tax).toBe(2222208 - 18000);
  });

  test("where several codes fit, one question stands for all rows, and its answer settles them", () => {
    const text = `Invoice No,Date,Customer,Net,VAT
1,01/07/2026,Reed,100.00,20.00
2,02/07/2026,Reed,100.00,20.00
`;
    const asked = readRegister(text, { usual: null });
    const [choice] = asked.choices;
    expect(choice?.rows).toBe(2);
    expect(asked.problems).toHaveLength(1);
    const settled = readRegister(text, { usual: null, chosen: { [choice?.key ?? ""]: "S20" } });
    expect(settled.problems).toEqual([]);
    expect(settled.documents.map(({ input }) => input.lines[0]?.code)).toEqual(["S20", "S20"]);
  });

  test("a purchase from the business itself is the register of the other side", () => {
    const text = `Invoice No,Date,Supplier,VAT number,Net,VAT
1,01/07/2026,Ourselves,GB 123 4567 89,100.00,20.00
`;
    const { problems } = readRegister(text, { direction: "purchase", ownNumbers: ["123456789"] });
    expect(problems.map(({ message }) => message)).toEqual([
      "The supplier has the tax number of this business. Is this the register of the other side?",
    ]);
  });
});
