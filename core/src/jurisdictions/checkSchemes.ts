import { FiscalError } from "../errors.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import type { CapitalItems } from "../model/capitalItem.ts";
import type { CollectionRule } from "../model/collection.ts";
import type { InstalmentRule } from "../model/instalments.ts";
import type { LateCharge } from "../model/lateCharge.ts";
import type { SchemeDefinition } from "../model/scheme.ts";
import { schemesOf } from "../model/scheme.ts";
import { codesByName } from "../tax/expandCode.ts";
import type { OwnJurisdiction } from "./ownJurisdiction.ts";

type PackData = Omit<OwnJurisdiction, "numberPattern">;

/** Something a rule names, where it names it, and what it has to be. */
type Named = readonly [field: string, kind: "code" | "box" | "schedule", names: readonly string[]];

/**
 * What schemes, the stock book and instalments of a jurisdiction name is there: codes, boxes and schedules of rates.
 * @throws FiscalError `jurisdiction/unknown-name`
 */
export function checkSchemes(pack: PackData): void {
  const known = {
    code: new Set([...codesByName(pack.codes).keys()]),
    box: new Set(pack.forms.flatMap((form) => form.boxes.map(({ id }) => id))),
    schedule: new Set(Object.keys(pack.schedules)),
  };
  const named: Named[] = [
    ...schemesOf(pack).flatMap(({ rule }, index) => namedBy(rule, `schemes[${index}].rule`)),
    ...(pack.stockBook
      ? ([
          ["stockBook.sales", "code", pack.stockBook.sales],
          ["stockBook.purchases", "code", pack.stockBook.purchases],
          ["stockBook.rate", "schedule", [pack.stockBook.rate]],
        ] as Named[])
      : []),
    ...(pack.capitalItems ? capitalNames(pack.capitalItems) : []),
    ...(pack.collection ? collectionNames(pack.collection) : []),
    ...(pack.late ?? []).flatMap((rule, index) => lateNames(rule, `late[${index}]`)),
    ...(pack.instalments ?? []).flatMap((rule, index) => boxesOf(rule, `instalments[${index}]`)),
    ...(pack.rateMoves ?? []).map(({ before, after }, index): Named => [
      `rateMoves[${index}]`,
      "code",
      [before.code, ...after.map(({ code }) => code)],
    ]),
  ];
  for (const [field, kind, names] of named) {
    const missing = names.find((name) => !known[kind].has(name));
    if (missing === undefined) continue;
    throw new FiscalError(
      "jurisdiction/unknown-name",
      `${missing} is no ${kind} of this jurisdiction. Add it, or correct the rule.`,
      field,
    );
  }
}

function namedBy(rule: SchemeDefinition["rule"], at: string): Named[] {
  if (rule.kind === "margin-pool")
    return [
      [`${at}.sales`, "code", rule.sales],
      [`${at}.purchases`, "code", rule.purchases],
      [`${at}.rate`, "schedule", [rule.rate]],
      [`${at}.boxes`, "box", Object.values(rule.boxes)],
    ];
  if (rule.kind === "attribution")
    return [
      [`${at}.residual`, "code", rule.residual],
      [`${at}.exempt`, "code", rule.exempt],
      [`${at}.ratio.leftOut`, "code", rule.ratio.leftOut],
      [
        `${at}.boxes`,
        "box",
        Object.values(rule.boxes).flatMap((of) =>
          [of.refused, of.allowed, of.more, of.less].map(({ box }) => box),
        ),
      ],
    ];
  if (rule.kind === "retail-takings")
    return [
      [
        `${at}.rates`,
        "code",
        [rule.takings, ...rule.rates.flatMap(({ takings, goods }) => [takings, ...goods])],
      ],
      [`${at}.rates`, "schedule", rule.rates.flatMap(({ schedule }) => schedule ?? [])],
      [`${at}.boxes`, "box", Object.values(rule.boxes)],
    ];
  if (rule.kind === "percentage-split")
    return [
      [`${at}.rate`, "schedule", [rule.rate]],
      [`${at}.codes`, "code", [...rule.sales.codes, ...rule.stock.codes]],
      [
        `${at}.boxes`,
        "box",
        [rule.sales, rule.stock].flatMap(({ boxes }) => [boxes.tax.box, boxes.free.box]),
      ],
    ];
  if (rule.kind === "yearly-rebate")
    return [
      [`${at}.codes`, "code", rule.codes],
      [`${at}.boxes`, "box", [rule.boxes.credit]],
    ];
  if (rule.kind === "yearly-add-back")
    return [
      [`${at}.codes`, "code", rule.codes],
      [`${at}.boxes`, "box", Object.values(rule.boxes).map(({ box }) => box)],
    ];
  if (rule.kind === "resale-credit")
    return [
      [`${at}.sales`, "code", rule.sales],
      [`${at}.lots`, "code", [...rule.lots.bought, ...rule.lots.sold]],
      [`${at}.boxes`, "box", Object.values(rule.boxes)],
    ];
  if (rule.kind === "ratio-credit")
    return [
      [`${at}.boxes`, "box", [rule.boxes.input]],
      [`${at}.drops`, "box", rule.drops],
    ];
  return [
    [`${at}.outside`, "code", rule.outside],
    [`${at}.capital.codes`, "code", rule.capital?.codes ?? []],
    [`${at}.rates`, "schedule", Object.values(rule.rates.schedules)],
    [`${at}.limitedCost`, "schedule", rule.limitedCost ? [rule.limitedCost.schedule] : []],
    [`${at}.credits`, "schedule", Object.values(rule.credits ?? {})],
    [`${at}.boxes`, "box", Object.values(rule.boxes).flat()],
    [`${at}.drops`, "box", rule.drops],
  ];
}

function lateNames({ way, heads = {} }: LateCharge, at: string): Named[] {
  return [
    [`${at}.heads`, "box", Object.values(heads).flatMap((formula) => parseFormula(formula).boxes)],
    [`${at}.way`, "schedule", way.way === "yearly" ? [way.schedule] : []],
  ];
}

function capitalNames({ boxes, suggested }: CapitalItems): Named[] {
  return [
    ["capitalItems.suggested", "code", suggested],
    ["capitalItems.boxes", "box", Object.values(boxes).flatMap(({ more, less }) => [more.box, less.box])],
  ];
}

function collectionNames({ code, identified, unidentified, kinds }: CollectionRule): Named[] {
  const rates = [{ identified, unidentified }, ...kinds];
  return [
    ["collection.code", "code", [code]],
    ["collection.rates", "schedule", rates.flatMap((one) => [one.identified, one.unidentified])],
  ];
}

function boxesOf({ before = {}, paidIn }: InstalmentRule, at: string): Named[] {
  return [
    [`${at}.before`, "box", Object.values(before).flatMap((formula) => parseFormula(formula).boxes)],
    [`${at}.paidIn`, "box", paidIn === undefined ? [] : [paidIn]],
  ];
}
