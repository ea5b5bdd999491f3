import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "./support/chromium.ts";

export default defineConfig({
  testDir: "tests",
  timeout: 300_000,
  expect: { timeout: 30_000 },
  workers: 1,
  // A machine that stands still for a minute is not the program; what fails twice is.
  retries: 1,
  reporter: [
    ["list"],
    ["json", { outputFile: process.env["PLAYWRIGHT_JSON_OUTPUT_NAME"] ?? "test-results/report.json" }],
  ],
  outputDir: "../test-results",
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    locale: "en-GB",
    screenshot: "only-on-failure",
  },
});
