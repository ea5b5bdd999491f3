import { run } from "./ensure.mjs";

/**
 * `npm run bench`: everything beside its reference; with `--large` the practice of a million facts, through HTTP; with
 * `--growth` the same pages of young and old books, alone and among 300 clients.
 */
if (process.argv.includes("--large"))
  run("node", ["--max-semi-space-size=64", "server/dist/bench/large/main.js"]);
else if (process.argv.includes("--growth"))
  run("node", ["--max-semi-space-size=64", "server/dist/bench/large/growth.js"]);
else {
  run("node", ["--max-semi-space-size=64", "server/dist/bench/main.js"]);
  run("npm", ["run", "bench", "-w", "e2e", "--silent"]);
}
