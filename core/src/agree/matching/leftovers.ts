import { groupBy } from "../../groupBy.ts";
import { assess } from "./assess.ts";
import type { Assessment, ReadyRow } from "./assess.ts";
import type { MatchOptions } from "./matchRow.ts";

/** A pair a pass could make. */
export interface Edge extends Assessment {
  ours: ReadyRow;
  theirs: ReadyRow;
}

/** Rows of both sides that no pass has paired yet, and how pairs are chosen among them. */
export class Leftovers {
  readonly #options: MatchOptions;
  readonly #apart: ReadonlySet<string>;
  #ours: ReadyRow[];
  #theirs: ReadyRow[];

  constructor(
    ours: readonly ReadyRow[],
    theirs: readonly ReadyRow[],
    options: MatchOptions,
    apart: ReadonlySet<string>,
  ) {
    this.#ours = [...ours];
    this.#theirs = [...theirs];
    this.#options = options;
    this.#apart = apart;
  }

  get ours(): readonly ReadyRow[] {
    return this.#ours;
  }

  get theirs(): readonly ReadyRow[] {
    return this.#theirs;
  }

  without(gone: ReadonlySet<ReadyRow>): void {
    if (gone.size === 0) return;
    this.#ours = this.#ours.filter((row) => !gone.has(row));
    this.#theirs = this.#theirs.filter((row) => !gone.has(row));
  }

  isApart(ours: ReadyRow, theirs: ReadyRow): boolean {
    return this.#apart.size > 0 && this.#apart.has(apartKey(ours.row.key, theirs.row.key));
  }

  /**
   * Pairs rows that share a key, best first: by score, then the nearest date, then number, then key.
   * @param keyOf null: the row takes no part
   * @param accept whether a pair is good enough for this pass
   */
  pass(
    keyOf: (row: ReadyRow) => string | null,
    accept: (edge: Edge) => boolean,
    take: (edge: Edge, sure: boolean) => void,
  ): void {
    const theirs = keyed(this.#theirs, keyOf);
    const gone = new Set<ReadyRow>();
    for (const [key, ours] of keyed(this.#ours, keyOf)) {
      const others = theirs.get(key);
      if (!others) continue;
      const edges = this.#edges(ours, others).filter(accept).sort(betterFirst);
      for (const [at, edge] of edges.entries()) {
        if (gone.has(edge.ours) || gone.has(edge.theirs)) continue;
        const alone = edge.score >= this.#options.sureFrom && !rivals(edges, at, gone);
        gone.add(edge.ours).add(edge.theirs);
        take(edge, alone);
      }
    }
    this.without(gone);
  }

  #edges(ours: readonly ReadyRow[], theirs: readonly ReadyRow[]): Edge[] {
    const pairs =
      ours.length * theirs.length <= SMALL
        ? ours.flatMap((one) => theirs.map((other) => [one, other] as const))
        : nearest(ours, theirs);
    return pairs
      .filter(([one, other]) => !this.isApart(one, other))
      .map(([one, other]) => ({ ours: one, theirs: other, ...assess(one, other, this.#options) }));
  }
}

export function apartKey(ours: string, theirs: string): string {
  return `${ours}\n${theirs}`;
}

/** Up to so many pairs of a group are all looked at; of larger groups only those near in time. */
const SMALL = 900;
const NEIGHBOURS = 4;

/** For each row those of the other side with the nearest dates, both ways. */
function nearest(ours: readonly ReadyRow[], theirs: readonly ReadyRow[]): (readonly [ReadyRow, ReadyRow])[] {
  const byDay = (rows: readonly ReadyRow[]) => [...rows].sort((a, b) => a.day - b.day || inOrder(a, b));
  const [left, right] = [byDay(ours), byDay(theirs)];
  const pairs = new Map<string, readonly [ReadyRow, ReadyRow]>();
  const look = (from: ReadyRow[], to: ReadyRow[], put: (one: ReadyRow, other: ReadyRow) => void) => {
    let next = 0;
    for (const one of from) {
      while (next < to.length && (to[next]?.day ?? Infinity) < one.day) next += 1;
      for (const other of to.slice(Math.max(0, next - NEIGHBOURS), next + NEIGHBOURS)) put(one, other);
    }
  };
  const put = (one: ReadyRow, other: ReadyRow) => pairs.set(`${one.at}/${other.at}`, [one, other]);
  look(left, right, put);
  look(right, left, (one, other) => put(other, one));
  return [...pairs.values()];
}

function keyed(rows: readonly ReadyRow[], keyOf: (row: ReadyRow) => string | null): Map<string, ReadyRow[]> {
  const groups = new Map<string, ReadyRow[]>();
  for (const [key, group] of groupBy(rows, keyOf)) if (key !== null) groups.set(key, group);
  return groups;
}

/** Whether another free row fits one of the two just as well, so that nobody can say which it is. */
function rivals(edges: readonly Edge[], at: number, gone: ReadonlySet<ReadyRow>): boolean {
  const edge = edges[at];
  for (const other of edges.slice(at + 1)) {
    if (!edge || other.score < edge.score) return false;
    const shares = other.ours === edge.ours || other.theirs === edge.theirs;
    if (shares && !gone.has(other.ours) && !gone.has(other.theirs) && !isTwin(edge, other)) return true;
  }
  return false;
}

/** Whether it makes no difference which of two pairs is taken: what they do not share reads the same. */
function isTwin(edge: Edge, other: Edge): boolean {
  const [one, two] = edge.ours === other.ours ? [edge.theirs, other.theirs] : [edge.ours, other.ours];
  return one.day === two.day && one.row.number === two.row.number && one.row.value === two.row.value;
}

function betterFirst(a: Edge, b: Edge): number {
  return (
    b.score - a.score ||
    Math.abs(a.ours.day - a.theirs.day) - Math.abs(b.ours.day - b.theirs.day) ||
    byText(
      least(a, ({ number }) => number.whole),
      least(b, ({ number }) => number.whole),
    ) ||
    byText(
      least(a, ({ row }) => row.key),
      least(b, ({ row }) => row.key),
    ) ||
    byText(
      most(a, ({ row }) => row.key),
      most(b, ({ row }) => row.key),
    )
  );
}

/** The same whichever side is called ours. */
function least(edge: Edge, text: (row: ReadyRow) => string): string {
  return text(edge.ours) < text(edge.theirs) ? text(edge.ours) : text(edge.theirs);
}
function most(edge: Edge, text: (row: ReadyRow) => string): string {
  return text(edge.ours) < text(edge.theirs) ? text(edge.theirs) : text(edge.ours);
}

export function byText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** An order in which it plays no part how a list came. */
export function inOrder(a: ReadyRow, b: ReadyRow): number {
  return a.day - b.day || byText(a.number.whole, b.number.whole) || byText(a.row.key, b.row.key);
}
