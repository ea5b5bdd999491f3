import { displayDate } from "../calendar/displayDate.ts";
import { correctionOf } from "../model/registration.ts";
import type { DocumentWarning, DocumentEffect, EffectSetup } from "./effect.ts";
import { addMonths } from "../calendar/date.ts";
import { yearsOf } from "../model/timeLimit.ts";
import { displayAmount } from "../money/amount.ts";
import { isJournal, taxPointOf } from "../model/document.ts";
import type { DocumentInput } from "../model/document.ts";
import type { LineTax, PricedLine } from "../model/pricedDocument.ts";
import { codeByGoods } from "../tax/goodsShare.ts";
import { wrongSplit } from "../tax/levyOrder.ts";
import { beyondTolerance } from "../tax/typedTolerance.ts";

/** The warnings of a document; none of them forbids posting. */
export function documentWarnings(
  document: DocumentInput,
  effect: Omit<DocumentEffect, "warnings">,
  setup: EffectSetup,
): DocumentWarning[] {
  return [
    ...unregistered(document, effect),
    ...withoutRegion(effect),
    ...lateItem(effect),
    ...dates(document, setup),
    ...effect.priced.lines.flatMap((line) => [
      ...(line.code || isJournal(document) ? [] : [missingCode(line)]),
      ...typedTax(line, setup.digits),
      ...levyOrder(line, setup.digits),
      ...goodsShare(document, line, setup),
    ]),
  ];
}

function goodsShare(document: DocumentInput, line: PricedLine, setup: EffectSetup): DocumentWarning[] {
  const cost = document.lines[line.no - 1]?.attributes?.["goodsCost"];
  const rule = line.code?.pack === undefined ? undefined : setup.packs.byId(line.code.pack).goodsShare;
  if (!rule || !line.code || cost === undefined || cost === "") return [];
  const answer = codeByGoods(rule, { code: line.code.code, net: line.net, cost }, setup.digits);
  if (!answer) return [];
  return [
    {
      code: "document/goods-share",
      text: `Line ${line.no}: ${answer.text}`,
      line: line.no,
      take: answer.code,
    },
  ];
}

function unregistered(document: DocumentInput, effect: Omit<DocumentEffect, "warnings">): DocumentWarning[] {
  const loose = effect.facts.find((fact) => fact.registration === null && fact.treatment !== "out-of-scope");
  if (!loose) return [];
  const taxed = effect.priced.tax !== 0;
  const isSale = loose.direction === "sale";
  const what = taxed
    ? isSale
      ? `You are charging ${loose.levy} without being registered for it.`
      : `The ${loose.levy} on it cannot be deducted without a registration.`
    : "It will not be on any return.";
  return [
    {
      code: "document/no-registration",
      text: `No ${loose.levy} registration is in force on ${displayDate(taxPointOf(document))}. ${what} Add the registration under Set up, Places & registrations, and this document is counted by itself.`,
      line: null,
    },
  ];
}

/** Boxes that carry a region cannot be told without one. */
function withoutRegion({ facts }: Omit<DocumentEffect, "warnings">): DocumentWarning[] {
  const fact = facts.find(({ tags }) => tags.includes("?"));
  if (!fact) return [];
  return [
    {
      code: "document/no-region",
      text: "The return asks for the region of the supply, and it is not known. Choose a place with its region, or set the region of the contact.",
      line: fact.line,
    },
  ];
}

function lateItem(effect: Omit<DocumentEffect, "warnings">): DocumentWarning[] {
  const late = effect.facts.find((fact) => fact.period?.late)?.period;
  if (!late) return [];
  return [
    {
      code: "document/late-item",
      text: `The period to ${displayDate(late.own.to)} is sealed. This becomes a late item of the period to ${displayDate(late.reported.to)}, and the ledger takes it on ${displayDate(effect.ledgerDate)}.`,
      line: null,
    },
  ];
}

function dates(document: DocumentInput, setup: EffectSetup): DocumentWarning[] {
  const on = taxPointOf(document);
  if (on > addMonths(setup.today, 1)) {
    return [
      {
        code: "document/future",
        text: `The tax point ${displayDate(on)} is more than a month ahead. Check the year.`,
        line: null,
      },
    ];
  }
  const years = Math.max(
    ...setup.registrations.map((r) => yearsOf(correctionOf(setup.packs.byId(r.pack), r.levies).limit)),
    1,
  );
  if (setup.registrations.length > 0 && on < addMonths(setup.today, -12 * years)) {
    return [
      {
        code: "document/old",
        text: `The tax point ${displayDate(on)} is more than ${years} years back. Check the year.`,
        line: null,
      },
    ];
  }
  return [];
}

function missingCode({ no, asks, reason }: PricedLine): DocumentWarning {
  if (asks) return { code: "document/asks", text: `Line ${no}: ${asks.text}`, line: no };
  if (reason) return { code: "document/no-code", text: `Line ${no}: ${reason}`, line: no };
  return {
    code: "document/no-code",
    text: `Line ${no} has no tax code. It is posted, but counted on no return until it gets one.`,
    line: no,
  };
}

/** Stacked levies told in an order the law does not have: the sum is right and the split is wrong. */
function levyOrder(line: PricedLine, digits: number): DocumentWarning[] {
  const wrong = wrongSplit(line);
  if (!wrong) return [];
  const figures = (of: (tax: LineTax) => number) =>
    wrong.map((tax) => `${tax.component.levy} ${displayAmount(of(tax), digits)}`).join(", ");
  return [
    {
      code: "document/levy-order",
      text: `Line ${line.no}: the paper says ${figures((tax) => tax.tax)}; in the lawful order it is ${figures((tax) => tax.calculated)}. The sum fits, the split does not: check which levy is charged on which.`,
      line: line.no,
    },
  ];
}

const CALCULATED: ReadonlySet<string> = new Set(["percent", "per-unit", "per-document", "formula"]);

function typedTax(line: PricedLine, digits: number): DocumentWarning[] {
  return line.taxes
    .filter((tax) => tax.typed && tax.tax !== tax.calculated && CALCULATED.has(tax.component.rate.kind))
    .map((tax) => {
      const figures = `calculated now ${displayAmount(tax.calculated, digits)}, typed ${displayAmount(tax.tax, digits)}`;
      if (line.net === 0) {
        return {
          code: "document/tax-only",
          text: `Line ${line.no} is tax only: ${displayAmount(tax.tax, digits)} ${tax.component.levy} without a value. The typed figure stays; note the import or tax document it comes from.`,
          line: line.no,
        };
      }
      const far = beyondTolerance(tax.tax, tax.calculated);
      return {
        code: far ? "document/typed-tax-far" : "document/typed-tax",
        text: `Line ${line.no}: ${figures}. The typed figure stays${far ? "; it is further off than 1 %" : ""}.`,
        line: line.no,
      };
    });
}
