import { createRequire } from "node:module";
import swagger from "@fastify/swagger";
import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { bookSchema } from "@fiscalon/contract/book";

const require = createRequire(import.meta.url);

/** The package is CommonJS and its types say otherwise, hence the require. */
const joiToJson = require("joi-to-json") as (schema: Joi.Schema, mode: string) => object;

/** What each route answers, by method and path, written from the contract when it is built. */
const ANSWERS = inComponents(
  require("@fiscalon/contract/answers.json") as {
    properties: Record<string, object>;
    definitions: Record<string, object>;
  },
);

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
      components: { schemas: ANSWERS.definitions },
    },
    transform: ({ schema, url, route }) => ({
      url,
      schema: {
        ...Object.fromEntries(
          Object.entries(schema ?? {}).map(([part, value]) => [
            part,
            Joi.isSchema(value) ? jsonSchema(value) : value,
          ]),
        ),
        ...answerOf(String(route.method), url),
      },
    }),
  });
  app.get("/api/openapi.json", { schema: { hide: true } }, () => app.swagger());
  app.get("/api/book-schema.json", { schema: { hide: true } }, () => bookJsonSchema());
}

/** The JSON Schema of the book file. */
export function bookJsonSchema(): object {
  return { $id: "fiscalon-book-v1", title: "Fiscalon book file, version 1", ...jsonSchema(bookSchema) };
}

/** The answer of a route; files and streams are not told. */
function answerOf(method: string, url: string): { response?: Record<string, object> } {
  const answer = ANSWERS.properties[`${method} ${url.replace(/^\/api/, "")}`];
  if (!answer) return {};
  const status = "type" in answer && answer.type === "null" ? "204" : "2xx";
  return { response: { [status]: { description: "Done", ...answer } } };
}

/** The same schemas with their definitions where OpenAPI has them. */
function inComponents<T>(schemas: T): T {
  return JSON.parse(JSON.stringify(schemas).replaceAll('"#/definitions/', '"#/components/schemas/')) as T;
}

function jsonSchema(schema: Joi.Schema): object {
  return joiToJson(schema, "json-draft-2019-09");
}
