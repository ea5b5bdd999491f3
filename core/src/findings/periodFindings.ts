import { displayDate } from "../calendar/displayDate.ts";
import { missingRoles } from "../model/account.ts";
import type { CheckDefinition, Finding } from "../model/finding.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import { WAITING } from "../model/basis.ts";
import { displayAmount } from "../money/amount.ts";
import type { LateKind } from "../model/correction.ts";
import { brokenRules } from "../returns/returnFigures.ts";
import { CHECKS, documentKey, finding } from "./catalogue.ts";
import type { CheckId } from "./catalogue.ts";
import { lineFindings } from "./lineChecks.ts";
import { limitFindings } from "./limitFindings.ts";
import type { PeriodContext, PeriodRows } from "./periodRows.ts";
import { filledIn } from "./packChecks.ts";

/** Checks that name lines whose tax is not on the return, which is why it differs from the ledger. */
const OFF_THE_RETURN: ReadonlySet<string> = new Set(["no-region", "no-box"] satisfies CheckId[]);

/** Every check on a period, in the order of the catalogue. */
export function periodFindings(rows: PeriodRows, context: PeriodContext): Finding[] {
  const ofLines = lineFindings(rows.lines, context);
  const found = [
    ...arithmetic(context),
    ...(ofLines.some(({ check }) => OFF_THE_RETURN.has(check)) ? [] : moreThanRounding(rows, context)),
    ...withoutCause(rows, context),
    ...rests(rows, context),
    ...undecided(rows, context),
    ...uncoded(rows, context),
    ...withoutAccount(context),
    ...unallocated(rows, context),
    ...unregistered(rows),
    ...ofLines,
    ...twins(rows, context),
    ...gapsInSeries(rows),
    ...lateItems(rows, context),
    ...onlyFrom(context),
    ...limitFindings(rows, context),
    ...exemptSales(context),
    ...unusual(rows, context),
  ];
  const order = Object.keys(CHECKS);
  return found.sort((a, b) => order.indexOf(a.check) - order.indexOf(b.check));
}

/** Where the rule of a check stands: in the law of the place, in its rule for late items, or nowhere. */
export function sourceOf(check: CheckId, pack: JurisdictionPack): string {
  const { source }: CheckDefinition = CHECKS[check];
  const law = pack.claims?.sources[check] ?? sourceInRules(check, pack);
  return law || (source ?? "common practice, no source");
}

/** Of a check that follows from a rule of the pack: where that rule stands. */
function sourceInRules(
  check: CheckId,
  { correction, unpaid, schemes, yearEnd, stockBook, capitalItems }: JurisdictionPack,
): string | undefined {
  if (check === "late-item") return correction.source;
  if (check === "unpaid-input") return unpaid?.find(({ claimed }) => !claimed)?.source;
  if (check === "stock-book") return stockBook?.source;
  if (check === "capital-share" || check === "capital-unlisted") return capitalItems?.source;
  if (check === "year-end") return yearEnd?.[0]?.source;
  if (check === "pool-limit") return schemes?.find(({ rule }) => rule.kind === "margin-pool")?.source;
  if (check === "outside-scheme") return schemes?.[0]?.source;
  if (check === "scheme-limit") return schemes?.[0]?.source;
  return undefined;
}

/** The rules of the authority for the boxes. */
function arithmetic({ form, boxes, digits }: PeriodContext): Finding[] {
  return brokenRules(form, boxes, digits).map((says) => finding("arithmetic", [says], says));
}

/** What the closing entry would hide in rounding; asked once every line is on the return. */
function moreThanRounding(
  { apart: { difference, allowed } }: PeriodRows,
  { digits }: PeriodContext,
): Finding[] {
  if (Math.abs(difference) <= allowed) return [];
  const amount = (minor: number) => displayAmount(minor, digits);
  const side = difference > 0 ? "more" : "less";
  return [
    finding(
      "more-than-rounding",
      ["return", difference],
      `The return comes to ${amount(Math.abs(difference))} ${side} than the tax of its documents, and rounding explains at most ${amount(allowed)}. Look for typed tax and for boxes that work tax out anew; put the line right, or adjust a box with the reason.`,
    ),
  ];
}

