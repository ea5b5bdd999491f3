/** A tax number as its letters and digits, however it is spaced or punctuated. */
export function bareNumber(number: string): string {
  return number.toUpperCase().replace(/[^A-Z0-9]/g, "");
}
