import type { SchemeDefinition } from "../../model/scheme.ts";
import type { RateRow } from "../../model/taxCode.ts";

const NOTICE = "VAT Notice 733, section 4; from memory";

type Rates = string | readonly Pick<RateRow, "from" | "to" | "rate">[];

/** The sectors with their percentages; three had others from 15 July 2020 to 31 March 2022. */
// prettier-ignore
const SECTORS: readonly (readonly [id: string, name: string, rates: Rates])[] = [
  ["food-retail", "Retailing food, confectionery, tobacco, newspapers or children's clothing", "4"],
  ["post-office", "Post offices", "5"],
  ["farming", "Farming or agriculture not listed elsewhere", "6.5"],
  ["pub", "Pubs", [{ from: "2011-01-04", to: "2020-07-14", rate: "6.5" }, { from: "2020-07-15", to: "2021-09-30", rate: "1" }, { from: "2021-10-01", to: "2022-03-31", rate: "4" }, { from: "2022-04-01", to: null, rate: "6.5" }]],
  ["fuel-retail", "Retailing vehicles or fuel", "6.5"],
  ["retail", "Retailing not listed elsewhere", "7.5"],
  ["food-wholesale", "Wholesaling food", "7.5"],
  ["membership", "Membership organisation", "8"],
  ["pharmacy", "Retailing pharmaceuticals, medical goods, cosmetics or toiletries", "8"],
  ["farm-wholesale", "Wholesaling agricultural products", "8"],
  ["printing", "Printing", "8.5"],
  ["vehicle-repair", "Repairing vehicles", "8.5"],
  ["sport", "Sport or recreation", "8.5"],
  ["wholesale", "Wholesaling not listed elsewhere", "8.5"],
  ["food-making", "Manufacturing food", "9"],
  ["textile-making", "Manufacturing yarn, textiles or clothing", "9"],
  ["packaging", "Packaging", "9"],
  ["construction", "General building or construction services", "9.5"],
  ["hiring", "Hiring or renting goods", "9.5"],
  ["culture", "Library, archive, museum or other cultural activity", "9.5"],
  ["making", "Manufacturing not listed elsewhere", "9.5"],
  ["mining", "Mining or quarrying", "10"],
  ["repair", "Repairing personal or household goods", "10"],
  ["transport", "Transport or storage, including couriers, freight, removals and taxis", "10"],
  ["computer-repair", "Computer repair services", "10.5"],
  ["scrap", "Dealing in waste or scrap", "10.5"],
  ["forestry", "Forestry or fishing", "10.5"],
  ["hotel", "Hotel or accommodation", [{ from: "2011-01-04", to: "2020-07-14", rate: "10.5" }, { from: "2020-07-15", to: "2021-09-30", rate: "0" }, { from: "2021-10-01", to: "2022-03-31", rate: "5.5" }, { from: "2022-04-01", to: null, rate: "10.5" }]],
  ["metal-making", "Manufacturing fabricated metal products", "10.5"],
  ["travel", "Travel agency", "10.5"],
  ["advertising", "Advertising", "11"],
  ["farm-services", "Agricultural services", "11"],
  ["photography", "Photography", "11"],
  ["publishing", "Publishing", "11"],
  ["social-work", "Social work", "11"],
  ["vet", "Veterinary medicine", "11"],
  ["other", "Any other activity not listed elsewhere", "12"],
  ["animals", "Boarding or care of animals", "12"],
  ["business", "Business services not listed elsewhere", "12"],
  ["estate", "Estate agency or property management", "12"],
  ["security", "Investigation or security", "12"],
  ["laundry", "Laundry or dry-cleaning", "12"],
  ["catering", "Catering services including restaurants and takeaways", [{ from: "2011-01-04", to: "2020-07-14", rate: "12.5" }, { from: "2020-07-15", to: "2021-09-30", rate: "4.5" }, { from: "2021-10-01", to: "2022-03-31", rate: "8.5" }, { from: "2022-04-01", to: null, rate: "12.5" }]],
  ["entertainment", "Entertainment or journalism", "12.5"],
  ["film", "Film, radio, television or video production", "13"],
  ["hair", "Hairdressing or other beauty treatment", "13"],
  ["secretarial", "Secretarial services", "13"],
  ["finance", "Financial services", "13.5"],
  ["management", "Management consultancy", "14"],
  ["real-estate", "Real estate activity not listed elsewhere", "14"],
  ["accountancy", "Accountancy or book-keeping", "14.5"],
  ["architecture", "Architect, civil and structural engineer or surveyor", "14.5"],
  ["computing", "Computer and IT consultancy or data processing", "14.5"],
  ["labour", "Labour-only building or construction", "14.5"],
  ["law", "Lawyer or legal services", "14.5"],
];

