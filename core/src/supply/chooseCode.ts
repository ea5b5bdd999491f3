import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import type { Account } from "../model/account.ts";
import type { Circumstances } from "../model/circumstances.ts";
import { lineSide, rateDateOf } from "../model/document.ts";
import type { DocumentInput, LineInput } from "../model/document.ts";
import { DOCUMENT_KINDS } from "../model/documentKinds.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import type { Packs } from "../model/packs.ts";
import type { ItemDefaults, UsualCodes } from "../model/party.ts";
import type { CodeChoice, CodeQuestion, CodeSource, RuleQuestion } from "../model/pricedDocument.ts";
import type { SupplyRule } from "../model/supplyRule.ts";
import type { Direction, TaxCode } from "../model/taxCode.ts";
import { circumstancesOf } from "./circumstances.ts";
import { answerOfRules } from "./tryRules.ts";

/** Where codes are found. `accounts`, `saleCode` and `purchaseCode` hold the usual ones; archived codes are not offered. */
export interface CodeFinder extends UsualCodes {
  packs: Packs;
  codes: ReadonlyMap<string, TaxCode>;
  archived: ReadonlySet<string>;
  rules: readonly SupplyRule[];
  accounts: readonly Account[];
  registeredFor?: (levy: string) => boolean;
}

/** A code somebody keeps as usual. */
interface UsualCode {
  code: string | null | undefined;
  source: CodeSource;
  reason: string;
}

/**
 * The code of each line with the sentence why. Candidates in this order, the first that answers wins: typed on the
 * line; the supply rules; usual codes of contact, item, account, place, business. Where a rule would answer if one
 * more thing were known, the line asks for it and has no code until then. A line whose code is null has none on
 * purpose.
 * @throws FiscalError with the path of the line: `tax/unknown-code`, `tax/code-wrong-side`, `tax/code-not-active`
 * @source the order is the product's; what the rules say stands with them
 */
export function chooseCodes(document: DocumentInput, finder: CodeFinder): CodeChoice[] {
  return document.lines.map((line, index) => {
    try {
      return chooseCode(document, line, finder);
    } catch (error) {
      if (!(error instanceof FiscalError)) throw error;
      throw new FiscalError(error.code, error.message, `lines[${index}].${error.field}`, error.details);
    }
  });
}

function chooseCode(document: DocumentInput, line: LineInput, finder: CodeFinder): CodeChoice {
  const typed = line.code ? usableCode(document, line, line.code, finder) : undefined;
  const { direction, sign } = lineSide(document, line, typed);
  if (direction === null) return { ...NO_CODE, circumstances: {} };
  const item = document.items?.[line.item ?? ""];
  const supply = line.supply ?? item?.supply ?? undefined;
  const around = (code?: TaxCode) =>
    circumstancesOf(
      document,
      { ...(supply ? { supply } : {}), ...(line.attributes ? { attributes: line.attributes } : {}) },
      direction,
      sign < 0,
      finder.packs,
      code,
    );
  if (typed) {
    const reason = line.codeReason || TYPED;
    const circumstances = around(typed);
    const asks = placeAsked(typed, direction, circumstances, finder.packs);
    return { code: typed, source: "typed", reason, asks, circumstances };
  }
  const circumstances = around();
  if (line.code === null) return { ...NO_CODE, circumstances };
  const answer = untyped(document, line, { direction, item, circumstances, finder });
  if (!answer.code) return { ...answer, circumstances };
  const found = around(answer.code);
  return { ...answer, asks: placeAsked(answer.code, direction, found, finder.packs), circumstances: found };
}

/** Boxes that name the region a supply is made from ask for it where the document's place has none. */
function placeAsked(
  { components }: TaxCode,
  direction: Direction,
  circumstances: Circumstances,
  packs: Packs,
): CodeQuestion | undefined {
  const pack = packs.ofCountry(circumstances["home"] ?? "");
  if (!pack?.placeAttribute || circumstances["place"] !== "") return undefined;
  const named = components.some(({ boxes }) =>
    JSON.stringify(boxes[direction] ?? null).includes("{placeTag}"),
  );
  if (!named) return undefined;
  return {
    about: "place",
    text: `Which ${pack.placeAttribute} is it supplied from? The box of the return depends on it.`,
  };
}

