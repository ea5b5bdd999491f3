import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { createClient } from "../dist/books/createClient.js";
import { loadSetup } from "../dist/books/loadSetup.js";
import { at } from "@fiscalon/core/at";
import { periodTiles } from "../dist/books/returns/periods.js";
import { clockTrouble } from "../dist/features/clock/clockTrouble.js";
import { postByItself, templateViews } from "../dist/features/templates/service.js";
import { Practice } from "../dist/practice/practice.js";
import type { Work } from "../dist/base/work.js";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-days-"));
let practice: Practice;
let server: TestServer;
beforeAll(async () => {
  practice = await Practice.open(dataDir, "Test person");
  server = await startServer();
});
afterAll(async () => {
  await practice.close();
  await server.close();
  rmSync(dataDir, { recursive: true, force: true });
});

/** Work on a client of a country and region at a moment. */
async function onClientAt<T>(
  country: string,
  region: string,
  moment: string,
  run: (work: Work, client: number) => Promise<T>,
) {
  const registration = {
    pack: "au",
    from: "2026-01-01",
    to: null,
    frequency: "quarterly",
    basis: "accrual",
  } as const;
  const { client } = await practice.make(await practice.begin(), {
    name: `${country} ${region} ${moment}`,
    fill: (work, id) =>
      createClient(work, id, {
        name: "Days",
        country,
        place: { name: "Shop", country, region },
        registration,
      }),
  });
  return practice.onClient(client, (work) => run(work, client), { at: moment });
}

test("the period ends at the client's place, wherever the server stands", async () => {
  const stateAt = (region: string) =>
    onClientAt("AU", region, "2026-03-31T14:30:00.000Z", async (work, client) => {
      const r = at((await loadSetup(work, client)).registrations, 0);
      const first = at(await periodTiles(work, r), 0);
      return [work.today, work.zone, first.to];
    });
  expect(await stateAt("NSW")).toEqual(["2026-04-01", "Australia/Sydney", "2026-03-31"]);
  expect(await stateAt("WA")).toEqual(["2026-03-31", "Australia/Perth", "2026-03-31"]);
});

test("a clock that went back behind what was recorded is told, in words", async () => {
  const said = await onClientAt("AU", "NSW", "2026-05-01T00:00:00.000Z", async (work) => {
    await work
      .begun({ at: "2026-05-03T10:12:00.000Z" })
      .write((writing) => writing.record({ action: "change", entity: "client", id: 1, after: {} }));
    return [await clockTrouble(work), await clockTrouble(work.begun({ at: "2026-05-03T10:11:00.000Z" }))];
  });
  expect(said).toEqual([
    "Something was recorded on 3 May 2026 at 10:12 UTC, and by the clock of this machine it is only 1 May 2026 at 00:00 UTC. Put the clock right before anything is sealed or filed.",
    null,
  ]);
});

test("a document dated far away needs a reason, which is kept; a payment is never of 1900", async () => {
  const { base } = await newClient(server);
  const far = document("journal", "1962-05-11", [
    { amount: "10.00", account: "4000" },
    { amount: "-10.00", account: "4000" },
  ]);
  const refused = await server.call<{ error: { code: string; field: string } }>(
    "POST",
    `${base}/documents`,
    far,
  );
  expect([refused.status, refused.body.error.code, refused.body.error.field]).toEqual([
    422,
    "document/far-date",
    "date",
  ]);
  await server.ok("POST", `${base}/documents`, { ...far, farReason: "the founders' first entry" });
  const changes = await server.ok<{ after: { farReason?: string } }[]>(
    "GET",
    `${base}/changes?entity=document`,
  );
  expect(at(changes, 0).after.farReason).toBe("the founders' first entry");
  const payment = { kind: "receipt", date: "1900-01-02", amount: "10.00", allocations: [] };
  const never = await server.call<{ error: { code: string } }>("POST", `${base}/payments`, payment);
  expect(never.body.error.code).toBe("payment/far-date");
  // A register with a year mistyped says so at its row, and nothing is posted.
  const text = "Invoice No,Date,Customer,Net,VAT,Gross\nF-1,03/05/2062,Mill,10.00,2.00,12.00";
  const { body } = await server.upload(`${base}/imports?direction=sale`, "far.csv", text);
  const { result } = await server.job(`${base}/imports/${body.id}/check`);
  expect(result).toMatchObject({ problemCount: 1, problems: [{ field: "date", value: "2062-05-03" }] });
});

test("what recurs by itself and fell due long ago is asked about, not posted", async () => {
  const asked = await onClientAt("AU", "NSW", "2026-11-30T00:00:00.000Z", async (work, client) => {
    await work.write((writing) =>
      writing.run(
        `INSERT INTO templates (client_id, name, kind, body, every, begins, next_on, by_itself, created_at, created_by)
         VALUES ($3, 'Rent', 'journal', $1, 'monthly', '2026-02-01', '2026-02-01', 1, $2, 1)`,
        [
          JSON.stringify({
            kind: "journal",
            date: "2026-02-01",
            lines: [
              { amount: "5.00", account: "4000" },
              { amount: "-5.00", account: "4000" },
            ],
          }),
          work.at,
          client,
        ],
      ),
    );
    await postByItself(work, client, at(await templateViews(work, client), 0).id);
    const { problem, due } = at(await templateViews(work, client), 0);
    return [problem, due.length];
  });
  expect(asked).toEqual([expect.stringMatching(/^10 fell due since 1 Feb 2026/), 10]);
});
