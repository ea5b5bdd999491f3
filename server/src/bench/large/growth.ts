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
  const [young = 0, old = 0] = await makeAged(alone, [1, 10], 0);
  const [same = 0] = await makeAged(among, [1], NEIGHBOURS);
  const columns: Column[] = [];
  await serving(alone, async (asking) => {
    columns.push(await measured(asking, young), await measured(asking, old));
  });
  await serving(among, async (asking) => {
    columns.push(await measured(asking, same));
  });
  print(columns);
} finally {
  for (const folder of [alone, among]) rmSync(folder, { recursive: true, force: true });
}

/** By page, medians of what it takes after a save, and again. */
type Column = ReadonlyMap<string, { saved: number; again: number }>;

async function measured({ ask, timed }: Asking, client: number): Promise<Column> {
  const { registrations } = await ask<{ registrations: { id: number }[] }>(`/clients/${client}`);
  const column = new Map<string, { saved: number; again: number }>();
  for (const [what, path] of OF_A_QUARTER) {
    const asked = pathIn(path, client, registrations[0]?.id ?? 0);
    const [saved, again]: number[][] = [[], []];
    for (let run = 0; run < RUNS; run += 1) {
      await ask(`/clients/${client}/documents`, bill(`${what} ${run}`));
      saved?.push(await timed(asked));
      again?.push(await timed(asked));
    }
    column.set(what, { saved: median(saved ?? []) ?? 0, again: median(again ?? []) ?? 0 });
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
  const sums = columns.map(() => ({ saved: 0, again: 0 }));
  for (const [what] of OF_A_QUARTER) {
    const cells = columns.map((column, at) => {
      const one = column.get(what) ?? { saved: 0, again: 0 };
      const sum = sums[at];
      if (sum) [sum.saved, sum.again] = [sum.saved + one.saved, sum.again + one.again];
      return `${ms(one.saved)}, ${ms(one.again)}`;
    });
    console.log(`| ${what} | ${cells.join(" | ")} |`);
  }
  console.log(
    `| all of them | ${sums.map(({ saved, again }) => `${ms(saved)}, ${ms(again)}`).join(" | ")} |`,
  );
}
