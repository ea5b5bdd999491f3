import { formatAmount } from "../../money/amount.ts";
import type { RowProblem } from "../registers/readRow.ts";
import { tableRows } from "./readTable.ts";
import type { TableReading, TableRow } from "./readTable.ts";

export interface ContactRow {
  row: number;
  name: string;
  country: string | null;
  region: string | null;
  taxNumber: string | null;
}

/** Contacts of a list; the same name twice is a problem. */
export function contactRows(
  rows: Iterable<readonly string[]>,
  reading: TableReading,
): { contacts: ContactRow[]; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const seen = new Map<string, number>();
  const contacts: ContactRow[] = [];
  for (const row of tableRows(rows, reading, problems)) {
    const name = row.text("name");
    const country = row.text("country").toUpperCase();
    if (name === "") row.problem("name", "The name is missing.");
    if (country !== "" && !/^[A-Z]{2}$/.test(country))
      row.problem("country", `"${row.text("country")}" is no country of two letters, such as GB.`);
    const twin = seen.get(name.toLowerCase());
    if (twin !== undefined) row.problem("name", `${name} is also in row ${twin}. Leave one of them out.`);
    if (row.broken()) continue;
    seen.set(name.toLowerCase(), row.row);
    contacts.push({
      row: row.row,
      name,
      country: country || null,
      region: row.text("region") || null,
      taxNumber: row.text("taxNumber") || null,
    });
  }
  return { contacts, problems };
}

export interface ItemRow {
  row: number;
  name: string;
  unitPrice: string | null;
  supply: "goods" | "services" | null;
  taxClass: string | null;
  saleCode: string | null;
  purchaseCode: string | null;
  saleAccount: string | null;
  purchaseAccount: string | null;
}

/** Items of a list; codes and accounts must exist. */
export function itemRows(
  rows: Iterable<readonly string[]>,
  reading: TableReading & { accounts: ReadonlySet<string>; codes: ReadonlySet<string> },
): { items: ItemRow[]; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const items: ItemRow[] = [];
  for (const row of tableRows(rows, reading, problems)) {
    const name = row.text("name");
    if (name === "") row.problem("name", "The name is missing.");
    const price = row.amount("unitPrice");
    const known = (field: string, among: ReadonlySet<string>, what: string) => {
      const value = row.text(field);
      if (value !== "" && !among.has(value)) row.problem(field, `There is no ${what} ${value}.`);
      return value || null;
    };
    const supply = supplyOf(row);
    const item: ItemRow = {
      row: row.row,
      name,
      unitPrice: price === null ? null : formatAmount(price, reading.digits),
      supply,
      taxClass: row.text("taxClass") || null,
      saleCode: known("saleCode", reading.codes, "tax code"),
      purchaseCode: known("purchaseCode", reading.codes, "tax code"),
      saleAccount: known("saleAccount", reading.accounts, "account"),
      purchaseAccount: known("purchaseAccount", reading.accounts, "account"),
    };
    if (!row.broken()) items.push(item);
  }
  return { items, problems };
}

/** Goods or services, as a list says it; nothing said is nothing known, another word is a problem. */
function supplyOf(row: TableRow): "goods" | "services" | null {
  const said = row.text("supply").toLowerCase();
  if (said.startsWith("serv")) return "services";
  if (said.startsWith("good") || said === "product" || said === "products") return "goods";
  if (said !== "") row.problem("supply", `"${row.text("supply")}" is neither goods nor services.`);
  return null;
}
