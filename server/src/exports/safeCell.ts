/** A cell that no spreadsheet takes for a formula: one that begins like it gets an apostrophe in front. */
export function safeCell(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
}
