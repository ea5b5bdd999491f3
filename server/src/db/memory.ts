/** So many answers are kept of one file. */
const MOST = 60;

interface Kept {
  version: number;
  value: Promise<unknown>;
}

/**
 * What was worked out from a file, kept while nothing in the file changes. Several that ask for the same at once are
 * answered by one piece of work.
 */
export class Memory {
  readonly #version: () => Promise<number>;
  readonly #kept = new Map<string, Kept>();

  /** @param version a number that is another one after each change of the file, by whomever */
  constructor(version: () => Promise<number>) {
    this.#version = version;
  }

  async remembered<T>(key: string, work: () => Promise<T>): Promise<T> {
    const version = await this.#version();
    const known = this.#kept.get(key);
    this.#kept.delete(key);
    const kept = known?.version === version ? known : { version, value: work() };
    this.#kept.set(key, kept);
    for (const oldest of this.#kept.keys()) {
      if (this.#kept.size <= MOST) break;
      this.#kept.delete(oldest);
    }
    try {
      return (await kept.value) as T;
    } catch (error) {
      if (this.#kept.get(key) === kept) this.#kept.delete(key);
      throw error;
    }
  }
}
