import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { boxesBench } from "./boxes.ts";
import { importBench } from "./imports.ts";
import { matchingBench } from "./matching.ts";
import { stockBench } from "./stock.ts";
import { pricingBench } from "./pricing.ts";
import type { BenchRow } from "./report.ts";

const PARTS: Readonly<Record<string, (dataDir: string) => BenchRow[] | Promise<BenchRow[]>>> = {
  pricing: pricingBench,
  imports: importBench,
  boxes: boxesBench,
  stock: stockBench,
  matching: matchingBench,
};

/** Each part is measured in a process of its own, as jobs run; this one only asks for them and prints. */
const [, , part] = process.argv;
if (part === undefined) printAll();
else await measure(part);

function printAll(): void {
  const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-bench-"));
  console.log("| what | ours | reference, same run | ratio |\n| --- | --- | --- | --- |");
  for (const name of Object.keys(PARTS)) {
    const asked = [...process.execArgv, fileURLToPath(import.meta.url), name, dataDir];
    const rows = JSON.parse(execFileSync(process.execPath, asked, { encoding: "utf8" })) as BenchRow[];
    for (const { what, ours, reference, ratio } of rows)
      console.log(`| ${what} | ${ours} | ${reference} | ${ratio.toFixed(2)} |`);
  }
  rmSync(dataDir, { recursive: true, force: true });
}

async function measure(name: string): Promise<void> {
  const rows = await PARTS[name]?.(process.argv[3] ?? "");
  process.stdout.write(JSON.stringify(rows ?? []));
}
