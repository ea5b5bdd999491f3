import { expect } from "@playwright/test";
import { send } from "./api.ts";
import type { RunningServer } from "./server.ts";

/** A client in Great Britain that declares by the quarter, to try things with. */
export function british(server: RunningServer, name: string, registration: object = {}) {
  return send(server, "POST", "/api/clients", {
    name,
    country: "GB",
    place: { name: "Shop", country: "GB" },
    registration: {
      pack: "gb",
      from: "2026-01-01",
      frequency: "quarterly",
      anchor: "2026-03-31",
      number: "",
      ...registration,
    },
  });
}

/** The books of such a client as a file brings them in, long ones by a job. @returns its number */
export async function britishBook(server: RunningServer, name: string, contents: object): Promise<number> {
  const answer: { id: number; job?: { id: number } } = await send(server, "POST", "/api/books", {
    format: "fiscalon-book",
    version: 1,
    client: { name, country: "GB" },
    registrations: [
      { id: "r1", pack: "gb", number: "", from: "2026-01-01", frequency: "quarterly", basis: "accrual" },
    ],
    ...contents,
  });
  if (!answer.job) return answer.id;
  const path = `${server.address}/api/jobs/${answer.job.id}`;
  const job = async () =>
    (await (await fetch(path)).json()) as { state: string; result: { client: number } | null };
  await expect.poll(async () => (await job()).state, { timeout: 60_000 }).toBe("done");
  return (await job()).result?.client ?? 0;
}
