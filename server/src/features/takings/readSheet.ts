import Papa from "papaparse";
import { FiscalError } from "@fiscalon/core/errors";
import { takingsBody } from "@fiscalon/contract/takings";
import type { TakingsDayBody, TakingsReading, TakingsSheet } from "@fiscalon/contract/takings";
import { at } from "@fiscalon/core/at";

/**
 * Days of takings from CSV: a column `Date` (2026-03-31, or 31/03/2026) and one for each code; a column `Takings` is the
 * first of them.
 */
export function readTakings(text: string, codes: TakingsSheet["codes"]): TakingsReading {
  const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (head) => columnOf(head, codes),
  });
  const [broken] = errors.filter(({ code }) => code !== "UndetectableDelimiter");
  if (broken) throw wrong((broken.row ?? 0) + 2, broken.message);
  const [first] = data;
  const columns = codes.map(({ code }) => code).filter((code) => first && code in first);
  if (!first || !("date" in first) || columns.length === 0) {
    const known = ["Date", "Takings", ...codes.map(({ code }) => code)].join(", ");
    throw new FiscalError(
      "takings/columns",
      `The file needs a column Date and one of takings. Columns are ${known}.`,
      "file",
    );
  }
  const days: TakingsDayBody[] = data.map((row, index) => {
    const cells = Object.entries(row);
    const day = {
      date: isoOf(cells.map(([column, cell]) => (column === "date" ? cell : "")).join("")),
      // A row that is short has nothing in its last columns.
      amounts: Object.fromEntries(
        cells.filter(([column]) => columns.includes(column)).map(([column, cell]) => [column, plain(cell)]),
      ),
    };
    const checked = takingsBody.validate(
      { account: "-", days: [day] },
      { errors: { wrap: { label: false } } },
    );
    if (checked.error) throw wrong(index + 2, checked.error.message.replace(/days\[0\]\./g, ""));
    return day;
  });
  const twice = days.find(({ date }, index) => days.findIndex((day) => day.date === date) !== index);
  if (twice) throw wrong(days.lastIndexOf(twice) + 2, `${twice.date} stands in the file twice`);
  return { days };
}

function columnOf(head: string, codes: TakingsSheet["codes"]): string {
  const key = head.trim().toLowerCase();
  if (key === "date" || key === "day") return "date";
  if (key === "takings") return at(codes, 0).code;
  return codes.find(({ code, name }) => [code.toLowerCase(), name.toLowerCase()].includes(key))?.code ?? head;
}

/** An amount without thousands' commas and the sign spreadsheets put before what they might run. */
function plain(cell: string): string {
  return cell
    .replace(/^'(?=[=+\-@])/, "")
    .replaceAll(",", "")
    .trim();
}

function isoOf(cell: string): string {
  const [, day = "", month = "", year = ""] = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(cell.trim()) ?? [];
  return day === "" ? cell.trim() : `${year}-${month.padStart(2, "0")}-${day.padStart(2, "0")}`;
}

function wrong(row: number, why: string): FiscalError {
  return new FiscalError("takings/csv", `Row ${row}: ${why}. Correct the file and read it again.`, "file");
}
