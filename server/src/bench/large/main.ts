import { spawn } from "node:child_process";
import type { ChildProcess } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { makeLarge } from "./makeLarge.ts";
import { SCREENS } from "./screens.ts";

const PORT = 4690;
const BASE = `http://127.0.0.1:${PORT}/api`;
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
const started = performance.now();
const server = start();
await answering();
console.log(`The server answers ${(performance.now() - started).toFixed(0)} ms after its start.\n`);
try {
  const { registrations } = await ask<{ registrations: { id: number }[] }>(`/clients/${client}`);
  const rid = registrations[0]?.id ?? 0;
  await screens(rid);
  await beside(rid);
  console.log(`\nMost memory the server took: ${peakOf(server)} MB.`);
} finally {
  const ended = new Promise((end) => server.once("exit", end));
  server.kill();
  await ended;
  rmSync(dataDir, { recursive: true, force: true });
}

async function screens(rid: number): Promise<void> {
  console.log(
    "| answer, client of 1,000,000 facts | first | again, median | slowest |\n| --- | --- | --- | --- |",
  );
  for (const [what, path] of Object.entries(SCREENS)) {
    const times: number[] = [];
    for (let run = 0; run < RUNS; run += 1) times.push(await timed(pathOf(path, rid)));
    const [first, ...again] = times;
    console.log(`| ${what} | ${ms(first)} | ${ms(median(again))} | ${ms(Math.max(...again))} |`);
  }
}

/** What somebody else waits, idle and while the slowest answer of the large client is worked out. */
async function beside(rid: number): Promise<void> {
  const other = () => timed(`/clients/${client + 1}/documents?limit=100`);
  const same = () => timed(`/clients/${client}/documents?limit=100`);
  const slow = pathOf(SCREENS["return page"] ?? "", rid);
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

function pathOf(path: string, rid: number): string {
  const filled = path
    .replace("{r}", `/registrations/${rid}`)
    .replaceAll("{rid}", String(rid))
    .replaceAll("{from}", "2026-07-01")
    .replaceAll("{end}", "2026-09-30");
  return `/clients/${client}${filled}`;
}

async function many(one: () => Promise<number>, times: number): Promise<number[]> {
  const all: number[] = [];
  for (let n = 0; n < times; n += 1) all.push(await one());
  return all;
}

function median(times: readonly number[]): number | undefined {
  return [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];
}

async function timed(path: string): Promise<number> {
  const start = performance.now();
  await ask(path);
  return performance.now() - start;
}

async function ask<T>(path: string): Promise<T> {
  const response = await fetch(BASE + path);
  const text = await response.text();
  if (!response.ok) throw new Error(`${path}: ${response.status} ${text.slice(0, 200)}`);
  return JSON.parse(text) as T;
}

function ms(time: number | undefined): string {
  return time === undefined ? "–" : `${time.toFixed(0)} ms`;
}

function start(): ChildProcess {
  return spawn(process.execPath, [fileURLToPath(new URL("../../main.js", import.meta.url))], {
    stdio: ["ignore", "inherit", "inherit"],
    env: {
      ...process.env,
      UV_THREADPOOL_SIZE: "16",
      FISCALON_DATA: dataDir,
      FISCALON_PORT: String(PORT),
      FISCALON_LOG: "error",
    },
  });
}

async function answering(): Promise<void> {
  for (let tries = 0; tries < 600; tries += 1) {
    try {
      if ((await fetch(`${BASE}/openapi.json`)).ok) return;
    } catch {
      await new Promise((later) => setTimeout(later, 50));
    }
  }
  throw new Error("the server did not start");
}

function peakOf({ pid }: ChildProcess): string {
  const status = readFileSync(`/proc/${pid ?? 0}/status`, "utf8");
  return (Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024).toFixed(0);
}
