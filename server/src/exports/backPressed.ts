import { Readable } from "node:stream";

/** A stream that is written to, and says when whoever reads it is ready for more. */
export function backPressed() {
  let goOn: (() => void) | undefined;
  let full = false;
  const stream = new Readable({
    read: () => {
      full = false;
      goOn?.();
    },
    destroy: (error, done) => {
      full = false;
      goOn?.();
      done(error);
    },
  });
  return {
    stream,
    sent: (chunk: Uint8Array, final: boolean) => {
      if (stream.destroyed) return;
      full = !stream.push(Buffer.from(chunk));
      if (final) stream.push(null);
    },
    failed: (error: Error) => void stream.destroy(error),
    ready: async (): Promise<void> => {
      if (stream.destroyed) throw new Error("Nobody reads this any more.");
      if (full) await new Promise<void>((next) => (goOn = next));
    },
  };
}
