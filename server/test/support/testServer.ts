import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { buildApp } from "../../dist/app.js";
import type { JobView } from "@fiscalon/contract/views";
import { notAsDeclared } from "./replies.ts";

export interface Answer<T> {
  status: number;
  body: T;
}

export interface TestServer {
  address: string;
  dataDir: string;
  call: <T = Record<string, never>>(method: string, path: string, body?: unknown) => Promise<Answer<T>>;
  /** As call, but anything else than a success is a failure of the test. */
  ok: <T>(method: string, path: string, body?: unknown) => Promise<T>;
  upload: (
    path: string,
    name: string,
    content: string | Buffer,
  ) => Promise<Answer<{ id: number; error?: { code: string } }>>;
  /** Starts a job and waits for its end. */
  job: (
    path: string,
    headers?: Record<string, string>,
  ) => Promise<{
    state: string;
    result: Record<string, unknown>;
    error: { code: string; message: string } | null;
  }>;
  close: () => Promise<void>;
}

/** A server on a free port, with an empty data folder of its own that goes with it, or with one that stays. */
export async function startServer(
  kept?: string,
  backup: { folder: string; hours: number; keep: number } | null = null,
): Promise<TestServer> {
  const dataDir = kept ?? mkdtempSync(join(tmpdir(), "fiscalon-test-"));
  const app = await buildApp({
    dataDir,
    host: "127.0.0.1",
    port: 0,
    person: "Test person",
    authorityUrl: "",
    simulators: true,
    digests: join(dataDir, "digests"),
    logLevel: "silent",
    hosts: [],
    backup,
    backupKey: null,
  });
  const address = await app.listen({ host: "127.0.0.1", port: 0 });
  return clientOf(address, dataDir, async () => {
    await app.close();
    if (kept === undefined) rmSync(dataDir, { recursive: true, force: true });
  });
}

/** The ways to talk to a server at an address; every reply that succeeds is checked against the contract. */
export function clientOf(address: string, dataDir: string, close: () => Promise<void>): TestServer {
  const send = async <T>(path: string, init: RequestInit): Promise<Answer<T>> => {
    const response = await fetch(address + path, init);
    const text = await response.text();
    const body = (text === "" ? {} : JSON.parse(text)) as T;
    const place = response.status === 202 ? response.headers.get("location") : null;
    const answer = place === null ? { status: response.status, body } : await answerOf<T>(place);
    if (answer.status < 300 && path.startsWith("/api")) {
      const said = text === "" ? null : answer.body;
      const problem = notAsDeclared(init.method ?? "GET", path.slice("/api".length), said);
      if (problem !== undefined) throw new Error(problem);
    }
    return answer;
  };
  /** A job in the place of an answer ends with that answer. */
  const answerOf = async <T>(place: string): Promise<Answer<T>> => {
    for (;;) {
      const job = (await (await fetch(address + place)).json()) as JobView;
      if (job.state === "done") return { status: 200, body: job.result as T };
      if (job.error) return { status: 409, body: { error: job.error } as T };
      await new Promise((later) => setTimeout(later, 50));
    }
  };
  const call: TestServer["call"] = (method, path, body) =>
    send(`/api${path}`, {
      method,
      ...(body === undefined
        ? {}
        : {
            body: typeof body === "string" ? body : JSON.stringify(body),
            headers: { "content-type": "application/json" },
          }),
    });
  const ok = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await call<T>(method, path, body);
    if (answer.status >= 300)
      throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
    return answer.body;
  };
  return {
    address,
    dataDir,
    call,
    ok,
    upload: (path, name, content) => {
      const form = new FormData();
      form.append("file", new Blob([new Uint8Array(Buffer.from(content))]), name);
      return send(`/api${path}`, { method: "POST", body: form });
    },
    job: async (path, headers = {}) => {
      const started = await send<{
        id: number;
        state: string;
        result: Record<string, unknown>;
        error: { code: string; message: string } | null;
      }>(`/api${path}`, { method: "POST", headers });
      if (started.status >= 300) throw new Error(`${path}: ${JSON.stringify(started.body)}`);
      let job = started.body;
      while (job.state === "running" || job.state === "waiting") {
        await new Promise((later) => setTimeout(later, 50));
        job = await ok("GET", `/jobs/${job.id}`);
      }
      return job;
    },
    close,
  };
}

export const GB_CLIENT = {
  name: "Wrackline Joinery Ltd",
  country: "GB",
  place: { name: "Whitby", country: "GB" },
  registration: {
    pack: "gb",
    number: "980780684",
    from: "2025-01-01",
    frequency: "quarterly",
    anchor: "2026-03-31",
  },
};

let serial = 1_000_000;

/** Numbers that pass the check digits: the simulated authority keeps one set of returns a number. */
export function nextVatNumber(): string {
  serial += 1;
  const seven = String(serial);
  const sum = [8, 7, 6, 5, 4, 3, 2].reduce(
    (total, weight, index) => total + weight * Number(seven[index]),
    0,
  );
  return seven + String((97 - (sum % 97)) % 97).padStart(2, "0");
}

/** The clients of a practice, without what is counted of them a little later. */
export async function clientsOf(server: TestServer): Promise<object[]> {
  const clients = await server.ok<{ next: object[] }[]>("GET", "/clients");
  return clients.map((client) => ({
    ...client,
    next: client.next.map((one) => ({ ...one, findings: null, counting: true })),
  }));
}

/** A new client with a number of its own, and the path of its first registration. */
export async function newClient(
  server: TestServer,
  body: object = { ...GB_CLIENT, registration: { ...GB_CLIENT.registration, number: nextVatNumber() } },
) {
  const client = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/clients", body);
  return {
    id: client.id,
    base: `/clients/${client.id}`,
    registration: `/clients/${client.id}/registrations/${client.registrations[0]?.id}`,
  };
}

export function document<More extends object = object>(
  kind: string,
  date: string,
  lines: object[],
  more?: More,
): { kind: string; date: string; prices: string; lines: object[] } & More {
  return { kind, date, prices: "exclusive", lines, ...(more as More) };
}
