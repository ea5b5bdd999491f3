import { validate as abnNumber } from "stdnum/lib/cjs/au/abn.js";
import type { JurisdictionPack } from "../../model/pack.ts";
import { GOODS, METAL, stockBook, VEHICLE } from "../shared/stockBook.ts";
import { checkedBy } from "../shared/numberCheck.ts";
import { annualApportionment } from "./annualApportionment.ts";
import { accounts } from "./accounts.ts";
import { bases } from "./bases.ts";
import { due, holidays, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { checks } from "./checks.ts";
import { capitalItems } from "./capitalItems.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { activityStatement, simplerStatement } from "./form.ts";
import { financialSupplies } from "./financialSupplies.ts";
import { foodRetailers } from "./foodRetailers.ts";
import { instalments } from "./instalments.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { secondHand } from "./secondHand.ts";
import { producerRebate } from "./producerRebate.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { unpaid } from "./unpaid.ts";
import { words } from "./words.ts";

/** Australia: GST, wine equalisation tax, luxury car tax. From memory of the law unless a row says otherwise. */
export const au: JurisdictionPack = {
  id: "au",
  country: "AU",
  name: "Australia",
  currency: "AUD",
  authority: "ATO",
  numberName: "ABN",
  numberHint: "11 digits",
  levies: [
    { levy: "GST", name: "Goods and services tax", deducted: true },
    { levy: "WET", name: "Wine equalisation tax", written: ["wine tax"], onlyFor: ["wine"], deducted: false },
    { levy: "LCT", name: "Luxury car tax", onlyFor: ["cars"], deducted: false },
  ],
  regions: [
    { code: "NSW", name: "New South Wales" },
    { code: "VIC", name: "Victoria" },
    { code: "QLD", name: "Queensland" },
    { code: "SA", name: "South Australia" },
    { code: "WA", name: "Western Australia" },
    { code: "TAS", name: "Tasmania" },
    { code: "ACT", name: "Australian Capital Territory" },
    { code: "NT", name: "Northern Territory" },
  ],
  schedules,
  rateNames,
  capitalItems,
  checks,
  schemes: [producerRebate, secondHand, annualApportionment, financialSupplies, foodRetailers],
  codes,
  accounts,
  classes,
  rules,
  forms: [activityStatement, simplerStatement],
  rhythms,
  roundings,
  bases,
  due,
  holidays,
  correction,
  claims,
  creditHolds: [
    {
      id: "tax-invoice",
      name: "until the tax invoice is held",
      waitsFor: "the tax invoice",
      above: 82_50,
      byPaper: true,
      source: "GSTA s 29-10(3), 29-80(1): above $75 without GST",
    },
  ],
  unpaid,
  stockBook: stockBook({
    levy: "GST",
    sales: ["S2"],
    purchases: ["P2S"],
    kinds: [GOODS, VEHICLE, METAL],
    rate: "au.GST",
    says: "The whole price bears GST when a piece is sold, and an eleventh of what it was bought for is credited with it: what is left falls on the price above the cost. A loss is never set against another piece.",
    source: "GSTA s 66-17 and 66-10",
  }),
  instalments,
  creditNotes: "later-period",
  options: [
    {
      id: "creditNotes",
      name: "Credit notes",
      values: [
        { value: "later-period", name: "of an earlier period as adjustments at 1A and 1B" },
        { value: "netted", name: "always netted in the labels of the invoice" },
      ],
      source: "GSTA Div 19",
    },
    {
      id: "reporting",
      name: "GST on the statement",
      values: [
        { value: "full", name: "full: G1 to G11, 1A and 1B" },
        { value: "simpler", name: "simpler: G1, 1A and 1B, below $10 million" },
      ],
      source: "ATO, simpler BAS",
    },
    {
      id: "lodgment",
      name: "Lodgment of quarterly statements",
      values: [
        { value: "standard", name: "by the standard day" },
        { value: "online", name: "online by the business itself, two weeks more" },
        { value: "agent", name: "by a registered agent, four weeks more" },
      ],
      source: "ATO lodgment programme, from memory",
    },
    {
      id: "incomeTaxDay",
      name: "Day of the income tax return, for an annual GST return",
      values: [
        { value: "none", name: "28 February: none is due" },
        { value: "31-october", name: "31 October" },
        { value: "15-january", name: "15 January" },
        { value: "31-march", name: "31 March" },
        { value: "15-may", name: "15 May" },
      ],
      source: "GSTA s 31-8",
    },
    {
      id: "gstInstalments",
      name: "GST by instalments, where the return is annual",
      values: [
        { value: "none", name: "no instalments" },
        { value: "quarterly", name: "each quarter" },
        { value: "two", name: "for March and June: primary producers and special professionals" },
      ],
      source: "GSTA Div 162",
    },
    {
      id: "turnover",
      name: "GST turnover a year",
      values: [
        { value: "under-20m", name: "less than $20 million" },
        { value: "20m", name: "$20 million to less than $100 million" },
        { value: "100m", name: "$100 million to less than $500 million" },
        { value: "500m", name: "$500 million to less than $1 billion" },
        { value: "1bn", name: "$1 billion or more" },
      ],
      source: "GSTA Div 188; Correcting GST Errors Determination 2023",
    },
  ],
  registers: [
    {
      id: "quotes",
      name: "Sales under a quote",
      kind: "lines",
      codes: ["WQ", "LQ"],
      attribute: "quote",
      asks: "the buyer's ABN, or the number or day of its quote: without a quote on file wine tax or luxury car tax is due on the sale",
      onlyFor: ["WET", "LCT"],
      source: "WETA Div 13, LCTA Div 9: the quote is kept five years",
    },
  ],
  standings: [{ id: "quoted", name: "quotes its ABN for wine", needs: "a quote on file" }],
  activities: [
    { id: "wine", name: "Makes or sells wine, cider, mead", classes: ["wine"] },
    { id: "cars", name: "Sells cars", classes: [] },
  ],
  dateOrder: "dmy",
  bankNames: ["ato", "taxes", "gst", "bas"],
  watched: ["G1", "1B"],
  words,
  declaration:
    "I declare that the information given on this form is true and correct, and that I am authorised to make this declaration.",
  late,
  law,
  notes: [
    {
      text: "Registration is compulsory from $75,000 of GST turnover, $150,000 for non-profit bodies.",
      source: "GSTA Div 23",
    },
    {
      text: "A tax invoice is needed for a credit above $82.50 with GST; from $1,000 it names the buyer.",
      source: "GSTA s 29-70, 29-80",
    },
    {
      text: "Wine tax comes first, on the price without GST; GST is on the price with wine tax. The other order gives the same total and a wrong split.",
      source: "WETA; GSTA s 9-75",
    },
    {
      text: "Thresholds indexed on 1 July 2026 were not known when this was written; the figures of the year before are used.",
      source: "ATO, indexed every 1 July",
    },
  ],
  electronic: false,
  checkNumber: checkedBy(abnNumber, "ABN", "11 digits with two check digits in front"),
};
