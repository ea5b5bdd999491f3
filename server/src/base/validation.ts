import type { FastifyInstance, FastifySchema } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { fromJoi } from "./errors.ts";

/** Lets routes name Joi schemas for body, query and parameters; what does not fit never reaches a handler. */
export function validateWithJoi(app: FastifyInstance): void {
  app.setValidatorCompiler<Joi.Schema>(({ schema }) => (data: unknown) => {
    const checked = schema.validate(data, { convert: true, errors: { wrap: { label: false } } });
    return checked.error ? { error: fromJoi(checked.error) } : { value: checked.value as unknown };
  });
}

export const clientParams = Joi.object({ id: id.required() });
export const registrationParams = Joi.object({ id: id.required(), rid: Joi.string().max(60).required() });
export const returnParams = registrationParams.append({ period: Joi.string().max(10).required() });

/** A route's schema with the words that stand in the OpenAPI document. */
export function described(
  summary: string,
  tag: string,
  parts: Record<string, Joi.Schema> = {},
): FastifySchema {
  return { summary, tags: [tag], ...parts } as FastifySchema;
}
