import { execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";

const INSTALLED = "node_modules/.package-lock.json";

/** Runs a command with its output shown; ends this process when it fails. */
export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { stdio: "inherit", ...options });
  if (status !== 0) process.exit(status ?? 1);
}

/** Installs the packages of the lock file where they are missing or older than it. */
export function ensurePackages() {
  const fresh = existsSync(INSTALLED) && statSync(INSTALLED).mtimeMs >= statSync("package-lock.json").mtimeMs;
  if (fresh && existsSync("node_modules/sqlite3/build/Release/node_sqlite3.node")) return;
  console.log("Installing packages. The database driver is compiled here, which takes about three minutes …");
  run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"]);
}

/** What is built, and from what. */
const SOURCES = [
  "core/src",
  "contract/src",
  "server/src",
  "demo/src",
  "web/src",
  "web/index.html",
  "web/public",
];
const SETTINGS = [
  "package-lock.json",
  "web/vite.config.ts",
  "tsconfig.json",
  "tsconfig.base.json",
  "scripts/answerSchemas.mjs",
];
const BUILT = ["server/dist/main.js", "demo/dist/load.js", "web/dist/index.html"];
const STAMP = "node_modules/.cache/fiscalon-built";

/** Builds core, contract, server, demo and the web application, unless everything is as it was built last. */
export function build() {
  const now = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === now && BUILT.every((file) => existsSync(file)))
    return;
  console.log("Building …");
  run("npx", ["--no-install", "tsc", "-b"]);
  run("node", ["scripts/answerSchemas.mjs"]);
  run("npm", ["run", "build", "-w", "web", "--silent"]);
  mkdirSync(dirname(STAMP), { recursive: true });
  writeFileSync(STAMP, now);
}

/** Name, size and time of every file that is built from. */
function fingerprint() {
  const hash = createHash("sha256");
  const take = (file) => {
    const { size, mtimeMs } = statSync(file);
    hash.update(`${file} ${size} ${mtimeMs}\n`);
  };
  for (const file of SETTINGS) take(file);
  for (const source of SOURCES) {
    if (!existsSync(source)) continue;
    if (!statSync(source).isDirectory()) take(source);
    else
      for (const entry of readdirSync(source, { recursive: true, withFileTypes: true }))
        if (entry.isFile()) take(join(entry.parentPath ?? entry.path, entry.name));
  }
  return hash.digest("hex");
}

/** The browser for the tests: Debian's chromium, installed when this runs as root. */
export function ensureChromium() {
  const found = ["/usr/bin/chromium", process.env.FISCALON_CHROMIUM].find((path) => path && existsSync(path));
  if (found) return found;
  if (process.getuid?.() !== 0) {
    console.error(
      "The browser tests need chromium: apt-get install chromium, or name one with FISCALON_CHROMIUM.",
    );
    process.exit(1);
  }
  console.log("Installing chromium for the browser tests …");
  execFileSync("apt-get", ["update", "-q"], { stdio: "ignore" });
  run("apt-get", ["install", "-y", "-q", "--no-install-recommends", "chromium"], {
    env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    stdio: ["ignore", "ignore", "inherit"],
  });
  return "/usr/bin/chromium";
}
