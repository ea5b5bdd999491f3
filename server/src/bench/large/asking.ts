import { at } from "@fiscalon/core/at";
import { spawn } from "node:child_process";
import type { ChildProcess } from "node:child_process";
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";

const PORT = 4690;
const BASE = `http://127.0.0.1:${PORT}/api`;

/** Asks the built server over a folder, through HTTP as the pages do. */
export interface Asking {
  /** Milliseconds from its start to its first answer. */
  started: number;
  ask: <T>(path: string, body?: object) => Promise<T>;
  /** Milliseconds an answer takes. */
  timed: (path: string) => Promise<number>;
  /** Most memory the server took so far, in megabytes. */
  peak: () => string;
}

/** Starts the server over a folder, and waits for its end afterwards. */
export async function serving(dataDir: string, work: (asking: Asking) => Promise<void>): Promise<void> {
  const begun = performance.now();
  const server = start(dataDir);
  await answering();
  const timed = async (path: string) => {
    const from = performance.now();
    await ask(path);
    return performance.now() - from;
  };
  try {
    await work({ started: performance.now() - begun, ask, timed, peak: () => peakOf(server) });
  } finally {
    const ended = new Promise((end) => server.once("exit", end));
    server.kill();
    await ended;
  }
}

/** What a page asks for of a client and its registration, in the third quarter of 2026. */
export function pathIn(path: string, client: number, rid: number): string {
  const filled = path
    .replace("{r}", `/registrations/${rid}`)
    .replaceAll("{rid}", String(rid))
    .replaceAll("{from}", "2026-07-01")
    .replaceAll("{end}", "2026-09-30");
  return `/clients/${client}${filled}`;
}

export async function many(one: () => Promise<number>, times: number): Promise<number[]> {
  const all: number[] = [];
  for (let n = 0; n < times; n += 1) all.push(await one());
  return all;
}

/** @throws Error where nothing was timed */
export function median(times: readonly number[]): number {
  return at(
    [...times].sort((a, b) => a - b),
    Math.floor(times.length / 2),
  );
}

export function ms(time: number): string {
  return `${time.toFixed(0)} ms`;
}

async function ask<T>(path: string, body?: object): Promise<T> {
  const response = await fetch(
    BASE + path,
    body && {
      method: "POST",
      body: JSON.stringify(body),
      headers: { "content-type": "application/json" },
    },
  );
  const text = await response.text();
  if (!response.ok) throw new Error(`${path}: ${response.status} ${text.slice(0, 200)}`);
  return JSON.parse(text) as T;
}

function start(dataDir: string): ChildProcess {
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
