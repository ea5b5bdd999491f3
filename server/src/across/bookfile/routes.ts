import { createReadStream, rmSync } from "node:fs";
import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { bookSchema } from "@fiscalon/contract/book";
import type { BookFile } from "@fiscalon/contract/book";
import type { AppContext } from "../../appContext.ts";
import { UNWATCHED } from "../../base/progress.ts";
import { clientParams, described } from "../../base/validation.ts";
import { clientView } from "../../books/views.ts";
import { exportBook } from "./exportBook.ts";
import { importBook } from "./importBook.ts";

/** Books with more documents are loaded by a job, so that the request need not wait, and written in another process. */
const LONG_BOOK = 250;
const BOOK_BYTES = 200 * 1024 * 1024;

export async function bookRoutes(app: FastifyInstance, { practice, jobs }: AppContext): Promise<void> {
  app.post<{ Body: BookFile }>(
    "/books",
    {
      schema: described("Create a client from a book file", "Books", { body: bookSchema }),
      bodyLimit: BOOK_BYTES,
    },
    async (request, reply) => {
      const book = request.body;
      if ((book.documents?.length ?? 0) > LONG_BOOK) {
        return reply.status(202).send({ job: await jobs.start(request.work, null, { kind: "book", book }) });
      }
      const clientId = await importBook(practice, request.work, book, UNWATCHED);
      return reply
        .status(201)
        .send(await practice.onClient(clientId, (books) => clientView(books, clientId)));
    },
  );

  app.get<{ Params: { id: number }; Querystring: { papers: boolean } }>(
    "/clients/:id/book",
    {
      schema: described("A client's book file", "Books", {
        params: clientParams,
        querystring: Joi.object({ papers: Joi.boolean().default(true) }),
      }),
    },
    async ({ work, params: { id: clientId }, query: { papers } }, reply) => {
      const { name, documents } = await work.one<{ name: string; documents: number }>(
        "SELECT name, (SELECT count(*) FROM documents WHERE client_id = $1) AS documents FROM clients WHERE id = $1",
        [clientId],
      );
      void reply
        .type("application/json")
        .header("content-disposition", `attachment; filename="${name.replace(/[^\w-]+/g, "-")}.book.json"`);
      if (documents <= LONG_BOOK) return exportBook(work, clientId, { papers });
      const gone = new AbortController();
      reply.raw.once("close", () => gone.abort());
      const path = await jobs.writtenBook(work, { clientId, papers }, gone.signal);
      return reply.send(createReadStream(path).once("close", () => rmSync(path, { force: true })));
    },
  );
}
