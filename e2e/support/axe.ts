import { createRequire } from "node:module";
import { readFileSync } from "node:fs";
import { expect } from "@playwright/test";
import type { Page } from "@playwright/test";

const AXE = readFileSync(createRequire(`${process.cwd()}/e2e/`).resolve("axe-core/axe.min.js"), "utf8");

interface Violation {
  id: string;
  impact: string;
  nodes: { html: string }[];
}

/** Nothing serious or critical by axe on the screen as it stands, targets large enough to hit. */
export async function expectAccessible(page: Page): Promise<void> {
  await page.evaluate(AXE);
  const violations = await page.evaluate(async () => {
    const { axe } = globalThis as unknown as {
      axe: { run: (options: object) => Promise<{ violations: Violation[] }> };
    };
    return (await axe.run({ resultTypes: ["violations"], rules: { "target-size": { enabled: true } } }))
      .violations;
  });
  const serious = violations
    .filter((one) => one.impact === "serious" || one.impact === "critical")
    .map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 160)).join(" | ")}`);
  expect(serious).toEqual([]);
}
