import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build, ensureChromium, ensurePackages } from "./ensure.mjs";

/** Type-checks, lints, and runs unit, API and browser tests; ends with one line that counts them. */
const results = mkdtempSync(join(tmpdir(), "fiscalon-results-"));
let failed = 0;
let passed = 0;
let skipped = 0;

ensurePackages();
build();
step("lint", "npm", ["run", "lint", "--silent"]);
const unit = join(results, "unit.json");
step(
  "unit and API tests",
  "npx",
  ["--no-install", "vitest", "run", "--reporter=default", "--reporter=json", `--outputFile.json=${unit}`],
  () => {
    const report = JSON.parse(readFileSync(unit, "utf8"));
    return { passed: report.numPassedTests, failed: report.numFailedTests, skipped: report.numPendingTests };
  },
);
const browser = join(results, "browser.json");
const env = { ...process.env, FISCALON_CHROMIUM: ensureChromium(), PLAYWRIGHT_JSON_OUTPUT_NAME: browser };
step(
  "browser tests",
  "npx",
  ["--no-install", "playwright", "test", "-c", "e2e/playwright.config.ts"],
  () => {
    const { stats } = JSON.parse(readFileSync(browser, "utf8"));
    return { passed: stats.expected + stats.flaky, failed: stats.unexpected, skipped: stats.skipped };
  },
  env,
);

rmSync(results, { recursive: true, force: true });
console.log(`${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ""}`);
process.exit(failed > 0 ? 1 : 0);

/** Runs a step; one that fails without having counted a failed test counts as one. */
function step(
  name,
  command,
  args,
  count = () => ({ passed: 0, failed: 0, skipped: 0 }),
  environment = process.env,
) {
  console.log(`\n— ${name}`);
  const { status } = spawnSync(command, args, { stdio: "inherit", env: environment });
  let counted = { passed: 0, failed: 0, skipped: 0 };
  try {
    counted = count();
  } catch {
    console.error(`${name}: no report was written`);
  }
  passed += counted.passed;
  skipped += counted.skipped;
  failed += status !== 0 && counted.failed === 0 ? 1 : counted.failed;
}
