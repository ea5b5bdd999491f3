import { setTimeout as later } from "node:timers/promises";
import type { Database } from "../db/database.ts";
import { oneWaits } from "../db/waiting.ts";
import type { Progress } from "../base/progress.ts";

/** So often long work begins anew for others in any case, and beyond that until what was undone took so long. */
const AT_LEAST = 2;
const MOST_LOST_MS = 5 * 60_000;
const LOOK_MS = 50;

/** Somebody else wants to write: what was done so far is undone. */
class GaveWay extends Error {}

/**
 * Long work on a database that gives way: where somebody else waits to write, it is undone and begins anew once they
 * had their turn. It looks whenever it tells how far it is. Where it lost too much by that it is done to its end at last,
 * and others wait.
 * @param run does it, in one transaction; what it is given tells how far that is
 */
export async function givingWay<T>(
  { file }: Database,
  progress: Progress,
  run: (locked: Progress) => Promise<T>,
): Promise<T> {
  const step: Progress["step"] = (done, total, message) => {
    if (oneWaits(file)) throw new GaveWay();
    progress.step(done, total, message);
  };
  let lost = 0;
  for (let times = 0; times < AT_LEAST || lost < MOST_LOST_MS; times += 1) {
    const begun = performance.now();
    try {
      return await run({ step });
    } catch (error) {
      if (!(error instanceof GaveWay)) throw error;
      lost += performance.now() - begun;
      progress.step(0, 0, "letting others save first");
      while (oneWaits(file)) await later(LOOK_MS);
    }
  }
  return run(progress);
}
