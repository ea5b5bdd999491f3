import type { FastifyReply } from "fastify";
import type { Progress } from "../base/progress.ts";
import type { Work } from "../base/work.ts";
import type { JobRunner } from "./runner.ts";
import type { JobTask } from "./task.ts";

/** So many documents are worked out anew while somebody waits for an answer; it takes about a second. */
const AT_ONCE = 1000;

/** It takes longer than somebody waits. */
class TooLong extends Error {}

const BRIEF: Progress = {
  step: (_, total) => {
    if (total > AT_ONCE) throw new TooLong();
  },
};

/**
 * Does a change and gives what its request is answered with. One that turns out to move many documents is undone and
 * done as a job, which ends with that answer: the reply is then 202 and says where the job is.
 */
export async function atOnceOrAsJob<T>(
  jobs: JobRunner,
  { work, reply, task }: { work: Work; reply: FastifyReply; task: JobTask },
  run: (progress: Progress) => Promise<T>,
): Promise<T | FastifyReply> {
  try {
    return await run(BRIEF);
  } catch (error) {
    if (!(error instanceof TooLong)) throw error;
  }
  const job = await jobs.start(work, "clientId" in task ? task.clientId : null, task);
  return reply.status(202).header("location", `/api/jobs/${job.id}`).send(job);
}
