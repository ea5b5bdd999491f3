import { createRequire } from "node:module";
import swagger from "@fastify/swagger";
import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { bookSchema } from "@fiscalon/contract/book";

/** The package is CommonJS and its types say otherwise, hence the require. */
const joiToJson = createRequire(import.meta.url)("joi-to-json") as (
  schema: Joi.Schema,
  mode: string,
) => object;

/** Serves the OpenAPI document, made from the same Joi schemas that check the requests. */
export async function describeApi(app: FastifyInstance): Promise<void> {
  await app.register(swagger, {
    openapi: {
      openapi: "3.1.0",
      info: {
        title: "Fiscalon",
        version: "1",
        description:
          "Money travels as decimal strings in major units where it is typed, in whole minor units in views.",
      },
    },
    transform: ({ schema, url }) => ({
      url,
      schema: Object.fromEntries(
        Object.entries(schema ?? {}).map(([part, value]) => [
          part,
          Joi.isSchema(value) ? jsonSchema(value) : value,
        ]),
      ),
    }),
  });
  app.get("/api/openapi.json", { schema: { hide: true } }, () => app.swagger());
  app.get("/api/book-schema.json", { schema: { hide: true } }, () => bookJsonSchema());
}

/** The JSON Schema of the book file. */
export function bookJsonSchema(): object {
  return { $id: "fiscalon-book-v1", title: "Fiscalon book file, version 1", ...jsonSchema(bookSchema) };
}

function jsonSchema(schema: Joi.Schema): object {
  return joiToJson(schema, "json-draft-2019-09");
}
