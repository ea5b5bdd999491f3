import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { documentBody } from "@fiscalon/contract/document";
import { country as countryField, id, region, roundingBody, taxNumber } from "@fiscalon/contract/fields";
import type { AppContext } from "../../appContext.ts";
import { described } from "../../base/validation.ts";
import { pricePreview } from "./service.ts";
import type { PriceRequest } from "./service.ts";

const priceBody = Joi.object({
  client: id,
  pack: Joi.string().max(10),
  rounding: roundingBody,
  site: Joi.object({ country: countryField, region }),
  party: Joi.object({
    country: countryField.allow(null).default(null),
    region: region.default(null),
    registered: Joi.boolean().allow(null).default(null),
    taxNumber: taxNumber.default(null),
    standing: Joi.object().pattern(Joi.string().max(30), Joi.string().max(40)).default({}),
  }),
  document: documentBody.required(),
});

export async function priceRoutes(app: FastifyInstance, { practice }: AppContext): Promise<void> {
  app.post<{ Body: PriceRequest }>(
    "/price",
    { schema: described("Price a document without keeping it", "Books", { body: priceBody }) },
    ({ work, body }) =>
      body.client === undefined
        ? pricePreview(work, body)
        : practice.onClient(body.client, (books) => pricePreview(books, body)),
  );
}
