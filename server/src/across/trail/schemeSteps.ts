import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { addMonths, endOfMonth } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { Attribution } from "@fiscalon/core/model/attribution";
import type { ResaleCredit } from "@fiscalon/core/model/resaleCredit";
import type { YearlyAddBack } from "@fiscalon/core/model/yearlyAddBack";
import type { RetailTakings } from "@fiscalon/core/model/retailTakings";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { RatioCredit } from "@fiscalon/core/model/ratioCredit";
import type { MarginPool, SchemeStep } from "@fiscalon/core/model/scheme";
import { isTurnover } from "@fiscalon/core/schemes/turnoverRate";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TrailStep } from "@fiscalon/contract/trail";
import { registrationIn } from "../../books/loadSetup.ts";
import { inSpan, levySpans } from "../../books/returns/queries.ts";
import type { LevySpan } from "../../books/returns/queries.ts";
import { expectedPrice } from "../../books/returns/retailOnReturn.ts";
import { itemsOf } from "../../books/capital/items.ts";
import { billed, sharesOf } from "../../books/returns/ratioOnReturn.ts";
import { shareTakenBack } from "../../books/returns/addBackOnReturn.ts";
import { contentOfPeriod } from "../../books/returns/schemes.ts";
import type { SchemeOnReturn } from "../../books/returns/schemeOnReturn.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { factLines } from "./factLines.ts";
import type { FactLines } from "./factLines.ts";
import type { TrailScope } from "./trailScope.ts";

/** Facts `f` of a scheme: of its levies, in its time. */
const ofScheme = (times: readonly LevySpan[]) => `f.registration_id = $1 AND f.live = 1 AND f.held = 0
  AND ${inSpan("$2", "from", times.length)} IS NOT NULL`;

/** Whether the line of a fact `f` counts as goods: it says so, or its code ($4) does where it says nothing. */
const GOODS = `EXISTS (SELECT 1 FROM lines l LEFT JOIN accounts a ON a.client_id = f.client_id AND a.code = l.account
  WHERE l.document_id = f.document_id AND l.no = f.line
    AND coalesce(l.supply, CASE WHEN f.code IN (SELECT value FROM json_each($4)) THEN 'goods' END) = 'goods'
    AND coalesce(a.topic, '') NOT IN (SELECT value FROM json_each($5)))`;

/** A step of a scheme's workpaper, with the documents it comes from: `registration/period/step`. */
export async function schemeStep(scope: TrailScope, parts: string[], ref: string): Promise<TrailStep> {
  const [rid = "", end = "", id = ""] = parts;
  const r = registrationIn(scope.setup, rid);
  const { schemes } = await contentOfPeriod(scope.work, r, end);
  const scheme = schemes.find(({ result }) => result.steps.some((one) => one.id === id));
  const step = scheme?.result.steps.find((one) => one.id === id);
  if (!scheme || !step) {
    throw new FiscalError("trail/not-found", "No scheme of this period has such a step any more.", "ref");
  }
  const { definition } = scheme;
  const lines = await linesOf(scope, r, end, scheme, step);
  return {
    ref,
    title: `${definition.name}: ${step.box === undefined ? "test" : `box ${step.box}`}`,
    amount: step.amount,
    digits: scope.setup.plain.digits,
    words: [step.words, `${definition.note} (${definition.source})`],
    parts: lines.parts,
    arithmetic: [step.arithmetic],
    total: lines.total,
  };
}

