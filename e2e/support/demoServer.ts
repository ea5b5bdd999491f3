import { execFile } from "node:child_process";
import { join } from "node:path";
import { promisify } from "node:util";
import { startServer } from "./server.ts";
import type { RunningServer } from "./server.ts";

/** A server with the demonstration practice in it, loaded through its public API as `npm run demo` does. */
export async function startDemo(): Promise<RunningServer> {
  const server = await startServer();
  const load = join(process.cwd(), "demo/dist/load.js");
  const script = `import(${JSON.stringify(load)}).then(({ loadDemo }) => loadDemo(${JSON.stringify(server.address)}))`;
  await promisify(execFile)(process.execPath, ["-e", script]);
  return server;
}
