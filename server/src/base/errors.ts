import type { FastifyInstance } from "fastify";
import type Joi from "joi";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { ERRORS, isErrorCode } from "@fiscalon/contract/errors";
import { problemsOf } from "@fiscalon/contract/problems";
import type { ErrorBody } from "@fiscalon/contract/views";

/** The status of the catalogue; a code that is not in it is a defect, found by a test. */
export function statusOf({ code }: FiscalError): number {
  return isErrorCode(code) ? ERRORS[code].status : 422;
}

export function notFound(what: string): FiscalError {
  return new FiscalError("request/not-found", `${what} does not exist, or no longer.`);
}

/** Puts a path before the field of whatever `work` refuses, so that it points into the whole input. */
export async function inField<T>(path: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    return withinField<T>(path, () => {
      throw error;
    });
  }
}

/** A body, query or parameter that does not fit its schema, as one sentence and the path of the field. */
export function fromJoi(error: Joi.ValidationError): FiscalError {
  const [first] = problemsOf(error);
  return new FiscalError("request/invalid", first?.message ?? error.message, first?.field);
}

/** Turns every error into the one shape; what is not ours is logged and answered without its insides. */
export function handleErrors(app: FastifyInstance): void {
  app.setErrorHandler((error, request, reply) => {
    if (error instanceof FiscalError) return reply.status(statusOf(error)).send(errorBody(error));
    const status = statusCodeOf(error);
    if (status >= 500) request.log.error(error);
    const message = status >= 500 ? ERRORS["server/failed"].says : messageOf(error);
    const code = status === 413 ? "request/too-large" : status >= 500 ? "server/failed" : "request/invalid";
    return reply.status(status).send({ error: { code, message } } satisfies ErrorBody);
  });
  app.setNotFoundHandler((request, reply) =>
    reply.status(404).send(errorBody(notFound(`${request.method} ${request.url.split("?")[0]}`))),
  );
}

export function errorBody(error: FiscalError): ErrorBody {
  return {
    error: {
      code: error.code,
      message: error.message,
      ...(error.field === undefined ? {} : { field: error.field }),
      ...(error.details === undefined ? {} : { details: error.details }),
    },
  };
}

function statusCodeOf(error: unknown): number {
  const status = (error as { statusCode?: unknown }).statusCode;
  return typeof status === "number" && status >= 400 ? status : 500;
}

function messageOf(error: unknown): string {
  if (statusCodeOf(error) === 413) return ERRORS["request/too-large"].says;
  return error instanceof Error ? error.message : "The request could not be read.";
}
