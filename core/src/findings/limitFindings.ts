import { displayDate } from "../calendar/displayDate.ts";
import type { Finding } from "../model/finding.ts";
import type { TurnoverLimit } from "../model/pack.ts";
import { displayAmount } from "../money/amount.ts";
import { addedBack } from "../returns/yearEnd.ts";
import { documentKey, finding } from "./catalogue.ts";
import { filledIn } from "./packChecks.ts";
import type { PeriodContext, PeriodRows } from "./periodRows.ts";

/** What has gone beyond a limit of the law: of a scheme, of time without payment, of sales in a year. */
export function limitFindings(rows: PeriodRows, context: PeriodContext): Finding[] {
  return [
    ...aboveScheme(rows, context),
    ...yearEnds(rows, context),
    ...unpaidTooLong(rows, context),
    ...turnoverLimits(rows, context),
    ...distanceSales(rows, context),
    ...stockBookGaps(rows, context),
    ...outsideSchemes(rows, context),
    ...capitalItems(rows, context),
    ...averagePrices(rows, context),
  ];
}

/** Lines whose average price is not that of the period's own sales, or is not open to their item. */
function averagePrices({ averagePrices: lines }: PeriodRows, { digits }: PeriodContext): Finding[] {
  const show = (amount: number) => displayAmount(amount, digits);
  return lines.flatMap(({ document, line, number, item, typed, least, sold, quantity, of }) => {
    const where = `${number}, line ${line}`;
    const told = (text: string) => [
      finding("average-price", [documentKey(document), line], text, { document, line }),
    ];
    if (item === null)
      return told(
        `${where}: taxed on an average price, but it names no item, so that price cannot be checked.`,
      );
    const share = of === 0 ? 0 : (quantity / of) * 100;
    if (share < least)
      return told(
        `${where}: ${share.toFixed(1)} % of what was sold of ${item} in this period was sold wholesale, and the average price is open from ${least} % on. Use the code of half the retail price.`,
      );
    const average = sold / quantity;
    if (Math.abs(average - typed) < 0.5) return [];
    return told(
      `${where}: taxed on ${show(typed)} a unit; the period's own wholesale sales of ${item} come to ${show(sold)} for ${quantity}, ${show(Math.round(average))} a unit. Correct the average price.`,
    );
  });
}

/** Capital items that cannot be adjusted by what is on record. */
function capitalItems({ capitalShares, capitalUnlisted }: PeriodRows, { digits }: PeriodContext): Finding[] {
  return [
    ...capitalShares.map(({ no, name, to }) =>
      finding(
        "capital-share",
        [no, to],
        `Capital item ${no}, ${name}: this return adjusts its use to ${displayDate(to)}, and no share is typed. Type it under Books, Capital items; as long as it is missing nothing is adjusted.`,
      ),
    ),
    ...capitalUnlisted.map(({ document, line, number, net }) =>
      finding(
        "capital-unlisted",
        [documentKey(document), line],
        `${number}, line ${line}: ${displayAmount(net, digits)} is dear enough for its tax to follow its use over years. Put it on the list under Books, Capital items, if it is such an item.`,
        { document, line },
      ),
    ),
  ];
}

/** What a fiscal year deducted in full and gives back in part, until an adjustment holds it. */
function yearEnds({ yearEnd }: PeriodRows, { digits }: PeriodContext): Finding[] {
  const show = (amount: number) => displayAmount(amount, digits);
  return yearEnd.flatMap(({ rule, year, box, deducted, adjusted }) => {
    const amount = addedBack(rule, deducted);
    if (amount === 0 || adjusted >= amount) return [];
    const text = `${rule.name} of the fiscal year to ${year}: ${rule.share} % of ${show(deducted)} deducted in full is ${show(amount)} to box ${box}, ${rule.says}.`;
    return [
      {
        ...finding("year-end", [rule.id, year, box, amount], text),
        adjust: { box, amount: amount - adjusted },
      },
    ];
  });
}

/** Margin sales whose purchase is not on record as the law asks, with what that costs. */
function stockBookGaps({ soldPieces }: PeriodRows, { digits }: PeriodContext): Finding[] {
  const show = (amount: number) => displayAmount(amount, digits);
  return soldPieces.map(({ document, line, number, piece, missing, full, inside }) =>
    finding(
      "stock-book",
      [documentKey(document), line],
      piece === null
        ? `${number}, line ${line}: sold on the margin, but the line names no piece of the stock book. Without a record tax falls on the whole price.`
        : `${number}, line ${line}: piece ${String(piece).padStart(4, "0")} lacks ${missing.join(", ")}. Without it tax falls on the whole price: ${show(full)} instead of ${show(inside)}.`,
      { document, line },
    ),
  );
}

