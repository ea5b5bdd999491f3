import { nextVatNumber } from "./testServer.ts";

/** Where books live: the codes they use, and the ends of the periods their days fall in. */
export interface Land {
  client: () => object;
  country: string;
  region: string | null;
  sale: readonly string[];
  purchase: readonly string[];
  ends: readonly string[];
}

const QUARTERS = ["2026-03-31", "2026-06-30", "2026-09-30"];

/** A client of a country with one registration; numbers are invented and have the check digits of the country. */
function client(
  country: string,
  region: string | null,
  registration: {
    pack: string;
    number: string;
    frequency: string;
    anchor: string;
    basis?: string;
    levies?: string[];
    schemes?: object[];
  },
): object {
  return {
    name: "Lives",
    country,
    place: { name: "Shop", country, region },
    registration: { from: "2026-01-01", ...registration },
  };
}

const quarterly = { frequency: "quarterly", anchor: "2026-03-31" };

const britain = (basis: string): Land => ({
  client: () => client("GB", null, { pack: "gb", number: nextVatNumber(), basis, ...quarterly }),
  country: "GB",
  region: null,
  sale: ["S20", "R5", "Z", "EX"],
  purchase: ["S20", "R5", "RCS", "PVA20", "CL50"],
  ends: QUARTERS,
});

/** A scheme begins in the second quarter, so that there is a time before it. */
const flatRate = (basis: string, to: string | null = null): Land => ({
  ...britain(basis),
  client: () =>
    client("GB", null, {
      pack: "gb",
      number: nextVatNumber(),
      basis,
      ...quarterly,
      schemes: [{ scheme: "gb-flat-rate", from: "2026-04-01", to, settings: { sector: "catering" } }],
    }),
  sale: ["S20", "R5", "Z", "SA20"],
  purchase: ["S20", "CAP20", "RCS", "PVA20", "CL50"],
});

/** Canada with the rates of the quick method in the place of tax less tax, from the second quarter on. */
const quickMethod = (region: string, levies: string[], schemes: [id: string, settings: object][]): Land => ({
  client: () =>
    client("CA", region, {
      pack: "ca",
      number: "843162074RT0001",
      levies,
      ...quarterly,
      schemes: schemes.map(([scheme, settings]) => ({ scheme, from: "2026-04-01", to: null, settings })),
    }),
  country: "CA",
  region,
  sale: region === "QC" ? ["GQ", "Z", "AQ", "HON"] : ["HON", "G5", "ZX", "AON"],
  purchase: region === "QC" ? ["GQ", "GQ-C", "SGQ"] : ["HON", "HON-C", "G5", "SON"],
  ends: QUARTERS,
});

export const LANDS: Readonly<Record<string, Land>> = {
  "Britain, accrual": britain("accrual"),
  "Britain, cash": britain("cash"),
  "Britain, flat rate": flatRate("accrual"),
  "Britain, flat rate on receipts, left in the summer": flatRate("cash", "2026-06-30"),
  "Ontario, two levies": {
    client: () =>
      client("CA", "ON", { pack: "ca", number: "843162074RT0001", levies: ["GST", "HST"], ...quarterly }),
    country: "CA",
    region: "ON",
    sale: ["HON", "G5", "ZX", "HNB"],
    purchase: ["HON", "HON-M", "G5", "E"],
    ends: QUARTERS,
  },
  "Ontario, quick method": quickMethod(
    "ON",
    ["GST", "HST"],
    [["ca-quick-method", { seat: "ON", sells: "reseller" }]],
  ),
  "Québec, quick method of both taxes": quickMethod(
    "QC",
    ["GST", "HST", "QST"],
    [
      ["ca-quick-method", { seat: "federal", sells: "services" }],
      ["ca-qst-quick-method", { sells: "services" }],
    ],
  ),
  "Ontario, simplified credits": {
    ...quickMethod("ON", ["GST", "HST"], [["ca-simplified-credits", {}]]),
    purchase: ["HON", "HON-M", "GBC", "SON"],
  },
  "Britain, partly exempt": {
    ...britain("accrual"),
    client: () =>
      client("GB", null, {
        pack: "gb",
        number: nextVatNumber(),
        ...quarterly,
        schemes: [
          {
            scheme: "gb-partial-exemption",
            from: "2026-01-01",
            to: null,
            settings: { yearEnds: "3", rate: "period", percent: "", adjusted: "next" },
          },
        ],
      }),
    purchase: ["S20", "S20M", "S20E", "RCS"],
  },
  "Australia, whole dollars": {
    client: () => client("AU", null, { pack: "au", number: "51824753556", ...quarterly }),
    country: "AU",
    region: null,
    sale: ["S10", "SX", "SF", "SI"],
    purchase: ["P10", "C10", "PF", "PI"],
    ends: QUARTERS,
  },
  "Germany, whole euro and self-assessed": {
    client: () => client("DE", null, { pack: "eu-de", number: "DE271828000", ...quarterly }),
    country: "DE",
    region: null,
    sale: ["S19", "S7", "EXM", "RCS"],
    purchase: ["V19", "V7", "R46", "IGE19", "VN"],
    ends: QUARTERS,
  },
  "Karnataka, three levies a month": {
    client: () =>
      client("IN", "29", {
        pack: "in",
        number: "29AAPFM4417K1ZR",
        frequency: "monthly",
        anchor: "2026-01-31",
      }),
    country: "IN",
    region: "29",
    sale: ["S18", "S5", "EX"],
    purchase: ["P18", "P5", "R5", "PB18"],
    ends: [
      "2026-01-31",
      "2026-02-28",
      "2026-03-31",
      "2026-04-30",
      "2026-05-31",
      "2026-06-30",
      "2026-07-31",
      "2026-08-31",
    ],
  },
};
