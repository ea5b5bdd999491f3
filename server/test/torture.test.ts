import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import fc from "fast-check";
import { afterAll, beforeAll, expect, test, vi } from "vitest";
import { kill, startProcess } from "./support/process.ts";
import { expectKeptSums } from "./support/keptSums.ts";
import { expectWholeDatabase, inBooks, inPractice } from "./support/sound.ts";
import { document, newClient, nextVatNumber } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

/** `npm run torture` asks for a thousand. */
const KILLS = Number(process.env["FISCALON_KILLS"] ?? 60);
/** The power goes after at most so many postings' time, as long as one takes on this machine. */
const LONGEST_POSTINGS = 40;
const BACKUP = fileURLToPath(new URL("../dist/across/backup/backupCommand.js", import.meta.url));
const END = "2026-03-31";
const QUARTER = "2026-06-30";

let dataDir: string;
let backups: string;
let running: Awaited<ReturnType<typeof startProcess>>;
let base: string;
let registration: string;
/** What one posting takes here where nothing else holds it up, in milliseconds. */
let posting = Number.POSITIVE_INFINITY;
beforeAll(async () => {
  dataDir = mkdtempSync(join(tmpdir(), "fiscalon-torture-"));
  backups = mkdtempSync(join(tmpdir(), "fiscalon-torture-backups-"));
  running = await startProcess(dataDir);
  ({ base, registration } = await newClient(running.client));
  for (const warm of [1, 2, 3, 4]) {
    const before = performance.now();
    await running.client.ok(
      "POST",
      `${base}/documents`,
      document("sales-invoice", "2026-05-11", [{ amount: "10.00", code: "S20" }], { number: `W-${warm}` }),
    );
    posting = Math.min(posting, performance.now() - before);
  }
});
afterAll(async () => {
  await kill(running.child);
  for (const folder of [dataDir, backups]) rmSync(folder, { recursive: true, force: true });
});

/** What was acknowledged, which every later start must still have. */
const acknowledged = { documents: new Set<string>(), clients: new Set<string>(), filed: new Set<string>() };

type Act = (server: TestServer, round: number) => Promise<void>;

/** What people do when the power goes. Each ends by itself, or with the server. */
const ACTS: Readonly<Record<string, Act>> = {
  posting: async (server, round) => {
    for (let n = 0; ; n += 1) {
      const number = `T-${round}-${n}`;
      const invoice = document("sales-invoice", "2026-05-11", [{ amount: "10.00", code: "S20" }], { number });
      const { status } = await server.call("POST", `${base}/documents`, invoice);
      if (status === 201) acknowledged.documents.add(number);
    }
  },
  paying: async (server, round) => {
    const number = `P-${round}`;
    const bill = document("purchase-bill", "2026-05-12", [{ amount: "50.00", code: "S20" }], { number });
    const { id } = await server.ok<{ id: number }>("POST", `${base}/documents`, bill);
    acknowledged.documents.add(number);
    for (let n = 0; n < 20; n += 1)
      await server.call("POST", `${base}/payments`, {
        kind: "payment",
        date: "2026-05-20",
        amount: "1.00",
        allocations: [{ document: id, amount: "1.00" }],
      });
  },
  importing: async (server, round) => {
    const rows = Array.from(
      { length: 400 },
      (_, n) => `I-${round}-${n},03/05/2026,Customer ${n % 9},10.00,2.00,12.00`,
    );
    const text = ["Invoice No,Date,Customer,Net,VAT,Gross", ...rows].join("\n");
    const { body } = await server.upload(`${base}/imports?direction=sale`, `r${round}.csv`, text);
    await server.job(`${base}/imports/${body.id}/check`);
    await server.job(`${base}/imports/${body.id}/post`);
  },
  opening: async (server, round) => {
    const name = `Brought ${round}`;
    const documents = Array.from({ length: 260 }, (_, n) => ({
      kind: "sales-invoice",
      number: `B-${n}`,
      date: "2026-05-01",
      lines: [{ amount: "5.00", code: "S20" }],
    }));
    const book = {
      format: "fiscalon-book",
      version: 1,
      client: { name, country: "GB" },
      registrations: [
        {
          id: "r1",
          pack: "gb",
          number: "GB123456782",
          from: "2026-01-01",
          frequency: "quarterly",
          basis: "accrual",
        },
      ],
      documents,
    };
    const { status, body } = await server.call<{ job: { id: number } }>("POST", "/books", book);
    expect(status).toBe(202);
    for (;;) {
      const { state } = await server.ok<{ state: string }>("GET", `/jobs/${body.job.id}`);
      if (state === "done") acknowledged.clients.add(name);
      if (state !== "running") return;
    }
  },
  closing: async (server, round) => {
    const own = await newClient(server, {
      name: `Closing ${round}`,
      country: "GB",
      registration: {
        pack: "gb",
        number: nextVatNumber(),
        from: "2025-10-01",
        frequency: "quarterly",
        basis: "accrual",
      },
    });
    acknowledged.clients.add(`Closing ${round}`);
    const invoice = document("sales-invoice", "2026-02-11", [{ amount: "100.00", code: "S20" }], {
      number: "C-1",
    });
    await server.ok("POST", `${own.base}/documents`, invoice);
    const path = `${own.registration}/returns/${END}`;
    const { findings } = await server.ok<{ findings: { key: string }[] }>("GET", path);
    for (const { key } of findings)
      await server.ok("POST", `${path}/acceptances`, { key, reason: "looked at" });
    await server.ok("POST", `${path}/seal`);
    await server.ok("POST", `${path}/file`, { declared: true });
    acknowledged.filed.add(path);
    await server.ok("POST", `${own.registration}/settlements/${END}`);
  },
  recounting: async (server, round) => {
    const { status } = await server.call("PUT", registration, { changes: round % 2 === 0 ? MONTHLY : [] });
    expect(status).toBe(200);
  },
  copying: async () => {
    const child = spawn(process.execPath, [BACKUP, backups, "3"], {
      env: { ...process.env, FISCALON_DATA: dataDir },
      stdio: "ignore",
    });
    copier = child;
    await new Promise((ended) => child.once("exit", ended));
  },
};
/** Then every document of May is on the return of May, and otherwise on that of the quarter. */
const MONTHLY = [{ from: "2026-04-01", frequency: "monthly", anchor: "2026-04-30" }];
let copier: ReturnType<typeof spawn> | undefined;

