import { spawn } from "node:child_process";
import type { ChildProcess } from "node:child_process";
import { createServer } from "node:net";
import type { AddressInfo } from "node:net";
import { fileURLToPath } from "node:url";
import { clientOf } from "./testServer.ts";
import type { TestServer } from "./testServer.ts";

const MAIN = fileURLToPath(new URL("../../dist/main.js", import.meta.url));

/** A port nobody listens at. */
async function freePort(): Promise<number> {
  const probe = createServer();
  await new Promise<void>((listening) => probe.listen(0, "127.0.0.1", listening));
  const { port } = probe.address() as AddressInfo;
  await new Promise((closed) => probe.close(closed));
  return port;
}

/** The built server as a process of its own over a data folder, so that it can be killed. */
export async function startProcess(dataDir: string): Promise<{ child: ChildProcess; client: TestServer }> {
  const port = await freePort();
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, FISCALON_DATA: dataDir, FISCALON_PORT: String(port), FISCALON_LOG: "silent" },
    stdio: "ignore",
  });
  const address = `http://127.0.0.1:${port}`;
  for (const until = Date.now() + 60_000; Date.now() < until;) {
    const up = await fetch(`${address}/api/clients`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) return { child, client: clientOf(address, dataDir, async () => undefined) };
    await new Promise((later) => setTimeout(later, 100));
  }
  child.kill("SIGKILL");
  throw new Error("the server did not answer within a minute");
}

/** Ends a process as a power cut does. */
export async function kill(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((ended) => child.once("exit", ended));
  child.kill("SIGKILL");
  await gone;
}
