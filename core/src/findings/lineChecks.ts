import { at } from "../at.ts";
import { boxTags } from "../model/boxTags.ts";
import type { Measure } from "../model/boxTags.ts";
import type { Finding } from "../model/finding.ts";
import { displayAmount } from "../money/amount.ts";
import { findBox } from "../returns/findBox.ts";
import { codeByGoods } from "../tax/goodsShare.ts";
import { beyondTolerance } from "../tax/typedTolerance.ts";
import { taxOf } from "./catalogue.ts";
import type { CheckId } from "./catalogue.ts";
import { about, whereOf } from "./checkedLine.ts";
import type { CheckedLine, LineContext } from "./checkedLine.ts";
import { packChecks } from "./packChecks.ts";

type Judge = (line: CheckedLine, context: LineContext) => string | null;

const amountOf = (line: CheckedLine, amount: number, { digits }: LineContext) =>
  taxOf(line.levy, amount, digits);
const OUTSIDE: ReadonlySet<string> = new Set(["wages", "dividends", "loans", "rates"]);
const BLOCKED: ReadonlySet<string> = new Set(["entertaining", "cars"]);

/** Checks that look at one fact by itself, by their id in the catalogue: the sentence, or null where all is well. */
const JUDGES: Readonly<Partial<Record<CheckId, Judge>>> = {
  blocked: (line, context) => {
    if (line.direction !== "purchase" || line.recoverable === 0) return null;
    const deducted = amountOf(line, line.recoverable, context);
    if (line.topic === "car-lease" && line.recoverable === line.tax)
      return `${whereOf(line)}: ${deducted} on a car lease is deducted in full; with any private use it is half.`;
    if (!BLOCKED.has(line.topic ?? "")) return null;
    return `${whereOf(line)}: ${deducted} posted to ${line.accountName} is deducted; it is blocked unless an exception applies.`;
  },
  "wages-coded": (line) =>
    OUTSIDE.has(line.topic ?? "") && line.tags !== ""
      ? `${whereOf(line)}: ${line.accountName} is outside the scope, but code ${line.code} counts it on the return. Use a code that lands nowhere.`
      : null,
  "foreign-vat": (line, context) => {
    if (!isChargedPurchase(line) || line.partyCountry === null) return null;
    if (line.treatment !== "standard" && line.treatment !== "reduced") return null;
    if (line.partyCountry === context.pack.country) return null;
    return `${whereOf(line)} is in ${line.partyCountry}, but ${amountOf(line, line.tax, context)} is deducted as if charged here. Tax of another country is not reclaimed on this return; services from abroad bear a reverse charge.`;
  },
  "unregistered-supplier": (line, context) => {
    // A notional credit on second-hand goods is for exactly that: a seller who is not registered.
    if (!isChargedPurchase(line) || line.partyRegistered !== false || line.treatment === "margin")
      return null;
    return `${whereOf(line)} is not registered, but ${amountOf(line, line.tax, context)} is deducted. Ask for a proper invoice, or use a code without tax.`;
  },
  "goods-share": (line, { pack, digits }) => {
    const cost = line.attributes["goodsCost"];
    if (!pack.goodsShare || !cost) return null;
    const answer = codeByGoods(pack.goodsShare, { code: line.code, net: line.net, cost }, digits);
    return answer ? `${whereOf(line)}: ${answer.text}` : null;
  },
  "income-account": (line) =>
    line.direction === "purchase" && line.accountType === "income" && line.net > 0
      ? `${whereOf(line)}: a purchase is posted to ${line.accountName}, an income account. Choose the account of the cost.`
      : null,
  "no-region": (line, context) =>
    line.tags.includes("?")
      ? `${whereOf(line)}: the return asks for the region of the supply, and it is not known, so ${amountOf(line, line.tax, context)} is in no box. Choose a place with its region on the document, or set the region of the contact and save the document again.`
      : null,
  "no-box": (line, context) => {
    if (line.tags.includes("?")) return null;
    const tags = boxTags(line.tags);
    const landing = tags.filter(({ box }) => findBox(context.form, box) !== undefined);
    const [lost] = tags;
    if (!tags.some(({ measure }) => measured(line)[measure] !== 0)) return null;
    if (lost && landing.length === 0)
      return `${whereOf(line)}: code ${line.code} lands in box ${lost.box}, which ${context.form.name} does not have. Use a code of this return, or change how the registration files.`;
    const onLedger =
      line.direction === "purchase" ? line.recoverable : line.charged === "charged" ? line.tax : 0;
    const counted = landing.some(({ measure }) => measure !== "n" && measure !== "b");
    // Some forms work the tax out from the value; tax typed where the code gives none is never among it.
    const workedOut = landing.length > 0 && line.calculated !== 0;
    if (onLedger === 0 || counted || workedOut) return null;
    return `${whereOf(line)}: ${amountOf(line, onLedger, context)} is posted with code ${line.code}, which counts no tax on the return. Use a code that bears the tax, or take the typed tax away.`;
  },
  "typed-tax": (line, context) => {
    if (!line.typed || line.net === 0 || line.rate === null) return null;
    if (!beyondTolerance(line.tax, line.calculated)) return null;
    return `${whereOf(line)}: typed ${amountOf(line, line.tax, context)}; calculated ${displayAmount(line.calculated, context.digits)}.`;
  },
  "tax-only": (line, context) => {
    if (line.net !== 0 || line.tax === 0 || line.treatment === "adjustment") return null;
    const paper = line.attributes["document"] || line.attributes["certificate"];
    if (paper) return null;
    return `${whereOf(line)}: ${amountOf(line, line.tax, context)} without a value, and no import or tax document number on the line.`;
  },
  "reverse-charge-customer": (line, { pack }) =>
    line.treatment !== "reverse-charge-supplier" || pack.checkNumber(line.partyNumber ?? "").ok
      ? null
      : `${whereOf(line)}: a reverse charge needs a registered customer, and there is no valid ${pack.numberName} on the contact.`,
};