/** The reason of a code somebody typed. */
export const TYPED = "typed";

const NO_CODE = { code: undefined, source: undefined, reason: undefined, asks: undefined } as const;

interface Known {
  direction: Direction;
  item: ItemDefaults | undefined;
  circumstances: Circumstances;
  finder: CodeFinder;
}

function untyped(document: DocumentInput, line: LineInput, known: Known): Omit<CodeChoice, "circumstances"> {
  const { direction, item, circumstances, finder } = known;
  const usual = usualCodes(document, line, known);
  const said = line.taxClass || item?.taxClass || "";
  const crosses = circumstances["scope"] === "inter";
  const on = rateDateOf(document, line);
  const answers = (one: UsualCode) => isUsable(finder, one.code, direction, on);
  const first = usual.find(answers);
  const regional = first ? regionalClass(first, direction, finder.rules, circumstances["home"] ?? "") : "";
  if (said !== "" || crosses || regional !== "" || !first) {
    const pack = finder.packs.ofCountry(circumstances["home"] ?? "");
    const taxClass = said || (crosses ? impliedClass(usual, direction, finder.rules) : regional);
    const { rule, missing } = answerOfRules(usableRules(finder, direction, on), {
      direction,
      taxClass,
      supply: asSupply(circumstances["supply"]),
      on,
      circumstances,
      registeredFor: finder.registeredFor,
    });
    const lost = rule && pack?.sourcing && isUnknown(circumstances, "region") ? "region" : missing;
    if (lost) return { ...NO_CODE, asks: questionFor(lost, document, direction, pack) };
    if (rule)
      return { code: finder.codes.get(rule.code), source: "rule", reason: rule.words, asks: undefined };
  }
  if (!first) return NO_CODE;
  return {
    code: finder.codes.get(first.code ?? ""),
    source: first.source,
    reason: first.reason,
    asks: undefined,
  };
}

/**
 * The tax class that the business's usual code stands for at home, where the law there gives that class another code from
 * region to region: then the place of the supply decides and not the code. Empty for every other usual code.
 */
function regionalClass(
  { code, source }: UsualCode,
  direction: Direction,
  rules: readonly SupplyRule[],
  home: string,
): string {
  if (source !== "business") return "";
  const within = (place: string) => place.startsWith(`${home}-`);
  const ofSide = rules.filter((rule) => rule.direction === direction);
  const meant = ofSide.find(
    (rule) =>
      rule.code === code && (rule.to === "home" || rule.to === "any" || within(rule.to) || within(rule.from)),
  );
  if (!meant) return "";
  const differs = ofSide.some(
    (rule) =>
      rule.taxClass === meant.taxClass &&
      (within(rule.to) || (within(rule.from) && (rule.to === "home" || rule.to === "any"))),
  );
  return differs ? meant.taxClass : "";
}

function isUnknown(circumstances: Circumstances, what: string): boolean {
  return (circumstances["unknown"] ?? "").split(" ").includes(what);
}

function asSupply(text: string | undefined): "goods" | "services" | "" {
  return text === "goods" || text === "services" ? text : "";
}

/** The usual codes in the order in which they are asked. */
function usualCodes(
  { party, site }: DocumentInput,
  line: LineInput,
  { direction, item, finder }: Known,
): UsualCode[] {
  const of = (codes: Partial<UsualCodes> | undefined) =>
    direction === "sale" ? codes?.saleCode : codes?.purchaseCode;
  const account = line.account ? finder.accounts.find((one) => one.code === line.account) : undefined;
  return [
    { code: of(party), source: "contact", reason: `usual code of ${party?.name ?? "the contact"}` },
    { code: of(item), source: "item", reason: `code of the item ${item?.name ?? ""}` },
    { code: account?.usualCode, source: "account", reason: `code of the account ${account?.name ?? ""}` },
    { code: of(site), source: "place", reason: `usual ${direction} code of ${site?.name ?? "the place"}` },
    { code: of(finder), source: "business", reason: `the business's usual ${direction} code` },
  ];
}

