import { displayDate } from "../calendar/displayDate.ts";
import { textAt } from "../at.ts";
import type { Circumstances } from "../model/circumstances.ts";
import type { TaxCode } from "../model/taxCode.ts";
import type { RegisterField } from "../formats/registers/columns.ts";
import type { RegisterRow } from "../formats/registers/readRow.ts";
import { displayAmount } from "../money/amount.ts";
import { codesByTax } from "./codesByTax.ts";
import type { CodeSearch } from "./codesByTax.ts";
import { codesWithinReach } from "../supply/tryRules.ts";
import type { ToldLine } from "./codesByTax.ts";
import type { RegisterFound, RegisterReading } from "./registerReading.ts";
import { note } from "./registerReading.ts";

/** Under which a person's choice between codes is remembered. */
export function choiceKey(codes: readonly TaxCode[]): string {
  return codes
    .map(({ code }) => code)
    .sort()
    .join("/");
}

/** The code of a row: its own, the one of its tax, or a question. @returns null where the row is a problem */
export function chosenCode(
  row: RegisterRow,
  told: ToldLine,
  circumstances: Circumstances,
  reading: RegisterReading,
  content: RegisterFound,
): { code: TaxCode; reason: string } | null {
  const { mapping, codes, direction, schedules } = reading;
  const problem = (field: RegisterField, value: string, message: string) => {
    content.problems.push(note(row.row, mapping[field] ?? null, value, message, field));
    return null;
  };
  if (row.code !== "") {
    const code = codes.get(row.code) ?? codes.get(row.code.toUpperCase());
    if (code) return { code, reason: "code in the register" };
    return problem("code", row.code, `There is no tax code ${row.code}.`);
  }
  const { tax } = told;
  const rate = row.rate.replace(/[%\s]/g, "");
  const untaxed = rate === "" ? tax === null || tax === 0 : Number(rate.replace(",", ".")) === 0;
  if (untaxed) {
    const isBlank = tax === null && rate === "";
    const chosen = isBlank ? reading.codeForBlank : reading.codeForZero;
    const code = chosen === null ? undefined : codes.get(chosen);
    const what = isBlank ? "blank" : "zero";
    if (code) return { code, reason: `chosen for rows with ${what} tax` };
    return problem(
      "tax",
      "",
      `The tax is ${what}. Choose the code for such rows under “How the file is read”.`,
    );
  }
  const on = row.taxPoint ?? row.date;
  const search = { direction, on, circumstances, codes, schedules };
  const fitting = likely(codesByTax(told, search), search, reading);
  const [only, more] = fitting;
  const reason = rate === "" ? "the rate that gives the printed tax" : "the rate in the register";
  if (only && !more) return { code: only, reason };
  const usual = fitting.find(({ code }) => code === reading.usual);
  const key = choiceKey(fitting);
  const decided = codes.get(textAt(reading.chosen, key));
  if (decided && fitting.includes(decided)) return { code: decided, reason: "chosen for this register" };
  if (usual) return { code: usual, reason };
  if (only) return askForChoice(key, fitting, row, reading, content);
  const shown = displayAmount(tax ?? 0, reading.digits);
  const percent = told.amount === 0 || tax === null ? "" : ` (${((100 * tax) / told.amount).toFixed(1)} %)`;
  return problem(
    "tax",
    shown,
    `Tax ${shown} on net ${displayAmount(told.amount, reading.digits)}${percent} fits no rate of ${displayDate(on)}. Correct the figures, or give a tax code.`,
  );
}

/** Of several codes that fit those that the supply rules may lead to, where there are any. */
function likely(fitting: TaxCode[], search: CodeSearch, { rules }: RegisterReading): TaxCode[] {
  if (fitting.length < 2) return fitting;
  const { direction, on, circumstances } = search;
  const reach = codesWithinReach(rules, { direction, on, circumstances, taxClass: "", supply: "" });
  const within = fitting.filter(({ code }) => reach.has(code));
  return within.length === 0 ? fitting : within;
}

/** One problem for all rows that the same choice settles. */
function askForChoice(
  key: string,
  fitting: readonly TaxCode[],
  row: RegisterRow,
  { mapping }: RegisterReading,
  content: RegisterFound,
): null {
  const known = content.choices.find((one) => one.key === key);
  if (known) {
    known.rows += 1;
    return null;
  }
  const codes = fitting.map(({ code }) => code);
  content.choices.push({ key, codes, rows: 1 });
  const words = fitting.map(({ code, name }) => `${code} ${name}`).join(", or ");
  content.problems.push(
    note(
      row.row,
      mapping.tax ?? mapping.rate ?? null,
      key,
      `Several codes fit: ${words}. Choose one under “How the file is read”; it holds for all such rows.`,
      "tax",
    ),
  );
  return null;
}