/** The lines a step is made of: of an asset its own, of the test the goods, of tax and turnover the sales. */
async function linesOf(
  { work }: TrailScope,
  r: RegistrationRecord,
  end: string,
  { definition, spans, facts }: SchemeOnReturn,
  { id, amount, days, codes }: SchemeStep,
): Promise<FactLines> {
  const { rule, levies } = definition;
  if (rule.kind === "margin-pool") return poolLines(work, r, end, rule, id);
  if (rule.kind === "attribution") return attributedLines(work, r, end, rule, id);
  if (rule.kind === "capital-items") return itemLines(work, r, id);
  if (rule.kind === "yearly-rebate") {
    return factLines(work, {
      amount: "f.tax",
      where: `f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end = $2 AND f.levy = $3
        AND f.code IN (SELECT value FROM json_each($4))`,
      bind: [r.id, end, rule.levy, JSON.stringify(rule.codes)],
    });
  }
  if (rule.kind === "yearly-add-back") return addedBackLines(work, r, end, rule, id);
  if (rule.kind === "resale-credit") return resoldLines(work, r, end, rule, { id, amount });
  if (rule.kind === "retail-takings") return retailLines(work, r, end, rule, id);
  if (rule.kind === "percentage-split")
    return factLines(work, {
      amount: "f.net + f.tax",
      where: `f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end = $2
        AND f.code IN (SELECT value FROM json_each($3))`,
      bind: [r.id, end, JSON.stringify(id.includes("-stock-") ? rule.stock.codes : rule.sales.codes)],
    });
  if (rule.kind === "ratio-credit") return billedLines(work, r, end, levySpans(levies, spans), rule, id);
  const [, document, line] = /^capital(?:-net)?-(\d+)-(\d+)$/.exec(id) ?? [];
  if (document !== undefined && line !== undefined) {
    const part = { ref: `line/${document}/${line}`, label: `Line ${line}`, detail: "of the bill", amount };
    return { parts: [part], total: 1, sum: amount };
  }
  const [ownEnd = end] = /\d{4}-\d\d-\d\d/.exec(id) ?? [];
  const times = levySpans(levies, spans);
  const bind = [r.id, JSON.stringify(times), ownEnd];
  if (id.startsWith("limited-cost")) {
    const goods = work.packs
      .byId(r.pack)
      .codes.flatMap(expandCode)
      .filter(({ supply }) => supply === "goods");
    return factLines(work, {
      amount: "f.net + f.tax",
      where: `${ofScheme(times)} AND f.own_end = $3 AND f.direction = 'purchase' AND ${GOODS}
        AND f.code NOT IN (SELECT value FROM json_each($6))`,
      bind: [
        ...bind,
        JSON.stringify(goods.map(({ code }) => code)),
        JSON.stringify(rule.limitedCost?.notTopics ?? []),
        JSON.stringify(rule.limitedCost?.notCodes ?? []),
      ],
    });
  }
  if (id.startsWith("slice")) return sliceLines(r.id, end, facts);
  const sold = codes ?? facts.filter((fact) => isTurnover(rule, fact)).map(({ code }) => code);
  return factLines(work, {
    amount: rule.of === "tax" && id.startsWith("tax") ? "f.tax" : "f.net + f.tax",
    where: `${ofScheme(times)} AND f.own_end = $3 AND f.period_end = $4 AND f.direction = 'sale'
      AND f.code IN (SELECT value FROM json_each($5))
      AND ($6 IS NULL OR f.tax_point IN (SELECT value FROM json_each($6)))`,
    bind: [...bind, end, JSON.stringify(sold), days === undefined ? null : JSON.stringify(days)],
  });
}

/** The line of the piece that was sold; of the pool the lots, or the parts of them. */
async function resoldLines(
  work: TrailScope["work"],
  r: RegistrationRecord,
  end: string,
  { levy, lots }: ResaleCredit,
  { id, amount }: Pick<SchemeStep, "id" | "amount">,
): Promise<FactLines> {
  const [, document, line] = /^resold-(\d+)-(\d+)$/.exec(id) ?? [];
  if (document !== undefined && line !== undefined) {
    const part = { ref: `line/${document}/${line}`, label: `Line ${line}`, detail: "of the sale", amount };
    return { parts: [part], total: 1, sum: amount };
  }
  const bought = id.startsWith("lots");
  return factLines(work, {
    amount: bought ? "f.net + f.tax" : "f.tax",
    where: `f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end = $2 AND f.levy = $3
      AND f.code IN (SELECT value FROM json_each($4))`,
    bind: [r.id, end, levy, JSON.stringify(bought ? lots.bought : lots.sold)],
  });
}

