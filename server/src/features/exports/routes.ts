import type { FastifyInstance, FastifyReply } from "fastify";
import Joi from "joi";
import { date, id } from "@fiscalon/contract/fields";
import { clientParams, described } from "../../base/validation.ts";
import { auditFileOf } from "./auditFileOf.ts";
import { csvSet } from "./csvSet.ts";
import { eInvoiceXml, printedDocument } from "./salesDocument.ts";
import { salesPdf } from "./salesPdf.ts";

type Dates = { Params: { id: number }; Querystring: { from: string; to: string } };
type Document = { Params: { id: number; document: number } };
const dates = Joi.object({ from: date.required(), to: date.required() });
const documentParams = Joi.object({ id: id.required(), document: id.required() });

export async function exportRoutes(app: FastifyInstance): Promise<void> {
  app.get<Dates>(
    "/clients/:id/export/audit-file",
    {
      schema: described("The books as an audit file (SAF-T)", "Export", {
        params: clientParams,
        querystring: dates,
      }),
    },
    async (request, reply) => {
      const { from, to } = request.query;
      const xml = await auditFileOf(request.work, request.params.id, { from, to });
      return sent(reply, "application/xml", `audit-file-${from}-${to}.xml`).send(xml);
    },
  );

  app.get<Dates>(
    "/clients/:id/export/csv",
    {
      schema: described("The books as a set of CSV files", "Export", {
        params: clientParams,
        querystring: dates,
      }),
    },
    async (request, reply) => {
      const { from, to } = request.query;
      const zip = await csvSet(request.work, request.params.id, from, to);
      return sent(reply, "application/zip", `books-${from}-${to}.zip`).send(zip);
    },
  );

  app.get<Document>(
    "/clients/:id/documents/:document/e-invoice",
    {
      schema: described("A sales document as e-invoice (UBL, EN 16931)", "Export", {
        params: documentParams,
      }),
    },
    async (request, reply) => {
      const { name, xml } = await eInvoiceXml(request.work, request.params.id, request.params.document);
      return sent(reply, "application/xml", `${name}.xml`).send(xml);
    },
  );

  app.get<Document>(
    "/clients/:id/documents/:document/pdf",
    { schema: described("A sales document as PDF", "Export", { params: documentParams }) },
    async (request, reply) => {
      const printed = await printedDocument(request.work, request.params.id, request.params.document);
      const pdf = await salesPdf(printed);
      return sent(reply, "application/pdf", `${printed.document.input.number}.pdf`).send(pdf);
    },
  );
}

function sent(reply: FastifyReply, type: string, name: string): FastifyReply {
  const safe = name.replace(/[^\w .-]+/g, "-");
  return reply.type(type).header("content-disposition", `attachment; filename="${safe}"`);
}
