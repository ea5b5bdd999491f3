import { parseAmount } from "../../money/amount.ts";

export type DecimalSign = "." | ",";

const PLAIN = /^\d{1,11}\.(\d{1,4})$/;

/**
 * Reads an amount as registers print it: `1,234.50`, `1.234,50`, `£ 12.00`, `(12.00)`, `12.00-`, `12.00 CR`.
 * @returns minor units, null for an empty cell, undefined when it is no amount
 */
export function registerAmount(
  text: string,
  decimal: DecimalSign,
  digits: number,
): number | null | undefined {
  const trimmed = text.trim();
  const usual = decimal === "." ? PLAIN.exec(trimmed) : null;
  if (usual && (usual[1] ?? "").length <= digits) return parseAmount(trimmed, digits);
  if (trimmed === "" || /^[-–—]+$/.test(trimmed)) return null;
  const negative =
    /^\(.*\)$/.test(trimmed) || /^[-−–]/.test(trimmed) || /[-−]$/.test(trimmed) || /\bcr$/i.test(trimmed);
  const bare = trimmed.replace(/[()£€$\s\u00a0'−–-]|\b(gbp|eur|cr|dr)\b/gi, "");
  const grouping = decimal === "." ? "," : ".";
  const shape = decimal === "." ? /^(\d{1,3}(,\d{3})+|\d+)?(\.\d+)?$/ : /^(\d{1,3}(\.\d{3})+|\d+)?(,\d+)?$/;
  if (!/\d/.test(bare) || !shape.test(bare)) return undefined;
  const plain = bare.replaceAll(grouping, "").replace(decimal, ".");
  const cut = dropTrailingZeros(plain, digits);
  if (cut === undefined) return undefined;
  const minor = parseAmount(cut, digits);
  return negative ? -minor || 0 : minor;
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
