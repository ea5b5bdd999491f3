import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { conditions: ["source", "module", "browser", "development|production"] },
  server: { port: 4601, proxy: { "/api": "http://127.0.0.1:4600", "/simulators": "http://127.0.0.1:4600" } },
  build: { chunkSizeWarningLimit: 1200 },
});
