import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test, vi } from "vitest";
import { at } from "@fiscalon/core/at";
import { expectKeptSums } from "./support/keptSums.ts";
import { expectWholeDatabase, inBooks, inPractice } from "./support/sound.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const ROWS = 20_000;
const FOUR = ["BEFORE-1", "BEFORE-2", "BEFORE-3", "BEFORE-4"];

let server: TestServer;
let base: string;
/** The sign that somebody waits to write in these books. */
let wanted: string;
beforeAll(async () => {
  server = await startServer();
  ({ base } = await newClient(server));
  const { folder } = at(
    await inPractice<{ folder: string }>(server, "SELECT folder FROM clients ORDER BY id DESC LIMIT 1"),
    0,
  );
  wanted = join(server.dataDir, folder, "books.sqlite-wanted");
});
afterAll(() => server.close());

/** Starts a job, saves each bill once it has written something anew, and waits for its end. */
async function savedDuring(path: string, writing: string, numbers: readonly string[]): Promise<void> {
  const job = await server.ok<{ id: number }>("POST", path);
  const view = () => server.ok<{ state: string; message: string; done: number }>("GET", `/jobs/${job.id}`);
  const written = async () => {
    const { message, done } = await view();
    expect([message, done > 0]).toEqual([writing, true]);
  };
  for (const number of numbers) {
    await vi.waitFor(written, { timeout: 60_000, interval: 10 });
    // As whoever waits says: on a busy machine the job is done before the bill is even received.
    writeFileSync(wanted, "");
    const bill = document("purchase-bill", "2026-05-12", [{ amount: "50.00", code: "S20" }], { number });
    await server.ok("POST", `${base}/documents`, bill);
    rmSync(wanted, { force: true });
  }
  const ended = async () => expect((await view()).state).toBe("done");
  await vi.waitFor(ended, { timeout: 120_000, interval: 100 });
}

/** What the audit trail says was done since, in order. */
async function doneSince(change: number): Promise<string[]> {
  const rows = await inBooks<{ did: string }>(
    server,
    `SELECT action || ' ' || entity AS did FROM changes WHERE id > ${change} ORDER BY id`,
  );
  return rows.map(({ did }) => did);
}

async function lastChange(): Promise<number> {
  return at(await inBooks<{ id: number }>(server, "SELECT max(id) AS id FROM changes"), 0).id;
}

test("who saves a bill goes before a long register that is being posted, and before one that is taken out again", async () => {
  const rows = Array.from(
    { length: ROWS },
    (_, n) => `R-${n},03/05/2026,Customer ${n % 90},10.00,2.00,12.00`,
  );
  const text = ["Invoice No,Date,Customer,Net,VAT,Gross", ...rows].join("\n");
  const { body } = await server.upload(`${base}/imports?direction=sale`, "register.csv", text);
  const path = `${base}/imports/${body.id}`;
  await server.job(`${path}/check`);
  const count = async () => {
    const found = await inBooks<{ kind: string; count: number }>(
      server,
      "SELECT kind, count(*) AS count FROM documents WHERE state = 'posted' GROUP BY 1 ORDER BY 1",
    );
    return Object.fromEntries(found.map(({ kind, count }) => [kind, count]));
  };

  const checked = await lastChange();
  await savedDuring(`${path}/post`, "posting documents", FOUR);
  expect(await doneSince(checked)).toEqual([...FOUR.map(() => "post document"), "post import"]);
  expect(await count()).toEqual({ "purchase-bill": 4, "sales-invoice": ROWS });

  const posted = await lastChange();
  await savedDuring(`${path}/undo`, "taking documents out", ["BEFORE-5"]);
  expect(await doneSince(posted)).toEqual(["post document", "undo import"]);
  expect(await count()).toEqual({ "purchase-bill": 5 });

  await expectWholeDatabase(server);
  await expectKeptSums(server);
});