/** The takings, and the goods bought for resale at a rate; the other steps are worked out from these. */
async function retailLines(
  work: TrailScope["work"],
  r: RegistrationRecord,
  end: string,
  { takings, rates, price }: RetailTakings,
  id: string,
): Promise<FactLines> {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  const [kind = ""] = id.split("-");
  const goods = rates.find((rate) => id.endsWith(`-${rate.id}`))?.goods;
  const codes = kind === "bought" || kind === "expected" ? goods : undefined;
  return factLines(work, {
    amount: kind === "expected" ? expectedPrice(price, digits) : "f.net + f.tax",
    where: `f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end = $2
      AND f.code IN (SELECT value FROM json_each($3))`,
    bind: [r.id, end, JSON.stringify(codes ?? [takings, ...rates.map((rate) => rate.takings)])],
  });
}

/** The purchases of a year whose tax was deducted in full; what is taken back opens these. */
async function addedBackLines(
  work: TrailScope["work"],
  r: RegistrationRecord,
  end: string,
  rule: YearlyAddBack,
  id: string,
): Promise<FactLines> {
  const [, levy = "", year = "", percent] =
    /^(?:claimed|back)-(.+)-(\d{4}-\d\d-\d\d)(?:-([\d.]+))?$/.exec(id) ?? [];
  const share = `(SELECT ${shareTakenBack(rule)} FROM lines l WHERE l.document_id = f.document_id AND l.no = f.line)`;
  return factLines(work, {
    amount: "f.recoverable",
    where: `f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.direction = 'purchase' AND f.levy = $2
      AND f.period_end > $3 AND f.period_end <= $4 AND f.code IN (SELECT value FROM json_each($5))
      AND ($6 IS NULL OR ${share} = $6)`,
    bind: [
      r.id,
      levy,
      endOfMonth(addMonths(year, -12)),
      end < year ? end : year,
      JSON.stringify(rule.codes),
      percent ?? null,
    ],
  });
}

/** The papers of the items a step is of. */
async function itemLines(work: TrailScope["work"], r: RegistrationRecord, id: string): Promise<FactLines> {
  const [, no] = /^item-(\d+)-/.exec(id) ?? [];
  const items = (await itemsOf(work, r)).filter((item) => no === undefined || item.no === Number(no));
  const papers = await work.rows<{ id: number; number: string }>(
    `SELECT id, number FROM documents WHERE client_id = $1 AND state = 'posted'
       AND number IN (SELECT value FROM json_each($2))`,
    [r.clientId, JSON.stringify(items.map(({ evidence }) => evidence).filter((text) => text !== ""))],
  );
  const parts = items.flatMap(({ no: own, name, evidence, taxes }) => {
    const amount = Object.values(taxes).reduce((sum, tax) => sum + tax, 0);
    return papers
      .filter(({ number }) => number === evidence)
      .map((paper) => ({
        ref: `document/${paper.id}`,
        label: `Item ${own}, ${name}`,
        detail: paper.number,
        amount,
      }));
  });
  return { parts, total: parts.length, sum: parts.reduce((sum, { amount }) => sum + amount, 0) };
}

/** The bills of a rate. */
async function billedLines(
  work: TrailScope["work"],
  r: RegistrationRecord,
  end: string,
  times: readonly LevySpan[],
  { takes }: RatioCredit,
  id: string,
): Promise<FactLines> {
  const rate = id.slice(id.lastIndexOf("-") + 1);
  return factLines(work, {
    amount: billed("$6"),
    where: `${ofScheme(times)} AND f.period_end = $3 AND f.direction = 'purchase' AND f.charged = 'charged'
      AND f.rate = $4 AND f.treatment IN (SELECT value FROM json_each($5))`,
    bind: [r.id, JSON.stringify(times), end, rate, JSON.stringify(takes), sharesOf(work, r)],
  });
}

/** The turnover of the return, of which the first of the year is given something back. */
function sliceLines(rid: number, end: string, facts: SchemeOnReturn["facts"]): FactLines {
  const ends = [...new Set(facts.filter(({ reported }) => reported).map(({ ownEnd }) => ownEnd))].sort();
  const parts = ends.map((ownEnd) => ({
    ref: `scheme/${rid}/${end}/turnover-${ownEnd}`,
    label: "Turnover with tax",
    detail: `of the period to ${displayDate(ownEnd)}`,
    amount: null,
  }));
  return { parts, total: parts.length, sum: 0 };
}

