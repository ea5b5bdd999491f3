import { hostname } from "node:os";
import type { FastifyInstance } from "fastify";
import { FiscalError } from "@fiscalon/core/errors";

/**
 * What comes over the border: only requests to a name this server has, and changes only from its own pages. A page of
 * another site cannot make the browser of a person change anything here, nor reach it under a name of its own.
 * @param hosts further names, from the settings
 */
export function guardBorder(app: FastifyInstance, hosts: readonly string[]): void {
  const known = new Set(["localhost", hostname().toLowerCase(), ...hosts.map((host) => host.toLowerCase())]);
  app.addHook("onRequest", async (request, reply) => {
    const name = (request.headers.host ?? "").replace(/:\d+$/, "").toLowerCase();
    if (!isAddress(name) && !known.has(name)) throw foreign();
    const site = request.headers["sec-fetch-site"];
    const changes = request.method !== "GET" && request.method !== "HEAD";
    if (changes && typeof site === "string" && site !== "same-origin" && site !== "none") throw foreign();
    if (request.url.startsWith("/api")) void reply.header("cache-control", "no-store");
  });
}

/** An address of the machine itself, not a name somebody else could point here. */
function isAddress(name: string): boolean {
  return /^\d{1,3}(\.\d{1,3}){3}$/.test(name) || /^\[[0-9a-f:.]+\]$/.test(name) || name === "";
}

function foreign(): FiscalError {
  return new FiscalError(
    "request/foreign",
    "This request comes from another site, or to a name this server does not have. Set FISCALON_HOSTS to the names it is reached by.",
  );
}
