import { at } from "@fiscalon/core/at";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { many, median, ms, pathIn, serving } from "./asking.ts";
import type { Asking } from "./asking.ts";
import { makeLarge } from "./makeLarge.ts";
import { SCREENS } from "./screens.ts";

const RUNS = 6;
const NEIGHBOURS = 299;

/**
 * `npm run bench -- --large`: a practice of 300 clients, one of them with a million tax facts in twenty quarters, asked
 * through HTTP as the pages ask. Each answer when it is worked out first, and what it takes again: medians of five, with
 * the slowest; beside them what others wait meanwhile.
 */
const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-large-"));
const { client, seconds } = await makeLarge(dataDir, NEIGHBOURS);
console.log(`A practice of ${NEIGHBOURS + 1} clients was made in ${seconds.toFixed(0)} s.\n`);
try {
  await serving(dataDir, async (asking) => {
    console.log(`The server answers ${asking.started.toFixed(0)} ms after its start.\n`);
    const { registrations } = await asking.ask<{ registrations: { id: number }[] }>(`/clients/${client}`);
    const rid = at(registrations, 0).id;
    await screens(asking, rid);
    await beside(asking, rid);
    console.log(`\nMost memory the server took: ${asking.peak()} MB.`);
  });
} finally {
  rmSync(dataDir, { recursive: true, force: true });
}

async function screens({ timed }: Asking, rid: number): Promise<void> {
  console.log(
    "| answer, client of 1,000,000 facts | first | again, median | slowest |\n| --- | --- | --- | --- |",
  );
  for (const [what, path] of Object.entries(SCREENS)) {
    const times: number[] = [];
    for (let run = 0; run < RUNS; run += 1) times.push(await timed(pathIn(path, client, rid)));
    const again = times.slice(1);
    console.log(`| ${what} | ${ms(at(times, 0))} | ${ms(median(again))} | ${ms(Math.max(...again))} |`);
  }
}

/** What somebody else waits, idle and while the slowest answer of the large client is worked out. */
async function beside({ timed }: Asking, rid: number): Promise<void> {
  const other = () => timed(`/clients/${client + 1}/documents?limit=100`);
  const same = () => timed(`/clients/${client}/documents?limit=100`);
  const slow = pathIn(SCREENS["return page"] ?? "", client, rid);
  console.log("\n| what others wait | idle | while a return page is worked out |\n| --- | --- | --- |");
  for (const [what, one] of [
    ["first page of documents, another client", other],
    ["first page of documents, the same client", same],
  ] as const) {
    await one();
    const idle = median(await many(one, 20));
    let over = false;
    const running = timed(slow).then(() => (over = true));
    const meanwhile: number[] = [];
    while (!over) meanwhile.push(await one());
    await running;
    console.log(`| ${what} | ${ms(idle)} | ${ms(median(meanwhile))} |`);
  }
}
