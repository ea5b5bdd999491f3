import { FiscalError } from "@fiscalon/core/errors";

export function tooLarge(): FiscalError {
  return new FiscalError(
    "imports/too-large",
    "Unpacked, this workbook is larger than any register. It is not opened; export the sheet as CSV.",
    "file",
  );
}

/** What is told of a workbook that cannot be read: what was found wrong in it, or that it is damaged. */
export function unreadable(error: unknown): FiscalError {
  if (error instanceof FiscalError) return error;
  return new FiscalError(
    "imports/workbook",
    "This is no workbook that can be read. Save it as .xlsx or as CSV and drop that.",
    "file",
  );
}
