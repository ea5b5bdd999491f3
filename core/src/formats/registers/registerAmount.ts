import { minorDigits } from "../../money/currency.ts";
import { parseAmount } from "../../money/amount.ts";

export type DecimalSign = "." | ",";

/** What the words for credit and debit mean: in a register a credit takes off, on a bank statement it brings money. */
export type CreditMeans = "less" | "more";

const PLAIN = /^\d{1,11}\.(\d{1,4})$/;
const SIGN_WORD = /(?:^|[\s\d.,])(cr|dr|db)\.?$|^(cr|dr|db)\b/i;
/** Rupees, rand and dirhams as people write them before a figure. */
const MONEY_WORDS = /^(rs|r|dh|dhs|kr|fr)\.?(?=\s*[\d(+-])/i;
/** Thousands apart, or lakh and crore as in India. */
const GROUPED = {
  ".": /^(\d{1,3}(,\d{3})+|\d{1,2}(,\d{2})+,\d{3}|\d+)?(\.\d+)?$/,
  ",": /^(\d{1,3}(\.\d{3})+|\d+)?(,\d+)?$/,
} as const;

/**
 * Reads an amount as registers and statements print it: `1,234.50`, `1.234,50`, `1,20,000.00`, `£ 12.00`, `₹12`,
 * `R 12.00`, `AED 12.00`, `(12.00)`, `12.00-`, `12.00 CR`.
 * @returns minor units, null for an empty cell, undefined when it is no amount
 */
export function registerAmount(
  text: string,
  decimal: DecimalSign,
  digits: number,
  credit: CreditMeans = "less",
): number | null | undefined {
  const trimmed = text.trim();
  const usual = decimal === "." ? PLAIN.exec(trimmed) : null;
  if (usual && (usual[1] ?? "").length <= digits) return parseAmount(trimmed, digits);
  if (trimmed === "" || /^[-–—]+$/.test(trimmed)) return null;
  const word = (SIGN_WORD.exec(trimmed)?.[1] ?? SIGN_WORD.exec(trimmed)?.[2] ?? "").toLowerCase();
  const signed = /^\(.*\)$/.test(trimmed) || /^\D*[-−–]/.test(trimmed) || /\d\s*[-−]$/.test(trimmed);
  const worded = word === "" ? false : (word === "cr") === (credit === "less");
  const bare = withoutCurrency(
    trimmed
      .replace(/[()]/g, "")
      .replace(/(?<![a-z])(cr|dr|db)(?![a-z])\.?/gi, "")
      .trim(),
  ).replace(/[\s\u00a0'+−–-]/g, "");
  if (!/\d/.test(bare) || !GROUPED[decimal].test(bare)) return undefined;
  const plain = bare.replaceAll(decimal === "." ? "," : ".", "").replace(decimal, ".");
  const cut = dropTrailingZeros(plain, digits);
  if (cut === undefined) return undefined;
  const minor = parseAmount(cut, digits);
  return signed !== worded ? -minor || 0 : minor;
}

/** Without the sign, the code or the word of a currency. */
function withoutCurrency(text: string): string {
  const bare = text
    .replace(/\p{Sc}/gu, "")
    .replace(/(?<![a-z])[a-z]{3}(?![a-z])/gi, (code) => (isCurrency(code) ? "" : code))
    .trim()
    .replace(MONEY_WORDS, "");
  // C$, A$, NZ$: what is left of them in front of the figure.
  return /\p{Sc}/u.test(text) ? bare.replace(/^(us|ca|au|nz|c|a|s)\s*(?=[\d-])/i, "") : bare;
}

function isCurrency(code: string): boolean {
  try {
    minorDigits(code.toUpperCase());
    return true;
  } catch {
    return false;
  }
}

/** `12.500` with two decimals is `12.50`; `12.505` is more exact than the currency and no amount. */
function dropTrailingZeros(plain: string, digits: number): string | undefined {
  const [whole = "0", fraction = ""] = plain.split(".");
  const kept = fraction.replace(/0+$/, "");
  if (kept.length > digits) return undefined;
  return kept === "" ? whole || "0" : `${whole || "0"}.${kept}`;
}

/** The decimal sign of a column of printed amounts, by the last sign in each that has one or two digits behind. */
export function guessDecimalSign(samples: readonly string[]): DecimalSign {
  let points = 0;
  let commas = 0;
  for (const sample of samples) {
    const match = /([.,])\d{1,2}\D*$/.exec(sample.trim());
    if (match?.[1] === ".") points += 1;
    if (match?.[1] === ",") commas += 1;
  }
  return commas > points ? "," : ".";
}
