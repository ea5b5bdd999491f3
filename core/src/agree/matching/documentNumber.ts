/** A document number taken apart, so that the same number is found however it is written. */
export interface PlainNumber {
  /** Capitals and digits without punctuation, leading zeros, years and look-alikes. */
  whole: string;
  /** The last run of digits without leading zeros; empty where it has none of two digits. */
  serial: string;
}

const LOOK_ALIKES: Readonly<Record<string, string>> = { O: "0", Q: "0", I: "1", L: "1", S: "5", B: "8" };

/**
 * @example plainNumber("KY/26-27/0447") // { whole: "KY447", serial: "447" }
 * @example plainNumber("ky-O447")       // { whole: "KY447", serial: "447" }
 */
export function plainNumber(number: string): PlainNumber {
  const ascii = /^[ -~]*$/.test(number);
  const text = (ascii ? number : number.normalize("NFKC")).toUpperCase().replace(/[OQILSB]/g, likeDigit);
  const pieces = text.match(ascii ? /[A-Z0-9]+/g : /[\p{L}\p{N}]+/gu) ?? [];
  const runs: string[] = [];
  for (const piece of pieces.length === 1 ? pieces : withoutYears(pieces))
    for (const run of piece.match(/\d+|\D+/g) ?? [])
      runs.push(run.startsWith("0") ? run.replace(/^0+(?=\d)/, "") : run);
  const serial = runs.findLast((run) => run <= "9\uffff" && run >= "0") ?? "";
  return { whole: runs.join(""), serial: serial.length > 1 ? serial : "" };
}

const likeDigit = (letter: string) => LOOK_ALIKES[letter] ?? letter;

/** Without the pieces that tell a year or a financial year, as long as a number is left. */
function withoutYears(pieces: readonly string[]): readonly string[] {
  const kept = pieces.filter((piece, at) => !isYear(piece, pieces[at + 1], pieces[at - 1]));
  return kept.some((piece) => /\d/.test(piece)) ? kept : pieces;
}

function isYear(piece: string, next: string | undefined, before: string | undefined): boolean {
  if (/^(FY)?20[1-4]\d$/.test(piece)) return true;
  if (/^(FY)?20[1-4]\d[1-4]\d$/.test(piece)) return follows(piece.slice(-4, -2), piece.slice(-2));
  if (/^(FY)?[1-4]\d[1-4]\d$/.test(piece)) return follows(piece.slice(-4, -2), piece.slice(-2));
  if (!/^(FY)?[1-4]\d$/.test(piece)) return false;
  return follows(piece.slice(-2), next) || (before !== undefined && follows(before.slice(-2), piece));
}

/** Whether two digits of a year are followed by those of the next. */
function follows(year: string, next: string | undefined): boolean {
  return (
    next !== undefined && /^\d\d$/.test(next) && /^\d\d$/.test(year) && Number(next) === Number(year) + 1
  );
}

/** How alike two numbers are. */
export type NumberLikeness = "same" | "serial" | "typo" | "part" | "none";

/** How alike two numbers are: the same once cleaned, the same running number, a slip of the keys, one inside the other. */
export function likeness(one: PlainNumber, other: PlainNumber): NumberLikeness {
  if (one.whole === other.whole) return one.whole === "" ? "none" : "same";
  if (one.serial !== "" && one.serial === other.serial) return "serial";
  const [short, long] =
    one.whole.length <= other.whole.length ? [one.whole, other.whole] : [other.whole, one.whole];
  if (short.length >= 3 && slips(short, long, short.length >= 7 ? 2 : 1)) return "typo";
  return short.length >= 3 && (long.endsWith(short) || long.startsWith(short)) ? "part" : "none";
}

/** Whether two texts are at most so many slips apart: a sign too many, missing, wrong, or two swapped. */
export function slips(one: string, other: string, most: number): boolean {
  if (Math.abs(one.length - other.length) > most) return false;
  let [twoBack, back]: [number[], number[]] = [[], Array.from({ length: other.length + 1 }, (_, at) => at)];
  for (let i = 1; i <= one.length; i += 1) {
    const row = [i];
    for (let j = 1; j <= other.length; j += 1) {
      const same = one[i - 1] === other[j - 1] ? 0 : 1;
      let least = Math.min((back[j] ?? i) + 1, (row[j - 1] ?? j) + 1, (back[j - 1] ?? i) + same);
      const swapped = i > 1 && j > 1 && one[i - 1] === other[j - 2] && one[i - 2] === other[j - 1];
      if (swapped) least = Math.min(least, (twoBack[j - 2] ?? i) + 1);
      row.push(least);
    }
    if (Math.min(...row) > most) return false;
    [twoBack, back] = [back, row];
  }
  return (back[other.length] ?? most + 1) <= most;
}
