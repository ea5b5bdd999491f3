import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, statSync } from "node:fs";

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

/** Builds core, contract, server, demo and the web application; only what changed is compiled again. */
export function build() {
  console.log("Building …");
  run("npx", ["--no-install", "tsc", "-b"]);
  run("node", ["scripts/answerSchemas.mjs"]);
  run("npm", ["run", "build", "-w", "web", "--silent"]);
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
