import { mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { startProcess } from "./support/process.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const fixture = (name: string) => readFileSync(new URL(`../../e2e/fixtures/${name}`, import.meta.url));

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Report {
  rows: number;
  fresh: number;
  alreadyThere: number;
  problemCount: number;
  problems: { row: number; field: string }[];
  notices: { message: string }[];
}

const documentsOf = async (base: string, on: TestServer = server) =>
  (await on.ok<{ total: number }>("GET", `${base}/documents?limit=1`)).total;

/** Recognise, choose codes for untaxed rows, check. */
async function received(base: string, name: string, direction: "sale" | "purchase", settings: object = {}) {
  const { body } = await server.upload(`${base}/imports?direction=${direction}`, name, fixture(name));
  const path = `${base}/imports/${body.id}`;
  await server.ok("PUT", `${path}/settings`, { codeForBlank: "Z", codeForZero: "EX", ...settings });
  const { result } = await server.job(`${path}/check`);
  return { path, report: result as unknown as Report };
}

describe("a register with realistic dirt", () => {
  test("is checked, mended, posted once, not twice, and undone", async () => {
    const { base } = await newClient(server);
    const { path, report } = await received(base, "sales-register.csv", "sale");
    expect(report.problems.map((one) => [one.row, one.field])).toEqual([
      [66, "date"],
      [145, "date"],
      [227, "tax"],
      [265, "number"],
      [305, "gross"],
      [345, "number"],
    ]);
    const refused = await server.job(`${path}/post`);
    expect([refused.state, refused.error?.code, await documentsOf(base)]).toEqual([
      "failed",
      "imports/problems",
      0,
    ]);

    await server.ok("PUT", `${path}/settings`, { leftOut: report.problems.map((one) => one.row) });
    const posted = await server.job(`${path}/post`);
    const { fresh, rows } = posted.result as unknown as Report;
    expect([posted.state, rows, await documentsOf(base)]).toEqual(["done", 394, fresh]);

    const again = await received(base, "sales-register.csv", "sale", {
      leftOut: report.problems.map((one) => one.row),
    });
    expect([again.report.fresh, again.report.alreadyThere]).toEqual([0, fresh]);
    await server.job(`${again.path}/post`);
    expect(await documentsOf(base)).toBe(fresh);

    expect((await server.job(`${path}/undo`)).state).toBe("done");
    expect(await documentsOf(base)).toBe(0);
    const balance = await server.ok<{ closing: number }[]>(
      "GET",
      `${base}/trial-balance?from=2026-04-01&to=2026-06-30`,
    );
    expect(balance.every((row) => row.closing === 0)).toBe(true);
    // And it can be posted again, as it was.
    expect((await server.job(`${path}/post`)).state).toBe("done");
    expect(await documentsOf(base)).toBe(fresh);
  });

  /** Independent recomputation: the printed columns summed here, straight from the file. */
  test("gives the boxes that the printed columns add up to", async () => {
    const { base, registration } = await newClient(server);
    const text = fixture("purchase-register.csv").toString("utf8").replace("\ufeff", "");
    const { path, report } = await received(base, "purchase-register.csv", "purchase");
    const leftOut = report.problems.map((one) => one.row);
    await server.ok("PUT", `${path}/settings`, { leftOut });
    expect((await server.job(`${path}/post`)).state).toBe("done");
    const rows = text
      .trim()
      .split("\r\n")
      .map((line) => line.split(";"))
      .filter((_, index) => index > 0 && index < 301 && !leftOut.includes(index + 1));
    const sum = (column: number) =>
      rows.reduce((total, row) => total + Math.round(Number(row[column] || 0) * 100), 0);
    const { boxes } = await server.ok<{ boxes: { id: string; exact: string }[] }>(
      "GET",
      `${registration}/returns?from=2026-04-01&to=2026-06-30`,
    );
    const exact = (id: string) => Math.round(Number(boxes.find((box) => box.id === id)?.exact) * 100);
    expect([exact("4"), exact("7")]).toEqual([sum(6), sum(5)]);
  });
});

describe("what cannot be taken in", () => {
  test.each([
    ["workbook.xlsx", Buffer.from("PK\u0003\u0004 rest of a zip"), "imports/workbook"],
    ["letter.csv", Buffer.from("Dear Sir,\nplease find nothing.\n"), "formats/not-a-table"],
    ["empty.csv", Buffer.from(""), "formats/empty-file"],
    ["headless.csv", Buffer.from("1,2,3,4\n5,6,7,8\n"), "formats/no-header"],
  ])("the file %s is refused in words, and nothing is kept", async (name, content, code) => {
    const { base } = await newClient(server);
    const { status, body } = await server.upload(`${base}/imports?direction=sale`, name, content);
    expect([status, body.error?.code]).toEqual([422, code]);
    expect(await server.ok("GET", `${base}/imports`)).toEqual({ total: 0, rows: [] });
  });

  test.each([
    [
      { kind: "sales-invoice", date: "2026-02-30", lines: [{ amount: "1.00" }] },
      400,
      "request/invalid",
      "date",
    ],
    [{ kind: "sales-invoice", date: "2026-05-01", lines: [] }, 400, "request/invalid", "lines"],
    [{ kind: "barter", date: "2026-05-01", lines: [{ amount: "1.00" }] }, 400, "request/invalid", "kind"],
    [
      { kind: "sales-invoice", date: "2026-05-01", lines: [{ amount: "1.005", code: "S20" }] },
      422,
      "money/too-precise",
      "lines[0].amount",
    ],
    [
      { kind: "sales-invoice", date: "2026-05-01", lines: [{ amount: "1.00", code: "RCS" }] },
      422,
      "tax/code-wrong-side",
      "lines[0].code",
    ],
    [
      { kind: "purchase-bill", date: "2026-05-01", lines: [{ amount: "1.00" }] },
      422,
      "document/no-number",
      "number",
    ],
    [
      { kind: "journal", date: "2026-05-01", lines: [{ amount: "1.00", account: "1000" }] },
      422,
      "ledger/unbalanced",
      "lines",
    ],
    ["{ not json", 400, "request/not-json", undefined],
  ])("the body %j is refused with the field, and changes nothing", async (body, status, code, field) => {
    const { base } = await newClient(server);
    const answer = await server.call<{ error: { code: string; field?: string; message: string } }>(
      "POST",
      `${base}/documents`,
      body,
    );
    expect([answer.status, answer.body.error.code, answer.body.error.field]).toEqual([status, code, field]);
    expect(answer.body.error.message.length).toBeGreaterThan(10);
    expect(await documentsOf(base)).toBe(0);
  });
});

describe("what changes between the dry run and posting", () => {
  const csv = "Invoice No,Date,Customer,Net,VAT,Gross\nCH-1,2026-05-11,Oxbow,100.00,20.00,120.00\n";
  const checked = async (base: string) => {
    const { body } = await server.upload(`${base}/imports?direction=sale`, "change.csv", csv);
    const path = `${base}/imports/${body.id}`;
    await server.job(`${path}/check`);
    return path;
  };

  test("a number that was used meanwhile is a problem; nothing is posted", async () => {
    const { base } = await newClient(server);
    const path = await checked(base);
    await server.ok("POST", `${base}/documents`, {
      ...(document("sales-invoice", "2026-05-12", [{ amount: "1.00", code: "S20" }]) as object),
      number: "CH-1",
    });
    const refused = await server.job(`${path}/post`);
    expect([refused.error?.code, await documentsOf(base)]).toEqual(["imports/problems", 1]);
  });

  test("contacts and documents of others stay theirs: rows that were staged follow behind them", async () => {
    const { base } = await newClient(server);
    const path = await checked(base);
    const { id: contact } = await server.ok<{ id: number }>("POST", `${base}/contacts`, { name: "Alder" });
    await server.ok("POST", `${base}/documents`, {
      ...(document("sales-invoice", "2026-05-12", [{ amount: "1.00", code: "S20" }]) as object),
      contact,
    });
    await server.job(`${path}/post`);
    const { rows } = await server.ok<{ rows: { number: string; party: string; gross: number }[] }>(
      "GET",
      `${base}/documents?limit=10`,
    );
    expect(rows.map(({ number, party, gross }) => [number === "CH-1", party, gross]).sort()).toEqual([
      [false, "Alder", 1_20],
      [true, "Oxbow", 120_00],
    ]);
  });

  test("what a killed process left of its rows is never taken for them; what was posted leaves nothing", async () => {
    const { base, id } = await newClient(server);
    const path = await checked(base);
    const folder = join(server.dataDir, "clients", String(id), "staging");
    const [staged = ""] = readdirSync(folder);
    const left = `${staged}.left.part`;
    const whole = readFileSync(join(folder, staged));
    rmSync(join(folder, staged));
    writeFileSync(join(folder, left), whole.subarray(0, whole.length / 2));
    expect((await server.job(`${path}/post`)).state).toBe("done");
    expect([await documentsOf(base), readdirSync(folder)]).toEqual([1, [left]]);
    const long = new Date(Date.now() - 2 * 3_600_000);
    utimesSync(join(folder, left), long, long);
    await checked(base);
    expect(readdirSync(folder)).not.toContain(left);
  });

  test("two who check and post the same at once post it once", async () => {
    const { base } = await newClient(server);
    const rows = Array.from({ length: 600 }, (_, n) => `TW-${n},2026-05-11,Party ${n % 9},10.00,2.00,12.00`);
    const text = ["Invoice No,Date,Customer,Net,VAT,Gross", ...rows].join("\n");
    const { body } = await server.upload(`${base}/imports?direction=sale`, "two.csv", text);
    const path = `${base}/imports/${body.id}`;
    const states = async (step: string) =>
      (await Promise.all([1, 2].map(() => server.job(`${path}/${step}`)))).map(({ state }) => state);
    expect(await states("check")).toEqual(["done", "done"]);
    expect((await states("post")).sort()).toEqual(["done", "failed"]);
    const { total } = await server.ok<{ total: number }>("GET", `${base}/contacts?limit=1`);
    expect([await documentsOf(base), total]).toEqual([600, 9]);
  });

  test("a rate corrected meanwhile is the one that is posted", async () => {
    const { base, registration } = await newClient(server);
    const { body } = await server.upload(
      `${base}/imports?direction=sale`,
      "rate.csv",
      "Invoice No,Date,Customer,Net,Gross,Code\nRA-1,2026-05-11,Oxbow,100.00,,S20\n",
    );
    const path = `${base}/imports/${body.id}`;
    await server.job(`${path}/check`);
    const change = { kind: "rate", pack: "gb", source: "invented for this test", schedule: "gb.STD" };
    const put = { ...change, from: "2026-05-01", to: null, rate: "25" };
    await server.ok("POST", "/law", { change: put });
    await server.job(`${path}/post`);
    const boxes = await server.ok<{ boxes: { id: string; amount: number }[] }>(
      "GET",
      `${registration}/returns/2026-06-30`,
    );
    expect(boxes.boxes.find(({ id }) => id === "1")?.amount).toBe(25_00);
    for (const { id } of await server.ok<{ id: number }[]>("GET", "/law"))
      await server.ok("DELETE", `/law/${id}`);
  });

  test("a period sealed meanwhile makes a late item of what is posted after it", async () => {
    const { base, registration } = await newClient(server);
    const path = await checked(base);
    const before = `${registration}/returns/2026-06-30`;
    await server.ok("POST", `${before}/seal`);
    const { result } = await server.job(`${path}/post`);
    expect(result).toMatchObject({ fresh: 1, late: 1 });
    const boxes = await server.ok<{ boxes: { id: string; amount: number }[] }>(
      "GET",
      `${registration}/returns/2026-09-30`,
    );
    expect(boxes.boxes.find(({ id }) => id === "1")?.amount).toBe(20_00);
  });
});

test("killing the server in the middle of an import leaves nothing half done", async () => {
  const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-kill-"));
  const register = ["Invoice No,Date,Customer,Net,VAT,Gross"];
  for (let n = 0; n < 30_000; n += 1)
    register.push(
      `K${n},${String(1 + (n % 28)).padStart(2, "0")}/05/2026,Customer ${n % 90},100.00,20.00,120.00`,
    );

  let { child, client } = await startProcess(dataDir);
  const { base, registration } = await newClient(client);
  const { body } = await client.upload(`${base}/imports?direction=sale`, "long.csv", register.join("\n"));
  const path = `${base}/imports/${body.id}`;
  const job = await client.ok<{ id: number }>("POST", `${path}/post`);
  await reached(client, job.id, "posting documents");
  child.kill("SIGKILL");
  await new Promise((gone) => child.once("exit", gone));

  ({ child, client } = await startProcess(dataDir));
  expect(await documentsOf(base, client)).toBe(0);
  expect(await client.ok("GET", `/jobs/${job.id}`)).toMatchObject({
    state: "failed",
    error: { code: "jobs/interrupted" },
  });
  expect(await client.ok("GET", `${base}/contacts`)).toEqual({ total: 0, rows: [] });
  const posted = await client.job(`${path}/post`);
  expect([posted.state, await documentsOf(base, client)]).toEqual(["done", 30_000]);
  const { boxes } = await client.ok<{ boxes: { amount: string }[] }>(
    "GET",
    `${registration}/returns?from=2026-04-01&to=2026-06-30`,
  );
  expect(boxes[0]?.amount).toBe("600000.00");
  child.kill("SIGTERM");
}, 180_000);

test("an import that is cancelled half way leaves nothing, and can be posted later; progress is told as it goes", async () => {
  const { base } = await newClient(server);
  const rows = Array.from(
    { length: 12_000 },
    (_, n) => `C${n},11/05/2026,Customer ${n % 40},100.00,20.00,120.00`,
  );
  const register = ["Invoice No,Date,Customer,Net,VAT,Gross", ...rows].join("\n");
  const { body } = await server.upload(`${base}/imports?direction=sale`, "long.csv", register);
  const path = `${base}/imports/${body.id}`;
  const job = await server.ok<{ id: number }>("POST", `${path}/post`);
  const events = fetch(`${server.address}/api/jobs/${job.id}/events`).then((answer) => answer.text());
  await reached(server, job.id, "posting documents");
  await server.ok("POST", `/jobs/${job.id}/cancel`);
  const told = (await events).split("\n\n").filter((line) => line.startsWith("data: "));
  const last = JSON.parse(at(told, told.length - 1).slice("data: ".length)) as {
    state: string;
    error: { code: string };
  };
  expect([last.state, last.error.code, told.length > 2]).toEqual(["cancelled", "jobs/cancelled", true]);
  expect(await documentsOf(base)).toBe(0);
  expect(await server.ok("GET", `${base}/contacts`)).toEqual({ total: 0, rows: [] });
  expect(await server.ok<{ state: string }>("GET", path)).not.toMatchObject({ state: "posted" });
  await server.ok("POST", `/jobs/${job.id}/cancel`);
  expect((await server.job(`${path}/post`)).state).toBe("done");
  expect(await documentsOf(base)).toBe(12_000);
}, 120_000);

/** Waits until a job has told of some progress in a step. */
async function reached(client: TestServer, job: number, message: string): Promise<void> {
  for (const until = Date.now() + 60_000; Date.now() < until;) {
    const now = await client.ok<{ message: string; done: number; state: string }>("GET", `/jobs/${job}`);
    if (now.message === message && now.done > 0) return;
    if (now.state !== "running") throw new Error(`the job was ${now.state} before it could be stopped`);
    await new Promise((later) => setTimeout(later, 5));
  }
  throw new Error("the job never got there");
}
