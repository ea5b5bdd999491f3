import { spawn } from "node:child_process";
import type { ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";

export interface RunningServer {
  address: string;
  stop: () => Promise<void>;
}

/** The built server as a process of its own, on a free port with an empty data folder, or over one that is there. */
export async function startServer(
  dataDir = join(mkdtempSync(join(tmpdir(), "fiscalon-e2e-")), "data"),
): Promise<RunningServer> {
  // Below the range the system gives out by itself.
  const port = 21_000 + Math.floor(Math.random() * 11_000);
  const address = `http://127.0.0.1:${port}`;
  const child = spawn(process.execPath, [join(process.cwd(), "server/dist/main.js")], {
    env: {
      ...process.env,
      FISCALON_DATA: dataDir,
      FISCALON_PORT: String(port),
      FISCALON_LOG: "silent",
      FISCALON_PERSON: "Imre Vass",
    },
    stdio: "ignore",
  });
  await answering(address, child);
  return {
    address,
    stop: async () => {
      child.kill();
      await new Promise((gone) => child.once("exit", gone));
      rmSync(dirname(dataDir), { recursive: true, force: true });
    },
  };
}

async function answering(address: string, child: ChildProcess): Promise<void> {
  for (const until = Date.now() + 180_000; Date.now() < until;) {
    if (child.exitCode !== null) throw new Error("the server ended at once");
    const up = await fetch(`${address}/api/clients`).then(
      (response) => response.ok,
      () => false,
    );
    if (up) return;
    await new Promise((later) => setTimeout(later, 100));
  }
  throw new Error("the server did not answer");
}
