import type { Answers, Route } from "@fiscalon/contract/answers";
import type { ErrorBody, JobView } from "@fiscalon/contract/views";
import { endOfJob } from "./longChanges.ts";
import { noteSeen, SEEN } from "./seen.ts";

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

type Method = "GET" | "POST" | "PUT" | "DELETE";
type PathsOf<M extends Method> = Route extends infer R ? (R extends `${M} ${infer P}` ? P : never) : never;

/** What stands in the place of a parameter; undefined only while nothing is asked. */
type Part = string | number | undefined;
/** The parameters of a path in their order: one for each `:name`. */
type PartsOf<P extends string> = P extends `${string}/:${infer Rest}`
  ? Rest extends `${string}/${infer Tail}`
    ? [Part, ...PartsOf<`/${Tail}`>]
    : [Part]
  : [];
type Query = Readonly<Record<string, string | number | undefined>>;

/** A path with its parameters filled in. */
export function filled(path: string, parts: readonly Part[]): string {
  const left: Part[] = [...parts];
  return path.replace(/:\w+/g, () => encodeURIComponent(String(left.shift())));
}

/** Requests that change something and are on their way, and keys of those nobody knows the outcome of. */
const onTheWay = new Map<string, Promise<unknown>>();
const unknownOutcome = new Map<string, string>();

/**
 * Sends a request. A change bears a key, so that it is done once however often it is sent: the same one sent again while
 * the first is on its way is that one, and one that got no answer goes on under its key.
 */
function call<T>(method: Method, path: string, body?: unknown, seen?: number): Promise<T> {
  if (body instanceof FormData) return send<T>(method, path, { body, key: newKey() });
  const signature = `${method} ${path} ${seen ?? ""} ${JSON.stringify(body) ?? ""}`;
  const running = onTheWay.get(signature);
  if (running) return running as Promise<T>;
  const key = unknownOutcome.get(signature) ?? newKey();
  unknownOutcome.set(signature, key);
  const sent = send<T>(method, path, { body, key, seen })
    .then(
      (answer) => {
        unknownOutcome.delete(signature);
        return answer;
      },
      (error: unknown) => {
        if (!(error instanceof ApiError) || error.code !== UNREACHABLE.code) unknownOutcome.delete(signature);
        throw error;
      },
    )
    .finally(() => onTheWay.delete(signature));
  onTheWay.set(signature, sent);
  return sent;
}

/** A key nobody else gives; also where the page is not served over a secure connection. */
function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) =>
    byte.toString(16).padStart(2, "0"),
  ).join("");
}

/** What goes with a request. */
interface Sending {
  body?: unknown;
  /** Of what changes something. */
  key?: string;
  seen?: number | undefined;
  signal?: AbortSignal | undefined;
}

async function send<T>(method: Method, path: string, { body, key, seen, signal }: Sending): Promise<T> {
  const isForm = body instanceof FormData;
  const isText = body !== undefined && !isForm;
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(key === undefined ? {} : { "idempotency-key": key }),
        ...(seen === undefined ? {} : { [SEEN]: String(seen) }),
        ...(isText ? { "content-type": "application/json" } : {}),
      },
      ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new ApiError(UNREACHABLE);
  }
  if (response.status === 204) return null as T;
  const answer = (await response.json().catch(() => ({ error: UNREACHABLE }))) as T & Partial<ErrorBody>;
  if (!response.ok) throw new ApiError(answer.error ?? UNREACHABLE);
  // What takes long is done as a job, which ends with the answer.
  if (response.status === 202 && response.headers.has("location")) {
    const { error, result } = await endOfJob(answer as unknown as JobView);
    if (error) throw new ApiError(error);
    return result as T;
  }
  const entry = response.headers.get(SEEN);
  if (entry !== null) noteSeen(answer, Number(entry));
  return answer;
}

/** The API as the contract declares it: which paths there are, their parameters, and what each answers. */
export const api = {
  /** @param signal ends the request, and what the server reads for it, once nobody waits for the answer */
  get: <P extends PathsOf<"GET">>(path: P, parts: PartsOf<P>, query: Query = {}, signal?: AbortSignal) =>
    send<Answers[`GET ${P}`]>("GET", withQuery(filled(path, parts), query), { signal }),
  /** @param seen how far the audit trail had been seen when what is changed was read, of {@link seenOf} */
  post: <P extends PathsOf<"POST">>(
    path: P,
    parts: PartsOf<P>,
    body?: unknown,
    query: Query = {},
    seen?: number,
  ) => call<Answers[`POST ${P}`]>("POST", withQuery(filled(path, parts), query), body, seen),
  /** Asks with a body: it changes nothing, and can be given up like a `get`. */
  ask: <P extends PathsOf<"POST">>(path: P, parts: PartsOf<P>, body: unknown, signal: AbortSignal) =>
    send<Answers[`POST ${P}`]>("POST", filled(path, parts), { body, signal }),
  put: <P extends PathsOf<"PUT">>(path: P, parts: PartsOf<P>, body: unknown, seen?: number) =>
    call<Answers[`PUT ${P}`]>("PUT", filled(path, parts), body, seen),
  delete: <P extends PathsOf<"DELETE">>(path: P, parts: PartsOf<P>, query: Query = {}, seen?: number) =>
    call<Answers[`DELETE ${P}`]>("DELETE", withQuery(filled(path, parts), query), undefined, seen),
};

/** A path with a query, leaving out what is undefined. */
export function withQuery(path: string, query: Query): string {
  const params = new URLSearchParams();
  for (const [key, value] of Object.entries(query)) if (value !== undefined) params.set(key, String(value));
  return params.size === 0 ? path : `${path}?${params.toString()}`;
}