/** What is coded for a scheme and does not belong there: its tax is then worked out by nobody. */
function outsideSchemes({ schemeLines }: PeriodRows, { digits }: PeriodContext): Finding[] {
  return schemeLines.map(({ document, line, number, scheme, inForce, price, upTo }) =>
    finding(
      inForce ? "pool-limit" : "outside-scheme",
      [documentKey(document), line],
      inForce
        ? `${number}, line ${line}: ${displayAmount(price, digits)} for a piece is above ${displayAmount(upTo, digits)}, the most for ${scheme}. Keep it in the stock book, piece by piece.`
        : `${number}, line ${line}: coded for ${scheme}, which is not in force on its day, so nothing works its tax out. Join the scheme, or correct the code.`,
      { document, line },
    ),
  );
}

/** A scheme that has to be left for what came in. */
function aboveScheme({ schemeIncome }: PeriodRows, { digits }: PeriodContext): Finding[] {
  if (!schemeIncome || schemeIncome.income <= schemeIncome.above) return [];
  const { scheme, income, above } = schemeIncome;
  return [
    finding(
      "scheme-limit",
      [scheme, income],
      `${scheme}: income with tax of twelve months is ${displayAmount(income, digits)}, above ${displayAmount(above, digits)}. Look whether the scheme must be left, and from when.`,
    ),
  ];
}

function unpaidTooLong({ unpaid }: PeriodRows, { digits }: PeriodContext): Finding[] {
  return unpaid
    .filter(({ count }) => count > 0)
    .map(({ name, count, owed, says }) =>
      finding(
        "unpaid-input",
        [name, owed],
        `${name}: ${count} ${count === 1 ? "document" : "documents"}, ${displayAmount(Math.abs(owed), digits)} ${owed < 0 ? "to be taken again" : "to be repaid"} on this return. ${says.charAt(0).toUpperCase()}${says.slice(1)}. Take it under Agree, Unpaid.`,
      ),
    );
}

/** Sales of a year that the law allows a treatment only up to a limit. */
function turnoverLimits({ sold }: PeriodRows, { pack, digits }: PeriodContext): Finding[] {
  return (pack.checks ?? []).flatMap((check) => {
    const found = sold.get(check.id);
    if (check.kind !== "turnover" || !found) return [];
    const limit = turnoverLimit(check.limits, found.year);
    if (!limit) return [];
    const text = (year: number, amount: number, above: number) =>
      filledIn(check.says, {
        year: String(year),
        amount: displayAmount(amount, digits),
        limit: displayAmount(above, digits),
      });
    const { year, soldBefore, passedBy } = found;
    return [
      ...(soldBefore > limit.yearBefore
        ? [
            finding(
              "turnover-limit",
              [year - 1],
              `${text(year - 1, soldBefore, limit.yearBefore)} So it ended on 1 January ${year}.`,
            ),
          ]
        : []),
      ...(passedBy
        ? [
            finding(
              "turnover-limit",
              [year],
              `${text(year, found.sold, limit.year)} ${passedBy.number} passes it; from that document on tax is charged.`,
              { document: passedBy.document },
            ),
          ]
        : []),
    ];
  });
}

/** Sales to consumers in other members that bear tax here although the limit of the union is passed. */
function distanceSales({ distanceSales: found }: PeriodRows, { pack, digits }: PeriodContext): Finding[] {
  const check = pack.checks?.find((one) => one.kind === "distance-sales");
  const limit = found && check?.kind === "distance-sales" ? turnoverLimit(check.limits, found.year) : null;
  if (!found?.first || !check || !limit) return [];
  const { year, sold, soldBefore, passedBy, taxedHere: count, first } = found;
  const lastYear = soldBefore > limit.yearBefore;
  const text = filledIn(check.says, {
    year: String(lastYear ? year - 1 : year),
    amount: displayAmount(lastYear ? soldBefore : sold, digits),
    limit: displayAmount(lastYear ? limit.yearBefore : limit.year, digits),
  });
  const since = lastYear
    ? `So the tax of the customer's state is due on all of ${year}.`
    : `${passedBy?.number ?? ""} passes it: from that very sale on the tax of the customer's state is due.`;
  return [
    finding(
      "distance-sales",
      [year, count],
      `${text} ${since} ${count} ${count === 1 ? "line" : "lines"} of this return, first ${first.number}, ${count === 1 ? "bears" : "bear"} the tax of here. Register for the one-stop shop, or in that state, and change the code.`,
      { document: first.document, line: first.line },
    ),
  ];
}

/** The limits that hold for sales of a year. */
export function turnoverLimit(limits: readonly TurnoverLimit[], year: number): TurnoverLimit | undefined {
  return [...limits].sort((a, b) => b.from - a.from).find(({ from }) => from <= year);
}
