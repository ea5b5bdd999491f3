import type { NumberCheck } from "../../model/pack.ts";
import { states } from "./states.ts";
import { bareNumber } from "../shared/numberCheck.ts";

const ALPHABET = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";
const STATE_CODES = new Set(states.map(({ code }) => code));
/** The four digits of the PAN run from 0001. */
const REGULAR = /^\d{2}[A-Z]{5}(?!0000)\d{4}[A-Z][1-9A-Z]Z[0-9A-Z]$/;
/** Tax deductors, operators that collect at source, non-residents, embassies: numbers of their own shape. */
const OTHERS = [
  /^\d{2}[A-Z]{5}\d{4}[A-Z][1-9A-Z][CD][0-9A-Z]$/,
  /^\d{4}[A-Z]{3}\d{5}[UO]N[0-9A-Z]$/,
  /^\d{4}[A-Z]{3}\d{5}NR[0-9A-Z]$/,
  /^99\d{2}[A-Z]{3}\d{5}OS[0-9A-Z]$/,
];

/** Checks a GSTIN with its check character, or the shape of the numbers of other kinds. */
export function checkGstin(text: string): NumberCheck {
  const number = bareNumber(text);
  if (OTHERS.some((pattern) => pattern.test(number))) return { ok: true, number };
  if (!REGULAR.test(number)) {
    return {
      ok: false,
      message: `${text} is not a GSTIN. It has 15 characters: two digits of the state, the PAN, a digit or letter, Z and a check character.`,
    };
  }
  if (!STATE_CODES.has(number.slice(0, 2))) {
    return {
      ok: false,
      message: `${text} is not a GSTIN: there is no state ${number.slice(0, 2)}. The first two digits are the code of the state.`,
    };
  }
  if (number[14] === checkCharacter(number)) return { ok: true, number };
  return { ok: false, message: `${text} is not a GSTIN: its last character does not fit the others.` };
}

/** Weights 1 and 2 by turns, each product's two digits to base 36 added; the check completes the sum to 36. */
function checkCharacter(number: string): string {
  let sum = 0;
  for (let index = 0; index < 14; index += 1) {
    const product = ALPHABET.indexOf(number[index] ?? "0") * (index % 2 === 0 ? 1 : 2);
    sum += Math.floor(product / 36) + (product % 36);
  }
  return ALPHABET[(36 - (sum % 36)) % 36] ?? "0";
}

/** The state a GSTIN begins with. */
export function stateOfGstin(number: string): string | undefined {
  const bare = bareNumber(number);
  return REGULAR.test(bare) ? bare.slice(0, 2) : undefined;
}
