import type { NumberCheck } from "../../model/pack.ts";

/** What the library of tax numbers says of one. */
export type Validate = (number: string) => { isValid: boolean };

/**
 * Checks a number with a validator of the library of tax numbers, after taking off blanks, dots, dashes and a prefix.
 * @param name what the number is called, and `shape` what it looks like, for the message
 */
export function checkedBy(
  validate: Validate,
  name: string,
  shape: string,
  prefix: RegExp = /^$/,
): (text: string) => NumberCheck {
  return (text) => {
    const bare = bareNumber(text).replace(prefix, "");
    if (validate(bare).isValid) return { ok: true, number: bare };
    return {
      ok: false,
      message: `${text} is not a valid ${name}. It has ${shape}; look for a character typed wrong or two swapped.`,
    };
  };
}

/** A number in capitals without blanks, dots, dashes and slashes. */
export function bareNumber(text: string): string {
  return text.toUpperCase().replace(/[\s.\-/]/g, "");
}

/** Checks only the shape of a number, where no check digit is published. */
export function checkedByShape(pattern: RegExp, name: string, shape: string): (text: string) => NumberCheck {
  return (text) => {
    const bare = bareNumber(text);
    if (pattern.test(bare)) return { ok: true, number: bare };
    return { ok: false, message: `${text} is not a ${name}. It has ${shape}.` };
  };
}