/** What fetch says when the server dies under it, and what a helper says of an answer that never came. */
function diedUnderIt(error: unknown): boolean {
  return error instanceof TypeError && /fetch failed|terminated/.test(error.message);
}

/** What each kind of acknowledgement comes from. */
const KEEPING: readonly (readonly [act: string, kept: ReadonlySet<string>])[] = [
  ["posting", acknowledged.documents],
  ["closing", acknowledged.filed],
  ["closing", acknowledged.clients],
];

/** Pulls the plug on what people do after a while, starts again, and looks at everything. */
async function killedOver(
  acts: readonly string[],
  round: number,
  wait: () => Promise<unknown>,
): Promise<void> {
  const people = Promise.allSettled(acts.map((name) => ACTS[name]?.(running.client, round)));
  await wait();
  copier?.kill("SIGKILL");
  await kill(running.child);
  for (const result of await people)
    if (result.status === "rejected" && !diedUnderIt(result.reason)) throw result.reason;
  running = await startProcess(dataDir);
  await expectInvariants(running.client);
}

/** Books nobody wrote to since this moment are as they were when they were looked at. */
let lookedAt = 0;
/** What the clock of files may be off. */
const CLOCK_MS = 5000;

async function expectInvariants(server: TestServer): Promise<void> {
  const begun = Date.now();
  await expectWholeDatabase(server, lookedAt);
  await expectKeptSums(server, lookedAt);
  lookedAt = begun - CLOCK_MS;
  // A register is posted whole or not at all.
  const imports = await inBooks<{ state: string; expected: number; there: number }>(
    server,
    `SELECT i.state, i.documents AS expected, (SELECT count(*) FROM documents d WHERE d.import_id = i.id) AS there FROM imports i`,
  );
  for (const { state, expected, there } of imports)
    expect([state, there]).toEqual([state, state === "posted" ? expected : 0]);
  // After another rhythm every document follows, or none.
  const rhythms = await inBooks<{ changes: string; end: string }>(
    server,
    `SELECT DISTINCT r.changes, f.period_end AS "end" FROM registrations r JOIN facts f ON f.registration_id = r.id
     WHERE f.live = 1 AND f.tax_point BETWEEN '2026-05-01' AND '2026-05-31'`,
  );
  for (const { changes, end } of rhythms)
    expect([changes, end]).toEqual([changes, changes === "[]" ? QUARTER : "2026-05-31"]);
  // A book is there with everything, or nothing of it is.
  const clients = await server.ok<{ id: number; name: string; documents: number }[]>("GET", "/clients");
  for (const { name, documents } of clients)
    if (name.startsWith("Brought")) expect([name, documents]).toEqual([name, 260]);
  const names = new Set(clients.map(({ name }) => name));
  for (const name of acknowledged.clients) expect(names).toContain(name);
  expect(readdirSync(join(dataDir, "clients"))).toHaveLength(clients.length);
  // No job says that it runs when nothing does.
  expect(await inPractice(server, "SELECT id FROM jobs WHERE state IN ('waiting', 'running')")).toEqual([]);
  // What was answered is there.
  const numbers = await inBooks<{ number: string }>(server, "SELECT number FROM documents");
  const there = new Set(numbers.map(({ number }) => number));
  for (const number of acknowledged.documents) expect(there).toContain(number);
  for (const path of acknowledged.filed) {
    const { state } = await server.ok<{ state: string }>("GET", path);
    expect(["filed", "settled"]).toContain(state);
  }
  // A copy that has its name is whole: it got it last.
  for (const copy of readdirSync(backups))
    if (!copy.endsWith(".unfinished")) expect(existsSync(join(backups, copy, "backup.json"))).toBe(true);
}

test(
  `killed ${KILLS} times over whatever people do, every start finds all that was acknowledged and nothing half done`,
  async () => {
    const rounds = fc.sample(
      fc.record({
        acts: fc.uniqueArray(fc.constantFrom(...Object.keys(ACTS)), { minLength: 1, maxLength: 3 }),
        postings: fc.double({ min: 0.2, max: LONGEST_POSTINGS, noNaN: true }),
      }),
      { seed: Number(process.env["FISCALON_SEED"] ?? 5), numRuns: KILLS },
    );
    for (const [round, { acts, postings }] of rounds.entries()) {
      await killedOver(acts, round, () => new Promise((later) => setTimeout(later, postings * posting)));
      if ((round + 1) % 100 === 0) process.stdout.write(`${round + 1} of ${KILLS} kills\n`);
    }
    // On the slowest machine something is kept of each kind; else nothing was proved.
    for (const [act, kept] of KEEPING)
      if (kept.size === 0)
        await killedOver([act], KILLS, () =>
          vi.waitFor(() => expect(kept.size).toBeGreaterThan(0), { timeout: 90_000 }),
        );
  },
  KILLS * 20_000 + 300_000,
);
