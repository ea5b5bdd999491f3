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

/** Longer books are loaded by a job, so that the request need not wait. */
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
    async (request, reply) => {
      const book = await exportBook(request.work, request.params.id, request.query);
      const name = book.client.name.replace(/[^\w-]+/g, "-");
      return reply.header("content-disposition", `attachment; filename="${name}.book.json"`).send(book);
    },
  );
}
