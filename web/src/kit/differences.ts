export interface Difference {
  path: string;
  before: string | null;
  after: string | null;
}

/** The fields in which two versions differ, by their path; a new one differs in all it has. */
export function differences(before: unknown, after: unknown): Difference[] {
  const [old, now] = [flat(before), flat(after)];
  return [...new Set([...old.keys(), ...now.keys()])]
    .map((path) => ({ path, before: old.get(path) ?? null, after: now.get(path) ?? null }))
    .filter((one) => one.before !== one.after);
}

function flat(value: unknown, path = ""): Map<string, string> {
  if (value === null || value === undefined || value === "") return new Map();
  if (typeof value !== "object")
    return new Map([[path, typeof value === "string" ? value : JSON.stringify(value)]]);
  const inside = Object.entries(value).map(([key, one]) =>
    flat(one, Array.isArray(value) ? `${path}[${key}]` : path === "" ? key : `${path}.${key}`),
  );
  return new Map(inside.flatMap((one) => [...one]));
}
