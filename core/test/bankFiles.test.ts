import fc from "fast-check";
import Papa from "papaparse";
import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { imbalanceOf } from "@fiscalon/core/formats/bank/bankStatement";
import type { BankStatement } from "@fiscalon/core/formats/bank/bankStatement";
import { writeCamt053 } from "@fiscalon/core/formats/bank/camt053";
import { readStatement } from "@fiscalon/core/formats/bank/readStatement";

const read = (text: string, currency = "GBP", order: "dmy" | "mdy" = "dmy"): BankStatement[] =>
  readStatement(text, (csv) => Papa.parse<string[]>(csv.trimEnd()).data, currency, order);
const only = (text: string, currency?: string, order?: "dmy" | "mdy") => at(read(text, currency, order), 0);
const amounts = (text: string) => only(text).lines.map(({ date, amount }) => `${date} ${amount}`);

function refusal(text: string): string {
  try {
    read(text);
  } catch (error) {
    if (error instanceof FiscalError) return `${error.code}: ${error.message}`;
    throw error;
  }
  return "";
}

// What banks do with their columns is common practice, no source.
describe("a bank's CSV", () => {
  test.each([
    ["one signed column", "Date,Description,Amount\n03/07/2026,Ale,120.00\n14/07/2026,Hire,-45.50\n"],
    ["money in and out", "Date,Details,Money In,Money Out\n03/07/2026,Ale,120.00,\n14/07/2026,Hire,,45.50\n"],
    [
      "money out with a minus",
      "Date,Details,Credit,Debit\n03/07/2026,Ale,120.00,\n14/07/2026,Hire,,-45.50\n",
    ],
    ["a column for the side", "Date,Text,Amount,DR/CR\n03/07/2026,Ale,120.00,CR\n14/07/2026,Hire,45.50,DR\n"],
    [
      "words for the side",
      "Date,Text,Amount,Type\n03/07/2026,Ale,120.00,Credit\n14/07/2026,Hire,45.50,debit\n",
    ],
    ["the side behind the figure", "Date,Text,Amount\n03/07/2026,Ale,120.00 CR\n14/07/2026,Hire,45.50 DR\n"],
    ["brackets", "Date,Text,Amount\n03/07/2026,Ale,£120.00\n14/07/2026,Hire,(45.50)\n"],
    ["decimal commas", `Date;Text;Amount\n03/07/2026;Ale;120,00\n14/07/2026;Hire;-45,50\n`],
    [
      "titles above, blank lines between",
      "Statement,,\n\nDate,Text,Amount\n03/07/2026,Ale,120.00\n,,\n14/07/2026,Hire,-45.50\n",
    ],
    ["months in words", "Date,Text,Amount\n3 Jul 2026,Ale,120.00\n14 Jul 2026,Hire,-45.50\n"],
    ["the year in front", "Date,Text,Amount\n2026-07-03,Ale,120.00\n2026-07-14,Hire,-45.50\n"],
    [
      "nothing moved on a line",
      "Date,Text,Amount\n03/07/2026,Ale,120.00\n04/07/2026,Balance,\n14/07/2026,Hire,-45.50\n",
    ],
  ])("%s", (_what, text) => expect(amounts(text)).toEqual(["2026-07-03 12000", "2026-07-14 -4550"]));

  test("money that came back stands with a minus in the column of money out, and in", () => {
    const text =
      "Date,Text,Paid in,Paid out\n01/07/2026,Hire,,45.50\n02/07/2026,Refund,,-45.50\n03/07/2026,Returned,-12.00,\n";
    expect(amounts(text)).toEqual(["2026-07-01 -4550", "2026-07-02 4550", "2026-07-03 -1200"]);
  });

  test("a day that could be a month is read as the country of the books writes it", () => {
    const text = "Date,Text,Amount\n07/04/2026,Ale,1.00\n";
    expect(at(only(text).lines, 0).date).toBe("2026-04-07");
    expect(at(only(text, "USD", "mdy").lines, 0).date).toBe("2026-07-04");
    expect(at(only(`${text}07/14/2026,Ale,1.00\n`).lines, 0).date).toBe("2026-07-04");
  });

  const BALANCES = [
    ["01/07/2026", "100.00", "600.00"],
    ["02/07/2026", "-40.00", "560.00"],
    ["02/07/2026", "-10.00", "550.00"],
    ["05/07/2026", "25.00", "575.00"],
  ];
  const table = (rows: string[][]) => `Date,Amount,Balance\n${rows.map((row) => row.join(",")).join("\n")}\n`;

  test.each([
    ["oldest first", BALANCES],
    ["newest first", [...BALANCES].reverse()],
    ["newest first within one day", [...BALANCES].reverse().slice(1, 3)],
  ])(
    "balances beside the lines, %s: they say where the account stood, and that no line is missing",
    (_what, rows) => {
      const statement = only(table(rows));
      expect(imbalanceOf(statement)).toBeNull();
      const last = rows.length === 4 ? 57500 : 55000;
      expect([statement.opening, statement.closing]).toEqual([rows.length === 4 ? 50000 : 60000, last]);
    },
  );

  test("a line somebody took out of the file is missed", () => {
    expect(imbalanceOf(only(table(BALANCES.filter((_, index) => index !== 1))))).toBe(-4000);
  });

  test("balances on some lines only are no balances", () => {
    const rows = BALANCES.map(([date = "", amount = "", balance = ""], index) => [
      date,
      amount,
      index === 2 ? "" : balance,
    ]);
    expect(only(table(rows))).toMatchObject({ opening: null, closing: null });
  });

  test("the same line twice a day is two lines, and in the next file they are known again", () => {
    const text = "Date,Text,Amount\n03/07/2026,Coffee,-3.20\n03/07/2026,Coffee,-3.20\n";
    const ids = only(text).lines.map(({ id }) => id);
    expect(new Set(ids).size).toBe(2);
    expect(only(text).lines.map(({ id }) => id)).toEqual(ids);
  });

  test.each([
    ["no heading", "03/07/2026,Ale,120.00\n", "formats/no-header: No row of headings"],
    [
      "money in without money out",
      "Date,Text,Paid in\n03/07/2026,Ale,1\n",
      "formats/no-header: No row of headings",
    ],
    ["a day that does not exist", "Date,Amount\n31/06/2026,1\n", `formats/bad-date: Row 2: "31/06/2026"`],
    ["a word for an amount", "Date,Amount\n30/06/2026,nil\n", `formats/bad-amount: Row 2: "nil"`],
  ])("%s is refused with its row", (_what, text, start) => expect(refusal(text)).toContain(start));
});

