import { addDays } from "../../calendar/date.ts";
import type { DueRule } from "../../calendar/dueDate.ts";
import type { CollectionKind, CollectionRule } from "../../model/collection.ts";
import type { RateRow } from "../../model/taxCode.ts";

const ACT = "Income-tax Act 1961 s.206C(1), 206CC; from memory";
const LOWER = "Income-tax Act 1961 s.206C, press release of 13 May 2020: a quarter less; from memory";
const LATER = "Finance Act 2025 and 2026; from memory";
const SINCE = "2016-06-01";

interface Kind {
  id: string;
  name: string;
  rate: string;
  /** Another rate from a day on. */
  then?: [from: string, rate: string];
  from?: string;
  /** Whether the cut of 2020 held for it. */
  cut?: boolean;
}

const KINDS: readonly Kind[] = [
  {
    id: "liquor",
    name: "Alcoholic liquor for human consumption",
    rate: "1",
    then: ["2026-04-01", "2"],
    cut: true,
  },
  { id: "tendu", name: "Tendu leaves", rate: "5", then: ["2026-04-01", "2"], cut: true },
  { id: "timber", name: "Timber, other forest produce", rate: "2.5", then: ["2025-04-01", "2"], cut: true },
  { id: "scrap", name: "Scrap", rate: "1", then: ["2026-04-01", "2"], cut: true },
  { id: "minerals", name: "Coal, lignite or iron ore", rate: "1", then: ["2026-04-01", "2"], cut: true },
  { id: "vehicle", name: "Motor vehicle above 10 lakh", rate: "1", cut: true },
  { id: "luxury", name: "Listed luxury goods above 10 lakh a piece", rate: "1", from: "2025-04-22" },
];

const CUT = ["2020-05-14", "2021-03-31"] as const;
function rowsOf({ rate, then, from = SINCE, cut }: Kind): RateRow[] {
  const end = then ? addDays(then[0], -1) : null;
  const later: RateRow[] = then
    ? [{ from: then[0], to: null, rate: then[1], source: LATER, doubt: "not seen in print" }]
    : [];
  if (!cut) return [{ from, to: end, rate, source: ACT }, ...later];
  const less = String(Number(rate) * 0.75);
  return [
    { from, to: "2020-05-13", rate, source: ACT },
    { from: CUT[0], to: CUT[1], rate: less, source: LOWER },
    { from: "2021-04-01", to: end, rate, source: ACT },
    ...later,
  ];
}

/** Without a PAN: twice the rate, and 5 at least; the cut of 2020 does not hold. */
function unidentifiedRows(kind: Kind): RateRow[] {
  return rowsOf({ ...kind, cut: false }).map((row) => ({
    ...row,
    rate: String(Math.max(5, 2 * Number(row.rate))),
    source: "Income-tax Act 1961 s.206CC; from memory",
  }));
}

const SALES =
  "Income-tax Act 1961 s.206C(1H), inserted by the Finance Act 2020, ended by the Finance Act 2025";

/** Rates of tax collected at source. */
export const collectionRates: Record<string, RateRow[]> = {
  "206C-1H": [
    { from: "2020-10-01", to: "2021-03-31", rate: "0.075", source: `${SALES}; press release of 13 May 2020` },
    { from: "2021-04-01", to: "2025-03-31", rate: "0.1", source: SALES },
  ],
  "206C-1H-NOPAN": [{ from: "2020-10-01", to: "2025-03-31", rate: "1", source: `${SALES}; s.206CC` }],
  ...Object.fromEntries(
    KINDS.flatMap((kind) => [
      [`206C-${kind.id}`, rowsOf(kind)],
      [`206C-${kind.id}-NOPAN`, unidentifiedRows(kind)],
    ]),
  ),
};

/** What the schedules are called. */
export const collectionRateNames: Record<string, string> = {
  "206C-1H": "Collected at source on receipts above 50 lakh",
  "206C-1H-NOPAN": "Collected at source on receipts above 50 lakh, PAN not known",
  ...Object.fromEntries(
    KINDS.flatMap(({ id, name }) => [
      [`206C-${id}`, `Collected at source: ${name}`],
      [`206C-${id}-NOPAN`, `Collected at source: ${name}, PAN not known`],
    ]),
  ),
};

const DEPOSIT = "Income-tax Rules R.37CA";
const STATEMENT = "Income-tax Rules R.31AA";
const by = (months: number, day: number, source: string): DueRule => ({ months, day, shift: "none", source });

/** Income tax that a seller of goods collects. */
export const collection: CollectionRule = {
  id: "in-206c",
  name: "Income tax collected at source, s.206C",
  option: "collection",
  code: "TCS",
  above: 50_00_000_00,
  yearEnds: 3,
  from: "2020-10-01",
  to: "2025-03-31",
  identified: "in.206C-1H",
  unidentified: "in.206C-1H-NOPAN",
  identification: { name: "PAN", pattern: "(?:^|^\\d{2})([A-Z]{5}\\d{4}[A-Z])(?:$|[0-9A-Z]{3}$)" },
  deducts: { standing: "S194Q", name: "deducts income tax on its purchases, s.194Q" },
  kinds: KINDS.map(({ id, name }): CollectionKind => ({
    id,
    name,
    identified: `in.206C-${id}`,
    unidentified: `in.206C-${id}-NOPAN`,
  })),
  deposit: [by(1, 7, DEPOSIT)],
  statement: { name: "27EQ", due: [{ ...by(2, 15, STATEMENT), endMonths: [3] }, by(1, 15, STATEMENT)] },
  says: "On what a customer pays in a fiscal year above 50 lakh, GST included, only the excess; no cut for returns or discounts. Receipts for exports, for services and from who deducts tax under s.194Q do not count.",
  source: "Income-tax Act 1961 s.206C(1H), (1), (1F), 206CC; CBDT Circular 17/2020; from memory",
};
