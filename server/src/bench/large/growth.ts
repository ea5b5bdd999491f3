import { at } from "@fiscalon/core/at";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { median, ms, pathIn, serving } from "./asking.ts";
import type { Asking } from "./asking.ts";
import { makeAged } from "./makeLarge.ts";
import { SCREENS } from "./screens.ts";

const RUNS = 9;
const NEIGHBOURS = 299;
/** The pages of one quarter. */
const OF_A_QUARTER = Object.entries(SCREENS).filter(([, path]) => /\{(from|end)\}/.test(path));

/**
 * `npm run bench -- --growth`: what the pages of a quarter take, each asked right after something was saved and once
 * again, of books of one year, of ten years with the same quarters, and of one year among 300 clients.
 */
const alone = mkdtempSync(join(tmpdir(), "fiscalon-aged-"));
const among = mkdtempSync(join(tmpdir(), "fiscalon-among-"));
try {
  const columns: Column[] = [];
  for (const [folder, clients] of [
    [alone, await makeAged(alone, [1, 10], 0)],
    [among, await makeAged(among, [1], NEIGHBOURS)],
  ] as const)
    await serving(folder, async (asking) => {
      for (const client of clients) columns.push(await measured(asking, client));
    });
  print(columns);
} finally {
  for (const folder of [alone, among]) rmSync(folder, { recursive: true, force: true });
}

/** Medians of what a page takes after a save, and again, in the order of the pages. */
type Column = readonly { saved: number; again: number }[];

async function measured({ ask, timed }: Asking, client: number): Promise<Column> {
  const { registrations } = await ask<{ registrations: { id: number }[] }>(`/clients/${client}`);
  const rid = at(registrations, 0).id;
  const column: { saved: number; again: number }[] = [];
  for (const [what, path] of OF_A_QUARTER) {
    const asked = pathIn(path, client, rid);
    const saved: number[] = [];
    const again: number[] = [];
    for (let run = 0; run < RUNS; run += 1) {
      await ask(`/clients/${client}/documents`, bill(`${what} ${run}`));
      saved.push(await timed(asked));
      again.push(await timed(asked));
    }
    column.push({ saved: median(saved), again: median(again) });
  }
  return column;
}

function bill(number: string): object {
  return {
    kind: "purchase-bill",
    number,
    date: "2026-08-12",
    prices: "exclusive",
    lines: [{ amount: "50.00", code: "S20" }],
  };
}

function print(columns: readonly Column[]): void {
  console.log(
    "| page of a quarter of 10,000 facts, after a save, again | one year | ten years | one year among 300 |\n| --- | --- | --- | --- |",
  );
  const cell = (times: Column) =>
    `${ms(times.reduce((sum, { saved }) => sum + saved, 0))}, ${ms(times.reduce((sum, { again }) => sum + again, 0))}`;
  for (const [index, [what]] of OF_A_QUARTER.entries())
    console.log(`| ${what} | ${columns.map((column) => cell([at(column, index)])).join(" | ")} |`);
  console.log(`| all of them | ${columns.map(cell).join(" | ")} |`);
}
