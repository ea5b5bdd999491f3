import { dateOf, endOfMonth } from "../../calendar/date.ts";
import type { CalendarDate } from "../../calendar/date.ts";
import { FiscalError } from "../../errors.ts";
import { parseDate } from "../../calendar/parseDate.ts";
import type { RowProblem } from "../registers/readRow.ts";
import type { StatementContent, StatementRow } from "./statementRow.ts";

type Json = Readonly<Record<string, unknown>>;

/** Heads of tax in the file: our levies by its names for them. */
export type Heads = Readonly<Record<string, string>>;

/** Why a document gives no credit, by the letter the authority gives. */
export const REASONS: Readonly<Record<string, string>> = {
  P: "the place of supply is in the supplier's state, not ours",
  C: "it was furnished after the yearly limit",
};

/** Who stands for the supplier where goods came over the border. */
export const CUSTOMS = "CUSTOMS";

/**
 * Reads the authority's monthly list of what suppliers furnished (GSTR-2B), or its running one (GSTR-2A), as the portal
 * gives it: JSON with `docdata` or the tables at its root, amounts in major units. Invoices with their taxes in items or
 * on themselves are both read; credit notes are positive there and negative here.
 * Source: published field names of the portal, registers.md 3.
 * @throws FiscalError `formats/not-furnished`
 */
export function readFurnished(file: unknown, heads: Heads, digits: number): StatementContent {
  const root = objectOf(objectOf(file)["data"] ?? file);
  const tables = objectOf(root["docdata"] ?? root);
  const reader = new Reader(heads, digits);
  if (!KNOWN.some((name) => Array.isArray(tables[name]))) {
    throw new FiscalError(
      "formats/not-furnished",
      "This is no list of furnished documents: it has none of the tables b2b, cdnr, impg. Download the JSON of the statement again.",
      "file",
    );
  }
  for (const name of ["b2b", "b2ba"])
    for (const party of list(tables[name]))
      for (const one of list(party["inv"])) reader.invoice(party, one, name === "b2ba");
  for (const name of ["cdnr", "cdnra"])
    for (const party of list(tables[name]))
      for (const one of list(party["nt"])) reader.note(party, one, name === "cdnra");
  for (const name of ["isd", "isda"])
    for (const party of list(tables[name]))
      for (const one of list(party["doclist"])) reader.distributed(party, one);
  for (const name of ["impg", "impga"]) for (const one of list(tables[name])) reader.entry({}, one);
  for (const name of ["impgsez", "impgasez"])
    for (const party of list(tables[name])) for (const one of list(party["boe"])) reader.entry(party, one);
  return {
    number: textOf(root["gstin"]),
    periodEnd: monthOf(textOf(root["rtnprd"] ?? root["fp"])),
    drawnOn: parseDate(textOf(root["gendt"]), "dmy") ?? null,
    rows: reader.rows,
    problems: reader.problems,
    leftOut: 0,
  };
}

const KNOWN = ["b2b", "b2ba", "cdnr", "cdnra", "isd", "impg", "impgsez"];

/** What stands at the head of a document, whatever its table calls it. */
interface Head {
  number: string;
  day: string;
  sign: 1 | -1;
  notes: readonly string[];
  original: string;
}

class Reader {
  readonly rows: StatementRow[] = [];
  readonly problems: RowProblem[] = [];
  readonly #heads: Heads;
  readonly #digits: number;

  constructor(heads: Heads, digits: number) {
    this.#heads = heads;
    this.#digits = digits;
  }

  invoice(party: Json, one: Json, amended: boolean): void {
    const notes = [
      ...(textOf(one["rev"] ?? one["rchrg"]) === "Y" ? ["reverse charge"] : []),
      ...(amended ? [`amends ${textOf(one["oinum"])} of ${textOf(one["oidt"])}`] : []),
    ];
    const head = {
      number: textOf(one["inum"]),
      day: textOf(one["dt"] ?? one["idt"]),
      sign: 1,
      notes,
    } as const;
    this.#take(party, one, { ...head, original: amended ? textOf(one["oinum"]) : "" });
  }

