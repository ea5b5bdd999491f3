import { afterAll, beforeAll, expect, test, vi } from "vitest";
import type { JobView, TouchedDocuments } from "@fiscalon/contract/views";
import type { LawChangeRow } from "@fiscalon/contract/law";
import { expectKeptSums } from "./support/keptSums.ts";
import { expectWholeDatabase, inBooks } from "./support/sound.ts";
import { newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

/** More than are worked out anew while somebody waits. */
const ROWS = 1_200;
const RATES = [
  { from: "2011-01-04", to: "2026-04-30", rate: "20", source: "drawn" },
  { from: "2026-05-01", to: null, rate: "22", source: "drawn" },
];

let server: TestServer;
let base: string;
let registration: string;
beforeAll(async () => {
  server = await startServer();
  ({ base, registration } = await newClient(server));
  const rows = Array.from(
    { length: ROWS },
    (_, n) =>
      `L-${n},${String((n % 28) + 1).padStart(2, "0")}/0${(n % 3) + 4}/2026,Customer ${n % 9},10.00,2.00,12.00`,
  );
  const text = ["Invoice No,Date,Customer,Net,VAT,Gross", ...rows].join("\n");
  const { body } = await server.upload(`${base}/imports?direction=sale`, "register.csv", text);
  for (const step of ["check", "post"]) await server.job(`${base}/imports/${body.id}/${step}`);
});
afterAll(() => server.close());

/** A change that is answered with a job, and how that ends. */
async function asJob(method: string, path: string, body?: unknown): Promise<JobView> {
  const response = await fetch(`${server.address}/api${path}`, {
    method,
    ...(body === undefined
      ? {}
      : { body: JSON.stringify(body), headers: { "content-type": "application/json" } }),
  });
  const { id } = (await response.json()) as JobView;
  expect([response.status, response.headers.get("location")]).toEqual([202, `/api/jobs/${id}`]);
  return vi.waitFor(
    async () => {
      const job = await server.ok<JobView>("GET", `/jobs/${id}`);
      expect(["waiting", "running"]).not.toContain(job.state);
      return job;
    },
    { timeout: 60_000, interval: 50 },
  );
}

const sums = () =>
  inBooks<{ end: string; count: number; tax: number }>(
    server,
    `SELECT period_end AS "end", count(*) AS count, sum(tax) AS tax FROM facts WHERE live = 1 GROUP BY 1 ORDER BY 1`,
  );
const AT_20 = [{ end: "2026-06-30", count: ROWS, tax: ROWS * 200 }];
/** A third of them in April bears 20 %, the others 22 %. */
const AT_22 = [{ end: "2026-06-30", count: ROWS, tax: 400 * 200 + 800 * 220 }];

test("the law of the practice, and back", async () => {
  const of = (rate: number) => [{ end: "2026-06-30", count: ROWS, tax: ROWS * 10 * rate }];
  expect(await sums()).toEqual(of(20));
  const change = { kind: "rate", pack: "gb", schedule: "gb.STD", from: "2026-04-01", to: null, rate: "21" };
  const added = await asJob("POST", "/law", { change: { ...change, source: "drawn" } });
  expect([added.state, added.result]).toMatchObject(["done", [{ change }]]);
  expect(await sums()).toEqual(of(21));
  const [row] = await server.ok<LawChangeRow[]>("GET", "/law");
  const taken = await asJob("DELETE", `/law/${row?.id}`);
  expect([taken.state, taken.result]).toEqual(["done", []]);
  expect(await sums()).toEqual(of(20));
});

test("rates that move many documents: a job that ends with the answer, all documents or none", async () => {
  expect(await sums()).toEqual(AT_20);
  const path = `${base}/schedules/gb.STD`;
  const told = await server.ok<TouchedDocuments>("POST", `${path}/touched`, { rows: RATES });
  expect(told).toMatchObject({ count: 800, first: { length: 20 } });
  // Fewer than that many are worked out at once.
  expect(await server.ok<TouchedDocuments>("PUT", path, { rows: RATES })).toMatchObject({ count: 800 });
  expect(await sums()).toEqual(AT_22);
  const back = { rows: [{ from: "2011-01-04", to: null, rate: "21", source: "drawn" }] };
  const { state, result } = await asJob("PUT", path, back);
  expect([state, result]).toMatchObject(["done", { count: ROWS, first: { length: 20 } }]);
  expect(await sums()).toEqual([{ end: "2026-06-30", count: ROWS, tax: ROWS * 210 }]);
  await asJob("PUT", path, { rows: [{ from: "2011-01-04", to: null, rate: "20", source: "drawn" }] });
  expect(await sums()).toEqual(AT_20);
});

test("a registration: its number moves no document, another rhythm all of them; what is refused is told with its field", async () => {
  const { status } = await server.call("PUT", registration, { number: "GB980780684" });
  expect(status).toBe(200);
  const monthly = { changes: [{ from: "2026-04-01", frequency: "monthly", anchor: "2026-04-30" }] };
  const { state, result } = await asJob("PUT", registration, monthly);
  expect(state).toBe("done");
  expect(result).toEqual(await server.ok("GET", base));
  expect((await sums()).map(({ end, count }) => [end, count])).toEqual(
    ["2026-04-30", "2026-05-31", "2026-06-30"].map((end) => [end, ROWS / 3]),
  );
  const refused = await server.call("PUT", registration, { to: "2024-01-01" });
  expect(refused).toMatchObject({
    status: 422,
    body: { error: { code: "registration/dates", field: "to" } },
  });
  await asJob("PUT", registration, { changes: [] });
  expect(await sums()).toEqual(AT_20);
});

test("given up half way it changed nothing", async () => {
  const own = await inBooks<{ count: number }>(server, "SELECT count(*) AS count FROM changes");
  const response = await fetch(`${server.address}/api${registration}`, {
    method: "PUT",
    body: JSON.stringify({ changes: [{ from: "2026-04-01", frequency: "monthly", anchor: "2026-04-30" }] }),
    headers: { "content-type": "application/json" },
  });
  const { id } = (await response.json()) as JobView;
  await server.ok("POST", `/jobs/${id}/cancel`);
  const ended = async () =>
    expect(await server.ok<JobView>("GET", `/jobs/${id}`)).toMatchObject({
      state: "cancelled",
      error: { code: "jobs/cancelled" },
    });
  await vi.waitFor(ended, { timeout: 30_000 });
  expect(await sums()).toEqual(AT_20);
  expect(await inBooks(server, "SELECT count(*) AS count FROM changes")).toEqual(own);

  await expectWholeDatabase(server);
  await expectKeptSums(server);
});
