import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { send } from "../support/api.ts";
import { british } from "../support/british.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

const END = "2026-03-31";

async function authorityIs(mode: string): Promise<void> {
  const answer = await fetch(`${server.address}/simulators/authority/mode`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ mode }),
  });
  expect(answer.ok).toBe(true);
}

test("the answer of a filing is lost: it stays sent, is not opened again, and filing once more asks before it sends", async ({
  page,
}) => {
  const { id } = await british(server, "Lost Answer", { number: "980780684" });
  await send(server, "POST", `/api/clients/${id}/documents`, {
    kind: "sales-invoice",
    number: "L-1",
    date: "2026-02-11",
    lines: [{ amount: "100.00", code: "S20" }],
  });
  await page.goto(`${server.address}/c/${id}/return/${END}`);
  await page.getByRole("button", { name: "Seal this period" }).click();
  await expect(page.getByRole("button", { name: "File with HMRC (simulated)" })).toBeVisible();
  await authorityIs("lost-then-failing");
  const file = async () => {
    await page.getByRole("button", { name: "File with HMRC (simulated)" }).click();
    const dialog = page.getByRole("dialog");
    await dialog.getByRole("checkbox").check();
    await dialog.getByRole("button", { name: "Send the return" }).click();
    return dialog;
  };
  const dialog = await file();
  await expect(dialog.getByText(/does not say whether it has it/)).toBeVisible();
  await dialog.getByRole("button", { name: "Not yet" }).click();
  await expect(page.getByRole("status").filter({ hasText: "its answer is not known" })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Open again" }).click();
  await expect(page.getByText(/This return was sent and its answer is not known/)).toBeVisible();

  await authorityIs("normal");
  await file();
  const receipt = page.getByRole("region", { name: "Receipt" });
  await expect(receipt).toContainText("viewing the return the authority holds");
  await expect(receipt).toContainText("no authority has it");
  await expect(page.getByText("its answer is not known")).toHaveCount(0);
});
