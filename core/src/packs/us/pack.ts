import { PLAIN_BASES } from "../../model/basis.ts";
import type { JurisdictionPack } from "../../model/pack.ts";
import { accrual } from "../shared/bases.ts";
import { checkedByShape } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { due, rhythms, roundings } from "./calendar.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { forms } from "./forms.ts";
import { BODIES, sourcedTo } from "./jurisdictions.ts";
import { law } from "./law.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { words } from "./words.ts";

/** The other states: a customer there is not taxed here. */
const OTHER_STATES =
  "AL Alabama, AK Alaska, AZ Arizona, AR Arkansas, CO Colorado, CT Connecticut, DE Delaware, DC District of Columbia, HI Hawaii, ID Idaho, IN Indiana, IA Iowa, KS Kansas, KY Kentucky, LA Louisiana, ME Maine, MD Maryland, MA Massachusetts, MI Michigan, MN Minnesota, MS Mississippi, MO Missouri, MT Montana, NE Nebraska, NV Nevada, NH New Hampshire, NJ New Jersey, NM New Mexico, NC North Carolina, ND North Dakota, OH Ohio, OK Oklahoma, OR Oregon, RI Rhode Island, SC South Carolina, SD South Dakota, UT Utah, VT Vermont, VA Virginia, WA Washington, WV West Virginia, WI Wisconsin, WY Wyoming, PR Puerto Rico"
    .split(", ")
    .map((one) => ({ code: one.slice(0, 2), name: one.slice(3) }));

const LOCATION_NAMES: Readonly<Record<string, string>> = {
  TX: "Texas",
  "TX-HOU": "Houston, Texas",
  "TX-AUS": "Austin, Texas",
  FL: "Florida",
  "FL-MIA": "Miami-Dade, Florida",
  "FL-BRO": "Broward, Florida",
  NY: "New York",
  "NY-NYC": "New York City",
  TN: "Tennessee",
  "TN-NAS": "Nashville, Tennessee",
  IL: "Illinois",
  "IL-CHI": "Chicago, Illinois",
  CA: "California, without a district",
  "CA-LAX": "Los Angeles, California",
  "CA-SFO": "San Francisco, California",
  PA: "Pennsylvania",
  "PA-PHL": "Philadelphia, Pennsylvania",
  "PA-PIT": "Pittsburgh, Pennsylvania",
  GA: "Georgia, without a local tax",
  "GA-ATL": "Atlanta, Georgia",
};

/** United States: state and local sales and use tax, with example locations. From memory; local rates want checking. */
export const us: JurisdictionPack = {
  id: "us",
  country: "US",
  name: "United States, sales tax",
  currency: "USD",
  authority: "the state",
  numberName: "permit number",
  numberHint: "as the state wrote it",
  levies: BODIES.map(({ id, name, state }) => ({
    levy: `SALES:${id}`,
    name: `Sales and use tax, ${name}`,
    short: `${name} sales tax`,
    authority: state,
    regions: [state],
    with: BODIES.filter((body) => body.state === state).map((body) => `SALES:${body.id}`),
    deducted: false,
  })),
  regions: [...Object.entries(LOCATION_NAMES).map(([code, name]) => ({ code, name })), ...OTHER_STATES],
  schedules,
  rateNames,
  codes,
  accounts,
  classes,
  rules,
  forms,
  rhythms,
  roundings,
  bases: [
    accrual("the states' sales tax acts"),
    { ...PLAIN_BASES.cash, source: "common practice of some states, no source" },
  ],
  due,
  options: [
    {
      id: "allowance",
      name: "Allowance for timely filing",
      values: [
        { value: "taken", name: "taken: returns are filed and paid in time" },
        { value: "lost", name: "not taken: filed or paid late, on paper, or not open to this filer" },
      ],
      source: "the states' acts; it is lost when the return or the payment is late",
    },
    {
      id: "districts",
      name: "California districts charged",
      levies: ["SALES:CA"],
      values: [
        { value: "own", name: "those the business has a place in" },
        { value: "all", name: "all: California sales above 500,000 in a year", engaged: ["CA-*"] },
      ],
      source: "Cal. Rev. & Tax. Code § 7262(a)(3), since 25 April 2019",
    },
  ],
  holidays: { country: "US" },
  correction,
  creditNotes: "netted",
  standings: [
    { id: "resale", name: "buys for resale", needs: "a certificate" },
    { id: "government", name: "government", needs: "a certificate or order" },
    { id: "exempt", name: "exempt buyer", needs: "a certificate" },
  ],
  dateOrder: "mdy",
  bankNames: ["revenue", "taxes", "comptroller"],
  watched: ["G1"],
  words,
  declaration:
    "I declare that this return is true, correct and complete to the best of my knowledge and belief.",
  law,
  notes: [
    {
      text: "There is no federal sales tax; Alaska, Delaware, Montana, New Hampshire and Oregon levy none of their own.",
      source: "from memory",
    },
    {
      text: "A seller without presence must register above a state's threshold: Texas and California 500,000, Florida 100,000.",
      source: "Wayfair, 2018; state law",
    },
    { text: "Tax paid on purchases is never deducted.", source: "state sales tax acts" },
  ],
  electronic: false,
  checkNumber: checkedByShape(/^[A-Z0-9]{4,20}$/, "permit number", "4 to 20 letters and digits"),
  sourcing: sourcedTo,
};
