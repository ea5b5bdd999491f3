import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { buffer } from "node:stream/consumers";
import { setImmediate } from "node:timers/promises";
import { unzipSync } from "fflate";
import { afterAll, expect, test } from "vitest";
import { benchBooks } from "../dist/bench/benchBooks.js";
import { csvSet } from "../dist/features/exports/csvSet.js";

const folder = mkdtempSync(join(tmpdir(), "fiscalon-csv-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** More turns of the event loop than a set without documents takes. */
const TURNS = 120;

test("whoever leaves at any moment leaves no transaction behind, and the next one gets all files", async () => {
  const { work, clientId, end } = await benchBooks(folder, "Left");
  const span = ["2020-01-01", "2030-12-31"] as const;
  for (let turns = 0; turns < TURNS; turns += 1) {
    const stream = await csvSet(work, clientId, ...span);
    stream.on("error", () => undefined);
    stream.resume();
    for (let turn = 0; turn < turns; turn += 1) await setImmediate();
    stream.destroy();
  }
  const files = unzipSync(new Uint8Array(await buffer(await csvSet(work, clientId, ...span))));
  expect(Object.keys(files)).toEqual(
    ["accounts", "contacts", "items", "documents", "lines", "payments", "postings", "tax-facts"].map(
      (name) => `${name}.csv`,
    ),
  );
  await end();
  expect(readdirSync(join(folder, "clients", String(clientId)))).toEqual(["books.sqlite"]);
});
