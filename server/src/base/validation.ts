import type { FastifyInstance, FastifySchema } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { date, id } from "@fiscalon/contract/fields";
import { fromJoi } from "./errors.ts";

/** Lets routes name Joi schemas for body, query and parameters; what does not fit never reaches a handler. */
export function validateWithJoi(app: FastifyInstance): void {
  app.setValidatorCompiler<Joi.Schema>(({ schema }) => (data: unknown) => {
    const checked = schema.validate(data, { convert: true, errors: { wrap: { label: false } } });
    if (checked.error) return { error: fromJoi(checked.error) };
    const field = controlSigns(checked.value, "");
    return field === null ? { value: checked.value as unknown } : { error: withControlSigns(field) };
  });
}

/** Signs that no keyboard types and no paper prints; tabs and line ends are fine. */
const CONTROL = /(?![\t\n\r])\p{Cc}/u;

/** The path of the first text with a control sign in it. */
function controlSigns(value: unknown, path: string): string | null {
  if (typeof value === "string") return CONTROL.test(value) ? path : null;
  if (typeof value !== "object" || value === null) return null;
  for (const [key, inside] of Object.entries(value)) {
    const within = Array.isArray(value) ? `${path}[${key}]` : path === "" ? key : `${path}.${key}`;
    const found = CONTROL.test(key) ? within : controlSigns(inside, within);
    if (found !== null) return found;
  }
  return null;
}

function withControlSigns(field: string): FiscalError {
  return new FiscalError(
    "request/invalid",
    `${field || "The text"} holds signs that cannot be printed. Type it anew.`,
    field,
  );
}

export const clientParams = Joi.object({ id: id.required() });
export const registrationParams = Joi.object({ id: id.required(), rid: Joi.string().max(60).required() });
export const returnParams = registrationParams.append({ period: date.required() });

/** A route's schema with the words that stand in the OpenAPI document. */
export function described(
  summary: string,
  tag: string,
  parts: Record<string, Joi.Schema> = {},
): FastifySchema {
  return { summary, tags: [tag], ...parts } as FastifySchema;
}
