/** The column of a number in its two parts: what stands before its last figures, and these as a whole number. Indexed. */
export function serialOf(number: string): { stem: string; n: string } {
  const stem = `rtrim(${number}, '0123456789')`;
  return { stem, n: `CAST(substr(${number}, length(${stem}) + 1) AS INTEGER)` };
}
