/** A cause between two figures: what it is called, what it comes to in minor units, and who found it. */
export interface Cause {
  id: string;
  name: string;
  amount: number;
  rows: number;
  found: "rule" | "person";
}

/**
 * Two figures that come from different sources, with every cause between them; minor units. What no rule explains and no
 * person has named is the rest.
 */
export interface Agreement {
  left: number;
  right: number;
  causes: readonly Cause[];
  /** Rows that wait to be named. */
  open: { amount: number; rows: number };
  /** right − left − every cause. */
  rest: number;
}

/** An amount with the cause it goes to; `null`: nobody knows yet. */
export interface Explained {
  cause: { id: string; name: string; found: Cause["found"] } | null;
  amount: number;
  rows: number;
}

/**
 * The agreement of two figures: amounts added up by cause, in the order in which causes first appear.
 * @returns causes that come to nothing are kept where they have rows, for nothing is netted away
 */
export function agreement(left: number, right: number, explained: readonly Explained[]): Agreement {
  const causes = new Map<string, Cause>();
  let open = { amount: 0, rows: 0 };
  for (const { cause, amount, rows } of explained) {
    if (cause === null) {
      open = { amount: open.amount + amount, rows: open.rows + rows };
      continue;
    }
    const before = causes.get(cause.id) ?? { ...cause, amount: 0, rows: 0 };
    causes.set(cause.id, { ...before, amount: before.amount + amount, rows: before.rows + rows });
  }
  const list = [...causes.values()].filter(({ amount, rows }) => amount !== 0 || rows > 0);
  const sum = list.reduce((total, { amount }) => total + amount, 0);
  return { left, right, causes: list, open, rest: right - left - sum };
}
