import type { FastifyReply } from "fastify";

/** Sends CSV as a file to be kept; `name` without its ending. */
export function csvAnswer(reply: FastifyReply, name: string, csv: string | Buffer): FastifyReply {
  return reply
    .type("text/csv; charset=utf-8")
    .header("content-disposition", `attachment; filename="${name}.csv"`)
    .send(csv);
}
