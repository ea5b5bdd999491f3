import type { FastifyInstance } from "fastify";
import Joi from "joi";
import {
  collectionChargeBody,
  collectionDeductsBody,
  collectionOpeningBody,
  collectionProposalBody,
} from "@fiscalon/contract/collection";
import type {
  CollectionChargeBody,
  CollectionDeductsBody,
  CollectionOpeningBody,
  CollectionProposalBody,
} from "@fiscalon/contract/collection";
import { date, id } from "@fiscalon/contract/fields";
import { clientParams, described } from "../../base/validation.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { PdfThread } from "../../exports/pdfThread.ts";
import { sendTable } from "../../exports/sendTable.ts";
import type { TableFormat } from "../../exports/sendTable.ts";
import { keepDeducting, keepOpening } from "../../books/collection/openings.ts";
import { chargeCustomers } from "./charge.ts";
import { collectionProposal } from "./proposal.ts";
import { DEDUCTED_ORDER, deductedRows } from "./deducted.ts";
import type { DeductedFilter } from "./deducted.ts";
import {
  collectionCustomers,
  collectionSheet,
  collectionView,
  CUSTOMER_ORDERS,
  statementTable,
} from "./view.ts";
import type { CustomerFilter } from "./view.ts";

type Id = { Params: { id: number } };
type Customer = { Params: { id: number; contact: number } };
const customerParams = Joi.object({ id: id.required(), contact: id.required() });
const dayQuery = Joi.object({ day: date.required() });
const stretch = { from: date.required(), to: date.required() };
const TAG = "Settle";

export async function collectionRoutes(app: FastifyInstance): Promise<void> {
  const pdfs = new PdfThread();
  app.addHook("onClose", () => pdfs.end());

  app.get<Id & { Querystring: { day: string } }>(
    "/clients/:id/collection",
    {
      schema: described("Tax collected from customers in a fiscal year, by month and quarter", TAG, {
        params: clientParams,
        querystring: dayQuery,
      }),
    },
    async (request) =>
      collectionView(request.work, await loadSetup(request.work, request.params.id), request.query.day),
  );

  app.get<Id & { Querystring: CustomerFilter }>(
    "/clients/:id/collection/customers",
    {
      schema: described("Customers with what they paid and what is collected, by pages", TAG, {
        params: clientParams,
        querystring: Joi.object({
          ...paging,
          day: date.required(),
          left: Joi.boolean().default(false),
          sort: Joi.string().valid(...Object.keys(CUSTOMER_ORDERS)),
          descending: Joi.boolean().default(false),
        }),
      }),
    },
    async (request) =>
      collectionCustomers(request.work, await loadSetup(request.work, request.params.id), request.query),
  );

  app.get<Customer & { Querystring: { day: string } }>(
    "/clients/:id/collection/customers/:contact",
    {
      schema: described("A customer's year: receipts with their running total, and charges", TAG, {
        params: customerParams,
        querystring: dayQuery,
      }),
    },
    async (request) =>
      collectionSheet(
        request.work,
        await loadSetup(request.work, request.params.id),
        request.params.contact,
        request.query.day,
      ),
  );

  app.put<Customer & { Body: CollectionOpeningBody }>(
    "/clients/:id/collection/customers/:contact/opening",
    {
      schema: described("Keep what a customer paid in a year before these books begin", TAG, {
        params: customerParams,
        body: collectionOpeningBody,
      }),
    },
    async (request, reply) => {
      await keepOpening(request.work, request.params.id, request.params.contact, request.body);
      return reply.status(204).send();
    },
  );

  app.put<Customer & { Body: CollectionDeductsBody }>(
    "/clients/:id/collection/customers/:contact/deducts",
    {
      schema: described("Say whether a customer deducts tax itself", TAG, {
        params: customerParams,
        body: collectionDeductsBody,
      }),
    },
    async (request, reply) => {
      await keepDeducting(request.work, request.params.id, request.params.contact, request.body);
      return reply.status(204).send();
    },
  );

  app.post<Id & { Body: CollectionChargeBody }>(
    "/clients/:id/collection/charges",
    {
      schema: described("Charge customers what was collected on their receipts and is not charged", TAG, {
        params: clientParams,
        body: collectionChargeBody,
      }),
    },
    async (request) => ({
      posted: await chargeCustomers(request.work, request.params.id, request.body),
    }),
  );

  app.post<Id & { Body: CollectionProposalBody }>(
    "/clients/:id/collection/proposal",
    {
      schema: described("What an invoice that is being typed collects", TAG, {
        params: clientParams,
        body: collectionProposalBody,
      }),
    },
    async (request) => ({
      proposal: await collectionProposal(
        request.work,
        await loadSetup(request.work, request.params.id),
        request.body,
      ),
    }),
  );

  app.get<Id & { Querystring: { from: string; to: string; format: TableFormat } }>(
    "/clients/:id/collection/statement",
    {
      schema: described("The statement of a quarter as a file", TAG, {
        params: clientParams,
        querystring: Joi.object({
          ...stretch,
          format: Joi.string().valid("csv", "xlsx", "pdf").default("csv"),
        }),
      }),
    },
    async (request, reply) => {
      const { from, to, format } = request.query;
      const setup = await loadSetup(request.work, request.params.id);
      const table = await statementTable(request.work, setup, from, to);
      return sendTable(reply, `collected-at-source-${to}`, format, table, pdfs);
    },
  );

  app.get<Id & { Querystring: DeductedFilter }>(
    "/clients/:id/collection/deducted",
    {
      schema: described("What operators and customers deducted from us", TAG, {
        params: clientParams,
        querystring: Joi.object({ ...stretch, ...paging, ...orderFields(DEDUCTED_ORDER) }),
      }),
    },
    async (request) =>
      deductedRows(request.work, await loadSetup(request.work, request.params.id), request.query),
  );
}