/** ISO 20022, camt.053.001.08, as the fields are named there; from memory. */
const camt = (entries: string, balances = "") => `<?xml version="1.0" encoding="UTF-8"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt><Id>1</Id>
<Acct><Id><IBAN>GB33BUKB20201555555555</IBAN></Id><Ccy>GBP</Ccy></Acct>${balances}${entries}</Stmt></BkToCstmrStmt></Document>`;
const entry = (amount: string, side: string, more = "", status = "<Sts><Cd>BOOK</Cd></Sts>") =>
  `<Ntry><Amt Ccy="GBP">${amount}</Amt><CdtDbtInd>${side}</CdtDbtInd>${status}<BookgDt><Dt>2026-07-03</Dt></BookgDt>${more}</Ntry>`;
const balance = (code: string, amount: string, side = "CRDT") =>
  `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="GBP">${amount}</Amt><CdtDbtInd>${side}</CdtDbtInd></Bal>`;

describe("camt.053", () => {
  const sums = (entries: string) => only(camt(entries)).lines.map(({ amount }) => amount);

  test("a credit comes in, a debit goes out, a reversal as its own indicator says", () => {
    expect(sums(entry("120.00", "CRDT") + entry("45.5", "DBIT"))).toEqual([12000, -4550]);
    expect(sums(entry("45.50", "CRDT", "<RvslInd>true</RvslInd>"))).toEqual([4550]);
  });

  test.each(["PDNG", "INFO", "FUTR"])(
    "what is %s has not moved, in both ways of writing the status",
    (status) => {
      expect(sums(entry("1.00", "CRDT", "", `<Sts><Cd>${status}</Cd></Sts>`))).toEqual([]);
      expect(sums(entry("1.00", "CRDT", "", `<Sts>${status}</Sts>`))).toEqual([]);
    },
  );

  const part = (amount: string, name: string, side = "") =>
    `<TxDtls><Amt Ccy="GBP">${amount}</Amt>${side === "" ? "" : `<CdtDbtInd>${side}</CdtDbtInd>`}<RltdPties><Dbtr><Pty><Nm>${name}</Nm></Pty></Dbtr></RltdPties></TxDtls>`;
  const bundle = (...parts: string[]) =>
    `<AcctSvcrRef>B1</AcctSvcrRef><NtryDtls>${parts.join("")}</NtryDtls>`;

  test("a bundle that is told payment by payment is as many lines, each with its own name and id", () => {
    const { lines } = only(
      camt(entry("30.00", "CRDT", bundle(part("10.00", "Reed"), part("20.00", "Oxbow")))),
    );
    expect(lines.map(({ id, amount, party }) => [id, amount, party])).toEqual([
      ["B1/1", 1000, "Reed"],
      ["B1/2", 2000, "Oxbow"],
    ]);
  });

  test("a part that goes the other way is taken off; parts that do not make the whole leave one line", () => {
    expect(sums(entry("15.00", "CRDT", bundle(part("20.00", "Reed"), part("5.00", "Fee", "DBIT"))))).toEqual([
      2000, -500,
    ]);
    expect(sums(entry("31.00", "CRDT", bundle(part("10.00", "Reed"), part("20.00", "Oxbow"))))).toEqual([
      3100,
    ]);
  });

  test("balances before and after, also overdrawn", () => {
    const statement = only(
      camt(entry("20.00", "DBIT"), balance("OPBD", "5.00") + balance("CLBD", "15.00", "DBIT")),
    );
    expect([statement.opening, statement.closing, imbalanceOf(statement)]).toEqual([500, -1500, null]);
    expect(
      imbalanceOf(only(camt(entry("20.00", "DBIT"), balance("OPBD", "5.00") + balance("CLBD", "15.00")))),
    ).toBe(3000);
  });

  test("an overdraft's interest of the old version, name straight under the party", () => {
    const old = camt(
      entry(
        "2.50",
        "DBIT",
        `<NtryDtls><TxDtls><RltdPties><Cdtr><Nm>The bank</Nm></Cdtr></RltdPties></TxDtls></NtryDtls>`,
        "<Sts>BOOK</Sts>",
      ),
    ).replace(".08", ".02");
    expect(only(old).lines).toMatchObject([{ amount: -250, party: "The bank" }]);
  });

  test.each([
    ["no statement", `<Document><BkToCstmrStmt/></Document>`, "formats/camt-missing"],
    ["no side", camt(entry("1.00", "BOTH")), "formats/camt-missing"],
    ["no day", camt(entry("1.00", "CRDT").replace("2026-07-03", "2026-02-30")), "formats/bad-date"],
    ["another message", `<Invoice xmlns="urn:x"/>`, "formats/unknown-xml"],
    ["an entity", `<!DOCTYPE a [<!ENTITY x "y">]><Document>&x;</Document>`, "formats/"],
    ["a file cut off", camt(entry("1.00", "CRDT")).slice(0, 300), "formats/"],
  ])("%s is refused", (_what, text, code) => expect(refusal(text)).toContain(code));

  test("what is written is read again: any lines, also several of one day with the same words", () => {
    const line = fc.record({
      date: fc.constantFrom("2026-07-01", "2026-07-02"),
      amount: fc.integer({ min: -9_999_999, max: 9_999_999 }).filter((amount) => amount !== 0),
      party: fc.constantFrom("", "Reed & Co", '<Oxbow> "Ltd"'),
      text: fc.constantFrom("", "rent & rates", "Rechnung 7 €"),
      reference: fc.constantFrom("", "RF18 5390"),
    });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), fc.integer(), (lines, opening) => {
        const statement: BankStatement = {
          account: "12345678",
          currency: "GBP",
          opening,
          closing: lines.reduce((sum, { amount }) => sum + amount, opening),
          lines: lines.map((one, index) => ({ id: `L${index}`, ...one })),
        };
        expect(only(writeCamt053(statement, "2026-07-31T09:00:00Z"))).toEqual(statement);
      }),
      { numRuns: 200 },
    );
  });
});

