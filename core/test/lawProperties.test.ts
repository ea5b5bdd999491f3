import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { addDays } from "@fiscalon/core/calendar/date";
import { withRow } from "@fiscalon/core/jurisdictions/amendedPack";
import type { RateChangeRule } from "@fiscalon/core/model/rateChange";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { documentsIssued } from "@fiscalon/core/returns/documentsIssued";
import { checkSchedules } from "@fiscalon/core/tax/checkSchedules";
import { rateParts } from "@fiscalon/core/tax/rateChange";
import { rateDifferences } from "@fiscalon/core/tax/rateDifferences";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";

const START = "2020-01-01";
const day = (offset: number) => addDays(START, offset);
const rate = fc.integer({ min: 0, max: 30 }).map(String);

/** Rows one after another, now and then with a gap, the last perhaps without an end. */
const schedule = fc
  .array(fc.record({ days: fc.integer({ min: 1, max: 90 }), gap: fc.integer({ min: 0, max: 5 }), rate }), {
    minLength: 1,
    maxLength: 6,
  })
  .chain((parts) => fc.tuple(fc.constant(parts), fc.boolean()))
  .map(([parts, open]) => {
    let at = 0;
    return parts.map(({ days, gap, rate: own }, index): RateRow => {
      const from = at + gap;
      at = from + days;
      const last = index === parts.length - 1;
      return { from: day(from), to: last && open ? null : day(at - 1), rate: own, source: "drawn" };
    });
  });
const change = fc
  .record({
    from: fc.integer({ min: -30, max: 500 }),
    days: fc.option(fc.integer({ min: 1, max: 200 })),
    rate,
  })
  .map(({ from, days, rate: own }) => ({
    from: day(from),
    to: days === null ? null : day(from + days - 1),
    rate: own,
    source: "corrected",
  }));

test("a corrected rate holds on its days, every other day keeps its own, and no day has two", () => {
  fc.assert(
    fc.property(schedule, change, (rows, row) => {
      const after = withRow(rows, row);
      checkSchedules({ drawn: after });
      for (let offset = -40; offset < 760; offset += 1) {
        const on = day(offset);
        const inside = row.from <= on && (row.to === null || on <= row.to);
        const wanted = inside ? row.rate : rowInForce(rows, on)?.rate;
        if (rowInForce(after, on)?.rate !== wanted) return false;
      }
      return true;
    }),
    { numRuns: 200 },
  );
});

describe.each(
  SHIPPED.flatMap(({ id, rateChanges = [] }) =>
    rateChanges.map((rule): [string, RateChangeRule] => [`${id} ${rule.supply ?? ""}`, rule]),
  ),
)("a supply over a change of rate, %s", (_name, rule) => {
  const on = "2024-01-01";
  const supply = fc.integer({ min: 1, max: 1_000_000 }).chain((amount) =>
    fc.record({
      amount: fc.constant(amount),
      delivered: fc.integer({ min: 0, max: amount }),
      paid: fc.integer({ min: 0, max: amount }),
      invoiced: fc.constantFrom("2023-12-15", "2024-01-15"),
    }),
  );
  const split = (one: { amount: number; delivered: number; paid: number; invoiced: string }) =>
    rateParts(rule, { schedule: "", on, before: "8", after: "9" }, one);
  const oldOf = (one: Parameters<typeof split>[0]) =>
    split(one)
      .filter(({ rateOn }) => rateOn < on)
      .reduce((sum, { amount }) => sum + amount, 0);

  test("the parts are the whole, none is nothing, and each says why", () => {
    fc.assert(
      fc.property(supply, (one) => {
        const parts = split(one);
        expect(parts.reduce((sum, { amount }) => sum + amount, 0)).toBe(one.amount);
        expect(parts.every(({ amount, why }) => amount > 0 && why.includes(rule.source))).toBe(true);
      }),
    );
  });
  test("everything before is at the old rate; nothing before and invoiced after, at the new one", () => {
    fc.assert(
      fc.property(supply, ({ amount }) => {
        const all = { amount, delivered: amount, paid: amount };
        expect(oldOf({ ...all, invoiced: "2023-12-15" })).toBe(amount);
        expect(oldOf({ amount, delivered: 0, paid: 0, invoiced: "2024-01-15" })).toBe(0);
      }),
    );
  });
  test("more delivered or paid before never makes the old part smaller", () => {
    fc.assert(
      fc.property(supply, fc.nat(1000), (one, more) => {
        const later = {
          ...one,
          delivered: Math.min(one.amount, one.delivered + more),
          paid: Math.min(one.amount, one.paid + more),
        };
        expect(oldOf(later)).toBeGreaterThanOrEqual(oldOf(one));
      }),
    );
  });
});

test("every number that was given stands in one run, cancelled or not, and no run has a gap", () => {
  const number = fc.record({
    nature: fc.constantFrom("invoices", "notes"),
    prefix: fc.constantFrom("A-", "B/26-", ""),
    count: fc.integer({ min: 1, max: 40 }),
    cancelled: fc.boolean(),
  });
  fc.assert(
    fc.property(fc.array(number, { maxLength: 60 }), (drawn) => {
      const given = drawn.map(({ prefix, count, ...one }) => ({ ...one, number: `${prefix}${count}` }));
      const distinct = new Set(given.map((one) => `${one.nature} ${one.number}`));
      const runs = documentsIssued(given);
      expect(runs.reduce((sum, { total }) => sum + total, 0)).toBe(distinct.size);
      for (const { from, to, total, cancelled, net } of runs) {
        const counted = (text: string) => Number(/\d+$/.exec(text)?.[0]);
        const [first, last] = [from, to].map((text) => counted(text.replace(/^B\/26-/, "")));
        expect(total).toBe((last ?? 0) - (first ?? 0) + 1);
        expect(cancelled + net).toBe(total);
      }
    }),
  );
});

test("two lists of rates differ on the days on which a rate in force is another, and on no others", () => {
  fc.assert(
    fc.property(schedule, schedule, fc.integer({ min: -40, max: 700 }), (before, after, offset) => {
      const on = day(offset);
      const [was, becomes] = [before, after].map((rows) => rowInForce(rows, on)?.rate ?? null);
      const meant = rateDifferences(before, after).filter(({ from, to }) => from <= on && on <= to);
      expect(meant.map((one) => [one.was, one.becomes])).toEqual(was === becomes ? [] : [[was, becomes]]);
    }),
  );
});