const key = (sector: string) => `FR-${sector}`;

/** The percentages by date, of every sector and of traders with little cost. */
export const flatRates: Record<string, RateRow[]> = {
  ...Object.fromEntries(
    SECTORS.map(([id, , rates]) => [
      key(id),
      typeof rates === "string"
        ? [{ from: "2011-01-04", to: null, rate: rates, source: NOTICE }]
        : rates.map((row) => ({ ...row, source: NOTICE })),
    ]),
  ),
  "FR-LIMITED": [{ from: "2017-04-01", to: null, rate: "16.5", source: "VAT Notice 733, section 4.4" }],
};

/** What the schedules are called. */
export const flatRateNames: Record<string, string> = {
  ...Object.fromEntries(SECTORS.map(([id, name]) => [key(id), `Flat rate: ${name}`])),
  "FR-LIMITED": "Flat rate: limited cost trader",
};

/** The flat rate scheme. */
export const flatRate: SchemeDefinition = {
  id: "gb-flat-rate",
  name: "Flat rate scheme",
  levies: ["VAT"],
  excludes: ["gb-global-accounting", "gb-partial-exemption"],
  settings: [{ id: "sector", name: "Sector", values: SECTORS.map(([value, name]) => ({ value, name })) }],
  conditions: [
    {
      says: "Taxable turnover of 150,000 or less without tax is expected in the next twelve months.",
      source: "SI 1995/2518 reg. 55L",
      limit: { upTo: 150_000_00, of: "net" },
    },
    {
      says: "It is left where all income with tax was above 230,000 in the year to an anniversary, or will be in the next thirty days.",
      source: "SI 1995/2518 reg. 55M",
    },
    {
      says: "Not with the margin scheme, the tour operators' scheme, the capital goods scheme or a group.",
      source: "VAT Notice 733, section 3",
    },
  ],
  note: "Invoices show tax the ordinary way; the return holds a percentage of what they come to with tax.",
  source: "VATA 1994 s.26B, SI 1995/2518 part VIIA, VAT Notice 733",
  rule: {
    kind: "turnover-rate",
    of: "turnover",
    rates: {
      by: ["sector"],
      schedules: Object.fromEntries(SECTORS.map(([id]) => [id, `gb.${key(id)}`])),
    },
    firstYear: "1",
    takes: ["standard", "reduced", "zero", "exempt", "export"],
    replaces: ["standard", "reduced", "zero", "exempt", "blocked", "out-of-scope"],
    undeducted: ["import"],
    outside: ["SA20"],
    capital: { codes: ["CAP20"], from: 2_000_00 },
    limitedCost: {
      schedule: "gb.FR-LIMITED",
      share: "2",
      aYear: 1_000_00,
      notTopics: ["cars", "car-lease", "entertaining"],
      notCodes: ["CAP20"],
    },
    leaving: { above: 230_000_00 },
    boxes: { tax: "1", turnover: ["6"], input: "4", purchases: "7" },
    drops: ["1", "2", "4", "6", "7", "8", "9"],
  },
};
