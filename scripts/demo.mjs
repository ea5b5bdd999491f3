import { spawn } from "node:child_process";
import { once } from "node:events";
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from "node:fs";
import { dirname, resolve } from "node:path";
import { build, ensurePackages } from "./ensure.mjs";

ensurePackages();
build();

const port = process.env.FISCALON_PORT ?? "4600";
const address = `http://127.0.0.1:${port}`;
const data = resolve(process.env.FISCALON_DATA ?? ".data/demo");

if (!existsSync(data) || readdirSync(data).length === 0) await load();
const server = start(data);
server.on("exit", (code) => process.exit(code ?? 0));
await answering(server);
console.log(`\nFiscalon runs at ${address} (stop with Ctrl C)\n`);

/** Makes the practice in a folder beside and puts it in its place when it is whole: killed on the way, it leaves nothing. */
async function load() {
  const unfinished = `${data}.unfinished`;
  rmSync(unfinished, { recursive: true, force: true });
  mkdirSync(dirname(data), { recursive: true });
  const loader = start(unfinished);
  await answering(loader);
  console.log("Loading the demonstration practice …");
  const { loadDemo } = await import("../demo/dist/load.js");
  const failed = await loadDemo(address).then(
    () => undefined,
    (error) => error,
  );
  loader.kill();
  await once(loader, "exit");
  if (failed) {
    console.error(`The demonstration data could not be loaded: ${failed.message}`);
    process.exit(1);
  }
  rmSync(data, { recursive: true, force: true });
  renameSync(unfinished, data);
}

function start(folder) {
  const child = spawn(process.execPath, ["server/dist/main.js"], {
    stdio: ["ignore", "inherit", "inherit"],
    env: {
      ...process.env,
      // Threads that wait for the disk: with few of them, slow reads of one client would hold up another.
      UV_THREADPOOL_SIZE: process.env.UV_THREADPOOL_SIZE ?? "16",
      FISCALON_PORT: port,
      FISCALON_DATA: folder,
      FISCALON_PERSON: process.env.FISCALON_PERSON ?? "Imre Vass",
      FISCALON_LOG: process.env.FISCALON_LOG ?? "warn",
    },
  });
  for (const signal of ["SIGINT", "SIGTERM"]) process.once(signal, () => child.kill(signal));
  return child;
}

async function answering(child) {
  for (let tries = 0; tries < 1500 && child.exitCode === null; tries += 1) {
    try {
      if ((await fetch(`${address}/api/clients`)).ok) return;
    } catch {
      await new Promise((later) => setTimeout(later, 200));
    }
  }
  console.error("The server did not start. See the messages above.");
  child.kill();
  process.exit(1);
}