/** Open Financial Exchange 1.6 (closing tags of values left out) and 2.2 (XML), from memory. */
describe("OFX", () => {
  const old = `OFXHEADER:100
DATA:OFXSGML
VERSION:102

<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>GBP
<BANKACCTFROM><BANKID>202015<ACCTID>55555555</BANKACCTFROM>
<BANKTRANLIST><DTSTART>20260701
<STMTTRN><TRNTYPE>CREDIT<DTPOSTED>20260703120000[0:GMT]<TRNAMT>120.00<FITID>A1<NAME>Reed & Co<MEMO>Invoice 7</STMTTRN>
<STMTTRN><TRNTYPE>DEBIT<DTPOSTED>20260714<TRNAMT>-45,50<FITID>A2<NAME>Hire</STMTTRN>
</BANKTRANLIST><LEDGERBAL><BALAMT>574.50<DTASOF>20260731</LEDGERBAL></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`;
  const card = `<?xml version="1.0"?><?OFX OFXHEADER="200" VERSION="220"?><OFX><CREDITCARDMSGSRSV1><CCSTMTTRNRS><CCSTMTRS>
<CURDEF>USD</CURDEF><CCACCTFROM><ACCTID>4111</ACCTID></CCACCTFROM><BANKTRANLIST>
<STMTTRN><TRNTYPE>DEBIT</TRNTYPE><DTPOSTED>20260703</DTPOSTED><TRNAMT>-9.9900</TRNAMT><FITID>X</FITID><PAYEE><NAME>Kiln &amp; Co</NAME></PAYEE></STMTTRN>
</BANKTRANLIST></CCSTMTRS></CCSTMTTRNRS></CREDITCARDMSGSRSV1></OFX>`;

  test("version 1 with values that are not closed, a bare ampersand and a decimal comma", () => {
    expect(only(old)).toEqual({
      account: "55555555",
      currency: "GBP",
      opening: null,
      closing: 57450,
      lines: [
        { id: "A1", date: "2026-07-03", amount: 12000, party: "Reed & Co", text: "Invoice 7", reference: "" },
        { id: "A2", date: "2026-07-14", amount: -4550, party: "Hire", text: "", reference: "" },
      ],
    });
  });

  test("version 2 of a card, with more decimals than the currency has", () => {
    expect(only(card)).toMatchObject({
      account: "4111",
      currency: "USD",
      lines: [{ id: "X", amount: -999, party: "Kiln & Co" }],
    });
  });

  test.each([
    ["a heading only", "OFXHEADER:100\n\n", "formats/ofx-missing"],
    ["no statement", "<OFX><SIGNONMSGSRSV1></SIGNONMSGSRSV1></OFX>", "formats/ofx-missing"],
    ["no currency", old.replace("<CURDEF>GBP", ""), "formats/ofx-missing"],
    ["a day that does not exist", old.replace("20260714", "20260231"), "formats/bad-date"],
  ])("%s is refused", (_what, text, code) => expect(refusal(text)).toContain(code));
});
