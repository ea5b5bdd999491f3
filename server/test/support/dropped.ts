import type { TestServer } from "./testServer.ts";

export interface Report {
  rows: number;
  fresh: number;
  alreadyThere: number;
  newContacts: number;
  newItems: number;
  newAccounts: number;
  problemCount: number;
  problems: { row: number; field: string; message: string }[];
  notices: { message: string }[];
}
type Batch = {
  id: number;
  content: string;
  settings: { codeForBlank: string | null };
  error?: { code: string };
};

export async function droppedOn(
  server: TestServer,
  base: string,
  name: string,
  content: string | Buffer,
  query: string,
  settings: object = {},
) {
  const { body } = await server.upload(`${base}/imports?${query}`, name, content);
  const batch = body as unknown as Batch;
  const path = `${base}/imports/${batch.id}`;
  if (Object.keys(settings).length > 0) await server.ok("PUT", `${path}/settings`, settings);
  const { result } = await server.job(`${path}/check`);
  return { batch, path, report: result as unknown as Report, post: () => server.job(`${path}/post`) };
}
export const balanceOf = async (server: TestServer, base: string, account: string) =>
  (
    await server.ok<{ code: string; closing: number }[]>(
      "GET",
      `${base}/trial-balance?from=2026-01-01&to=2026-12-31`,
    )
  ).find(({ code }) => code === account)?.closing;

/** What droppedOn is given after the server. */
export type Dropped =
  Parameters<typeof droppedOn> extends [TestServer, ...infer Rest extends unknown[]] ? Rest : never;
