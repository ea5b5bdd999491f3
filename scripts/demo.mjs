import { spawn } from "node:child_process";
import { resolve } from "node:path";
import { build, ensurePackages } from "./ensure.mjs";

ensurePackages();
build();

const port = process.env.FISCALON_PORT ?? "4600";
const data = resolve(process.env.FISCALON_DATA ?? ".data/demo");
const address = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, ["server/dist/main.js"], {
  stdio: ["ignore", "inherit", "inherit"],
  env: {
    ...process.env,
    FISCALON_PORT: port,
    FISCALON_DATA: data,
    FISCALON_PERSON: process.env.FISCALON_PERSON ?? "Imre Vass",
    FISCALON_LOG: process.env.FISCALON_LOG ?? "warn",
  },
});
server.on("exit", (code) => process.exit(code ?? 0));
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));

await answering();
const clients = await (await fetch(`${address}/api/clients`)).json();
if (clients.length === 0) {
  console.log("Loading the demonstration practice …");
  const { loadDemo } = await import("../demo/dist/load.js");
  await loadDemo(address).catch((error) => {
    console.error(`The demonstration data could not be loaded: ${error.message}`);
    console.error(`Remove ${data} and try again.`);
    server.kill();
    process.exit(1);
  });
}
console.log(`\nFiscalon runs at ${address} (stop with Ctrl C)\n`);

async function answering() {
  for (let tries = 0; tries < 150; tries += 1) {
    try {
      if ((await fetch(`${address}/api/clients`)).ok) return;
    } catch {
      await new Promise((later) => setTimeout(later, 200));
    }
  }
  console.error("The server did not start. See the messages above.");
  server.kill();
  process.exit(1);
}
