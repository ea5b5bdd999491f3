import type { FastifyInstance, FastifyReply } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { date, id, reason } from "@fiscalon/contract/fields";
import {
  boughtPieceBody,
  endBody,
  joinBody,
  PIECE_STATES,
  pieceBody,
  splitBody,
  takeInBody,
} from "@fiscalon/contract/stockBook";
import type {
  BoughtPieceBody,
  EndBody,
  JoinBody,
  PieceBody,
  SplitBody,
  TakeInBody,
} from "@fiscalon/contract/stockBook";
import { clientParams, described } from "../../base/validation.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { shownNo } from "../../books/stock/pieces.ts";
import { PdfThread } from "../../exports/pdfThread.ts";
import { formatQuery, sendTable } from "../../exports/sendTable.ts";
import type { TableFormat } from "../../exports/sendTable.ts";
import { ownPaperPdf, piecePdf } from "./piecePdf.ts";
import { requireRule } from "../../books/stock/requireRule.ts";
import { PIECE_ORDER, piecePage } from "./piecePage.ts";
import type { PieceFilter } from "./piecePage.ts";
import { pieceView } from "./pieceView.ts";
import { unlistedLines } from "./unlisted.ts";
import { addPiece, changePiece, endPiece, removePiece, takeIn } from "./service.ts";
import { backInStock, joinPieces, splitPiece } from "./setsAndLots.ts";
import { bookTable, importPieces } from "./tables.ts";

type Id = { Params: { id: number } };
type Piece = { Params: { id: number; no: number } };
const pieceParams = Joi.object({ id: id.required(), no: Joi.number().integer().min(1).required() });
const day = Joi.string()
  .pattern(/^\d{4}-\d\d-\d\d$/)
  .allow("")
  .default("");
const filter = {
  ...paging,
  ...orderFields(PIECE_ORDER),
  state: Joi.string()
    .valid(...PIECE_STATES)
    .default(""),
  from: day,
  to: day,
};

