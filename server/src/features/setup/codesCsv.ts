import Papa from "papaparse";
import { FiscalError } from "@fiscalon/core/errors";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { codeBody } from "@fiscalon/contract/code";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { safeCell } from "../../exports/safeCell.ts";
import { saveCodeIn } from "./codes.ts";

const COLUMNS = [
  "code",
  "name",
  "direction",
  "supply",
  "treatment",
  "from",
  "to",
  "note",
  "source",
  "components",
  "more",
];

/** The codes as CSV, one a row; components and what few codes have travel as JSON in one cell each. */
export function codesCsv(codes: readonly TaxCode[]): string {
  const rows = codes.map(
    ({ components, code, name, direction, supply, treatment, from, to, note, source, ...more }) => [
      ...[code, name, direction, supply, treatment, from ?? "", to ?? "", note, source].map(safeCell),
      JSON.stringify(components),
      JSON.stringify(more),
    ],
  );
  return Papa.unparse([COLUMNS, ...rows]);
}

/** Creates and changes codes from CSV, all or nothing. Errors name the row of the file. */
export async function importCodes(
  work: Work,
  clientId: number,
  text: string,
): Promise<{ created: number; changed: number }> {
  const codes = readCodes(text);
  return work.write(async (work) => {
    const known = new Set((await loadSetup(work, clientId)).plain.codes.map((code) => code.code));
    const count = { created: 0, changed: 0 };
    for (const [index, code] of codes.entries()) {
      const replaces = known.has(code.code) ? code.code : null;
      try {
        await saveCodeIn(work, clientId, code, replaces);
      } catch (error) {
        if (!(error instanceof FiscalError)) throw error;
        throw new FiscalError(
          error.code,
          `Row ${index + 2}: ${error.message}`,
          `rows[${index}].${error.field ?? ""}`,
        );
      }
      count[replaces === null ? "created" : "changed"] += 1;
    }
    return count;
  });
}

function readCodes(text: string): TaxCode[] {
  const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  const missing = COLUMNS.slice(0, -1).filter((column) => data[0] === undefined || !(column in data[0]));
  if (missing.length > 0) {
    throw new FiscalError(
      "codes/columns",
      `The file has no column ${missing.join(", ")}. Export the codes once to see the shape.`,
      "file",
    );
  }
  const [broken] = errors;
  if (broken) throw new FiscalError("codes/csv", `Row ${(broken.row ?? 0) + 2}: ${broken.message}.`, "file");
  return data.map((row, index) => codeOf(row, index));
}

function codeOf(row: Record<string, string>, index: number): TaxCode {
  const at = `Row ${index + 2}`;
  const parsed = {
    ...json(row["more"] || "{}", at, "more"),
    ...Object.fromEntries(
      ["code", "name", "direction", "supply", "treatment", "note", "source"].map((key) => [
        key,
        plain(row[key]),
      ]),
    ),
    from: plain(row["from"]) || null,
    to: plain(row["to"]) || null,
    components: json(row["components"] ?? "", at, "components"),
  };
  const checked = codeBody.validate(parsed, { errors: { wrap: { label: false } } });
  if (checked.error)
    throw new FiscalError("codes/bad-row", `${at}: ${checked.error.message}.`, `rows[${index}]`);
  return checked.value as TaxCode;
}

/** A cell as it was before it was made safe for spreadsheets. */
function plain(cell: string | undefined): string {
  return (cell ?? "").replace(/^'(?=[=+\-@\t\r])/, "").trim();
}

function json(text: string, at: string, column: string): object {
  try {
    return JSON.parse(text) as object;
  } catch {
    throw new FiscalError("codes/bad-row", `${at}: the cell "${column}" is not JSON.`, column);
  }
}
