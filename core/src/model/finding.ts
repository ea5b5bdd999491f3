/** `stop` must be put right before sealing; `check` may be accepted with a reason. */
export type Severity = "stop" | "check";

/** A check that runs before filing. `source`: where its rule comes from, where no law says so. */
export interface CheckDefinition {
  severity: Severity;
  title: string;
  source?: string;
}

/**
 * Something a check found. `key` is stable across runs, so that an acceptance with its reason stays attached;
 * `document` and `line` say where to put it right.
 */
export interface Finding {
  key: string;
  check: string;
  severity: Severity;
  text: string;
  document: number | null;
  line: number | null;
  /** What would put it right: an amount to be added to a box, minor units. */
  adjust?: { box: string; amount: number };
}
