import { addDays } from "@fiscalon/core/calendar/date";
import type { FastifyInstance } from "fastify";
import type { Practice } from "../../practice/practice.ts";
import { postByItself } from "./service.ts";

const EACH_MS = 10 * 60_000;

/** Posts what is due by itself: when the server starts, and from time to time while it runs. */
export function postRecurring(app: FastifyInstance, practice: Practice): void {
  let running: Promise<void> = Promise.resolve();
  const look = () => {
    running = running
      .then(() => postByThemselves(practice))
      .catch((error: unknown) => app.log.error(error, "recurring documents"));
  };
  const timer = setInterval(look, EACH_MS).unref();
  app.addHook("onListen", async () => look());
  app.addHook("preClose", async () => {
    clearInterval(timer);
    await running;
  });
}

/** Each in the name of who kept it; only books are opened in which something is due. */
async function postByThemselves(practice: Practice): Promise<void> {
  await practice.summaries.settled();
  const { today } = await practice.begin();
  const clients = await practice.db.rows<{ client: number }>(
    "SELECT client_id AS client FROM client_summaries WHERE recurs_on <= $1 ORDER BY client_id",
    // Somewhere it is tomorrow already.
    [addDays(today, 1)],
  );
  for (const { client } of clients)
    await practice.inPassing(client, async (work) => {
      const due = await work.rows<{ id: number; person: number }>(
        `SELECT id, created_by AS person FROM templates
         WHERE by_itself = 1 AND every IS NOT NULL AND next_on <= $1 AND (until IS NULL OR next_on <= until)
         ORDER BY next_on, id`,
        [work.today],
      );
      for (const { id, person } of due) await postByItself(work.begun({ person }), client, id);
    });
}