/** What stands between income and turnover and has no cause. */
function withoutCause({ withoutCause: open }: PeriodRows, { digits }: PeriodContext): Finding[] {
  if (!open) return [];
  const { rows, amount } = open;
  return [
    finding(
      "turnover",
      [rows, amount],
      `${rows} ${rows === 1 ? "row" : "rows"} of ${displayAmount(-amount, digits)} on income accounts ${rows === 1 ? "is" : "are"} on no return, and no cause is named. Name it under Agree, Turnover.`,
    ),
  ];
}

/** What agreements leave unexplained. */
function rests({ agreementRests }: PeriodRows, { digits }: PeriodContext): Finding[] {
  return agreementRests.map(({ id, name, rest, where }) =>
    finding(
      "agreement",
      [id, rest],
      `${name}: ${displayAmount(Math.abs(rest), digits)} is left without a cause. Look at it under Agree, ${where}, explain it there, or accept it with a reason.`,
    ),
  );
}

/** Lines of lists of others that differ, or stand on one side alone, and that nobody has decided. */
function undecided({ undecided: lists }: PeriodRows, { digits }: PeriodContext): Finding[] {
  return lists.map(({ statement, name, lines, apart }) =>
    finding(
      "statement",
      [statement, lines, apart],
      `${name}: ${lines} ${lines === 1 ? "line differs" : "lines differ"}, ${displayAmount(apart, digits)} apart, and nobody has decided. Look at them under Agree, Statements.`,
    ),
  );
}

function uncoded({ uncoded: lines }: PeriodRows, { digits }: PeriodContext): Finding[] {
  return lines.map((line) =>
    finding(
      "no-code",
      [documentKey(line.document), line.line],
      `${line.number}${line.party === "" ? "" : `, ${line.party}`}: line ${line.line} of ${displayAmount(line.net, digits)} has no tax code, so it is on no return.`,
      line,
    ),
  );
}

/** What is missing in the chart for a levy of the registration. */
function withoutAccount({ levies, accounts, pack }: PeriodContext): Finding[] {
  return levies.flatMap((levy) =>
    missingRoles(accounts, pack.levies, levy).map((role) =>
      finding(
        "no-account",
        [levy, role],
        `No account is set for ${role.replaceAll("-", " ")} of ${levy}. Choose one under Set up, Accounts.`,
      ),
    ),
  );
}

/** On a basis that waits for money, money that is not allocated to documents is on no return, although tax may be due on it. */
function unallocated({ unallocated: payments }: PeriodRows, { basis, digits }: PeriodContext): Finding[] {
  if (WAITING[basis].length === 0) return [];
  return payments.map((one) =>
    finding(
      "unallocated",
      [`payment/${one.payment}`],
      `${one.number}, ${one.party}: ${displayAmount(one.amount, digits)} is allocated to no document, so nothing is reported for it. Allocate it under Books, Payments.`,
    ),
  );
}

function unregistered({ unregistered: documents }: PeriodRows): Finding[] {
  return documents.map((d) =>
    finding(
      "no-registration",
      [documentKey(d.document)],
      `${d.number}: no ${d.levy} registration is in force on ${displayDate(d.taxPoint)}, so it is on no return. Right if it was supplied before or after the registration; otherwise correct the tax point.`,
      d,
    ),
  );
}

function twins({ twins: pairs }: PeriodRows, { digits }: PeriodContext): Finding[] {
  return pairs.map((twin) =>
    finding(
      "duplicate",
      [documentKey(twin.second), documentKey(twin.first)],
      twin.sameNumber
        ? `${twin.party}: number ${twin.number} is in the books twice.`
        : `${twin.party}: ${twin.number} and ${twin.otherNumber} have the same date and the same total of ${displayAmount(twin.gross, digits)}.`,
      { document: twin.second },
    ),
  );
}

