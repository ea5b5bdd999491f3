/** Another version of what is being changed, by somebody else, that whoever changes it had not seen. */
export interface Overtaken {
  by: string;
  /** When, ISO 8601. */
  at: string;
  /** The entry of the audit trail that made it: seen, once both are looked at. */
  entry: number;
  /** Null where it was taken out. */
  theirs: unknown;
}

/** What an answer tells of it, where that is why something was refused. */
export function overtakenBy(error: Error | null): Overtaken | null {
  if (!error || !("code" in error) || error.code !== "request/overtaken" || !("details" in error))
    return null;
  return error.details as Overtaken;
}
