import { rmSync, statSync, writeFileSync } from "node:fs";

/** So long a writer waits in silence: most others are done by then. */
const SILENT_MS = 100;
/** How often it says again that it waits. */
const AGAIN_MS = 250;
/** What was said before that was said by one who is gone. */
const GONE_MS = 2000;

/**
 * Says to other processes that a writer waits for a database, by an empty file beside it, until it has its turn.
 * @returns ends it; nothing happens where it was never said
 */
export function sayOneWaits(file: string): () => void {
  const sign = signOf(file);
  let said = false;
  let timer = setTimeout(function say() {
    said = true;
    // A courtesy only: where it cannot be written the writer waits for its turn as it would otherwise.
    tried(() => writeFileSync(sign, ""));
    timer = setTimeout(say, AGAIN_MS);
  }, SILENT_MS);
  return () => {
    clearTimeout(timer);
    if (said) tried(() => rmSync(sign, { force: true }));
    said = false;
  };
}

/** Whether a writer in another process waits for a database. */
export function oneWaits(file: string): boolean {
  const said = statSync(signOf(file), { throwIfNoEntry: false })?.mtimeMs;
  return said !== undefined && Math.abs(Date.now() - said) < GONE_MS;
}

function signOf(file: string): string {
  return `${file}-wanted`;
}

function tried(act: () => void): void {
  try {
    act();
  } catch {
    return;
  }
}
