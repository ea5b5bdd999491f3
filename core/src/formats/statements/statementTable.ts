import { levyColumns, taxField } from "../tables/tableKinds.ts";
import { tableRows } from "../tables/readTable.ts";
import type { TableReading, TableRow } from "../tables/readTable.ts";
import type { RowProblem } from "../registers/readRow.ts";
import type { StatementContent, StatementRow } from "./statementRow.ts";

const NO_DOCUMENT =
  /\b(payments?|paid|receipts?|received|remittance|bank|transfer|direct debit|balance|brought forward|b\/?f|carried|opening|closing|total|allocation|thank you)\b/i;
const MONEY = /^\W*(payments?|paid|received|remittance|bank transfer|direct debit)\b/i;
const NO_MOVE = /\b(balance|brought forward|b\/?f|carried|opening|closing|total)\b/i;
const CREDIT = /credit|refund|\bcn\b|\bcrn?\b|gutschrift|avoir/i;

/**
 * Reads a table in which the other side lists documents. Amounts stand in columns of net, tax and gross, or in those of
 * charges and credits of an account; balances and totals are left out and counted.
 * @param ofAccount an account whose payments are part of what is compared; otherwise they are left out as well
 */
export function readStatementTable(
  rows: Iterable<readonly string[]>,
  reading: TableReading,
  ofAccount = false,
): StatementContent {
  const problems: RowProblem[] = [];
  const read: StatementRow[] = [];
  const hasSides = reading.mapping["debit"] !== undefined || reading.mapping["credit"] !== undefined;
  let leftOut = 0;
  for (const row of tableRows(rows, reading, problems)) {
    const words = [row.text("kind"), row.text("text"), row.text("number")].join(" ");
    const isCredit = CREDIT.test(words) || (ofAccount && !hasSides && MONEY.test(words));
    const isOther = ofAccount ? NO_MOVE.test(words) : NO_DOCUMENT.test(words) && !isCredit;
    if (isOther || (row.text("number") === "" && row.text("date") === "")) {
      leftOut += 1;
      continue;
    }
    const date = row.date("date");
    const amounts = amountsOf(row, reading, isCredit);
    if (row.broken() || date === null) continue;
    if (amounts.value === null && amounts.tax === null && amounts.gross === null) {
      leftOut += 1;
      continue;
    }
    read.push({
      row: row.row,
      partyNumber: row.text("partyNumber"),
      partyName: row.text("party"),
      number: row.text("number"),
      original: "",
      date,
      ...amounts,
      rate: row.text("rate").replace(/\s*%$/, ""),
      place: "",
      ineligible: "",
      note: "",
    });
  }
  return { number: "", periodEnd: null, drawnOn: null, rows: read, problems, leftOut };
}

function amountsOf(
  row: TableRow,
  { mapping }: TableReading,
  isCredit: boolean,
): Pick<StatementRow, "value" | "tax" | "gross" | "taxes"> {
  const [charge, credit] = [row.amount("debit"), row.amount("credit")];
  const booked = charge === null ? (credit === null ? null : -Math.abs(credit)) : charge;
  const levies = levyColumns(mapping).flatMap(([levy]): [string, number][] => {
    const amount = row.amount(taxField(levy));
    return amount === null ? [] : [[levy, amount]];
  });
  const [value, gross, whole] = [row.amount("net"), row.amount("gross") ?? booked, row.amount("tax")];
  const tax = whole ?? (levies.length === 0 ? null : levies.reduce((sum, [, amount]) => sum + amount, 0));
  // A credit note takes off whether it is written with a sign or by its name alone.
  const sign = isCredit && [value, gross, tax].every((amount) => amount === null || amount >= 0) ? -1 : 1;
  const signed = (amount: number | null) => (amount === null ? null : amount * sign || 0);
  return {
    value: signed(value ?? (gross !== null && tax !== null ? gross - tax : null)),
    tax: signed(tax ?? (gross !== null && value !== null ? gross - value : null)),
    gross: signed(gross),
    taxes: Object.fromEntries(levies.map(([levy, amount]) => [levy, amount * sign || 0])),
  };
}
