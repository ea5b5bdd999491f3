import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { proposeMatches } from "@fiscalon/core/agree/bankMatching";
import type { BankCandidates, BankLine, OpenDocument, OpenEntry } from "@fiscalon/core/agree/bankMatching";

const NONE: BankCandidates = { entries: [], documents: [], taxes: [] };
const line = (part: Partial<BankLine>): BankLine => ({
  id: 1,
  date: "2026-05-20",
  amount: 120_00,
  party: "",
  text: "",
  reference: "",
  ...part,
});
const invoice = (part: Partial<OpenDocument>): OpenDocument => ({
  document: 10,
  number: "SK-1004",
  date: "2026-05-04",
  contact: 7,
  party: "Reed & Co Ltd",
  amount: 120_00,
  ...part,
});
const entry = (part: Partial<OpenEntry>): OpenEntry => ({
  entry: 30,
  date: "2026-05-20",
  amount: 120_00,
  text: "Receipt R-5",
  party: "",
  ...part,
});
const best = (one: Partial<BankLine>, candidates: Partial<BankCandidates>) =>
  proposeMatches([line(one)], { ...NONE, ...candidates }).get(1)?.[0];

/** Common practice, no source: a bank line is what it names first, then what it fits in amount, date and party. */
describe("what a line of the bank is", () => {
  test("nothing fits: nothing is proposed", () =>
    expect(best({}, { documents: [invoice({ amount: 119_99 })] })).toBeUndefined());

  test.each([
    ["its number, written otherwise", { text: "INV sk 1004 thanks" }, 95],
    ["its number in the reference", { reference: "RF-SK/1004" }, 95],
    ["its number and its party", { party: "REED & CO", text: "SK1004" }, 99],
    ["its party alone, without the kind of company", { party: "Reed and Co Limited" }, 85],
    ["nothing: the amount alone is a guess", {}, 55],
  ])("a document in full: the line names %s", (_, part, score) =>
    expect(best(part, { documents: [invoice({})] })).toMatchObject({
      kind: "documents",
      score,
      documents: [{ document: 10, amount: 120_00 }],
    }),
  );

  test("money before the invoice is dated is less likely", () => {
    const early = best({ date: "2026-04-01" }, { documents: [invoice({})] });
    expect(early).toBeUndefined();
  });

  test("several documents that it names, or the oldest that add up to it", () => {
    const documents = [
      invoice({ document: 1, number: "SK-1", date: "2026-04-01", amount: 50_00 }),
      invoice({ document: 2, number: "SK-200", date: "2026-04-02", amount: 70_00 }),
      invoice({ document: 3, number: "SK-300", date: "2026-04-03", amount: 50_00 }),
    ];
    expect(best({ party: "Reed & Co" }, { documents })).toMatchObject({
      score: 88,
      documents: [{ document: 1 }, { document: 2 }],
    });
    expect(best({ party: "Reed & Co", text: "SK-200 and SK-300" }, { documents })).toMatchObject({
      score: 96,
      documents: [{ document: 2 }, { document: 3 }],
    });
  });

  test("a part of the one it names, never of one it does not", () => {
    const documents = [invoice({ amount: 500_00 })];
    expect(best({ party: "Reed & Co", text: "on account of SK-1004" }, { documents })).toMatchObject({
      score: 70,
      documents: [{ document: 10, amount: 120_00 }],
    });
    expect(best({ party: "Reed & Co" }, { documents })).toBeUndefined();
  });

  test("money out pays bills, money in does not", () => {
    const documents = [invoice({ amount: -120_00 })];
    expect(best({ amount: -120_00, text: "SK-1004" }, { documents })?.kind).toBe("documents");
    expect(best({ amount: 120_00, text: "SK-1004" }, { documents })).toBeUndefined();
  });

  test.each([
    [0, 85],
    [3, 80],
    [10, 70],
    [31, 55],
    [32, 30],
  ])("an entry of the same amount %i days away scores %i", (days, score) => {
    const date = new Date(Date.UTC(2026, 4, 20 - days)).toISOString().slice(0, 10);
    expect(best({}, { entries: [entry({ date })] })).toMatchObject({ kind: "entry", entry: 30, score });
  });

  test("the same amount the other way round is told, and never sure", () => {
    const found = best({ text: "Receipt R-5" }, { entries: [entry({ amount: -120_00 })] });
    expect(found).toMatchObject({ kind: "wrong-way", entry: 30 });
    expect(found?.score).toBeLessThan(85);
  });

  test("tax is known by the levy or the authority", () => {
    const tax = { registration: 2, period: "2026-03-31", levy: "VAT", amount: -120_00, names: ["hmrc"] };
    expect(best({ amount: -120_00, text: "HMRC NDDS" }, { taxes: [tax] })).toMatchObject({ score: 97 });
    expect(best({ amount: -120_00, text: "VAT Q1" }, { taxes: [tax] })).toMatchObject({ score: 97 });
    expect(best({ amount: -120_00, text: "payment" }, { taxes: [tax] })).toMatchObject({ score: 75 });
    expect(best({ amount: 120_00, text: "HMRC" }, { taxes: [tax] })).toBeUndefined();
  });
});

