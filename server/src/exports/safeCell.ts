/**
 * A cell that no spreadsheet takes for a formula: one that begins like it gets an apostrophe in front. Plain numbers
 * stay as they are.
 */
export function safeCell(text: string): string {
  if (/^[+-]?\d[\d.,\s]*$/.test(text)) return text;
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
}
