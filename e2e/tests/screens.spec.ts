import { expect, test } from "@playwright/test";
import { startDemo } from "../support/demoServer.ts";
import type { RunningServer } from "../support/server.ts";
import { screens } from "../support/screens.ts";
import { Visitor } from "../support/visitor.ts";

/** Pages opened at the same time. */
const AT_ONCE = 4;

interface DocumentRow {
  id: number;
  kind: string;
  codes: string;
}

let server: RunningServer;
test.beforeAll(async () => {
  test.setTimeout(900_000);
  server = await startDemo();
});
test.afterAll(() => server.stop());

async function get<T>(path: string): Promise<T> {
  const answer = await fetch(`${server.address}/api${path}`);
  if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
  return (await answer.json()) as T;
}

test("every screen of every client of the demonstration, and a document of every kind and mix of codes", async ({
  browser,
}) => {
  test.setTimeout(600_000);
  const clients = await get<{ id: number; name: string }[]>("/clients");
  const paths = screens()
    .filter(({ of, path }) => of === "practice" && !path.includes(":"))
    .map(({ path }) => `/${path}`);
  for (const { id } of clients) {
    const filled = await filledIn(id);
    paths.push(
      ...screens()
        .filter(({ of }) => of === "client")
        .flatMap(({ path }) => filled[path] ?? (path.includes(":") ? [] : [path]))
        .map((path) => `/c/${id}/${path}`),
    );
  }
  paths.push(`/c/${clients[0]?.id}/nowhere`, "/c/999999/return", "/nowhere");
  expect(paths.length).toBeGreaterThan(300);

  const wrong: string[] = [];
  const queue = [...paths];
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      const visitor = await Visitor.enter(browser, server.address);
      for (let path = queue.shift(); path !== undefined; path = queue.shift()) {
        const expected = path.startsWith("/c/999999");
        const complaints = (await visitor.open(path)).filter(
          (one) => !(expected && one.startsWith("console:") && one.includes("404")),
        );
        wrong.push(...complaints.map((complaint) => `${path}: ${complaint}`));
      }
      await visitor.leave();
    }),
  );
  expect(wrong).toEqual([]);
});

test("every registration of every client opens to be changed, also one that ended", async ({ page }) => {
  test.setTimeout(300_000);
  const clients = await get<{ id: number }[]>("/clients");
  for (const { id } of clients) {
    const { registrations } = await get<{ registrations: object[] }>(`/clients/${id}`);
    await page.goto(`${server.address}/c/${id}/setup/places`);
    const change = page
      .getByRole("region", { name: "Registrations" })
      .getByRole("button", { name: "Change" });
    await expect(change).toHaveCount(registrations.length);
    for (const index of registrations.keys()) {
      await change.nth(index).click();
      await expect(page.getByRole("dialog").getByLabel("Ends on")).toBeVisible();
      await page.keyboard.press("Escape");
      await expect(page.getByRole("dialog")).toBeHidden();
    }
  }
});

interface Box {
  id: string;
  amount: number;
  digits: number;
  helper: boolean;
}

test("every form as its authority draws it: each figure of it stands in its place and opens, and it prints", async ({
  page,
}) => {
  test.setTimeout(300_000);
  const clients = await get<{ id: number }[]>("/clients");
  let drawn = 0;
  for (const { id } of clients) {
    const { registrations } = await get<{ registrations: { id: number }[] }>(`/clients/${id}`);
    for (const { id: rid } of registrations) {
      const [tile] = await get<Tile[]>(`/clients/${id}/registrations/${rid}/periods`);
      if (!tile) continue;
      const base = `/clients/${id}/registrations/${rid}/returns/${tile.to}`;
      const { boxes } = await get<{ boxes: Box[] }>(base);
      await page.goto(`${server.address}/c/${id}/return?r=${rid}&period=${tile.to}`);
      await expect(page.getByRole("table").first()).toBeVisible();
      const tabs = page.getByRole("tab", { name: "As the form draws it" });
      if ((await tabs.count()) === 0) continue;
      drawn += 1;
      for (const { id: box } of boxes.filter(({ amount, helper }) => amount !== 0 && !helper))
        await expect(page.getByRole("button", { name: `Box ${box} ` }).first()).toBeVisible();
      const pdf = await fetch(`${server.address}/api${base}/pdf`);
      expect(
        Buffer.from(await pdf.arrayBuffer())
          .subarray(0, 5)
          .toString(),
      ).toBe("%PDF-");
      const [first] = boxes.filter(({ amount, helper }) => amount !== 0 && !helper);
      if (!first) continue;
      await page
        .getByRole("button", { name: `Box ${first.id} ` })
        .first()
        .click();
      await expect(page.getByRole("region", { name: "Trail" })).toContainText(first.id);
    }
  }
  expect(drawn).toBeGreaterThan(5);
});

