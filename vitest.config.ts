import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["core/test/**/*.test.ts", "server/test/**/*.test.ts", "web/test/**/*.test.ts"],
    setupFiles: ["scripts/seed.mjs"],
    // One worker a core: by itself it leaves one of two idle.
    maxWorkers: "100%",
    testTimeout: 180_000,
    hookTimeout: 60_000,
    // What is built is loaded by Node as it stands: a thousand modules in a third of the time.
    server: { deps: { external: [/\/dist\/.*\.js$/] } },
  },
});
