/** How long work tells of its progress. */
export interface Progress {
  step(done: number, total: number, message: string): void;
}

/** Progress of work nobody watches. */
export const UNWATCHED: Progress = { step: () => undefined };
