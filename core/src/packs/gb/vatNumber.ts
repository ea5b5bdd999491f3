import type { NumberCheck } from "../../model/pack.ts";

const WEIGHTS = [8, 7, 6, 5, 4, 3, 2];

/**
 * Checks a VAT registration number: 9 digits with check digits, 12 with a branch, or the GD and HA numbers of
 * government departments and health authorities. A GB or XI prefix, spaces, dots and dashes are allowed.
 * @returns the bare number, or a sentence that says what is wrong
 * @source modulus 97 with and without 55 added, published by HMRC; from memory
 */
export function checkVatNumber(text: string): NumberCheck {
  const number = text
    .toUpperCase()
    .replace(/[\s.-]/g, "")
    .replace(/^(GB|XI)/, "");
  if (/^GD[0-4]\d\d$/.test(number) || /^HA[5-9]\d\d$/.test(number)) return { ok: true, number };
  if (!/^\d+$/.test(number)) {
    return { ok: false, message: `${text} has other characters than digits. A VAT number has 9 digits.` };
  }
  if (number.length !== 9 && number.length !== 12) {
    return {
      ok: false,
      message: `${text} has ${number.length} digits. A VAT number has 9, or 12 with the branch.`,
    };
  }
  const sum = WEIGHTS.reduce((total, weight, index) => total + weight * Number(number[index]), 0);
  const rest = (sum + Number(number.slice(7, 9))) % 97;
  if (rest === 0 || rest === 42) return { ok: true, number };
  return {
    ok: false,
    message: `${text} is not a VAT number: its last two digits do not fit the others. Look for a digit typed wrong or two swapped.`,
  };
}