export async function stockRoutes(app: FastifyInstance): Promise<void> {
  const pdfs = new PdfThread();
  app.addHook("onClose", () => pdfs.end());

  app.get<Id & { Querystring: PieceFilter }>(
    "/clients/:id/pieces",
    {
      schema: described("The stock book, by page", "Stock book", {
        params: clientParams,
        querystring: Joi.object(filter),
      }),
    },
    async ({ work, params, query }) => piecePage(work, await loadSetup(work, params.id), query),
  );

  app.get<Id>(
    "/clients/:id/pieces/unlisted",
    {
      schema: described("Purchases for the scheme that are in no piece yet", "Stock book", {
        params: clientParams,
      }),
    },
    async ({ work, params }) => unlistedLines(work, await loadSetup(work, params.id)),
  );

  app.get<Id & { Querystring: PieceFilter & { format: TableFormat } }>(
    "/clients/:id/pieces/export",
    {
      schema: described("The stock book as CSV, workbook or PDF", "Stock book", {
        params: clientParams,
        querystring: formatQuery.append(filter),
      }),
    },
    async ({ work, params, query }, reply) => {
      const { format, ...rest } = query;
      const table = await bookTable(work, await loadSetup(work, params.id), rest);
      return sendTable(reply, "stock-book", format, table, pdfs);
    },
  );

  app.post<Id & { Querystring: { on?: string } }>(
    "/clients/:id/pieces/import",
    {
      schema: described("Opening stock from CSV (multipart, one file)", "Stock book", {
        params: clientParams,
        querystring: Joi.object({ on: date }),
      }),
    },
    async (request, reply) => {
      const file = await request.file();
      if (!file) throw new FiscalError("imports/no-file", "Choose a file.", "file");
      const text = (await file.toBuffer()).toString("utf8");
      return reply
        .status(201)
        .send(await importPieces(request.work, request.params.id, text, request.query.on));
    },
  );

  app.post<Id & { Body: BoughtPieceBody }>(
    "/clients/:id/pieces",
    {
      schema: described("Take a piece into the book, with its purchase where asked for", "Stock book", {
        params: clientParams,
        body: boughtPieceBody,
      }),
    },
    async ({ work, params, body }, reply) => {
      const no = await addPiece(work, params.id, body);
      return reply.status(201).send(await view(work, params.id, no));
    },
  );

  app.post<Id & { Body: TakeInBody }>(
    "/clients/:id/pieces/take-in",
    {
      schema: described("Make pieces of purchases in the books", "Stock book", {
        params: clientParams,
        body: takeInBody,
      }),
    },
    ({ work, params, body }) => takeIn(work, params.id, body),
  );

  app.post<Id & { Body: JoinBody }>(
    "/clients/:id/pieces/join",
    { schema: described("Join pieces into a set", "Stock book", { params: clientParams, body: joinBody }) },
    async ({ work, params, body }, reply) => {
      const no = await joinPieces(work, params.id, body);
      return reply.status(201).send(await view(work, params.id, no));
    },
  );

  app.get<Piece>(
    "/clients/:id/pieces/:no",
    { schema: described("A piece, both sides", "Stock book", { params: pieceParams }) },
    ({ work, params }) => view(work, params.id, params.no),
  );

  app.put<Piece & { Body: PieceBody }>(
    "/clients/:id/pieces/:no",
    { schema: described("Change a piece", "Stock book", { params: pieceParams, body: pieceBody }) },
    async ({ work, params, body }) => {
      await changePiece(work, params.id, params.no, body);
      return view(work, params.id, params.no);
    },
  );

  app.delete<Piece & { Querystring: { reason: string } }>(
    "/clients/:id/pieces/:no",
    {
      schema: described("Take a piece out of the book that should never have been in it", "Stock book", {
        params: pieceParams,
        querystring: Joi.object({ reason: reason.required() }),
      }),
    },
    async ({ work, params, query }, reply) => {
      await removePiece(work, params.id, params.no, query.reason);
      return reply.status(204).send();
    },
  );

  app.post<Piece & { Body: SplitBody }>(
    "/clients/:id/pieces/:no/split",
    { schema: described("Split a lot into pieces", "Stock book", { params: pieceParams, body: splitBody }) },
    async ({ work, params, body }, reply) => {
      await splitPiece(work, params.id, params.no, body);
      return reply.status(201).send(await view(work, params.id, params.no));
    },
  );

  app.post<Piece & { Body: EndBody }>(
    "/clients/:id/pieces/:no/end",
    {
      schema: described("A piece that was lost, scrapped or kept", "Stock book", {
        params: pieceParams,
        body: endBody,
      }),
    },
    async ({ work, params, body }) => {
      await endPiece(work, params.id, params.no, body);
      return view(work, params.id, params.no);
    },
  );

  app.delete<Piece>(
    "/clients/:id/pieces/:no/end",
    {
      schema: described("Take that back; take a set apart; make a lot whole", "Stock book", {
        params: pieceParams,
      }),
    },
    async ({ work, params }, reply) => {
      await backInStock(work, params.id, params.no);
      return reply.status(204).send();
    },
  );

  app.get<Piece & { Querystring: { own: boolean } }>(
    "/clients/:id/pieces/:no/pdf",
    {
      schema: described("The page of a piece, or the dealer's own purchase paper, as PDF", "Stock book", {
        params: pieceParams,
        querystring: Joi.object({ own: Joi.boolean().default(false) }),
      }),
    },
    async ({ work, params, query }, reply) => {
      const setup = await loadSetup(work, params.id);
      const { rule } = requireRule(work, setup);
      const piece = await pieceView(work, setup, params.no);
      const paper = {
        piece,
        client: setup.client.name,
        currency: setup.client.currency,
        digits: setup.plain.digits,
        rule,
        kind: rule.kinds.find((one) => one.id === piece.kind)?.name ?? piece.kind,
      };
      const pdf = query.own ? await ownPaperPdf(paper) : await piecePdf(paper);
      return sent(reply, "application/pdf", `piece-${shownNo(params.no)}.pdf`, pdf);
    },
  );

  async function view(work: Work, clientId: number, no: number) {
    return pieceView(work, await loadSetup(work, clientId), no);
  }
}

function sent(reply: FastifyReply, type: string, name: string, content: string | Buffer): FastifyReply {
  return reply.type(type).header("content-disposition", `attachment; filename="${name}"`).send(content);
}
