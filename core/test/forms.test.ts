import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import type { BoxDefinition, ReturnForm } from "@fiscalon/core/model/returnForm";
import {
  carried,
  computed,
  sum,
  taxed,
  typedIn,
  WHOLE_CUT,
  WHOLE_NEAREST,
} from "@fiscalon/core/packs/shared/formBoxes";
import { checkForm } from "@fiscalon/core/returns/checkForm";
import { boxDefinition, findBox } from "@fiscalon/core/returns/findBox";
import { brokenRules, figuresOfReturn } from "@fiscalon/core/returns/returnFigures";
import { shownBox } from "@fiscalon/core/returns/shownBox";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import type { Adjustment, FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import { PACKS } from "./support/packs.ts";

const form = (boxes: BoxDefinition[], more: Partial<ReturnForm> = {}): ReturnForm => ({
  id: "f",
  name: "Form",
  levies: ["TAX"],
  from: "2000-01-01",
  to: null,
  boxes,
  net: { output: "[1]", input: "[1]", due: "[1]", shown: "1" },
  source: "invented for the test",
  ...more,
});

const facts = (tags: string, net: number, tax = 0, more: Partial<FactGroup> = {}): FactGroup => ({
  code: "S",
  direction: "sale",
  rate: "20",
  tags,
  credit: false,
  late: false,
  count: 1,
  net,
  tax,
  recoverable: tax,
  base: net,
  ...more,
});

const adjustment = (box: string, amount: number): Adjustment => ({ id: 1, box, amount, reason: "till" });

function boxes(of: ReturnForm, groups: FactGroup[], adjustments: Adjustment[] = [], context = {}) {
  const results = evaluateReturn(of, groups, adjustments, context);
  return Object.fromEntries(results.map(({ box, amount }) => [box, amount]));
}

describe("a box", () => {
  test("sums what is tagged with it, by net, tax, both, share and sign", () => {
    const all = form(["1", "2", "3", "4", "5", "6"].map((id) => sum(id, id)));
    const group = facts("1 +n, 2 +t, 3 +g, 4 -n, 5 +11t, 6 +1/2n", 1000, 200);
    expect(boxes(all, [group])).toEqual({ "1": 1000, "2": 200, "3": 1200, "4": -1000, "5": 2200, "6": 500 });
    expect(boxes(all, [group, { ...group, credit: true, net: -1000, tax: -200 }])).toEqual(
      Object.fromEntries(["1", "2", "3", "4", "5", "6"].map((id) => [id, 0])),
    );
  });

  test.each([
    ["to the cent", undefined, 1_99, 1_99],
    ["cut to whole units", WHOLE_CUT, 1_99, 1_00],
    ["cut below zero, towards zero", WHOLE_CUT, -1_99, -1_00],
    ["to the nearest whole", WHOLE_NEAREST, 1_50, 2_00],
    ["to the nearest whole below zero", WHOLE_NEAREST, -1_50, -2_00],
  ])("is rounded once, on its total: %s", (_what, rounding, amount, expected) => {
    const one = form([sum("1", "1", rounding ? { rounding } : {})]);
    expect(boxes(one, [facts("1 +n", amount)])).toEqual({ "1": expected });
    const halves = [facts("1 +n", amount - 33), facts("1 +n", 33)];
    expect(boxes(one, halves)).toEqual({ "1": expected });
  });

  test("takes adjustments before it is rounded, and tells them as parts", () => {
    const one = form([sum("1", "1", { rounding: WHOLE_CUT })]);
    const [result] = evaluateReturn(one, [facts("1 +n", 1_60)], [adjustment("1", 50)]);
    expect([result?.amount, result?.exact, result?.exactText]).toEqual([2_00, 2_10, "2.1"]);
    expect(result?.contributions.map(({ kind, amount }) => [kind, amount])).toEqual([
      ["facts", 1_60],
      ["adjustment", 50],
    ]);
  });

  test("that must not be negative gives its amount to the one against it", () => {
    const both = form([sum("1", "1", { negativeTo: "2" }), sum("2", "2", { negativeTo: "1" })]);
    expect(boxes(both, [facts("1 +n", -500), facts("2 +n", 200)])).toEqual({ "1": 0, "2": 700 });
    expect(boxes(both, [facts("1 +n", 100), facts("2 +n", -50)])).toEqual({ "1": 150, "2": 0 });
    expect(boxes(both, [facts("1 +n", -500)], [adjustment("1", 600)])).toEqual({ "1": 100, "2": 0 });
  });

  test("is worked out from others in any order they stand in, by their rounded amounts", () => {
    const chain = form([
      computed("3", "3", "[2] * 2"),
      computed("2", "2", "[1] + 1"),
      sum("1", "1", { rounding: WHOLE_CUT }),
    ]);
    expect(boxes(chain, [facts("1 +n", 4_99)])).toEqual({ "1": 4_00, "2": 5_00, "3": 10_00 });
  });

  test("that is the tax on another one takes each rate for itself, and adjustments at the one in force", () => {
    const two = form([sum("1", "1"), taxed("2", "2", "1", "s")]);
    const groups = [
      facts("1 +b", 1000_30, 0, { rate: "2.25", base: 1000_30 }),
      facts("1 +b", -200_10, 0, { rate: "2.25", base: -200_10, credit: true }),
      facts("1 +b", 400_00, 0, { rate: "2.75", base: 400_00 }),
    ];
    const schedules = { s: [{ from: "2025-02-01", to: null, rate: "2.75", source: "invented" }] };
    const context = { on: "2025-03-31", schedules };
    // 800.20 × 2.25 % = 18.0045; (400.00 + 10.00) × 2.75 % = 11.275.
    expect(boxes(two, groups, [adjustment("1", 10_00)], context)).toEqual({ "1": 1210_20, "2": 29_28 });
    const [, tax] = evaluateReturn(two, groups, [], context);
    expect(tax?.contributions).toEqual([
      { kind: "taxed", box: "1", rate: "2.25", base: 800_20, amount: 18_00 },
      { kind: "taxed", box: "1", rate: "2.75", base: 400_00, amount: 11_00 },
    ]);
  });

  test("takes over what the period before had, and nothing where there was none", () => {
    const over = form([sum("1", "1"), carried("2", "2", "1")]);
    expect(boxes(over, [facts("1 +n", 5)], [], { previous: new Map([["1", 700]]) })).toEqual({
      "1": 5,
      "2": 700,
    });
    expect(boxes(over, [facts("1 +n", 5)])).toEqual({ "1": 5, "2": 0 });
  });

  test("of a family is there for each member that something moved", () => {
    const family = form([sum("3.*.t", "By state"), sum("1", "1")]);
    const moved = [facts("3.29.t +t", 0, 90), facts("3.27.t +t", 0, 18), facts("3.29.t +t", 0, 10)];
    expect(boxes(family, moved)).toEqual({ "3.29.t": 100, "3.27.t": 18, "1": 0 });
    expect(boxDefinition(family, "3.33.t").short).toBe("By state, 33");
    expect([findBox(family, "4"), findBox(family, "3.29.x")]).toEqual([undefined, undefined]);
  });

  test("that is typed holds what was typed", () => {
    expect(boxes(form([typedIn("1", "1")]), [], [adjustment("1", 1234)])).toEqual({ "1": 1234 });
  });
});

describe("a return", () => {
  const vat = form([sum("1", "1"), sum("4", "4"), computed("5", "5", "abs([1] - [4])")], {
    net: {
      output: "[1]",
      input: "[4]",
      due: "[1] - [4]",
      shown: "5",
      allowance: "[1] / 200",
      carried: "max([4] - [1], 0)",
    },
    rules: [
      { formula: "[1] >= 0", says: "Box 1 is not below zero." },
      { formula: "[5] == abs([1] - [4])", says: "Box 5 is the difference." },
    ],
  });

  test("comes to what its form says: to pay, to reclaim, kept, carried", () => {
    const figures = (output: number, input: number) =>
      figuresOfReturn(vat, evaluateReturn(vat, [facts("1 +t", 0, output), facts("4 +t", 0, input)]));
    expect(figures(1000_00, 300_00)).toEqual({
      output: 1000_00,
      input: 300_00,
      net: 700_00,
      allowance: 5_00,
      carried: 0,
      scheme: 0,
    });
    expect(figures(100_00, 300_00)).toMatchObject({ net: -200_00, allowance: 50, carried: 200_00 });
  });

  test("says which rules of the authority its boxes break", () => {
    const results = evaluateReturn(vat, [facts("1 +t", 0, -5)]);
    expect(brokenRules(vat, results)).toEqual(["Box 1 is not below zero."]);
    expect(
      brokenRules(
        vat,
        results.map((box) => (box.box === "5" ? { ...box, amount: 1 } : box)),
      ),
    ).toHaveLength(2);
  });

  test("every shipped form with nothing in it is all zero, owes nothing and breaks no rule", () => {
    for (const pack of PACKS.all)
      for (const one of pack.forms) {
        const context = { on: one.to ?? "2026-06-30", schedules: pack.schedules };
        const results = evaluateReturn(one, [], [], context);
        for (const { box, amount } of results) expect([one.id, box, amount]).toEqual([one.id, box, 0]);
        expect(figuresOfReturn(one, results).net).toBe(0);
        expect([one.id, brokenRules(one, results)]).toEqual([one.id, []]);
      }
  });

  test("neither the order of facts nor their grouping changes any box of any shipped form", () => {
    const cases = fc.constantFrom(...PACKS.all).chain((pack) =>
      fc.record({
        pack: fc.constant(pack),
        form: fc.constantFrom(...pack.forms),
        parts: fc.array(fc.tuple(fc.nat(40), fc.integer({ min: -50_000, max: 50_000 })), {
          minLength: 1,
          maxLength: 12,
        }),
      }),
    );
    fc.assert(
      fc.property(cases, ({ pack, form: one, parts }) => {
        const sums = one.boxes.filter(({ kind, id }) => kind === "sum" && !id.includes("*"));
        if (sums.length === 0) return;
        const groups = parts.map(([index, amount]) =>
          facts(`${at(sums, index % sums.length).id} +n`, amount),
        );
        const split = groups.flatMap((group) => [
          { ...group, net: group.net - 7, base: group.base - 7 },
          { ...group, net: 7, base: 7 },
        ]);
        const context = { on: one.to ?? "2026-06-30", schedules: pack.schedules };
        const amounts = (list: FactGroup[]) =>
          evaluateReturn(one, list, [], context).map(({ amount }) => amount);
        expect(amounts([...groups].reverse())).toEqual(amounts(groups));
        expect(amounts(split)).toEqual(amounts(groups));
      }),
      { numRuns: 300 },
    );
  });
});

describe("a form that cannot be evaluated is refused with the place of the fault", () => {
  const refusal = (of: ReturnForm) => {
    try {
      checkForm(of, {});
    } catch (error) {
      if (error instanceof FiscalError) return [error.code, error.field];
      throw error;
    }
    return [];
  };
  const one = sum("1", "1");
  test.each<[string, ReturnForm, string, string]>([
    ["two boxes of one name", form([one, one]), "returns/double-box", "boxes[1].id"],
    [
      "a formula over a box that is not there",
      form([one, computed("2", "2", "[9]")]),
      "returns/unknown-box",
      "boxes[1].formula",
    ],
    [
      "a formula over a name",
      form([one, computed("2", "2", "net")]),
      "formula/unknown-name",
      "boxes[1].formula",
    ],
    [
      "a formula over rates that are not there",
      form([one, computed("2", "2", "{x.STD}")]),
      "formula/unknown-name",
      "boxes[1].formula",
    ],
    [
      "a box taken over from nowhere",
      form([one, carried("2", "2", "9")]),
      "returns/unknown-box",
      "boxes[1].of",
    ],
    [
      "a box against one that is not there",
      form([sum("1", "1", { negativeTo: "9" })]),
      "returns/unknown-box",
      "boxes[0].negativeTo",
    ],
    [
      "a figure to show that is not there",
      form([one], { net: { output: "[1]", input: "[1]", due: "[1]", shown: "9" } }),
      "returns/unknown-box",
      "net.shown",
    ],
    [
      "a figure to show where it comes back that is not there",
      form([one], { net: { output: "[1]", input: "[1]", due: "[1]", shown: "1", repaid: "9" } }),
      "returns/unknown-box",
      "net.repaid",
    ],
    [
      "what is due from nowhere",
      form([one], { net: { output: "[1]", input: "[1]", due: "[9]", shown: "1" } }),
      "returns/unknown-box",
      "net.due",
    ],
    [
      "a rule over a box that is not there",
      form([one], { rules: [{ formula: "[9] == 0", says: "no" }] }),
      "returns/unknown-box",
      "rules[0].formula",
    ],
    [
      "boxes that wait for each other",
      form([one, computed("2", "2", "[3]"), computed("3", "3", "[2]")]),
      "returns/circular-boxes",
      "boxes",
    ],
  ])("%s", (_what, of, code, field) => expect(refusal(of)).toEqual([code, field]));

  test("one that can be passes", () =>
    expect(refusal(form([one, computed("2", "2", "[1] * 2")]))).toEqual([]));
});

test.each([
  ["ie-vat3", "T1", "T2"],
  ["ca-fpz500", "103", "106"],
])("%s has a box for what is to pay and one for what comes back", (id, output, input) => {
  const form = at(
    PACKS.all.flatMap(({ forms }) => forms).filter((one) => one.id === id),
    0,
  );
  for (const [box, sign] of [
    [output, 1],
    [input, -1],
  ] as const) {
    const typed: Adjustment[] = [{ id: 1, box, amount: 100_00, reason: "" }];
    const boxes = evaluateReturn(form, [], typed, { digits: 2, on: form.from, schedules: {} });
    const { net } = figuresOfReturn(form, boxes, 2);
    expect(net).toBe(sign * 100_00);
    expect(boxes.find((one) => one.box === shownBox(form, net))?.amount).toBe(100_00);
  }
});
