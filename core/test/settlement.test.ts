import fc from "fast-check";
import { expect, test } from "vitest";
import type { Account, AccountRole } from "@fiscalon/core/model/account";
import { roundingAllowed } from "@fiscalon/core/returns/roundingAllowed";
import { formOn } from "@fiscalon/core/returns/formOn";
import { PACKS } from "./support/packs.ts";
import { settlementPostings, spreadOverDue } from "@fiscalon/core/returns/settlementPostings";

const LEVIES = ["CGST", "IGST", "SGST"];
const account = (code: string, role: AccountRole, levy: string | null): Account => ({
  code,
  name: code,
  type: "liability",
  role,
  levy,
  topic: null,
  usualCode: null,
});
const ACCOUNTS = [
  ...LEVIES.flatMap((levy) => [
    account(`out ${levy}`, "output-tax", levy),
    account(`in ${levy}`, "input-tax", levy),
    account(`due ${levy}`, "due-to-authority", levy),
  ]),
  ...(["adjustment", "allowance", "carried-credit", "rounding"] as const).map((role) =>
    account(role, role, "CGST/IGST/SGST"),
  ),
];
const amount = fc.integer({ min: -1_000_000, max: 1_000_000 });
const totalsOf = fc
  .tuple(...LEVIES.map((levy) => fc.record({ levy: fc.constant(levy), output: amount, input: amount })))
  .map((totals) => totals.filter(({ output, input }) => output !== 0 || input !== 0));

test("a closing entry balances, clears the tax accounts, and owes each levy on its own account", () => {
  fc.assert(
    fc.property(totalsOf, fc.integer({ min: -300, max: 300 }), amount, (totals, rounding, adjustments) => {
      fc.pre(totals.length > 0);
      const declared = totals.reduce((sum, { output, input }) => sum + output - input, 0);
      const figures = {
        net: declared + adjustments + rounding,
        adjustments,
        allowance: 0,
        carried: 0,
        scheme: 0,
      };
      const postings = settlementPostings(totals, figures, ACCOUNTS);
      const on = (code: string) =>
        postings.filter((one) => one.account === code).reduce((sum, one) => sum + one.amount, 0);
      expect(postings.reduce((sum, one) => sum + one.amount, 0)).toBe(0);
      totals.forEach(({ levy, output, input }, index) => {
        expect([on(`out ${levy}`), on(`in ${levy}`) + 0]).toEqual([output, -input + 0]);
        const whole = index === 0 ? adjustments + rounding : 0;
        expect(-on(`due ${levy}`) + 0).toBe(output - input + whole);
      });
    }),
  );
});

test("without accounts of their own, the levies of a return are due on that of the first", () => {
  const shared = ACCOUNTS.filter(({ code }) => code !== "due IGST" && code !== "due SGST");
  const totals = LEVIES.map((levy) => ({ levy, output: 300, input: 100 }));
  const figures = { net: 600, adjustments: 0, allowance: 0, carried: 0, scheme: 0 };
  const dues = settlementPostings(totals, figures, shared).filter((one) => one.account.startsWith("due"));
  expect(dues.map((one) => [one.account, one.amount])).toEqual([["due CGST", -600]]);
});

test("money is spread over what is due to the last minor unit; all of it clears every account", () => {
  fc.assert(
    fc.property(fc.array(amount, { minLength: 1, maxLength: 4 }), amount, (owed, paid) => {
      const dues = owed.map((one, index) => ({ account: `due ${index}`, owed: one }));
      const spread = spreadOverDue(paid, dues);
      expect(spread.reduce((sum, one) => sum + one.owed, 0)).toBe(paid);
      const all = owed.reduce((sum, one) => sum + one, 0);
      const cleared = spreadOverDue(all, dues);
      expect(cleared).toEqual(dues.filter((one) => one.owed !== 0));
    }),
  );
});

// What each form rounds: Britain's boxes 1 and 4 are sums to the penny; Ireland cuts T1 to T4.
test.each([
  ["gb", "half-up", 100, 0],
  ["ie", "half-up", 100, 400],
  ["us", "half-up", 100, undefined],
  ["us", "down", 100, undefined],
] as const)("%s, documents rounded %s: %i lines may differ by %s", (id, mode, lines, most) => {
  const form = formOn(PACKS.byId(id), "2026-06-30", id === "us" ? { levies: ["SALES:TX"] } : undefined);
  const allowed = roundingAllowed(form, lines, { level: "line", mode });
  if (most === undefined) {
    const perLine = mode === "down" ? lines : lines / 2;
    expect(allowed).toBeGreaterThanOrEqual(perLine);
    expect(allowed).toBeLessThan(perLine + form.boxes.length);
  } else expect(allowed).toBe(most);
});