/** Invoices are numbered without gaps; a number nobody holds may be a sale nobody reported. */
function gapsInSeries({ gaps }: PeriodRows): Finding[] {
  return gaps.map(({ kind, series, first, count, after, before }) => {
    const [are, them] =
      count === 1 ? [`${first} is`, "it"] : [`${count} numbers from ${first} on are`, "them"];
    return finding(
      "series-gap",
      [kind, first],
      `${series}: ${are} missing between ${after} and ${before}. Enter what was issued under ${them}, or say what became of ${them}.`,
    );
  });
}

/** What turned up of earlier periods and is not simply on this return, as the rule for corrections has it. */
function lateItems({ late }: PeriodRows, { digits, pack }: PeriodContext): Finding[] {
  return late
    .filter(({ kind, stops }) => stops || kind === "error" || kind === "judgement" || kind === "deliberate")
    .map(({ periods, kind, count, output, input, says, reason, source, tooLate }) =>
      finding(
        tooLate ? "old" : "late-item",
        [periods.join(","), kind, count],
        `${count} late ${count === 1 ? "document" : "documents"} of the ${periods.length === 1 ? "period" : "periods"} to ${periods.map(displayDate).join(", ")}: output tax ${displayAmount(output, digits)}, input tax ${displayAmount(input, digits)}. ${LATE_WORDS[kind]}, ${says}${reason === "" ? "" : `: ${reason}`}${source === pack.correction.source ? "" : ` (${source})`}.`,
      ),
    );
}

/** How a sentence begins about items of a kind. */
const LATE_WORDS: Readonly<Record<LateKind, string>> = {
  "late-claim": "A claim",
  "credit-note": "A change of price",
  error: "If it is an error",
  judgement: "As an error of judgement",
  deliberate: "As a deliberate error",
};

/** Boxes that only a business in a region uses, where this one has no place in it. */
function onlyFrom({ pack, boxes, client, regions }: PeriodContext): Finding[] {
  return (pack.checks ?? []).flatMap((check) => {
    if (check.kind !== "only-from" || regions.includes(check.region)) return [];
    const used = check.boxes.filter((id) =>
      boxes.some(
        ({ box, contributions }) => box === id && contributions.some(({ kind }) => kind === "facts"),
      ),
    );
    if (used.length === 0) return [];
    const text = filledIn(check.says, { boxes: used.join(", "), client });
    return [finding(check.id as CheckId, used, text)];
  });
}

function exemptSales({ boxes, treatmentOf, sharesInput, digits }: PeriodContext): Finding[] {
  const exempt = boxes
    .flatMap(({ contributions }) => contributions)
    .find(
      (part) => part.kind === "facts" && part.direction === "sale" && treatmentOf(part.code) === "exempt",
    );
  if (!exempt || sharesInput) return [];
  return [
    finding(
      "exempt-sales",
      [],
      `There are exempt sales of ${displayAmount(exempt.amount, digits)}. Input tax that belongs to them is deducted only as far as the law allows, such as within de minimis limits.`,
    ),
  ];
}

/** Boxes that moved by more than a quarter against the same period a year before. */
function unusual({ yearBefore }: PeriodRows, { boxes, pack, digits }: PeriodContext): Finding[] {
  return pack.watched.flatMap((id) => {
    const then = yearBefore.find(({ box }) => box === id)?.amount;
    const now = boxes.find(({ box }) => box === id)?.amount;
    if (then === undefined || now === undefined || then <= 0 || Math.abs(now - then) * 4 <= then) return [];
    const change = Math.round(((now - then) * 100) / then);
    return [
      finding(
        "unusual",
        [id],
        `Box ${id} is ${displayAmount(now, digits)}, ${Math.abs(change)} % ${change > 0 ? "more" : "less"} than a year before (${displayAmount(then, digits)}).`,
      ),
    ];
  });
}
