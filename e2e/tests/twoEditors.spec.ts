import { expect, test } from "@playwright/test";
import type { Page } from "@playwright/test";
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

/** Opens the first rule that leads to a code, or the one after it, and gives it another sentence. */
async function changeRule(page: Page, which: number, sentence: string): Promise<void> {
  await page.getByRole("table").getByRole("button").nth(which).click();
  const dialog = page.getByRole("dialog", { name: "Change the rule" });
  await dialog.getByLabel("The sentence that explains it").fill(sentence);
  await dialog.getByRole("button", { name: "Save" }).click();
}

test("two people change rules: the second sees both versions and chooses; nothing is silently gone", async ({
  page,
  context,
}) => {
  const { id } = await british(server, "Two Desks");
  const rules = `${server.address}/c/${id}/setup/rules`;
  const other = await context.newPage();
  for (const one of [page, other]) {
    await one.goto(rules);
    await expect(one.getByRole("heading", { name: "Supply rules" })).toBeVisible();
    await expect(one.getByRole("table").getByRole("button").first()).toBeVisible();
  }
  await changeRule(page, 0, "As the first desk has it");
  await expect(page.getByRole("dialog")).toBeHidden();

  // Another rule: both stay.
  await changeRule(other, 1, "As the second desk has it");
  const meanwhile = other.getByRole("dialog", { name: "The rules were changed meanwhile" });
  await expect(meanwhile).toContainText("Yours can be kept beside theirs");
  await meanwhile.getByRole("button", { name: "Keep mine beside theirs" }).click();
  await expect(meanwhile).toBeHidden();

  // The same rule: one is chosen.
  await changeRule(page, 1, "The first desk again");
  const same = page.getByRole("dialog", { name: "The rules were changed meanwhile" });
  await expect(same.getByRole("row", { name: /Theirs/ })).toContainText("As the second desk has it");
  await expect(same.getByRole("row", { name: /Yours/ })).toContainText("The first desk again");
  await expectAccessible(page);
  await same.getByRole("button", { name: "Take theirs" }).click();
  await expect(same).toBeHidden();

  const kept = (await (await fetch(`${server.address}/api/clients/${id}/setup`)).json()) as {
    rules: { words: string }[];
  };
  const words = kept.rules.map((rule) => rule.words);
  expect(words).toContain("As the first desk has it");
  expect(words).toContain("As the second desk has it");
  expect(words).not.toContain("The first desk again");
});

test("two people change one contact: the second sees where the versions differ and keeps hers on purpose", async ({
  page,
  context,
}) => {
  const { id } = await british(server, "Two Contacts");
  await send(server, "POST", `/api/clients/${id}/contacts`, { name: "Harbour Traders" });
  const other = await context.newPage();
  for (const one of [page, other]) {
    await one.goto(`${server.address}/c/${id}/setup/contacts`);
    await one.getByRole("button", { name: "Harbour Traders" }).click();
    await expect(one.getByRole("dialog", { name: "Change contact" })).toBeVisible();
  }
  const rename = async (one: Page, name: string) => {
    const dialog = one.getByRole("dialog", { name: "Change contact" });
    await dialog.getByLabel("Name").fill(name);
    await dialog.getByRole("button", { name: "Save" }).click();
  };
  await rename(page, "Harbour Traders Ltd");
  await expect(page.getByRole("dialog")).toBeHidden();
  await rename(other, "Harbour & Sons");
  const meanwhile = other.getByRole("dialog", { name: "Changed meanwhile" });
  await expect(meanwhile.getByRole("row", { name: /^name/ })).toContainText("Harbour Traders Ltd");
  await expect(meanwhile.getByRole("row", { name: /^name/ })).toContainText("Harbour & Sons");
  await expectAccessible(other);
  await meanwhile.getByRole("button", { name: "Keep mine" }).click();
  await expect(other.getByRole("dialog")).toHaveCount(0);
  await expect(other.getByText("Harbour & Sons")).toBeVisible();
});
