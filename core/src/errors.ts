/**
 * The one error of Fiscalon: a stable code, a sentence that says what to do, and the field it concerns.
 * The server passes it over HTTP unchanged (see docs/errors.md), the screen shows it beside the field.
 */
export class FiscalError extends Error {
  readonly code: string;
  /** Path of the offending field as in the input, for example `lines[2].amount`. */
  readonly field: string | undefined;
  readonly details: Record<string, unknown> | undefined;

  constructor(code: string, message: string, field?: string, details?: Record<string, unknown>) {
    super(message);
    this.name = "FiscalError";
    this.code = code;
    this.field = field;
    this.details = details;
  }
}

/** Prefixes the field of a FiscalError thrown by `work` with `path`, so that it points into the whole input. */
export function withinField<T>(path: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    const field = error.field === undefined ? path : joinPath(path, error.field);
    throw new FiscalError(error.code, error.message, field, error.details);
  }
}

function joinPath(path: string, field: string): string {
  return field.startsWith("[") ? path + field : `${path}.${field}`;
}