/** Of what was sold from a pool, or bought for it, the lines; the other steps are worked out from these. */
async function poolLines(
  work: TrailScope["work"],
  r: RegistrationRecord,
  end: string,
  { sales, purchases }: MarginPool,
  id: string,
): Promise<FactLines> {
  const step = (kind: string, label: string) => ({
    ref: `scheme/${r.id}/${end}/${kind}-${end}`,
    label,
    detail: "",
    amount: null,
  });
  const codes = id.startsWith("sold") ? sales : id.startsWith("bought") ? purchases : null;
  if (codes === null) {
    const parts = id.startsWith("margin")
      ? [step("sold", "Sold from the pool"), step("bought", "Bought for the pool")]
      : /^(tax|less|net)/.test(id)
        ? [step("margin", "Margin of the pool")]
        : [];
    return { parts, total: parts.length, sum: 0 };
  }
  return factLines(work, {
    amount: "f.net + f.tax",
    where: `f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end = $2
      AND f.code IN (SELECT value FROM json_each($3))`,
    bind: [r.id, end, JSON.stringify(codes)],
  });
}

/** The lines a figure of the sharing is made of; what is worked out from figures opens these. */
async function attributedLines(
  work: TrailScope["work"],
  r: RegistrationRecord,
  end: string,
  { ratio, residual, exempt }: Attribution,
  id: string,
): Promise<FactLines> {
  const whole = "f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end = $2";
  const sales = (treatments: readonly string[]) =>
    factLines(work, {
      amount: "f.net",
      where: `${whole} AND f.direction = 'sale' AND f.treatment IN (SELECT value FROM json_each($3))
        AND f.code NOT IN (SELECT value FROM json_each($4)) AND f.id = (SELECT min(o.id) FROM facts o
          WHERE o.document_id = f.document_id AND o.line = f.line AND o.period_end = f.period_end AND o.live = 1 AND o.held = 0)`,
      bind: [r.id, end, JSON.stringify(treatments), JSON.stringify(ratio.leftOut)],
    });
  const purchases = (codes: readonly string[], amount: string) =>
    factLines(work, {
      amount,
      where: `${whole} AND f.direction = 'purchase' AND f.code IN (SELECT value FROM json_each($3))`,
      bind: [r.id, end, JSON.stringify(codes)],
    });
  if (id.startsWith("taxable-supplies")) return sales(ratio.taxable);
  if (id.startsWith("exempt-supplies")) return sales(ratio.exempt);
  if (id.startsWith("residual")) return purchases(residual, "f.recoverable");
  if (id.startsWith("allowed")) return purchases(exempt, "f.tax - f.recoverable");
  if (id.startsWith("de-minimis") || id.startsWith("window")) return purchases(exempt, "f.tax");
  const kinds = ["taxable-supplies", "exempt-supplies", "residual"];
  const parts = kinds.map((kind) => ({
    ref: `scheme/${r.id}/${end}/${kind}-${end}`,
    label: `${kind.charAt(0).toUpperCase()}${kind.slice(1).replace("-", " ")}`,
    detail: "of this return",
    amount: null,
  }));
  return { parts, total: parts.length, sum: 0 };
}

/** What a scheme keeps off the return of a code: `registration/period/code/direction`. */
export async function asideStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const [rid = "", end = "", code = "", direction = ""] = parts;
  const r = registrationIn(setup, rid);
  const { schemes } = await contentOfPeriod(work, r, end);
  const scheme = schemes.find(({ setAside }) =>
    setAside.some((one) => one.code === code && one.direction === direction),
  );
  if (!scheme) throw new FiscalError("trail/not-found", "No scheme sets this aside any more.", "ref");
  const times = levySpans(scheme.definition.levies, scheme.spans);
  const {
    parts: lines,
    total,
    sum,
  } = await factLines(work, {
    amount: direction === "sale" ? "f.tax" : "f.recoverable",
    where: `${ofScheme(times)} AND f.period_end = $3 AND f.code = $4 AND f.direction = $5`,
    bind: [r.id, JSON.stringify(times), end, code, direction],
  });
  return {
    ref,
    title: `${code}: set aside by the scheme`,
    amount: sum,
    digits: setup.plain.digits,
    words: [
      direction === "sale"
        ? "Tax charged to customers. The return holds the rate of the turnover in its place."
        : "Tax that would be deducted without the scheme.",
    ],
    parts: lines,
    arithmetic: [],
    total,
  };
}