test("two lines alike: the entry goes to the better one, the other is offered the next", () => {
  const lines = [line({ id: 1, date: "2026-05-18" }), line({ id: 2 })];
  const found = proposeMatches(lines, {
    ...NONE,
    entries: [entry({}), entry({ entry: 31, date: "2026-05-19" })],
  });
  expect([found.get(2)?.[0], found.get(1)?.[0]]).toMatchObject([{ entry: 30 }, { entry: 31 }]);
});

test("any lines and candidates: what is sure is given once, money keeps its direction, the same again gives the same", () => {
  const amounts = fc.constantFrom(-120_00, -50_00, 50_00, 120_00, 170_00);
  const day = fc.integer({ min: 1, max: 28 }).map((d) => `2026-05-${String(d).padStart(2, "0")}`);
  const parties = fc.constantFrom("Reed & Co Ltd", "Oxbow Trading", "");
  const numbers = fc.constantFrom("SK-1004", "SK-1005", "CB-77");
  const unique = <T extends object, K extends string>(list: fc.Arbitrary<T[]>, key: K) =>
    list.map((all) => all.map((one, index) => ({ ...one, [key]: index + 1 }) as T & Record<K, number>));
  fc.assert(
    fc.property(
      unique(
        fc.array(
          fc.record({
            date: day,
            amount: amounts,
            party: parties,
            text: numbers,
            reference: fc.constant(""),
          }),
          { maxLength: 8 },
        ),
        "id",
      ),
      unique(
        fc.array(
          fc.record({
            date: day,
            amount: amounts,
            party: parties,
            number: numbers,
            contact: fc.constant(null),
          }),
          { maxLength: 8 },
        ),
        "document",
      ),
      unique(
        fc.array(fc.record({ date: day, amount: amounts, party: parties, text: numbers }), { maxLength: 8 }),
        "entry",
      ),
      (lines, documents, entries) => {
        const found = proposeMatches(lines, { documents, entries, taxes: [] });
        expect(proposeMatches(lines, { documents, entries, taxes: [] })).toEqual(found);
        const given = new Map<string, number>();
        for (const one of lines) {
          const [first] = found.get(one.id) ?? [];
          if (!first || first.score < 85) continue;
          const keys =
            first.kind === "documents"
              ? first.documents.map(({ document }) => `d${document}`)
              : first.kind === "tax"
                ? []
                : [`e${first.entry}`];
          for (const key of keys) {
            expect(given.get(key) ?? one.id).toBe(one.id);
            given.set(key, one.id);
          }
          if (first.kind === "documents")
            for (const { document } of first.documents)
              expect(Math.sign(documents[document - 1]?.amount ?? 0)).toBe(Math.sign(one.amount));
        }
      },
    ),
    { numRuns: 300 },
  );
});
