import { FiscalError } from "../../errors.ts";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { minorDigits } from "../../money/currency.ts";
import { readXml } from "../xml/readXml.ts";
import type { BankStatement } from "./bankStatement.ts";
import { readCamt053 } from "./camt053.ts";
import { readOfx } from "./ofx.ts";
import { readStatementCsv } from "./statementCsv.ts";

/**
 * Reads a statement in whatever of the known formats it is: camt.053, OFX, or a bank's CSV.
 * @param csvRows splits the text into cells where it turns out to be CSV
 * @param currency of the account, for formats that do not tell it
 * @param dateOrder of the country, where a file leaves it open
 * @throws FiscalError as the readers of the formats do
 */
export function readStatement(
  text: string,
  csvRows: (text: string) => readonly (readonly string[])[],
  currency: string,
  dateOrder: DateOrder,
): BankStatement[] {
  const head = text.slice(0, 4000);
  if (/<OFX>|OFXHEADER/i.test(head)) return readOfx(text);
  if (head.trimStart().startsWith("<")) {
    const xml = readXml(text);
    if (xml["Document"]) return readCamt053(xml);
    throw new FiscalError(
      "formats/unknown-xml",
      "This XML is no bank statement that is known. camt.053, OFX and CSV can be read.",
      "file",
    );
  }
  return [readStatementCsv(csvRows(text), currency, minorDigits(currency), dateOrder)];
}
