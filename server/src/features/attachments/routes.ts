import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { id } from "@fiscalon/contract/fields";
import { notFound } from "../../base/errors.ts";
import { described } from "../../base/validation.ts";
import { readKeptFile } from "../../base/files.ts";
import { attach, attachmentsOf, detach } from "../../books/papers.ts";

type Document = { Params: { id: number; document: number } };
type Attachment = { Params: { id: number; attachment: number } };
const documentParams = Joi.object({ id: id.required(), document: id.required() });
const attachmentParams = Joi.object({ id: id.required(), attachment: id.required() });

export async function attachmentRoutes(app: FastifyInstance): Promise<void> {
  app.get<Document>(
    "/clients/:id/documents/:document/attachments",
    { schema: described("Papers beside a document", "Books", { params: documentParams }) },
    (request) => attachmentsOf(request.work, request.params.id, request.params.document),
  );

  app.post<Document>(
    "/clients/:id/documents/:document/attachments",
    {
      schema: described("Put a paper beside a document (multipart, one file)", "Books", {
        params: documentParams,
      }),
    },
    async (request, reply) => {
      const file = await request.file();
      if (!file) throw new FiscalError("imports/no-file", "Choose a file.", "file");
      const { id: clientId, document } = request.params;
      const content = await file.toBuffer();
      await attach(request.work, clientId, document, { name: file.filename, content });
      return reply.status(201).send(await attachmentsOf(request.work, request.params.id, document));
    },
  );

  app.get<Attachment>(
    "/clients/:id/attachments/:attachment",
    { schema: described("A paper", "Books", { params: attachmentParams }) },
    async (request, reply) => {
      const row = await request.work.row<{ hash: string; name: string; type: string }>(
        "SELECT file_hash AS hash, name, type FROM attachments WHERE id = $1 AND client_id = $2 AND removed_at IS NULL",
        [request.params.attachment, request.params.id],
      );
      if (!row) throw notFound("This paper");
      const name = row.name.replace(/[^\w .-]+/g, "-");
      // XML is shown as text: as a document of its own it could carry a style sheet or a script.
      const type = row.type === "application/xml" ? "text/plain; charset=utf-8" : row.type;
      return reply
        .type(type)
        .header("content-disposition", `inline; filename="${name}"`)
        .header(
          "content-security-policy",
          "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'",
        )
        .send(readKeptFile(request.work.folder, row.hash));
    },
  );

  app.delete<Attachment>(
    "/clients/:id/attachments/:attachment",
    { schema: described("Take a paper away from its document", "Books", { params: attachmentParams }) },
    async (request, reply) => {
      await detach(request.work, request.params.id, request.params.attachment);
      return reply.status(204).send();
    },
  );
}
