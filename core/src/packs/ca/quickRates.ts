import { at } from "../../at.ts";
import type { RateRow } from "../../model/taxCode.ts";

const BOOK = "RC4058, remittance rates; from memory";

/** Percent remitted of supplies, by where they are made. */
type ByDestination = readonly [outside: string, on: string, at14: string, at15: string];

/** Rates by where the supply is made, and what is given back of supplies whose rate is nought. */
interface Rates {
  by: ByDestination;
  credit?: string;
  from?: string;
  to?: string | null;
}

const FIFTEEN = { services: ["1.4", "8.4", "9.2", "10.0"], reseller: ["0", "3.3", "4.2", "5.0"] } as const;
const NS_FALL = "2025-04-01";

/** By establishment and what is sold. */
const TABLE: Readonly<Record<string, readonly Rates[]>> = {
  "federal/services": [{ by: ["3.6", "10.5", "11.3", "12.0"] }],
  "federal/reseller": [{ by: ["1.8", "8.8", "9.6", "10.4"] }],
  "ON/services": [{ by: ["1.8", "8.8", "9.6", "10.4"] }],
  "ON/reseller": [{ by: ["0", "4.4", "5.3", "6.1"], credit: "2.8" }],
  "15/services": [{ by: FIFTEEN.services }],
  "15/reseller": [{ by: FIFTEEN.reseller, credit: "4.0" }],
  "NS/services": [
    { by: FIFTEEN.services, to: "2025-03-31" },
    { by: ["1.6", "8.6", "9.4", "10.2"], from: NS_FALL },
  ],
  "NS/reseller": [
    { by: FIFTEEN.reseller, credit: "4.0", to: "2025-03-31" },
    { by: ["0", "3.9", "4.7", "5.6"], credit: "3.4", from: NS_FALL },
  ],
};

/** The rates of tax on a supply tell where it was made. */
const BANDS = ["5", "13", "14", "15"] as const;
const FIRST = "2016-10-01";

const rowsOf = (table: readonly Rates[], rate: (one: Rates) => string): RateRow[] =>
  table.map(({ from = FIRST, to = null, ...one }) => ({ from, to, rate: rate(one), source: BOOK }));

const ofKey = ([key, table]: [string, readonly Rates[]]): [string, RateRow[]][] => [
  ...BANDS.map((band, index): [string, RateRow[]] => [
    `QM-${key}/${band}`,
    rowsOf(table, ({ by }) => at(by, index)),
  ]),
  ...(table.some(({ credit }) => credit !== undefined)
    ? [[`QM-${key}/credit`, rowsOf(table, ({ credit = "0" }) => credit)] as [string, RateRow[]]]
    : []),
];

/** Where the rates of the QST stand. */
export const QST_BOOK = "Revenu Québec, IN-203; from memory";

/** What is remitted of supplies with tax. */
export const quickRates: Record<string, RateRow[]> = {
  ...Object.fromEntries(Object.entries(TABLE).flatMap(ofKey)),
  "QMQ-services": [{ from: "2013-01-01", to: null, rate: "6.6", source: QST_BOOK }],
  "QMQ-reseller": [{ from: "2013-01-01", to: null, rate: "3.4", source: QST_BOOK }],
  CHARITY: [{ from: "1997-01-01", to: null, rate: "60", source: "ETA 225.1(2)" }],
};

/** Where the business has its permanent establishment. */
export const SEATS: Readonly<Record<string, string>> = {
  federal: "a province with GST only, or Québec",
  ON: "Ontario",
  "15": "New Brunswick, Newfoundland and Labrador, or Prince Edward Island",
  NS: "Nova Scotia",
};
/** What it sells. */
export const SELLS: Readonly<Record<string, string>> = {
  services: "services, or goods it makes",
  reseller: "goods bought for resale, 40 % of taxable supplies or more",
};

const nameOf = (key: string): string => {
  const [seat = "", sells = "", band = ""] = key.replace(/^QM-/, "").split("/");
  const to = band === "credit" ? "credit" : `supplies at ${band} %`;
  return `Quick method: ${SEATS[seat]}, ${sells}, ${to}`;
};

/** What the schedules are called. */
export const quickRateNames: Record<string, string> = {
  ...Object.fromEntries(
    Object.entries(TABLE)
      .flatMap(ofKey)
      .map(([key]) => [key, nameOf(key)]),
  ),
  "QMQ-services": "QST quick method: services",
  "QMQ-reseller": "QST quick method: resellers",
  CHARITY: "Share of the tax that a charity remits",
};
