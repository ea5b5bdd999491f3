import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "./support/chromium.ts";

export default defineConfig({
  testDir: "tests",
  timeout: 180_000,
  expect: { timeout: 15_000 },
  workers: 1,
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
