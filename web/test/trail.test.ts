import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { AUDIT_ENTITIES } from "@fiscalon/contract/audit";
import type { ImportBatch } from "@fiscalon/contract/imports";
import type { RegistrationView } from "@fiscalon/contract/views";
import { at } from "@fiscalon/core/at";
import type { BoxMovement } from "@fiscalon/core/facts/boxMovements";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { changeWords, ENTITIES } from "../src/features/audit/changeWords.ts";
import { differences } from "../src/kit/differences.ts";
import { fieldWords, valueWords } from "../src/kit/versionWords.ts";
import { bodyOfProposal } from "../src/features/bank/proposals.ts";
import { returnsMoved } from "../src/features/documents/returnsMoved.ts";
import { holdsWords, NAMES, QUERY, recordWord, WHAT } from "../src/features/imports/holds.ts";

const packs = new Packs(SHIPPED);

describe("what differs between two versions", () => {
  test.each([
    ["a field changed", { name: "A", rate: 1 }, { name: "B", rate: 1 }, [["name", "A", "B"]]],
    ["a field added", { name: "A" }, { name: "A", note: "x" }, [["note", null, "x"]]],
    ["a field emptied", { name: "A", note: "x" }, { name: "A", note: "" }, [["note", "x", null]]],
    [
      "false and nought are values",
      { a: false, b: 0 },
      { a: true, b: 1 },
      [
        ["a", "false", "true"],
        ["b", "0", "1"],
      ],
    ],
    ["inside a list", { lines: [{ net: "1" }] }, { lines: [{ net: "2" }] }, [["lines[0].net", "1", "2"]]],
    ["a line more", { lines: ["a"] }, { lines: ["a", "b"] }, [["lines[1]", null, "b"]]],
    ["one that is new", null, { name: "A" }, [["name", null, "A"]]],
    ["one that is gone", { name: "A" }, null, [["name", "A", null]]],
    ["nothing, said in three ways", { a: null, b: "" }, { a: undefined }, []],
  ])("%s", (_what, before, after, expected) => {
    expect(differences(before, after).map((one) => [one.path, one.before, one.after])).toEqual(expected);
  });

  test("a version does not differ from itself, and the way back is the way there turned round", () => {
    const anything = fc.object({
      maxDepth: 3,
      values: [fc.string(), fc.integer(), fc.boolean(), fc.constant(null)],
    });
    fc.assert(
      fc.property(anything, anything, (one, other) => {
        expect(differences(one, JSON.parse(JSON.stringify(one)))).toEqual([]);
        const there = differences(one, other).map(({ path, before, after }) => [path, before, after]);
        const back = differences(other, one).map(({ path, before, after }) => [path, after, before]);
        expect(new Set(back.map(String))).toEqual(new Set(there.map(String)));
      }),
      { numRuns: 200 },
    );
  });
});

describe("the audit trail in words", () => {
  test.each([
    ["post", "document", "Invoice SI-1", "posted"],
    ["correct", "document", "Invoice SI-1", "corrected"],
    ["post", "document", null, "posted document"],
    ["archive", "code", "S20", "archived tax code"],
    ["in-review", "return", null, "began the review of return"],
    ["match", "bank-line", null, "matched line of the bank"],
    ["unaccept", "finding", null, "took back the acceptance of finding"],
  ] as const)("%s of a %s named %j", (action, entity, subject, words) => {
    expect(changeWords({ action, entity, subject })).toBe(words);
  });

  test("everything it can be about has a name without our hyphens", () => {
    expect(new Set(Object.keys(ENTITIES))).toEqual(new Set(AUDIT_ENTITIES));
    for (const words of Object.values(ENTITIES)) expect(words).toMatch(/^[a-z ]+$/);
  });

  test.each([
    ["lines[0].taxPoint", "line 1, tax point"],
    ["lines[11].typedTax.CGST", "line 12, tax as printed, cgst"],
    ["paidThrough", "paid from"],
    ["someNewField", "some new field"],
    ["name", "name"],
  ])("the field %s is %s", (path, words) => expect(fieldWords(path)).toBe(words));

  test.each([
    ["contact", "7", "Reed & Co"],
    ["lines[0].contact", "7", "Reed & Co"],
    ["contact", "8", "8"],
    ["date", "2026-07-04", "<2026-07-04>"],
    ["hash", "ab".repeat(32), "abababababab…"],
    ["key", "no-code/12/1", "Line without a tax code"],
    ["key", "of something else", "of something else"],
    ["receipt.processingDate", "2026-07-04T05:07:55.073Z", "<2026-07-04>"],
    ["registered", "true", "yes"],
    ["registered", "false", "no"],
    ["name", "true to life", "true to life"],
  ])("%s %s reads %s", (path, value, words) => {
    expect(valueWords(path, value, { "contact/7": "Reed & Co" }, (date) => `<${date}>`)).toBe(words);
  });
});

