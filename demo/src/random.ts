/** A small seeded generator (mulberry32): the same seed gives the same books every time. */
export class Random {
  #state: number;
  constructor(seed: number) {
    this.#state = seed;
  }

  /** A number from 0 up to, not including, 1. */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.#state ^ (this.#state >>> 15), 1 | this.#state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  /** A whole number between the two, both possible. */
  whole(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }

  pick<T>(list: readonly T[]): T {
    return list[this.whole(0, list.length - 1)] as T;
  }

  /** An amount in pounds and pence as text. */
  amount(from: number, to: number): string {
    return (this.whole(from * 100, to * 100) / 100).toFixed(2);
  }
}
