import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { send } from "../support/api.ts";
import { british } from "../support/british.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
let restored: RunningServer | undefined;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(async () => {
  await restored?.stop();
  await server.stop();
});

test("a copy is made while the practice is worked on, restored beside it, and holds the same when it is opened", async ({
  page,
}) => {
  const { id } = await british(server, "Copied Client");
  await send(server, "POST", `/api/clients/${id}/documents`, {
    kind: "sales-invoice",
    number: "COPY-1",
    date: "2026-02-11",
    lines: [{ amount: "100.00", code: "S20" }],
  });
  await page.goto(`${server.address}/copies`);
  await page.getByRole("button", { name: "Make a copy now" }).click();
  await expect(page.getByRole("status")).toContainText("1 clients, 1 documents", { timeout: 60_000 });
  await expectAccessible(page);
  // What comes after it is not in it.
  await send(server, "POST", `/api/clients/${id}/documents`, {
    kind: "sales-invoice",
    number: "COPY-2",
    date: "2026-02-12",
    lines: [{ amount: "50.00", code: "S20" }],
  });
  await page.getByRole("button", { name: "Restore into a new folder" }).click();
  const said = page.getByRole("status").filter({ hasText: "the same figures as when it was made" });
  await expect(said).toBeVisible({ timeout: 60_000 });
  const folder = /FISCALON_DATA=(.+)\.$/.exec((await said.textContent()) ?? "")?.[1];
  expect(folder).toBeDefined();

  restored = await startServer(folder);
  await page.goto(`${restored.address}/c/${id}/books/documents`);
  await expect(page.getByText("COPY-1")).toBeVisible();
  await expect(page.getByText("COPY-2")).toHaveCount(0);
});