describe("what accepting a proposal sends", () => {
  const rest = { score: 90, reasons: [], label: "" };
  test.each([
    ["an entry", { ...rest, kind: "entry" as const, entry: 4 }, { entry: 4 }],
    ["an entry the wrong way round", { ...rest, kind: "wrong-way" as const, entry: 4 }, { entry: 4 }],
    [
      "a payment of tax",
      { ...rest, kind: "tax" as const, registration: 2, period: "2026-03-31" },
      { tax: { registration: 2, period: "2026-03-31" } },
    ],
    [
      "documents, each with its part",
      { ...rest, kind: "documents" as const, contact: 3, documents: [{ document: 5, amount: 1234 }] },
      { contact: 3, documents: [{ document: 5, amount: "12.34" }] },
    ],
    ["nothing that was proposed", undefined, {}],
  ])("%s", (_what, proposal, body) => expect(bodyOfProposal(proposal, 2)).toEqual(body));

  test("amounts in a currency without minor units stay whole", () => {
    const proposal = {
      ...rest,
      kind: "documents" as const,
      contact: null,
      documents: [{ document: 1, amount: 500 }],
    };
    expect(bodyOfProposal(proposal, 0)).toMatchObject({ documents: [{ amount: "500" }] });
  });
});

describe("the returns a document moves", () => {
  const registration = (id: number, pack: string): RegistrationView =>
    ({
      id,
      pack,
      levies: packs.byId(pack).levies.map(({ levy }) => levy),
      options: {},
    }) as unknown as RegistrationView;
  const moved = (movements: Omit<BoxMovement, "parts">[]) =>
    returnsMoved(movements, [registration(1, "gb"), registration(2, "ie")], packs);

  test("each registration and period by itself, boxes by the form's own words", () => {
    const [gb, ie, later] = moved([
      { registration: 1, periodEnd: "2026-03-31", box: "1", amount: 2000 },
      { registration: 1, periodEnd: "2026-03-31", box: "6", amount: 10000 },
      { registration: 2, periodEnd: "2026-02-28", box: "T1", amount: 2300 },
      { registration: 1, periodEnd: "2026-06-30", box: "1", amount: -2000 },
    ]);
    expect(gb?.title).toMatch(/, period to 31 Mar 2026$/);
    expect(gb?.rows.map(({ box, amount }) => [box, amount])).toEqual([
      ["1", 2000],
      ["6", 10000],
    ]);
    for (const { name } of [...(gb?.rows ?? []), ...(ie?.rows ?? [])]) expect(name).not.toBe("");
    expect([ie?.rows.length, later?.rows]).toEqual([
      1,
      [{ box: "1", name: gb?.rows[0]?.name, amount: -2000 }],
    ]);
  });

  test("a box the form does not have says so, and a registration that is gone is still shown", () => {
    expect(
      at(moved([{ registration: 1, periodEnd: "2026-03-31", box: "BC.A", amount: 5 }]), 0).rows[0]?.name,
    ).toMatch(/^not on /);
    expect(at(moved([{ registration: 9, periodEnd: "2026-03-31", box: "1", amount: 5 }]), 0)).toMatchObject({
      title: "Return, period to 31 Mar 2026",
      rows: [{ box: "1", name: "", amount: 5 }],
    });
  });
});

describe("what a file holds, in words", () => {
  const batch = (content: string, direction: string) => ({ content, direction }) as unknown as ImportBatch;
  test.each([
    ["register", "sale", "sales", "document"],
    ["register", "purchase", "purchases", "document"],
    ["e-invoice", "sale", "e-invoice, sent", "document"],
    ["e-invoice", "purchase", "e-invoice, received", "document"],
    ["contacts", "sale", "contacts", "contact"],
    ["items", "sale", "items", "item"],
    ["journal", "sale", "journal", "entry"],
    ["trial-balance", "sale", "trial balance", "document"],
    ["audit-file", "sale", "audit file", "document"],
  ])("%s %s", (content, direction, words, made) => {
    expect([holdsWords(batch(content, direction)), recordWord(batch(content, direction))]).toEqual([
      words,
      made,
    ]);
  });

  test("all that can be dropped has a name, words for the place, and a question of its own", () => {
    expect(Object.keys(WHAT)).toEqual(Object.keys(NAMES));
    const queries = Object.values(QUERY).map((query) => JSON.stringify(query));
    expect(new Set(queries).size).toBe(Object.keys(NAMES).length);
  });
});
