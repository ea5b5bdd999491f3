import { expect } from "vitest";
import type { MatchPage, MatchView, StatementView } from "@fiscalon/contract/statements";
import type { TestServer } from "./testServer.ts";

interface Statement {
  view: () => Promise<StatementView>;
  lines: (outcome?: string) => Promise<MatchView[]>;
  post: <T>(what: string, body?: object) => Promise<T>;
}

/** Drops what the other side says, and matches it. */
export async function dropped(
  server: TestServer,
  base: string,
  registration: string,
  query: string,
  name: string,
  content: string | Buffer,
) {
  const { status, body } = await server.upload(`${registration}/statements?${query}`, name, content);
  expect(status, JSON.stringify(body)).toBe(201);
  const one = `${base}/statements/${(body as StatementView).id}`;
  const statement: Statement = {
    view: () => server.ok<StatementView>("GET", one),
    lines: async (outcome = "") =>
      (await server.ok<MatchPage>("GET", `${one}/lines?outcome=${outcome}&limit=500`)).rows,
    post: (what, body) => server.ok("POST", `${one}/${what}`, body),
  };
  await statement.post("match");
  return statement;
}
