import fc from "fast-check";
import type Joi from "joi";
import { describe, expect, test } from "vitest";
import * as bank from "@fiscalon/contract/bank";
import * as code from "@fiscalon/contract/code";
import * as contractDocument from "@fiscalon/contract/document";
import * as payments from "@fiscalon/contract/payments";
import { problemsOf } from "@fiscalon/contract/problems";
import * as returns from "@fiscalon/contract/returns";
import * as series from "@fiscalon/contract/series";
import * as setup from "@fiscalon/contract/setup";
import * as templates from "@fiscalon/contract/templates";
import * as terminals from "@fiscalon/contract/terminals";

/** Every body the API takes, by its name: what a form checks before it sends, and the server when it receives. */
const BODIES = Object.entries({
  ...bank,
  ...code,
  ...contractDocument,
  ...payments,
  ...returns,
  ...series,
  ...setup,
  ...templates,
  ...terminals,
} as Record<string, unknown>).filter(
  (entry): entry is [string, Joi.ObjectSchema] =>
    entry[0].endsWith("Body") && typeof (entry[1] as { validate?: unknown }).validate === "function",
);

const problems = (schema: Joi.Schema, body: unknown) => {
  const { error } = schema.validate(body, { abortEarly: false });
  return error ? problemsOf(error) : [];
};
const told = (schema: Joi.Schema, body: unknown) =>
  problems(schema, body).map(({ field, message }) => [field, message]);

const LINE = { amount: "1.00", code: "S20" };
const invoice = (more: object = {}) => ({
  kind: "sales-invoice",
  date: "2026-05-11",
  lines: [LINE],
  ...more,
});

describe("what does not fit about a body is told in a sentence, with the whole path of the field", () => {
  test.each<[string, object, [string, string][]]>([
    [
      "nothing",
      {},
      [
        ["kind", "kind is missing."],
        ["date", "date is missing."],
        ["lines", "lines is missing."],
      ],
    ],
    [
      "a word nobody knows",
      invoice({ taxPiont: "2026-05-11" }),
      [["taxPiont", "taxPiont is not known here; remove it or check its spelling."]],
    ],
    [
      "a figure that is none",
      invoice({ lines: [LINE, { amount: "1,000.00" }] }),
      [["lines[1].amount", "lines[1].amount must be a decimal number such as 1234.50."]],
    ],
    [
      "a word nobody knows on a line",
      invoice({ lines: [{ ...LINE, accuont: "4000" }] }),
      [["lines[0].accuont", "lines[0].accuont is not known here; remove it or check its spelling."]],
    ],
    ["no lines", invoice({ lines: [] }), [["lines", expect.stringMatching(/^lines /) as unknown as string]]],
    [
      "a day that does not exist",
      invoice({ date: "2026-02-30" }),
      [["date", expect.stringMatching(/^date .*2026/) as unknown as string]],
    ],
    [
      "prices of a third kind",
      invoice({ prices: "net" }),
      [["prices", "prices must be exclusive or inclusive."]],
    ],
  ])("%s", (_what, body, expected) => expect(told(contractDocument.documentBody, body)).toEqual(expected));

  test("a field left empty is missing", () => {
    expect(told(contractDocument.documentBody, invoice({ kind: "" }))).toContainEqual([
      "kind",
      "kind is missing.",
    ]);
  });

  test("a choice of one thing among several, all that is wrong at once", () => {
    expect(told(bank.matchBody, {})).toHaveLength(1);
    expect(told(bank.matchBody, { entry: 1, ignore: "not ours" })).toHaveLength(1);
    expect(told(setup.accountBody, { code: "", type: "thing" }).map(([field]) => field)).toEqual([
      "code",
      "name",
      "type",
    ]);
  });
});

describe("every body", () => {
  test("there are some thirty of them", () => expect(BODIES.length).toBeGreaterThan(25));

  test.each(BODIES)("%s refuses a word it does not know, by its name", (_name, schema) => {
    const found = problems(schema, { wrongWord: 1 });
    expect(found.map(({ field }) => field)).toContain("wrongWord");
  });

  test.each(BODIES)(
    "%s takes anything for an answer: a list of sentences, or nothing wrong; never an error of its own",
    (_name, schema) => {
      fc.assert(
        fc.property(fc.anything({ maxDepth: 2, withDate: false }), (body) => {
          for (const { message } of problems(schema, body)) {
            expect(message).toMatch(/\S.*\.$/su);
            expect(message).not.toMatch(/undefined is|\[object|ValidationError/);
          }
        }),
        { numRuns: 60 },
      );
    },
  );
});
