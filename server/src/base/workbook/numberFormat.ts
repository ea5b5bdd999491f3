/** How a number in a cell is shown, as far as it changes what is read: a day, a percentage, a number of so many digits. */
export type Shown = "date" | "percent" | { digits: number } | null;

/** Formats every workbook knows without saying how they look; 27 to 36 and 50 to 58 are days of East Asian ones. */
const DATES = [
  [14, 22],
  [27, 36],
  [45, 47],
  [50, 58],
] as const;
const PERCENTAGES = [9, 10];

/**
 * @param id of the number format @param code how it looks, where the workbook says so
 * Source: ECMA-376 part 1, 18.8.30 (built-in formats) and 18.8.31 (codes), from memory
 */
export function shownBy(id: number, code: string | undefined): Shown {
  if (code === undefined) {
    if (DATES.some(([from, to]) => id >= from && id <= to)) return "date";
    return PERCENTAGES.includes(id) ? "percent" : null;
  }
  const sections = sectionsOf(code);
  if (sections.some(isOfDays)) return "date";
  const [first = ""] = sections;
  if (first.includes("%")) return "percent";
  return /^0{2,}$/.test(first) ? { digits: first.length } : null;
}

function isOfDays(section: string): boolean {
  const withoutFractions = section.replace(/(s|\[s+\])[.,]0+/g, "$1");
  return /[ymdhs]/.test(withoutFractions) && !/[0#?]/.test(withoutFractions);
}

/** The sections of a format, without what is written as it stands, colours, languages and conditions. */
function sectionsOf(code: string): string[] {
  return code
    .toLowerCase()
    .replace(/"[^"]*"|\\.|_.|\*./g, "")
    .replace(/\[(?!h+\]|m+\]|s+\])[^\]]*\]/g, "")
    .split(";")
    .map((section) => section.trim());
}

const DAY = 86_400;
/** Days of the 1904 system begin so much later. */
const LATER = 1462;
/** Workbooks count a 29 February 1900 that was none: days before it are one less. */
const NO_SUCH_DAY = 60;
const EPOCH = Date.UTC(1899, 11, 30);

/**
 * A number of a cell as it is read on the screen: a day as YYYY-MM-DD, a time of no day as HH:MM:SS, otherwise its
 * fifteen digits (0.1 + 0.2 as a workbook keeps it is 0.3 on its screen). What is no number stays as it is.
 * @param from1904 the workbook counts days from 1904
 */
export function shownNumber(kept: string, shown: Shown, from1904: boolean): string {
  const value = Number(kept);
  if (kept.trim() === "" || !Number.isFinite(value)) return kept;
  if (shown === "date") return dayOf(value, from1904) ?? plain(value);
  if (shown === "percent") return `${plain(value * 100)}%`;
  const text = plain(value);
  return shown && /^\d+$/.test(text) ? text.padStart(shown.digits, "0") : text;
}

function dayOf(serial: number, from1904: boolean): string | null {
  const seconds = Math.round((serial + (from1904 ? LATER : 0)) * DAY);
  const days = Math.floor(seconds / DAY);
  const moment = new Date(EPOCH + (seconds + (days > 0 && days < NO_SUCH_DAY ? DAY : 0)) * 1000);
  if (serial < 0 || Number.isNaN(moment.getTime()) || moment.getUTCFullYear() > 9999) return null;
  const text = moment.toISOString();
  return serial < 1 ? text.slice(11, 19) : text.slice(0, 10);
}

function plain(value: number): string {
  const text = String(Number(value.toPrecision(15)));
  return text.includes("e") ? value.toFixed(6) : text;
}