/**
 * What a supply is for tax that nobody said it of: what the first usual code stands for at home, standard where none
 * stands for anything.
 */
function impliedClass(
  usual: readonly UsualCode[],
  direction: Direction,
  rules: readonly SupplyRule[],
): string {
  const atHome = rules.filter(
    (rule) => rule.direction === direction && (rule.to === "home" || rule.to === "any"),
  );
  const specific = [...usual.filter(({ source }) => source !== "contact"), ...usual];
  for (const { code } of specific) {
    const rule = code ? atHome.find((one) => one.code === code) : undefined;
    if (rule) return rule.taxClass;
  }
  return "standard";
}

/** Kept by codes and day, so that rules are put in order once. */
const usable = new WeakMap<CodeFinder["codes"], Map<string, readonly SupplyRule[]>>();

/** The rules that lead to a code in use on this side. */
function usableRules(finder: CodeFinder, direction: Direction, on: CalendarDate): readonly SupplyRule[] {
  const known = usable.get(finder.codes) ?? new Map<string, readonly SupplyRule[]>();
  usable.set(finder.codes, known);
  const key = `${direction} ${on}`;
  const rules =
    known.get(key) ??
    finder.rules.filter(
      (rule) =>
        rule.direction === direction && (rule.code === "" || isUsable(finder, rule.code, direction, on)),
    );
  known.set(key, rules);
  return rules;
}

function isUsable(
  { codes, archived }: CodeFinder,
  name: string | null | undefined,
  direction: Direction,
  on: CalendarDate,
): boolean {
  const code = name && !archived.has(name) ? codes.get(name) : undefined;
  return (
    code !== undefined && (code.direction === "both" || code.direction === direction) && isActive(code, on)
  );
}

function isActive({ from, to }: TaxCode, on: CalendarDate): boolean {
  return (from === null || on >= from) && (to === null || on <= to);
}

/** The question in words that say what to do. */
function questionFor(
  about: RuleQuestion,
  { party }: DocumentInput,
  direction: Direction,
  pack: JurisdictionPack | undefined,
): CodeQuestion {
  const who = party?.name ?? (direction === "sale" ? "the customer" : "the supplier");
  switch (about) {
    case "supply":
      return { about, text: "Goods or services? The code depends on it." };
    case "taxClass":
      return { about, text: "What is it for tax? Choose its tax class; the code depends on it." };
    case "region":
      return {
        about,
        text: `Where is ${who}? Set the region of the contact; the tax ${pack ? `of ${pack.name} ` : ""}depends on it.`,
      };
    case "standing":
      return party
        ? {
            about,
            text: `Is ${who} registered? Say so on the contact, or give its tax number; the code depends on it.`,
          }
        : { about, text: "Choose the supplier; the code depends on whether it is registered." };
  }
}

function usableCode(document: DocumentInput, line: LineInput, name: string, { codes }: CodeFinder): TaxCode {
  const code = codes.get(name);
  if (!code) {
    throw new FiscalError(
      "tax/unknown-code",
      `There is no tax code ${name}. Choose one of the list.`,
      "code",
    );
  }
  const { direction } = DOCUMENT_KINDS[document.kind];
  if (direction && code.direction !== "both" && code.direction !== direction) {
    throw new FiscalError(
      "tax/code-wrong-side",
      `${code.code} is for ${code.direction}s; this document is a ${direction}. Choose a ${direction} code.`,
      "code",
    );
  }
  const on = rateDateOf(document, line);
  if (!isActive(code, on)) {
    throw new FiscalError(
      "tax/code-not-active",
      `${code.code} is in use ${activeInWords(code)}; the tax point is ${displayDate(on)}.`,
      "code",
    );
  }
  return code;
}

function activeInWords(code: TaxCode): string {
  const since = code.from === null ? "" : `from ${displayDate(code.from)}`;
  return code.to === null ? since : `${since} to ${displayDate(code.to)}`.trim();
}
