import { FiscalError } from "../../errors.ts";
import { isCalendarDate } from "../../calendar/date.ts";
import { parseAmount } from "../../money/amount.ts";
import { minorDigits } from "../../money/currency.ts";
import { elements, readXml, textAt } from "../xml/readXml.ts";
import type { XmlElement } from "../xml/readXml.ts";
import type { BankStatement, StatementLine } from "./bankStatement.ts";
import { uniqueId } from "./camt053.ts";

/**
 * Reads OFX statements of bank accounts and cards: version 1 (SGML, closing tags of values left out) and 2 (XML).
 * @throws FiscalError `formats/ofx-missing`, `formats/bad-date`, what readXml and reading amounts throw
 * @source Open Financial Exchange 1.6 and 2.2: STMTRS, CCSTMTRS, BANKTRANLIST, STMTTRN, LEDGERBAL; from memory
 */
export function readOfx(text: string): BankStatement[] {
  const start = text.search(/<OFX>/i);
  if (start < 0) throw new FiscalError("formats/ofx-missing", "There is no OFX in this file.", "file");
  const xml = readXml(asXml(text.slice(start)));
  const statements = [
    ...elements(xml, "OFX.BANKMSGSRSV1.STMTTRNRS.STMTRS"),
    ...elements(xml, "OFX.CREDITCARDMSGSRSV1.CCSTMTTRNRS.CCSTMTRS"),
  ];
  if (statements.length === 0)
    throw new FiscalError("formats/ofx-missing", "There is no statement in this file.", "file");
  return statements.map(statementOf);
}

/** SGML leaves out the closing tag of values: `<NAME>Oxbow` becomes `<NAME>Oxbow</NAME>`. */
function asXml(sgml: string): string {
  return sgml.replace(/<([A-Za-z0-9_.]+)>([^<\r\n]+)(<\/\1>)?/g, (_, name: string, value: string) => {
    const bare = value.trim();
    if (bare === "") return `<${name}>`;
    const safe = bare.replace(/&(?!(amp|lt|gt|quot|apos|#\d+);)/g, "&amp;");
    return `<${name}>${safe}</${name}>`;
  });
}

function statementOf(statement: XmlElement): BankStatement {
  const currency = textAt(statement, "CURDEF");
  if (currency === "")
    throw new FiscalError("formats/ofx-missing", "The statement names no currency.", "file");
  const digits = minorDigits(currency);
  const seen = new Map<string, number>();
  const closing = textAt(statement, "LEDGERBAL.BALAMT");
  return {
    account: textAt(statement, "BANKACCTFROM.ACCTID") || textAt(statement, "CCACCTFROM.ACCTID"),
    currency,
    opening: null,
    closing: closing === "" ? null : amountOf(closing, digits),
    lines: elements(statement, "BANKTRANLIST.STMTTRN").map((one) => lineOf(one, digits, seen)),
  };
}

function lineOf(one: XmlElement, digits: number, seen: Map<string, number>): StatementLine {
  const raw = textAt(one, "DTPOSTED");
  const date = raw.replace(/^(\d{4})(\d{2})(\d{2}).*$/, "$1-$2-$3");
  if (!isCalendarDate(date))
    throw new FiscalError("formats/bad-date", `"${raw}" is no date of an entry.`, "file");
  const line = {
    date,
    amount: amountOf(textAt(one, "TRNAMT"), digits),
    party: textAt(one, "NAME") || textAt(one, "PAYEE.NAME"),
    text: textAt(one, "MEMO"),
    reference: textAt(one, "CHECKNUM") || textAt(one, "REFNUM"),
  };
  return { id: uniqueId(textAt(one, "FITID"), line, seen), ...line };
}

/** Some banks write a decimal comma. */
function amountOf(text: string, digits: number): number {
  const plain = text.replace(/^\+/, "").replace(",", ".");
  return parseAmount(plain.includes(".") ? plain.replace(/0+$/, "").replace(/\.$/, "") : plain, digits);
}
