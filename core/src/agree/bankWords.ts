/** Letters and digits alone, so that SK-1004, sk 1004 and SK1004 are the same. */
export function plain(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");
}

/** A number as a line may say it; none where it is too short to be told from others. */
export function plainNumber(number: string): string[] {
  const wanted = plain(number);
  return wanted.length >= 3 ? [wanted] : [];
}

/** Whether what a line says, letters and digits alone, names a number. */
export function mentions(said: string, number: string): boolean {
  return plainNumber(number).some((wanted) => said.includes(wanted));
}

const NOISE = new Set([
  "ltd",
  "limited",
  "inc",
  "llc",
  "llp",
  "plc",
  "gmbh",
  "the",
  "and",
  "pty",
  "co",
  "company",
]);

/** Words of a name or text that tell it from others. */
export function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word.length > 2 && !NOISE.has(word));
}
