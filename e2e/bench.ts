import { chromium } from "@playwright/test";
import { CHROMIUM } from "./support/chromium.ts";
import { startServer } from "./support/server.ts";

/** How much work a key costs in a document of 200 lines, in the real interface: `npm run bench`. */
const LINES = 200;
const KEYS = 60;

process.chdir(new URL("../../..", import.meta.url).pathname);
const server = await startServer();
const response = await fetch(`${server.address}/api/clients`, {
  method: "POST",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({
    name: "Typing",
    country: "GB",
    registration: { pack: "gb", from: "2025-01-01", frequency: "quarterly", anchor: "2026-03-31" },
  }),
});
const { id } = (await response.json()) as { id: number };
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(`${server.address}/c/${id}/books/documents/new/sales-invoice`);
await page.getByLabel("Text, line 1").focus();
await page.evaluate((lines) => {
  const data = new DataTransfer();
  const rows = Array.from({ length: lines }, (_, n) => `Line ${n}\t${10 + n}.50`);
  data.setData("text/plain", rows.join("\n"));
  document.activeElement?.dispatchEvent(
    new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
  );
}, LINES);
await page.getByLabel(`Amount, line ${LINES}`).waitFor();
const times = await page.evaluate(async (keys) => {
  const input = document.querySelector<HTMLInputElement>('[aria-label="Text, line 100"]');
  if (!input) throw new Error("there is no line 100");
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
  input.focus();
  const work: number[] = [];
  for (let key = 0; key < keys; key += 1) {
    const start = performance.now();
    set?.call(input, `${input.value}x`);
    input.dispatchEvent(new InputEvent("input", { bubbles: true, data: "x", inputType: "insertText" }));
    work.push(performance.now() - start);
    await new Promise((idle) => setTimeout(idle, 120));
  }
  return work;
}, KEYS);
await browser.close();
await server.stop();
const sorted = [...times].sort((a, b) => a - b);
const at = (share: number) => (sorted[Math.floor((sorted.length - 1) * share)] ?? 0).toFixed(1);
console.log("\n| what | median | 95 of 100 | worst |\n| --- | --- | --- | --- |");
console.log(`| work a key in a document of ${LINES} lines | ${at(0.5)} ms | ${at(0.95)} ms | ${at(1)} ms |`);
