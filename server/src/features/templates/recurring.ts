import type { FastifyInstance } from "fastify";
import type { Begun } from "../../base/begin.ts";
import type { Work } from "../../base/work.ts";
import { tryTemplate } from "./service.ts";

const EACH_MS = 10 * 60_000;

/** Posts what is due by itself: when the server starts, and from time to time while it runs. */
export function postRecurring(app: FastifyInstance, begin: (begun?: Begun) => Promise<Work>): void {
  let running: Promise<void> = Promise.resolve();
  const look = () => {
    running = running
      .then(() => postByThemselves(begin))
      .catch((error: unknown) => app.log.error(error, "recurring documents"));
  };
  const timer = setInterval(look, EACH_MS).unref();
  app.addHook("onListen", async () => look());
  app.addHook("preClose", async () => {
    clearInterval(timer);
    await running;
  });
}

/** Each in the name of who kept it. */
async function postByThemselves(begin: (begun?: Begun) => Promise<Work>): Promise<void> {
  const work = await begin();
  const due = await work.rows<{ id: number; client: number; person: number }>(
    `SELECT id, client_id AS client, created_by AS person FROM templates
     WHERE by_itself = 1 AND every IS NOT NULL AND next_on <= $1 AND (until IS NULL OR next_on <= until)
     ORDER BY next_on, id`,
    [work.today],
  );
  for (const { id, client, person } of due) await tryTemplate(await begin({ person }), client, id);
}
