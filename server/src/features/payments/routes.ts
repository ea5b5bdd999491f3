import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { voidBody } from "@fiscalon/contract/document";
import { date, id } from "@fiscalon/contract/fields";
import { paymentBody } from "@fiscalon/contract/payments";
import type { PaymentBody } from "@fiscalon/contract/payments";
import type { Work } from "../../base/work.ts";
import { clientParams, described } from "../../base/validation.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import {
  OPEN_ORDER,
  openItems,
  PAYMENT_ORDER,
  paymentPage,
  paymentView,
} from "../../books/payments/queries.ts";
import type { OpenFilter, PaymentFilter } from "../../books/payments/queries.ts";
import { correctPayment, createPayment, voidPayment } from "../../books/payments/service.ts";

type Id = { Params: { id: number } };
type Payment = { Params: { id: number; payment: number } };
const paymentParams = Joi.object({ id: id.required(), payment: id.required() });

export async function paymentRoutes(app: FastifyInstance): Promise<void> {
  const view = async (work: Work, clientId: number, payment: number) =>
    paymentView(work, await loadSetup(work, clientId), payment);

  app.get<Id & { Querystring: PaymentFilter }>(
    "/clients/:id/payments",
    {
      schema: described("Payments and receipts, by pages", "Books", {
        params: clientParams,
        querystring: Joi.object({
          ...paging,
          from: date.allow("").default(""),
          to: date.allow("").default(""),
          ...orderFields(PAYMENT_ORDER),
        }),
      }),
    },
    (request) => paymentPage(request.work, request.params.id, request.query),
  );

  app.get<Id & { Querystring: OpenFilter }>(
    "/clients/:id/open-items",
    {
      schema: described("Documents that are not settled, by pages", "Books", {
        params: clientParams,
        querystring: Joi.object({
          ...paging,
          contact: Joi.number().integer().min(0).default(0),
          document: Joi.number().integer().min(0).default(0),
          side: Joi.string().valid("", "sale", "purchase").default(""),
          on: date.allow("").default(""),
          ...orderFields(OPEN_ORDER),
        }),
      }),
    },
    (request) => openItems(request.work, request.params.id, request.query),
  );

  app.post<Id & { Body: PaymentBody }>(
    "/clients/:id/payments",
    { schema: described("Post a payment or receipt", "Books", { params: clientParams, body: paymentBody }) },
    async (request, reply) => {
      const payment = await createPayment(request.work, request.params.id, request.body);
      return reply.status(201).send(await view(request.work, request.params.id, payment));
    },
  );

  app.get<Payment>(
    "/clients/:id/payments/:payment",
    { schema: described("A payment with its history", "Books", { params: paymentParams }) },
    (request) => view(request.work, request.params.id, request.params.payment),
  );

  app.put<Payment & { Body: PaymentBody }>(
    "/clients/:id/payments/:payment",
    {
      schema: described("Replace a payment by a corrected version", "Books", {
        params: paymentParams,
        body: paymentBody,
      }),
    },
    async (request) => {
      const { id: clientId, payment } = request.params;
      return view(
        request.work,
        clientId,
        await correctPayment(request.work, clientId, payment, request.body),
      );
    },
  );

  app.post<Payment & { Body: { reason: string } }>(
    "/clients/:id/payments/:payment/void",
    {
      schema: described("Take a payment out of the books", "Books", {
        params: paymentParams,
        body: voidBody,
      }),
    },
    async (request) => {
      const { id: clientId, payment } = request.params;
      await voidPayment(request.work, clientId, payment, request.body.reason);
      return view(request.work, clientId, payment);
    },
  );
}
