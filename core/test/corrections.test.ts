import { describe, expect, test } from "vitest";
import { dueDate, dueRuleFor } from "@fiscalon/core/calendar/dueDate";
import { found } from "@fiscalon/core/at";
import type { LateGroup, LateKind } from "@fiscalon/core/model/correction";
import { optionsOn } from "@fiscalon/core/model/registration";
import { corrections } from "@fiscalon/core/returns/corrections";
import type { CorrectionAnswer } from "@fiscalon/core/returns/corrections";
import { lastDayOf } from "@fiscalon/core/model/timeLimit";
import { PACKS } from "./support/packs.ts";

/** Items of a period, in cents: what was not declared, and what was not claimed. */
const late = (
  period: string,
  kind: LateKind,
  { output = 0, input = 0, values = 0, oldest = period }: Partial<LateGroup> = {},
): LateGroup => ({ period, kind, count: 1, output, input, values, oldest });

interface Asked {
  end?: string;
  /** Boxes of this return, and of every earlier one, in cents. */
  boxes?: Record<string, number>;
  earlier?: Record<string, number>;
  options?: Record<string, string>;
}

function ask(
  packId: string,
  groups: LateGroup[],
  { end = "2026-09-30", boxes = {}, earlier = {}, options = {} }: Asked = {},
): CorrectionAnswer[] {
  const pack = PACKS.byId(packId);
  const dueOf = (period: string) => {
    const question = { periodEnd: period, frequency: "quarterly" as const, levies: pack.defaultLevies ?? [] };
    const rule = dueRuleFor(pack.due, question) ?? found(pack.due, () => true, "a rule");
    return dueDate(rule, period);
  };
  return corrections(groups, {
    rule: pack.correction,
    digits: 2,
    end,
    due: dueOf(end),
    dueOf,
    box: (id) => boxes[id] ?? 0,
    boxOf: (_period, id) => earlier[id] ?? 0,
    options: optionsOn(pack, { options }, end),
  });
}
const ways = (answers: CorrectionAnswer[]) => answers.map(({ way, stops }) => (stops ? `${way}!` : way));

/** VAT Notice 700/45: £10,000, or 1 % of box 6 and £50,000; deliberate errors whatever the size. Cases from memory. */
describe("United Kingdom", () => {
  test.each([
    [8_200_00, 0, "on-return"],
    [10_000_00, 0, "on-return"],
    [10_000_01, 0, "separately!"],
    [24_000_00, 2_500_000_00, "on-return"],
    [24_000_00, 2_000_000_00, "separately!"],
    [50_000_00, 9_000_000_00, "on-return"],
    [50_000_01, 9_000_000_00, "separately!"],
  ])("a net error of %d with box 6 of %d", (output, turnover, way) => {
    for (const group of [
      late("2026-06-30", "error", { output }),
      late("2026-03-31", "error", { input: output }),
    ])
      expect(ways(ask("gb", [group], { boxes: { "6": turnover } }))).toEqual([way]);
  });

  test("errors of all periods are netted, deliberate ones are looked at apart, and claims and credit notes are none", () => {
    const answers = ask("gb", [
      late("2026-06-30", "error", { output: 18_000_00 }),
      late("2025-12-31", "error", { output: -9_000_00 }),
      late("2026-06-30", "deliberate", { output: 40_00 }),
      late("2026-06-30", "late-claim", { input: 75_000_00 }),
      late("2026-03-31", "credit-note", { output: -22_000_00 }),
    ]);
    expect(ways(answers)).toEqual(["on-return", "on-return", "separately!", "on-return"]);
    expect(answers.map(({ kind, reason }) => [kind, reason])).toEqual([
      ["late-claim", "within 4 years of the day the return of their period was due, to 7 Aug 2030"],
      ["credit-note", "within 4 years of the end of their period, to 31 Mar 2030"],
      ["deliberate", ""],
      ["error", "9,000.00 is within 10,000.00"],
    ]);
  });

  test("the sentence has the figures of what failed", () => {
    const [answer] = ask("gb", [late("2026-06-30", "error", { output: 24_000_00 })], {
      boxes: { "6": 2_000_000_00 },
    });
    expect(answer?.reason).toBe("24,000.00 is above 10,000.00; 24,000.00 is above 1 % of box 6 (20,000.00)");
    expect(answer?.says).toMatch(/VAT652/);
  });

  test("after four years nothing is put right any more", () => {
    expect(ask("gb", [late("2022-06-30", "error", { output: 10_00 })])).toMatchObject([
      { way: "amend", tooLate: true, says: "too late: it can be put right no more" },
    ]);
    // The return to June 2022 was due on 7 August 2022: a bill of it is claimed until 7 August 2026 at the latest.
    expect(ask("gb", [late("2022-06-30", "late-claim", { input: 10_00 })])).toMatchObject([
      { tooLate: true },
    ]);
    expect(ask("gb", [late("2022-09-30", "late-claim", { input: 10_00 })])).toMatchObject([
      { tooLate: false },
    ]);
  });
});

/** Revenue, Code of Practice for Compliance Interventions, and VATCA 2010 s.99(4); from memory. */
test("Ireland: the limit is for underpayments of one period; overpayments and late bills do not count against it", () => {
  const sixty1 = late("2026-06-30", "error", { output: 6_100_00 });
  expect(ways(ask("ie", [late("2026-06-30", "error", { output: 4_900_00 })]))).toEqual(["on-return"]);
  expect(ways(ask("ie", [sixty1]))).toEqual(["amend!"]);
  expect(ways(ask("ie", [sixty1, late("2026-04-30", "error", { output: -9_000_00 })]))).toEqual([
    "amend!",
    "on-return",
  ]);
  expect(
    ways(
      ask("ie", [
        late("2026-04-30", "error", { output: 5_000_00 }),
        late("2026-06-30", "error", { output: 5_000_00 }),
      ]),
    ),
  ).toEqual(["on-return", "on-return"]);
  expect(ways(ask("ie", [late("2026-06-30", "late-claim", { input: 7_500_00 })]))).toEqual(["on-return"]);
  expect(ways(ask("ie", [late("2026-06-30", "deliberate", { output: 1_00 })]))).toEqual(["amend!"]);
});

