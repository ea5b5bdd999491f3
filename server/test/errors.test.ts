import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";
import { ERRORS } from "@fiscalon/contract/errors";

const root = new URL("../../", import.meta.url).pathname;
const sources = ["core", "contract", "server", "web"].flatMap((workspace) =>
  readdirSync(join(root, workspace, "src"), { recursive: true, encoding: "utf8" })
    .filter((name) => /\.tsx?$/.test(name) && name !== "errors.ts")
    .map((name) => readFileSync(join(root, workspace, "src", name), "utf8")),
);

/** Codes where they are thrown: the first argument, also where it is chosen between two. */
function thrownCodes(): Set<string> {
  const thrown = new Set<string>();
  for (const source of sources)
    for (const [, first = ""] of source.matchAll(/new FiscalError\(\s*([^,]*),/g))
      for (const [, code = ""] of first.matchAll(/"([a-z-]+\/[a-z-]+)"/g)) thrown.add(code);
  for (const source of sources)
    for (const [, code = ""] of source.matchAll(/error: \{\s*code: "([a-z-]+\/[a-z-]+)"/g)) thrown.add(code);
  return thrown;
}

test("every error that is thrown is in the catalogue, and nothing else is", () => {
  expect([...thrownCodes()].filter((code) => !(code in ERRORS))).toEqual([]);
  const text = sources.join("\n");
  expect(Object.keys(ERRORS).filter((code) => !text.includes(`"${code}"`))).toEqual([]);
});

test("docs/errors.md lists the catalogue", () => {
  const docs = readFileSync(join(root, "docs/errors.md"), "utf8");
  const listed = [...docs.matchAll(/^\| `([^`]+)`\s*\| (\d+)/gm)].map(([, code, status]) => [
    code,
    Number(status),
  ]);
  expect(listed).toEqual(Object.entries(ERRORS).map(([code, { status }]) => [code, status]));
});
