import { FiscalError } from "@fiscalon/core/errors";
import { recogniseRegister } from "@fiscalon/core/formats/registers/recogniseRegister";
import { recogniseTable } from "@fiscalon/core/formats/tables/recogniseTable";
import type { TableShape } from "@fiscalon/core/formats/tables/recogniseTable";
import { TABLES } from "@fiscalon/core/formats/tables/tableKinds";
import type { TableName, LevyWords } from "@fiscalon/core/formats/tables/tableKinds";
import type { DateOrder } from "@fiscalon/core/calendar/parseDate";
import type { ImportContent } from "@fiscalon/contract/imports";
import { decoded, encodingOf, refuseForeignFile } from "../../base/files.ts";
import { WORKBOOK } from "../../base/readRows.ts";
import { isWorkbook } from "../../base/workbook/sheets.ts";
import { firstSheetApart } from "../../base/workbook/apart.ts";

/** Tables that documents and masters come in by. */
type ImportTable = Extract<TableName, ImportContent>;

const RECOGNISE_BYTES = 262_144;
const SAMPLE_ROWS = 400;

/** What an XML file has instead of columns. */
const NO_COLUMNS: TableShape = {
  delimiter: "",
  headerRow: 0,
  columns: [],
  mapping: {},
  dateOrder: "ymd",
  dateOrderSure: true,
  decimal: ".",
};

export interface Recognised {
  content: ImportContent;
  encoding: string;
  shape: TableShape;
}

/**
 * What a file is: an e-invoice or an audit file by its XML, otherwise a table of the kind that was said.
 * @throws FiscalError that says what to drop instead
 */
export async function recognised(
  content: Buffer,
  wanted: ImportContent,
  { order, levies }: { order: DateOrder; levies: readonly LevyWords[] },
): Promise<Recognised> {
  const table = wanted in TABLES ? (wanted as ImportTable) : "register";
  if (isWorkbook(content)) {
    const rows = await firstSheetApart(content, SAMPLE_ROWS);
    return { content: table, encoding: WORKBOOK, shape: recogniseTable(rows, "", table, order, levies) };
  }
  refuseForeignFile(content);
  const encoding = encodingOf(content);
  const text = decoded(content.subarray(0, RECOGNISE_BYTES), encoding);
  const xml = xmlContent(text);
  if (xml) return { content: xml, encoding, shape: NO_COLUMNS };
  if (wanted === "e-invoice" || wanted === "audit-file") {
    throw new FiscalError(
      "imports/not-xml",
      `This is no XML. ${wanted === "e-invoice" ? "An e-invoice is an XML file in UBL." : "An audit file is XML."} For a table, choose what it holds.`,
      "file",
    );
  }
  return { content: table, encoding, shape: recogniseRegister(text, order, table, levies) };
}

/** By the first element. */
function xmlContent(text: string): "e-invoice" | "audit-file" | null {
  if (!text.trimStart().startsWith("<")) {
    if (/OFXHEADER|<OFX>/i.test(text.slice(0, 2000))) throw bankStatement();
    return null;
  }
  const root = /<(?:[\w-]+:)?([A-Za-z]+)[\s>]/.exec(
    text.replace(/<\?[\s\S]*?\?>|<!--[\s\S]*?-->|<![^>]*>/g, ""),
  )?.[1];
  if (root === "Invoice" || root === "CreditNote") return "e-invoice";
  if (root === "AuditFile") return "audit-file";
  if (root === "OFX" || (root === "Document" && text.includes("camt.053"))) throw bankStatement();
  throw new FiscalError(
    "imports/unknown-xml",
    `An XML file that begins with ${root ?? "something else"} is not known here. E-invoices in UBL and audit files (SAF-T) can be read.`,
    "file",
  );
}

function bankStatement(): FiscalError {
  return new FiscalError(
    "imports/bank-statement",
    "This is a bank statement. Read it under Books, Bank: its lines are matched there.",
    "file",
  );
}
