/**
 * A tax number as the same one however it is written: letters and digits, without the country before digits.
 * @example numberKey("GB 980 7806 84") // "980780684"
 */
export function numberKey(number: string): string {
  return number
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, "")
    .replace(/^[A-Z]{2}(?=\d)/, "");
}
