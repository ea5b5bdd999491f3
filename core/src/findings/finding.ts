/** `stop` must be put right before sealing; `check` may be accepted with a reason. */
export type Severity = "stop" | "check";

/** A check that runs before filing. `source` says where the rule comes from. */
export interface CheckDefinition {
  id: string;
  severity: Severity;
  title: string;
  source: string;
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
}
