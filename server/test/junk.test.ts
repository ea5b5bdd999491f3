import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { isErrorCode } from "@fiscalon/contract/errors";
import { newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let client: number;
let before: string;
beforeAll(async () => {
  server = await startServer();
  ({ id: client } = await newClient(server));
  before = JSON.stringify(await server.ok("GET", `/clients/${client}/book`));
});
afterAll(() => server.close());

interface Refused {
  error?: { code: string; message: string; field?: string };
}

/** What nobody means to send: empty, of another kind, too deep, too long, and names that objects have by themselves. */
const JUNK: readonly unknown[] = [
  {},
  [],
  null,
  "text",
  0,
  { unknown: 1 },
  { kind: "sales-invoice", lines: "none" },
  { lines: [null] },
  { name: "x".repeat(100_000) },
  { ["__proto__"]: { admin: true }, constructor: 1 },
  { reason: "  " },
  { documents: ["1"], amount: "1e9", date: "2026-02-30" },
];
const STRANGE = ["0", "-1", "999999", "1.5", "abc", "%00", "1;DROP TABLE documents", "../../etc/passwd"];

async function routes(): Promise<[method: string, path: string][]> {
  const api = await server.ok<{ paths: Record<string, Record<string, object>> }>("GET", "/openapi.json");
  return Object.entries(api.paths).flatMap(([path, methods]) =>
    path.startsWith("/api/")
      ? Object.keys(methods).map((method): [string, string] => [
          method.toUpperCase(),
          path.slice("/api".length),
        ])
      : [],
  );
}

/** A refusal is one of the catalogue, says so in a sentence, and shows nothing of its insides. */
function expectRefusal(asked: string, status: number, body: Refused): void {
  expect([asked, status < 500]).toEqual([asked, true]);
  if (status < 400) return;
  expect([asked, isErrorCode(body.error?.code ?? "")]).toEqual([asked, true]);
  expect(body.error?.message).toMatch(/[.?)…]$/);
  expect(body.error?.message).not.toMatch(/SQLITE|undefined|\[object|at \w+ \(|node_modules/);
}

describe("whatever is sent, it is answered: never by a failure of the server, and nothing is changed", () => {
  test("bodies that are none", async () => {
    for (const [method, path] of await routes()) {
      if (method === "GET" || method === "DELETE") continue;
      for (const junk of JUNK) {
        const filled = path.replace("{id}", String(client)).replace(/\{\w+\}/g, "999999");
        const { status, body } = await server.call<Refused>(method, filled, JSON.stringify(junk));
        expectRefusal(`${method} ${filled} ${JSON.stringify(junk).slice(0, 60)}`, status, body);
      }
    }
  });

  test("text that is no JSON", async () => {
    for (const text of ["{", '{"a":', "\u0000", "<xml/>", '{"a":1}{"b":2}'])
      for (const path of ["/clients", `/clients/${client}/documents`, "/price", "/books"]) {
        const { status, body } = await server.call<Refused>("POST", path, text);
        expect([path, text, status]).toEqual([path, text, 400]);
        expectRefusal(path, status, body);
      }
  });

  test("numbers, dates and names in addresses that are none", async () => {
    for (const [method, path] of await routes()) {
      if (method !== "GET" || path.includes("/events")) continue;
      for (const strange of STRANGE) {
        const filled = path.replace(/\{\w+\}/g, encodeURIComponent(strange));
        const answer = await fetch(`${server.address}/api${filled}`);
        const text = await answer.text();
        const refused = answer.status >= 400 ? (JSON.parse(text) as Refused) : {};
        expectRefusal(`${method} ${filled}`, answer.status, refused);
      }
    }
  });

  test("questions with strange filters", async () => {
    const base = `/clients/${client}`;
    for (const path of [
      `${base}/documents?limit=100000`,
      `${base}/documents?offset=-1`,
      `${base}/documents?state=gone`,
      `${base}/documents?search=${"%25".repeat(50)}`,
      `${base}/documents?search='%20OR%201=1%20--`,
      `${base}/contacts?limit=x`,
      `${base}/open-items?on=2026-02-30`,
      `${base}/reports/tax/summary?from=2026-01-01`,
      `${base}/trial-balance?from=yesterday&to=today`,
      `${base}/changes?before=0`,
      `${base}/trail?ref=${encodeURIComponent("box/1/2026-06-30/<script>")}`,
      `${base}/trail?ref=nothing`,
    ]) {
      const { status, body } = await server.call<Refused>("GET", path);
      expectRefusal(path, status, body);
    }
    const all = await server.ok<{ total: number }>("GET", `${base}/documents?search='%20OR%201=1%20--`);
    expect(all.total).toBe(0);
  });

  test("after all of it the books are what they were", async () => {
    expect(JSON.stringify(await server.ok("GET", `/clients/${client}/book`))).toBe(before);
    expect(await server.ok("GET", "/audit")).toMatchObject({ broken: [] });
  });
});
