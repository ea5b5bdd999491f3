import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { documentBody, voidBody, voidManyBody } from "@fiscalon/contract/document";
import type { DocumentBody, VoidManyBody } from "@fiscalon/contract/document";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { originalView } from "../../books/documents/originals.ts";
import { id } from "@fiscalon/contract/fields";
import { stockMoveBody } from "@fiscalon/contract/stockMove";
import type { StockMoveBody } from "@fiscalon/contract/stockMove";
import { clientParams, described } from "../../base/validation.ts";
import { orderFields } from "../../db/listOrder.ts";
import { DOCUMENT_ORDER, documentPage } from "./documentPage.ts";
import type { DocumentFilter } from "./documentPage.ts";
import { documentView } from "./documentView.ts";
import { moveStock } from "./stockMove.ts";
import { correctDocument, postDocument, voidDocuments } from "./service.ts";

type Id = { Params: { id: number } };
type Document = { Params: { id: number; document: number } };
const documentParams = Joi.object({ id: id.required(), document: id.required() });

const pageQuery = Joi.object({
  search: Joi.string().allow("").max(100).default(""),
  kind: Joi.string().allow("").max(40).default(""),
  code: Joi.string().allow("").max(20).default(""),
  from: Joi.string().allow("").max(10).default(""),
  to: Joi.string().allow("").max(10).default(""),
  registration: Joi.number().integer().default(0),
  state: Joi.string().valid("posted", "superseded", "void").default("posted"),
  offset: Joi.number().integer().min(0).default(0),
  limit: Joi.number().integer().min(1).max(500).default(100),
  part: Joi.string().valid("rows", "sums", "both").default("both"),
  ...orderFields(DOCUMENT_ORDER),
});

const originalQuery = Joi.object({
  kind: Joi.string()
    .valid(...Object.keys(DOCUMENT_KINDS))
    .required(),
  number: Joi.string().trim().max(60).required(),
  /** 0 where it names none. */
  contact: Joi.number().integer().min(0).default(0),
});

export async function documentRoutes(app: FastifyInstance): Promise<void> {
  app.get<Id & { Querystring: DocumentFilter }>(
    "/clients/:id/documents",
    {
      schema: described("A page of documents with totals", "Books", {
        params: clientParams,
        querystring: pageQuery,
      }),
    },
    (request) => documentPage(request.work, request.params.id, request.query),
  );

  app.post<Id & { Body: DocumentBody }>(
    "/clients/:id/documents",
    { schema: described("Post a document", "Books", { params: clientParams, body: documentBody }) },
    async (request, reply) => {
      const documentId = await postDocument(request.work, request.params.id, request.body);
      return reply.status(201).send(await documentView(request.work, request.params.id, documentId));
    },
  );

  app.post<Id & { Body: StockMoveBody }>(
    "/clients/:id/stock-moves",
    {
      schema: described("Move goods between two registrations: both documents or none", "Books", {
        params: clientParams,
        body: stockMoveBody,
      }),
    },
    async (request, reply) =>
      reply.status(201).send(await moveStock(request.work, request.params.id, request.body)),
  );

  app.get<Id & { Querystring: { kind: DocumentKind; number: string; contact: number } }>(
    "/clients/:id/documents/original",
    {
      schema: described("The document a credit note would correct", "Books", {
        params: clientParams,
        querystring: originalQuery,
      }),
    },
    async ({ work, params, query }) => ({
      original: await originalView(work, params.id, { ...query, contact: query.contact || null }),
    }),
  );

  app.get<Document>(
    "/clients/:id/documents/:document",
    { schema: described("A document with its history", "Books", { params: documentParams }) },
    (request) => documentView(request.work, request.params.id, request.params.document),
  );

  app.put<Document & { Body: DocumentBody }>(
    "/clients/:id/documents/:document",
    {
      schema: described("Replace a document by a corrected version", "Books", {
        params: documentParams,
        body: documentBody,
      }),
    },
    async (request) => {
      const { id: clientId, document } = request.params;
      const documentId = await correctDocument(request.work, clientId, document, request.body);
      return documentView(request.work, clientId, documentId);
    },
  );

  app.post<Id & { Body: VoidManyBody }>(
    "/clients/:id/documents/void",
    {
      schema: described("Take several documents out of the books: all of them or none", "Books", {
        params: clientParams,
        body: voidManyBody,
      }),
    },
    async (request, reply) => {
      await voidDocuments(request.work, request.params.id, request.body);
      return reply.status(204).send();
    },
  );

  app.post<Document & { Body: { reason: string } }>(
    "/clients/:id/documents/:document/void",
    {
      schema: described("Take a document out of the books", "Books", {
        params: documentParams,
        body: voidBody,
      }),
    },
    async (request) => {
      const { id: clientId, document } = request.params;
      await voidDocuments(request.work, clientId, { documents: [document], reason: request.body.reason });
      return documentView(request.work, clientId, document);
    },
  );
}
