import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import type { Plugin } from "vite";
import { SCREENS } from "./src/app/screens.ts";

/** The list of screens beside the application, for who opens them from outside: the crawl and the pictures. */
function screenList(): Plugin {
  return {
    name: "screen-list",
    generateBundle() {
      this.emitFile({ type: "asset", fileName: "screens.json", source: JSON.stringify(SCREENS) });
    },
  };
}

/** What is smaller compressed is so beside each file, once, so that the server only hands it out. */
function compressed(): Plugin {
  return {
    name: "compressed",
    writeBundle({ dir = "" }) {
      for (const name of readdirSync(dir, { recursive: true, encoding: "utf8" })) {
        if (!/\.(js|css|html|json|svg)$/.test(name)) continue;
        const file = join(dir, name);
        const content = readFileSync(file);
        writeFileSync(`${file}.br`, brotliCompressSync(content));
        writeFileSync(`${file}.gz`, gzipSync(content));
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), screenList(), compressed()],
  resolve: { conditions: ["source", "module", "browser", "development|production"] },
  server: { port: 4601, proxy: { "/api": "http://127.0.0.1:4600", "/simulators": "http://127.0.0.1:4600" } },
  build: { chunkSizeWarningLimit: 1200, rolldownOptions: { checks: { pluginTimings: false } } },
});
