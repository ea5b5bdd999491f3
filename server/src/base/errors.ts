import type { FastifyInstance } from "fastify";
import type Joi from "joi";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { ERRORS, isErrorCode } from "@fiscalon/contract/errors";
import type { ErrorCode } from "@fiscalon/contract/errors";
import { storageTrouble } from "./storageTrouble.ts";
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
    const code = foreignCode(error);
    const { status, says } = ERRORS[code];
    if (status >= 500) request.log.error(error);
    return reply.status(status).send({ error: { code, message: says } } satisfies ErrorBody);
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

/** What the frame around the routes refuses, as one of the catalogue; anything unknown is a failure of ours. */
function foreignCode(error: unknown): ErrorCode {
  const disk = storageTrouble(error);
  if (disk) return disk;
  const { statusCode, code = "" } = error as { statusCode?: unknown; code?: string };
  if (statusCode === 413) return "request/too-large";
  if (statusCode === 415 || statusCode === 406 || code === "FST_ERR_CTP_INVALID_MEDIA_TYPE")
    return "request/media-type";
  if (statusCode === 429) return "request/too-many";
  if (typeof statusCode !== "number" || statusCode < 400 || statusCode >= 500) return "server/failed";
  return error instanceof SyntaxError || code.startsWith("FST_ERR_CTP")
    ? "request/not-json"
    : "request/unreadable";
}