interface Tile {
  to: string;
  due: string;
  state: string;
}

test("the demonstration is a practice at work: its books balance, what is filed agrees, and who is behind is so on purpose", async () => {
  test.setTimeout(180_000);
  const today = new Date().toISOString().slice(0, 10);
  const clients = await get<{ id: number; name: string }[]>("/clients");
  expect(clients.length).toBeGreaterThanOrEqual(10);
  let documents = 0;
  const behind: string[] = [];
  for (const { id, name } of clients) {
    const { registrations } = await get<{ registrations: { id: number }[] }>(`/clients/${id}`);
    const balances = await get<{ closing: number }[]>(
      `/clients/${id}/trial-balance?from=2000-01-01&to=2099-12-31`,
    );
    expect([name, balances.reduce((sum, { closing }) => sum + closing, 0)]).toEqual([name, 0]);
    documents += (await get<{ total: number }>(`/clients/${id}/documents?limit=1`)).total;
    for (const { id: rid } of registrations) {
      const base = `/clients/${id}/registrations/${rid}`;
      const tiles = await get<Tile[]>(`${base}/periods`);
      const overdue = tiles.filter(({ due, state }) => due < today && !["filed", "settled"].includes(state));
      if (overdue.length > 0) behind.push(`${name}: ${overdue.length}`);
      expect(
        overdue.length,
        `${name} is behind by ${overdue.map(({ to }) => to).join(", ")}`,
      ).toBeLessThanOrEqual(2);
      const done = tiles.filter(({ state }) => ["filed", "settled"].includes(state));
      for (const { to, state } of [...done.slice(0, 1), ...done.slice(-2)]) {
        const { left } = await get<{ left: number }>(`${base}/agreements/${to}/control`);
        const settled = await get<{ net: number; columns?: object }>(`${base}/settlements/${to}`);
        expect([name, to, state, left]).toEqual([name, to, state, 0]);
        expect(typeof settled.net).toBe("number");
      }
    }
  }
  expect(documents).toBeGreaterThan(12_000);
  expect(behind.length).toBeGreaterThan(0);
  expect(await get<{ broken: object[] }>("/audit")).toMatchObject({ broken: [] });
});

/** Addresses of a client for screens that stand for many: one of each kind of thing it has. */
async function filledIn(client: number): Promise<Record<string, string[]>> {
  const mixes = new Map<string, number>();
  for (let offset = 0; ; offset += 500) {
    const { rows } = await get<{ rows: DocumentRow[] }>(
      `/clients/${client}/documents?limit=500&offset=${offset}`,
    );
    for (const { id, kind, codes } of rows) mixes.set(`${kind} ${codes}`, id);
    if (rows.length < 500 || offset > 3000) break;
  }
  const kinds = ["sales-invoice", "purchase-bill", "expense", "journal"];
  const payments = await get<{ rows: { id: number }[] }>(`/clients/${client}/payments?limit=1`);
  const imports = await get<{ rows: { id: number }[] }>(`/clients/${client}/imports`);
  const [first] = imports.rows;
  return {
    "books/documents/new/:kind": kinds.map((kind) => `books/documents/new/${kind}`),
    "books/documents/:documentId": [...mixes.values()].map((id) => `books/documents/${id}`),
    "books/payments/new/:kind": ["receipt", "payment"].map((kind) => `books/payments/new/${kind}`),
    "books/payments/:paymentId": payments.rows.map(({ id }) => `books/payments/${id}`),
    "books/import/:importId": first ? [`books/import/${first.id}`] : [],
    "books/ledger/:account": ["books/ledger/4000"],
  };
}
