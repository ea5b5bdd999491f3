import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";
import { expect, test } from "vitest";
import { rulesInWords } from "@fiscalon/core/jurisdictions/rulesInWords";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { ERRORS } from "@fiscalon/contract/errors";

const root = new URL("../../", import.meta.url).pathname;
const sources = ["core", "contract", "server", "web"].flatMap((workspace) =>
  readdirSync(join(root, workspace, "src"), { recursive: true, encoding: "utf8" })
    .filter((name) => /\.tsx?$/.test(name) && !/^errors(OfFiles)?\.ts$/.test(name))
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

/** The sentences of an expression, "…" where they name something; none where they come from elsewhere. */
function sentencesOf(node: ts.Expression | undefined): string[] {
  if (!node) return [];
  if (ts.isStringLiteralLike(node)) return [node.text];
  if (ts.isTemplateExpression(node))
    return [node.head.text + node.templateSpans.map(({ literal }) => `…${literal.text}`).join("")];
  if (ts.isConditionalExpression(node))
    return [...sentencesOf(node.whenTrue), ...sentencesOf(node.whenFalse)];
  if (ts.isParenthesizedExpression(node)) return sentencesOf(node.expression);
  if (ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken)
    return ["…"];
  if (ts.isBinaryExpression(node))
    return sentencesOf(node.left).flatMap((left) => sentencesOf(node.right).map((right) => left + right));
  return [];
}

/** By code the sentences it is thrown with, as far as they stand where it is thrown. */
function thrownSentences(): Map<string, string[]> {
  const thrown = new Map<string, string[]>();
  const visit = (node: ts.Node): void => {
    if (ts.isNewExpression(node) && node.expression.getText() === "FiscalError")
      for (const code of sentencesOf(node.arguments?.[0]))
        thrown.set(code, [...(thrown.get(code) ?? []), ...sentencesOf(node.arguments?.[1])]);
    ts.forEachChild(node, visit);
  };
  for (const source of sources) visit(ts.createSourceFile("x.tsx", source, ts.ScriptTarget.Latest, true));
  return thrown;
}

/** Whether a sentence of the catalogue is one that is thrown: what "…" stands for may be told more closely. */
function fits(says: string, thrown: string): boolean {
  const parts = thrown.split("…").map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
  return new RegExp(`^${parts.join(".*")}$`, "s").test(says);
}

test("a code is written where it is thrown, never put together", () => {
  expect([...thrownSentences().keys()].filter((code) => code.includes("…"))).toEqual([]);
});

test("the catalogue says what is thrown", () => {
  const other = [...thrownSentences()].flatMap(([code, thrown]) => {
    const says = (ERRORS as Record<string, { says: string }>)[code]?.says;
    return says === undefined || thrown.length === 0 || thrown.some((one) => fits(says, one))
      ? []
      : [{ code, says, thrown }];
  });
  expect(other).toEqual([]);
});

test("docs/tax-rules.md says what the packs say", () => {
  const docs = readFileSync(join(root, "docs/tax-rules.md"), "utf8");
  const bare = (text: string) => text.replace(/[\s\\-]+/g, "");
  expect(bare(docs.split("<!-- from the packs -->")[1] ?? "")).toBe(bare(rulesInWords(SHIPPED)));
});

test("docs/errors.md lists the catalogue", () => {
  const docs = readFileSync(join(root, "docs/errors.md"), "utf8");
  const listed = [...docs.matchAll(/^\| `([^`]+)`\s*\| (\d+)/gm)].map(([, code, status]) => [
    code,
    Number(status),
  ]);
  const sorted = Object.entries(ERRORS).sort(([a], [b]) => (a < b ? -1 : 1));
  expect(listed).toEqual(sorted.map(([code, { status }]) => [code, status]));
});