/** What each measure of a box would take of a line. */
function measured({ net, tax, recoverable }: CheckedLine): Readonly<Record<Measure, number>> {
  return { n: net, t: tax, r: recoverable, u: tax - recoverable, g: net + tax, b: net };
}

function isChargedPurchase({ direction, charged, recoverable }: CheckedLine): boolean {
  return direction === "purchase" && charged === "charged" && recoverable !== 0;
}

/**
 * What the checks say about facts of a period. All facts of a document must be among them, or none.
 * @returns each finding once, also where a line is paid in parts and has a fact for each
 * @source where the rule of a check stands is told by the pack, see sourceOf
 */
export function lineFindings(lines: readonly CheckedLine[], context: LineContext): Finding[] {
  const single = lines.flatMap((line) =>
    (Object.entries(JUDGES) as [CheckId, Judge][]).flatMap(([check, judge]) => {
      const text = judge(line, context);
      return text === null ? [] : [about(check, line, text)];
    }),
  );
  const all = [
    ...single,
    ...packChecks(lines, context),
    ...levyOrders(lines, context),
    ...suppliersWithoutNumber(lines, context),
  ];
  return [...new Map(all.map((one) => [one.key, one])).values()];
}

/** Stacked levies whose sum fits while their split does not. */
function levyOrders(lines: readonly CheckedLine[], context: LineContext): Finding[] {
  return groups(
    lines.filter((line) => line.typed && line.charged === "charged" && line.rate !== null),
    (line) => `${line.document} ${line.line}`,
  ).flatMap((facts) => {
    const [first] = facts;
    if (!first || new Set(facts.map(({ levy }) => levy)).size < 2) return [];
    const sum = (of: (line: CheckedLine) => number) => facts.reduce((total, line) => total + of(line), 0);
    const fits = !beyondTolerance(
      sum((line) => line.tax),
      sum((line) => line.calculated),
    );
    if (!fits || !facts.some((line) => beyondTolerance(line.tax, line.calculated))) return [];
    const told = facts.map((line) => amountOf(line, line.tax, context)).join(", ");
    const lawful = facts.map((line) => amountOf(line, line.calculated, context)).join(", ");
    return [
      about(
        "levy-order",
        first,
        `${whereOf(first)}: the paper tells ${told}; charged in the order of the law it is ${lawful}. Correct the split, or ask the issuer.`,
      ),
    ];
  });
}

/** Deductions of some size from a supplier whose tax number is missing or wrong, told by levy as they are deducted. */
function suppliersWithoutNumber(lines: readonly CheckedLine[], context: LineContext): Finding[] {
  const { pack, numberAbove, digits } = context;
  const claims = lines.filter(
    (line) =>
      line.direction === "purchase" &&
      line.charged === "charged" &&
      line.treatment !== "import" &&
      line.treatment !== "margin" &&
      line.recoverable !== 0 &&
      line.documentGross > numberAbove &&
      line.partyRegistered !== false &&
      (line.partyCountry === null || line.partyCountry === pack.country),
  );
  return groups(claims, (line) => String(line.document)).flatMap((facts) => {
    const [first] = facts;
    const sums = groups(facts, ({ levy }) => levy).map((own) => ({
      levy: at(own, 0).levy,
      amount: own.reduce((total, line) => total + line.recoverable, 0),
    }));
    if (!first || sums.every(({ amount }) => amount <= 0)) return [];
    const number = first.partyNumber ?? "";
    const check = pack.checkNumber(number);
    if (number !== "" && check.ok) return [];
    const deducted = sums.map(({ levy, amount }) => taxOf(levy, amount, digits)).join(", ");
    const text =
      check.ok || number === ""
        ? `${whereOf(first)}: ${deducted} is deducted without the supplier's ${pack.numberName}. Add it to the contact.`
        : `${whereOf(first)}: ${check.message}`;
    return [about("no-supplier-number", first, text)];
  });
}

function groups<T>(rows: readonly T[], keyOf: (row: T) => string): T[][] {
  const byKey = new Map<string, T[]>();
  for (const row of rows) {
    const key = keyOf(row);
    const list = byKey.get(key);
    if (list) list.push(row);
    else byKey.set(key, [row]);
  }
  return [...byKey.values()];
}
