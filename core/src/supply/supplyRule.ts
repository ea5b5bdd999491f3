import type { CalendarDate } from "../calendar/date.ts";
import type { Direction, SupplyKind } from "../tax/taxCode.ts";
import type { Circumstances } from "./circumstances.ts";

/**
 * A row that says: from this place, to this place, this kind of supply and customer, use this code.
 * - `from`, `to`: `any`; a country `CA`; a region `CA-BC`; `home`, in our own country; `union`, another member of
 *   the European Union; `abroad`, another country; `outside-union`.
 * - `taxClass`: what the item is for tax: standard, reduced, zero, exempt …
 * - `party`: `any`, registered, unregistered, or a standing such as resale or sez.
 * - `words`: the sentence that explains the choice.
 */
export interface SupplyRule {
  id: string;
  direction: Direction;
  taxClass: string;
  supply: SupplyKind | "any";
  from: string;
  to: string;
  party: string;
  validFrom: CalendarDate | null;
  validTo: CalendarDate | null;
  /** The rule holds only where we are registered for this levy. */
  needs?: string | null;
  code: string;
  words: string;
  source: string;
}

export interface SupplyQuestion {
  direction: Direction;
  taxClass: string;
  supply: SupplyKind | "";
  on: CalendarDate;
  circumstances: Circumstances;
  /** Whether a registration for a levy is in force; not asked where left out. */
  registeredFor?: ((levy: string) => boolean) | undefined;
}

/** What a rule says to a question: it applies, or the first thing that does not fit. */
export interface RuleTrial {
  rule: SupplyRule;
  applies: boolean;
  why: string;
}

/** The rules in the order in which they are asked: most specific first, then as they stand. */
export function inOrderOfAsking(rules: readonly SupplyRule[]): SupplyRule[] {
  return [...rules].sort((a, b) => specificity(b) - specificity(a));
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

/** Asks every rule, in order; the first that applies is the answer. The others say why they do not. */
export function tryRules(rules: readonly SupplyRule[], question: SupplyQuestion): RuleTrial[] {
  let answered = false;
  return inOrderOfAsking(rules)
    .filter((rule) => rule.direction === question.direction)
    .map((rule) => {
      const miss = mismatch(rule, question);
      if (miss !== null) return { rule, applies: false, why: miss };
      if (answered) return { rule, applies: false, why: "a more specific rule answered before it" };
      answered = true;
      return { rule, applies: true, why: rule.words };
    });
}

/** The rule that answers, or undefined: then there is no code, and that is a finding. */
export function answeringRule(
  rules: readonly SupplyRule[],
  question: SupplyQuestion,
): SupplyRule | undefined {
  return inOrderOfAsking(rules).find(
    (rule) => rule.direction === question.direction && mismatch(rule, question) === null,
  );
}

function mismatch(rule: SupplyRule, question: SupplyQuestion): string | null {
  const { taxClass, supply, on, circumstances: at, registeredFor } = question;
  if (rule.taxClass !== taxClass) return `is for tax class ${rule.taxClass}`;
  if (rule.supply !== "any" && rule.supply !== supply) return `is for ${rule.supply}`;
  if (rule.validFrom !== null && on < rule.validFrom) return `applies from ${rule.validFrom}`;
  if (rule.validTo !== null && on > rule.validTo) return `applied until ${rule.validTo}`;
  const { home = "", place = "", there = "" } = at;
  const own = { country: home, region: place, abroad: false, union: false };
  if (!within(rule.from, own, home)) return `is for supplies from ${rule.from}`;
  const other = {
    country: at["country"] ?? home,
    region: there,
    abroad: at["abroad"] === "yes",
    union: at["union"] === "yes",
  };
  if (!within(rule.to, other, home)) return `is for supplies to ${rule.to}`;
  const party = at["party"] ?? "unregistered";
  if (rule.party !== "any" && rule.party !== party) return `is for a party that is ${rule.party}`;
  if (rule.needs && registeredFor && !registeredFor(rule.needs))
    return `needs a registration for ${rule.needs}`;
  return null;
}

function within(
  wanted: string,
  place: { country: string; region: string; abroad: boolean; union: boolean },
  home: string,
): boolean {
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
  return place.country === wanted.slice(0, 2) && (region === "" || place.region === region);
}