/** Correcting GST Errors Determination 2023, GST Act Div 93; from memory. The quarter to June 2025 was due on 28 July. */
describe("Australia", () => {
  const short = (output: number) => late("2025-06-30", "error", { output });
  test.each([
    ["below the limit, found in November 2026", short(12_499_00), "2026-12-31", {}, "on-return"],
    ["exactly the limit", short(12_500_00), "2026-12-31", {}, "amend!"],
    ["more than 18 months after", short(100_00), "2027-03-31", {}, "amend!"],
    [
      "a larger business has more, for 12 months",
      short(24_999_99),
      "2026-06-30",
      { turnover: "20m" },
      "on-return",
    ],
    ["and not for 18", short(24_999_99), "2026-12-31", { turnover: "20m" }, "amend!"],
    [
      "too much declared three years ago",
      late("2023-12-31", "error", { output: -40_000_00 }),
      "2026-12-31",
      {},
      "on-return",
    ],
    [
      "a late bill is no error",
      late("2024-06-30", "late-claim", { input: 90_000_00 }),
      "2026-12-31",
      {},
      "on-return",
    ],
    [
      "recklessness is not forgiven",
      late("2026-06-30", "deliberate", { output: 1_00 }),
      "2026-09-30",
      {},
      "amend!",
    ],
  ])("%s", (_what, group, end, options, way) => {
    expect(ways(ask("au", [group], { end, options }))).toEqual([way]);
  });
  test("an old error does not take a young one with it", () => {
    const answers = ask("au", [short(100_00), late("2026-09-30", "error", { output: 200_00 })], {
      end: "2027-03-31",
    });
    expect(answers.map(({ way, output }) => [way, output])).toEqual([
      ["amend", 100_00],
      ["on-return", 200_00],
    ]);
  });
});

/** IRAS, administrative concession: net GST of $3,000 and values of 5 % of total supplies, each period; from memory. */
test.each([
  [3_000_00, 1_000_00, "on-return"],
  [3_000_01, 1_000_00, "separately!"],
  [2_160_00, 15_000_00, "on-return"],
  [2_160_00, 18_000_00, "separately!"],
])("Singapore: %d of GST and values of %d in error, supplies of 300,000", (output, values, way) => {
  const answers = ask("sg", [late("2026-06-30", "error", { output, values })], {
    earlier: { "4": 300_000_00 },
  });
  expect(ways(answers)).toEqual([way]);
});

/** TAA s 113A and GSTA s 20(3); from memory. */
test("New Zealand: 1,000, or not material; a bill is claimed for two years, later with a reason", () => {
  const error = (output: number) => [late("2026-05-31", "error", { output })];
  expect(ways(ask("nz", error(1_000_00)))).toEqual(["on-return"]);
  expect(ways(ask("nz", error(1_000_01)))).toEqual(["amend!"]);
  expect(ways(ask("nz", error(9_000_00), { boxes: { "10": 450_000_00 } }))).toEqual(["on-return"]);
  expect(ways(ask("nz", error(10_000_01), { boxes: { "10": 900_000_00 } }))).toEqual(["amend!"]);
  const bill = (oldest: string) => [late("2024-03-31", "late-claim", { input: 180_00, oldest })];
  expect(ask("nz", bill("2024-10-10"))).toMatchObject([{ way: "on-return", stops: false }]);
  expect(ask("nz", bill("2024-03-10"))).toMatchObject([{ way: "on-return", stops: true }]);
});

/** ETA 225(4)(b), VAT Act s. 16(3) (ZA), CGST Act s.16(4), AO § 153, TPL (AE); from memory. */
test.each([
  ["ca", late("2022-09-30", "late-claim", { input: 50_000_00 }), "on-return"],
  ["ca", late("2022-03-31", "late-claim", { input: 1_00 }), "amend!"],
  ["ca", late("2026-06-30", "error", { output: 1_00 }), "amend!"],
  ["za", late("2022-11-30", "late-claim", { input: 600_00 }), "on-return"],
  ["za", late("2026-06-30", "error", { output: 1_00 }), "amend!"],
  ["in", late("2026-03-31", "late-claim", { input: 900_00, oldest: "2026-03-31" }), "on-return"],
  ["in", late("2025-03-31", "late-claim", { input: 900_00, oldest: "2025-03-31" }), "amend!"],
  ["in", late("2026-06-30", "error", { output: 9_000_000_00 }), "on-return"],
  ["eu-de", late("2026-06-30", "error", { output: 1_00 }), "amend!"],
  ["ae", late("2026-06-30", "error", { output: 10_000_00 }), "on-return"],
  ["ae", late("2026-06-30", "error", { output: 10_000_01 }), "separately!"],
  ["us", late("2026-06-30", "error", { output: 1_00 }), "amend!"],
])("%s, case %#", (pack, group, way) => {
  expect(ways(ask(pack, [group]))).toEqual([way]);
});

/** CGST Act s.16(4): 30 November after the end of the financial year. */
test.each([
  ["2025-04-01", "2026-11-30"],
  ["2026-03-31", "2026-11-30"],
  ["2026-04-01", "2027-11-30"],
])("India: a document of %s until %s", (document, last) => {
  expect(lastDayOf({ day: "11-30", yearEnds: "03-31" }, { period: document, due: document, document })).toBe(
    last,
  );
});
