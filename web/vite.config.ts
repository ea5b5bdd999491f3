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

export default defineConfig({
  plugins: [react(), tailwindcss(), screenList()],
  resolve: { conditions: ["source", "module", "browser", "development|production"] },
  server: { port: 4601, proxy: { "/api": "http://127.0.0.1:4600", "/simulators": "http://127.0.0.1:4600" } },
  build: { chunkSizeWarningLimit: 1200 },
});
