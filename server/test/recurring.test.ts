import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { dueDates } from "../dist/features/templates/service.js";
import { newClient, startServer } from "./support/testServer.ts";
import { day } from "./support/world.ts";

const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-recurring-"));
afterAll(() => rmSync(dataDir, { recursive: true, force: true }));

interface Kept {
  name: string;
  due: string[];
  problem: string | null;
}

test("what recurs by itself is posted when the server starts, once; what cannot be says why; the rest waits", async () => {
  const first = await startServer(dataDir);
  const { base } = await newClient(first);
  const keep = (name: string, line: object, more: object) =>
    first.ok("PUT", `${base}/templates`, {
      name,
      document: { kind: "journal", date: day(15), lines: [line, { ...line, amount: "-5.00" }] },
      every: "weekly",
      nextOn: day(15),
      ...more,
    });
  const amount = { amount: "5.00", account: "4000" };
  await keep("Accrual", amount, { byItself: true });
  await keep("Broken", { ...amount, account: "no-such" }, { byItself: true });
  await keep("By hand", amount, {});
  await first.close();

  for (const round of [1, 2]) {
    const again = await startServer(dataDir);
    const journals = async () => {
      const page = await again.ok<{ rows: { date: string }[] }>("GET", `${base}/documents?kind=journal`);
      return page.rows.map(({ date }) => date).sort();
    };
    await expect.poll(journals, { timeout: 5000 }).toEqual([day(15), day(8), day(1)]);
    const kept = async () => {
      const rows = await again.ok<Kept[]>("GET", `${base}/templates`);
      return rows.map(({ name, due, problem }) => [name, due.length, problem]);
    };
    await expect.poll(kept, { timeout: 5000 }).toEqual([
      ["Accrual", 0, null],
      ["Broken", 3, "There is no account no-such. Choose one of the chart."],
      ["By hand", 3, null],
    ]);
    if (round === 2) {
      expect(await again.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 3, failed: 1 });
      expect(await journals()).toHaveLength(6);
    }
    const changes = await again.ok<{ after: unknown }[]>("GET", `${base}/changes?entity=document`);
    expect(changes.filter(({ after }) => JSON.stringify(after).includes("Accrual")).length).toBe(3);
    await again.close();
  }
});

// A lease signed on the 31st is due on the last day of shorter months: common practice, no source.
test.each([
  [
    "monthly",
    "2026-01-31",
    "2026-05-31",
    ["2026-01-31", "2026-02-28", "2026-03-31", "2026-04-30", "2026-05-31"],
  ],
  ["quarterly", "2025-11-30", "2026-08-30", ["2025-11-30", "2026-02-28", "2026-05-30", "2026-08-30"]],
  [
    "yearly",
    "2024-02-29",
    "2028-02-29",
    ["2024-02-29", "2025-02-28", "2026-02-28", "2027-02-28", "2028-02-29"],
  ],
  ["weekly", "2026-02-24", "2026-03-10", ["2026-02-24", "2026-03-03", "2026-03-10"]],
] as const)("%s from %s: a short month does not shorten those after it", (every, begins, upTo, dates) => {
  const plain = { every, begins, until: null };
  expect(dueDates({ ...plain, nextOn: begins }, upTo)).toEqual(dates);
  // What was posted before stays posted: from wherever it goes on, the days are the same.
  for (const [index, nextOn] of dates.entries())
    expect(dueDates({ ...plain, nextOn }, upTo)).toEqual(dates.slice(index));
  expect(dueDates({ ...plain, nextOn: begins, until: dates[1] }, upTo)).toEqual(dates.slice(0, 2));
  expect(dueDates({ every: null, begins, nextOn: begins, until: null }, upTo)).toEqual([]);
});
