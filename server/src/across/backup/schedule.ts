import type { FastifyInstance } from "fastify";
import type { Copies } from "./copies.ts";

/** How often it is looked whether a copy is due. */
const LOOK_MS = 5 * 60_000;

/** Makes copies by itself while the server runs, where a folder for them is set; one that fails is tried again. */
export function backUpByItself(app: FastifyInstance, copies: Copies): void {
  const look = () => copies.makeWhenDue();
  const timer = setInterval(look, LOOK_MS).unref();
  app.addHook("onListen", async () => look());
  app.addHook("preClose", async () => {
    clearInterval(timer);
    await copies.end();
  });
}
