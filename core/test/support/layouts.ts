import { at } from "@fiscalon/core/at";

/** How an office or a bank writes figures and days. All of it is common practice, no source. */
export interface Style {
  decimal: "." | ",";
  thousands: boolean;
  minus: "front" | "back" | "brackets" | "word";
  currency: "" | "£" | "GBP ";
  date: "slashes" | "dots" | "iso" | "months";
}

/** A figure in pence as it is written; `word` is what stands behind one below zero. */
export function money(minor: number, { decimal, thousands, minus, currency }: Style, word = "CR"): string {
  const [whole = "", cents = ""] = (Math.abs(minor) / 100).toFixed(2).split(".");
  const apart = decimal === "." ? "," : ".";
  const grouped = thousands ? whole.replace(/\B(?=(\d{3})+$)/g, apart) : whole;
  const plain = `${currency}${grouped}${decimal}${cents}`;
  if (minor >= 0) return plain;
  return { front: `-${plain}`, back: `${plain}-`, brackets: `(${plain})`, word: `${plain} ${word}` }[minus];
}

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun"];

/** A day as it is written. */
export function day(iso: string, style: Style["date"]): string {
  const [year = "", month = "", date = ""] = iso.split("-");
  switch (style) {
    case "slashes":
      return `${date}/${month}/${year}`;
    case "dots":
      return `${date}.${month}.${year}`;
    case "months":
      return `${Number(date)} ${at(MONTHS, Number(month) - 1)} ${year}`;
    case "iso":
      return iso;
  }
}

/** A row of a text file; what holds the separator or a quotation mark is quoted. */
export function textRow(cells: readonly string[], delimiter: string): string {
  const cell = (text: string) =>
    /["\n]/.test(text) || text.includes(delimiter) ? `"${text.replaceAll('"', '""')}"` : text;
  return cells.map(cell).join(delimiter);
}
