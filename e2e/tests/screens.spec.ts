import { expect, test } from "@playwright/test";
import { startDemo } from "../support/demoServer.ts";
import { screens } from "../support/screens.ts";
import { Visitor } from "../support/visitor.ts";

/** Pages opened at the same time. */
const AT_ONCE = 4;

interface DocumentRow {
  id: number;
  kind: string;
  codes: string;
}

test("every screen of every client of the demonstration, and a document of every kind and mix of codes", async ({
  browser,
}) => {
  test.setTimeout(600_000);
  const server = await startDemo();
  const get = async <T>(path: string) => (await (await fetch(`${server.address}/api${path}`)).json()) as T;
  const clients = await get<{ id: number; name: string }[]>("/clients");
  const paths = screens()
    .filter(({ of, path }) => of === "practice" && !path.includes(":"))
    .map(({ path }) => `/${path}`);
  for (const { id } of clients) {
    const filled = await filledIn(id, get);
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
  await server.stop();
  expect(wrong).toEqual([]);
});

/** Addresses of a client for screens that stand for many: one of each kind of thing it has. */
async function filledIn(
  client: number,
  get: <T>(path: string) => Promise<T>,
): Promise<Record<string, string[]>> {
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
  const imports = await get<{ id: number }[] | { rows: { id: number }[] }>(`/clients/${client}/imports`);
  const [first] = Array.isArray(imports) ? imports : imports.rows;
  return {
    "books/documents/new/:kind": kinds.map((kind) => `books/documents/new/${kind}`),
    "books/documents/:documentId": [...mixes.values()].map((id) => `books/documents/${id}`),
    "books/payments/new/:kind": ["receipt", "payment"].map((kind) => `books/payments/new/${kind}`),
    "books/payments/:paymentId": payments.rows.map(({ id }) => `books/payments/${id}`),
    "books/import/:importId": first ? [`books/import/${first.id}`] : [],
    "books/ledger/:account": ["books/ledger/4000"],
  };
}
