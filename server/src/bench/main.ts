import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { boxesBench } from "./boxes.ts";
import { importBench } from "./imports.ts";
import { pricingBench } from "./pricing.ts";
import type { BenchRow } from "./report.ts";

const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-bench-"));
const rows: BenchRow[] = [pricingBench(), await importBench(dataDir), await boxesBench(dataDir)].flat();
console.log("| what | ours | reference, same run | ratio |\n| --- | --- | --- | --- |");
for (const { what, ours, reference, ratio } of rows)
  console.log(`| ${what} | ${ours} | ${reference} | ${ratio.toFixed(2)} |`);
rmSync(dataDir, { recursive: true, force: true });