  note(party: Json, one: Json, amended: boolean): void {
    const sign = textOf(one["typ"] ?? one["ntty"]) === "D" ? 1 : -1;
    const notes = amended ? [`amends ${textOf(one["ontnum"])} of ${textOf(one["ontdt"])}`] : [];
    this.#take(party, one, {
      number: textOf(one["ntnum"] ?? one["nt_num"]),
      day: textOf(one["dt"] ?? one["nt_dt"]),
      sign,
      notes,
      original: amended ? textOf(one["ontnum"]) : "",
    });
  }

  distributed(party: Json, one: Json): void {
    const sign = /C$/.test(textOf(one["doctyp"])) ? -1 : 1;
    const told = { ...one, itcavl: one["itcelg"] ?? one["itcavl"] };
    const [number, day] = [textOf(one["docnum"]), textOf(one["docdt"])];
    this.#take(party, told, { number, day, sign, notes: ["distributed credit"], original: "" });
  }

  entry(party: Json, one: Json): void {
    const customs = { ctin: textOf(party["ctin"]) || CUSTOMS, trdnm: textOf(party["trdnm"]) || "Customs" };
    const [number, amended] = [textOf(one["boenum"]), textOf(one["isamd"]) === "Y"];
    this.#take(customs, one, {
      number,
      day: textOf(one["boedt"] ?? one["recdt"]),
      sign: 1,
      notes: [`port ${textOf(one["portcode"])}`, ...(amended ? ["amended"] : [])],
      original: amended ? number : "",
    });
  }

  #take(party: Json, one: Json, { number, day, sign, notes, original }: Head): void {
    const at = this.rows.length + this.problems.length + 1;
    const date = parseDate(day, "dmy");
    if (date === undefined) {
      const message = `${number || "A document"} has no date that can be read.`;
      this.problems.push({ row: at, column: null, field: "date", value: day, message });
      return;
    }
    const items = list(one["items"] ?? one["itms"]).map((item) => objectOf(item["itm_det"] ?? item));
    const parts = items.length > 0 ? items : [one];
    const value = this.#sum(parts, ["txval"]) * sign;
    const taxes = Object.entries(this.#heads).flatMap(([name, levy]): [string, number][] => {
      const amount = this.#sum(parts, [name, OTHER_NAMES[name] ?? name]) * sign;
      return amount === 0 ? [] : [[levy, amount]];
    });
    const rates = new Set(parts.map((part) => textOf(part["rt"])).filter((rate) => rate !== ""));
    const available = textOf(one["itcavl"]);
    this.rows.push({
      row: at,
      partyNumber: textOf(party["ctin"]),
      partyName: textOf(party["trdnm"]),
      number,
      original,
      date,
      value: value || 0,
      tax: taxes.reduce((sum, [, amount]) => sum + amount, 0),
      gross: null,
      taxes: Object.fromEntries(taxes),
      rate: rates.size === 1 ? ([...rates][0] ?? "") : "",
      place: textOf(one["pos"]),
      ineligible:
        available === "N"
          ? (REASONS[textOf(one["rsn"])] ?? "the authority says that no credit is available")
          : "",
      note: notes.filter((note) => note !== "").join(", "),
    });
  }

  /** Sum of the first name that each part has, in minor units. */
  #sum(parts: readonly Json[], names: readonly string[]): number {
    const factor = 10 ** this.#digits;
    return parts.reduce((sum, part) => {
      const name = names.find((one) => part[one] !== undefined);
      return sum + (name === undefined ? 0 : Math.round(Number(part[name]) * factor) || 0);
    }, 0);
  }
}

/** Names of the heads in the running list, which is of the older shape. */
const OTHER_NAMES: Readonly<Record<string, string>> = {
  igst: "iamt",
  cgst: "camt",
  sgst: "samt",
  cess: "csamt",
};

function objectOf(value: unknown): Json {
  return typeof value === "object" && value !== null && !Array.isArray(value) ? (value as Json) : {};
}

function list(value: unknown): Json[] {
  return Array.isArray(value) ? value.map(objectOf) : [];
}

function textOf(value: unknown): string {
  return typeof value === "string" || typeof value === "number" ? String(value).trim() : "";
}

/** `102026` is October 2026: its last day. */
function monthOf(text: string): CalendarDate | null {
  const [, month, year] = /^(0[1-9]|1[0-2])(20\d\d)$/.exec(text) ?? [];
  return month === undefined ? null : endOfMonth(dateOf(Number(year), Number(month), 1));
}
