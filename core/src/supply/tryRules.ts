import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { Circumstances } from "../model/circumstances.ts";
import type { RuleQuestion } from "../model/pricedDocument.ts";
import type { SupplyRule } from "../model/supplyRule.ts";
import type { Direction, SupplyKind } from "../model/taxCode.ts";

export interface SupplyQuestion {
  direction: Direction;
  taxClass: string;
  supply: SupplyKind | "";
  on: CalendarDate;
  circumstances: Circumstances;
  /** Whether a registration for a levy is in force; not asked where left out. */
  registeredFor?: ((levy: string) => boolean) | undefined;
}

/** What a rule says to a question: it applies, what would have to be known, or the first thing that does not fit. */
export interface RuleTrial {
  rule: SupplyRule;
  applies: boolean;
  why: string;
}

const ordered = new WeakMap<readonly SupplyRule[], readonly SupplyRule[]>();

/** The rules in the order in which they are asked: most specific first, then as they stand. */
export function inOrderOfAsking(rules: readonly SupplyRule[]): readonly SupplyRule[] {
  const known = ordered.get(rules);
  if (known) return known;
  const sorted = [...rules].sort((a, b) => specificity(b) - specificity(a));
  ordered.set(rules, sorted);
  return sorted;
}

/** How much a rule fixes; a region counts more than a country, and that more than a group of countries. */
export function specificity(rule: SupplyRule): number {
  const place = (text: string) =>
    text === "any"
      ? 0
      : text.includes("-") && text !== "outside-union"
        ? 4
        : /^[A-Z]{2}$/.test(text)
          ? 3
          : text === "abroad"
            ? 1
            : 2;
  return (
    10 * (place(rule.to) + place(rule.from)) +
    5 * (rule.party === "any" ? 0 : 1) +
    (rule.needs ? 3 : 0) +
    (rule.supply === "any" ? 0 : 2) +
    (rule.validFrom !== null || rule.validTo !== null ? 1 : 0)
  );
}

/** What one rule answers: that it applies, that it would if one thing were known, or why it does not. */
type Verdict = { says: "yes" } | { says: "perhaps"; about: RuleQuestion[] } | { says: "no"; why: string };

/** Asks every rule, in order; the first that applies is the answer. The others say why they do not. */
export function tryRules(rules: readonly SupplyRule[], question: SupplyQuestion): RuleTrial[] {
  let answered = false;
  return inOrderOfAsking(rules)
    .filter((rule) => rule.direction === question.direction)
    .map((rule) => {
      const verdict = verdictOf(rule, question);
      if (verdict.says === "no") return { rule, applies: false, why: verdict.why };
      if (verdict.says === "perhaps")
        return {
          rule,
          applies: false,
          why: `depends on ${verdict.about.map((one) => WORD_FOR[one]).join(" and ")}`,
        };
      if (answered) return { rule, applies: false, why: "a more specific rule answered before it" };
      answered = true;
      return { rule, applies: true, why: rule.words };
    });
}

/** What is asked for, in words. */
export const WORD_FOR: Readonly<Record<RuleQuestion, string>> = {
  supply: "goods or services",
  taxClass: "the tax class",
  region: "the region of the other side",
  standing: "whether the other side is registered",
};

/** The answer of the rules: one of them, or the thing that must be known first, or neither. */
export interface RuleAnswer {
  rule: SupplyRule | undefined;
  missing: RuleQuestion | undefined;
}

/** Of several things that are missing, the one that settles most is asked first. */
const FIRST_ASKED: readonly RuleQuestion[] = ["region", "taxClass", "supply", "standing"];

/**
 * Asks the rules in order. Where rules that depend on something unknown come before the one that applies, all of
 * them must lead to the same code; otherwise that thing is asked for, and nothing answers in its stead.
 */
export function answerOfRules(rules: readonly SupplyRule[], question: SupplyQuestion): RuleAnswer {
  const missing = new Set<RuleQuestion>();
  const codes = new Set<string>();
  for (const rule of inOrderOfAsking(rules)) {
    if (rule.direction !== question.direction) continue;
    const verdict = verdictOf(rule, question);
    if (verdict.says === "no") continue;
    codes.add(rule.code);
    if (verdict.says === "perhaps") {
      for (const about of verdict.about) missing.add(about);
      continue;
    }
    if (codes.size === 1) return { rule, missing: undefined };
    break;
  }
  return { rule: undefined, missing: FIRST_ASKED.find((one) => missing.has(one)) };
}

/** The codes the rules may lead to here, whatever is not known of the supply. */
export function codesWithinReach(rules: readonly SupplyRule[], question: SupplyQuestion): Set<string> {
  const within = rules.filter(
    (rule) =>
      rule.code !== "" && rule.direction === question.direction && verdictOf(rule, question).says !== "no",
  );
  return new Set(within.map(({ code }) => code));
}

function verdictOf(rule: SupplyRule, question: SupplyQuestion): Verdict {
  const { taxClass, supply, on, circumstances: at, registeredFor } = question;
  const no = (why: string): Verdict => ({ says: "no", why });
  if (rule.taxClass !== taxClass && taxClass !== "") return no(`is for tax class ${rule.taxClass}`);
  if (rule.supply !== "any" && supply !== "" && rule.supply !== supply) return no(`is for ${rule.supply}`);
  if (rule.validFrom !== null && on < rule.validFrom)
    return no(`applies from ${displayDate(rule.validFrom)}`);
  if (rule.validTo !== null && on > rule.validTo) return no(`applied until ${displayDate(rule.validTo)}`);
  const { home = "", place = "", there = "", country = home, unknown = "" } = at;
  const ours = { country: home, region: place, abroad: false, union: false };
  if (!within(rule.from, ours, home)) return no(`is for supplies from ${rule.from}`);
  const region = unknown.includes("region") ? null : there;
  const theirs = { country, region, abroad: at["abroad"] === "yes", union: at["union"] === "yes" };
  const inPlace = within(rule.to, theirs, home);
  if (inPlace === false) return no(`is for supplies to ${rule.to}`);
  const party = at["party"] ?? "unregistered";
  const open = unknown.includes("standing") && (rule.party === "registered" || rule.party === "unregistered");
  if (rule.party !== "any" && rule.party !== party && !open)
    return no(`is for a party that is ${rule.party}`);
  if (rule.needs && registeredFor && !registeredFor(rule.needs))
    return no(`needs a registration for ${rule.needs}`);
  const about: RuleQuestion[] = [
    ...(inPlace === undefined ? (["region"] as const) : []),
    ...(taxClass === "" ? (["taxClass"] as const) : []),
    ...(rule.supply !== "any" && supply === "" ? (["supply"] as const) : []),
    ...(open ? (["standing"] as const) : []),
  ];
  return about.length === 0 ? { says: "yes" } : { says: "perhaps", about };
}

/** Whether a place is the wanted one; undefined where that depends on its region, and the region is not known. */
function within(
  wanted: string,
  place: { country: string; region: string | null; abroad: boolean; union: boolean },
  home: string,
): boolean | undefined {
  switch (wanted) {
    case "any":
      return true;
    case "home":
      return place.country === home && !place.abroad;
    case "abroad":
      return place.abroad;
    case "union":
      return place.union;
    case "outside-union":
      return place.abroad && !place.union;
  }
  const region = wanted.slice(3);
  if (place.country !== wanted.slice(0, 2)) return false;
  if (region === "") return true;
  return place.region === null ? undefined : place.region === region;
}
