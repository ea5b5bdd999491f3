import type { ErrorBody } from "@fiscalon/contract/views";

/** An error as the server shaped it: a sentence that says what to do, and the field it concerns. */
export class ApiError extends Error {
  readonly code: string;
  readonly field: string | undefined;
  readonly details: Record<string, unknown> | undefined;
  constructor({ code, message, field, details }: ErrorBody["error"]) {
    super(message);
    this.code = code;
    this.field = field;
    this.details = details;
  }
}

const UNREACHABLE: ErrorBody["error"] = {
  code: "server/unreachable",
  message: "The server does not answer. Is it still running? Nothing typed here is lost.",
};

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const isForm = body instanceof FormData;
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
      ...(body === undefined || isForm ? {} : { headers: { "content-type": "application/json" } }),
    });
  } catch {
    throw new ApiError(UNREACHABLE);
  }
  if (response.status === 204) return undefined as T;
  const answer = (await response.json().catch(() => ({ error: UNREACHABLE }))) as T & Partial<ErrorBody>;
  if (!response.ok) throw new ApiError(answer.error ?? UNREACHABLE);
  return answer;
}

export const api = {
  get: <T>(path: string) => call<T>("GET", path),
  post: <T>(path: string, body?: unknown) => call<T>("POST", path, body),
  put: <T>(path: string, body?: unknown) => call<T>("PUT", path, body),
  delete: <T>(path: string) => call<T>("DELETE", path),
};

/** A path with a query, leaving out what is undefined. */
export function withQuery(path: string, query: Record<string, string | number | undefined>): string {
  const params = new URLSearchParams();
  for (const [key, value] of Object.entries(query)) if (value !== undefined) params.set(key, String(value));
  return `${path}?${params.toString()}`;
}
