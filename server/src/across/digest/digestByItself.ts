import type { FastifyInstance } from "fastify";
import type { Config } from "../../config.ts";
import type { Practice } from "../../practice/practice.ts";
import { writeDigest } from "./writeDigest.ts";

const LOOK_MS = 3_600_000;
const FILED = /\/returns\/:period\/file$/;

/** Notes where the audit trails end, a file a day of all of them, and one with each return that is filed. */
export function digestByItself(app: FastifyInstance, practice: Practice, { dataDir, digests }: Config): void {
  let writing: Promise<void> = Promise.resolve();
  const write = (name: string, clients: () => Promise<readonly number[]>) => {
    writing = writing
      .then(async () => writeDigest(dataDir, digests, name, await clients()))
      .catch((error: unknown) => app.log.error(error, "a digest of the audit trails"));
  };
  const ofToday = () =>
    write(`${new Date().toISOString().slice(0, 10)}.json`, async () =>
      (await practice.clients()).map(({ id }) => id),
    );
  const timer = setInterval(ofToday, LOOK_MS).unref();
  app.addHook("onListen", async () => ofToday());
  app.addHook("onResponse", async ({ method, routeOptions: { url = "" }, params }, { statusCode }) => {
    if (method !== "POST" || statusCode >= 300 || !FILED.test(url)) return;
    const { id, period } = params as { id: number; period: string };
    const moment = new Date().toISOString().replace(/[:.]/g, "-");
    write(`filed-${id}-${period}-${moment}.json`, async () => [id]);
  });
  app.addHook("preClose", async () => {
    clearInterval(timer);
    await writing;
  });
}
