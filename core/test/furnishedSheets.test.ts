import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { readFurnished } from "@fiscalon/core/formats/statements/furnished";
import { readFurnishedSheets } from "@fiscalon/core/formats/statements/furnishedSheets";

const HEADS = { igst: "IGST", cgst: "CGST", sgst: "SGST", cess: "CESS" };
const json = JSON.parse(
  readFileSync(new URL("../../server/test/samples/gstr2b.json", import.meta.url), "utf8"),
) as unknown;

// Two rows of titles, groups above columns, as the portal's workbook has them; from memory.
const GROUPS = [
  "",
  "",
  "Invoice Details",
  "",
  "",
  "",
  "",
  "",
  "",
  "",
  "Tax Amount",
  "",
  "",
  "",
  "",
  "",
  "",
  "",
];
const COLUMNS =
  "GSTIN of supplier|Trade/Legal name|Invoice number|Invoice type|Invoice Date|Invoice Value(₹)|Place of supply|Supply Attract Reverse Charge|Rate(%)|Taxable Value (₹)|Integrated Tax(₹)|Central Tax(₹)|State/UT Tax(₹)|Cess(₹)|GSTR-1/IFF/GSTR-5 Period|GSTR-1/IFF/GSTR-5 Filing Date|ITC Availability|Reason".split(
    "|",
  );
const bill = (text: string) => text.split("|");
const B2B = [
  ["Goods and Services Tax - GSTR-2B", ...Array.from({ length: 17 }, () => "")],
  GROUPS,
  COLUMNS,
  bill(
    "29AADCS9042L1ZU|Sample Timber Depot|SD/2026/884|Regular|02/10/2026|47,200.00|Karnataka|No|18|40,000.00|0|3,600.00|3,600.00|0|Oct'26|10/11/2026|Yes|",
  ),
  bill(
    "29AADCS9042L1ZU|Sample Timber Depot|SD/2026/901|Regular|17/10/2026|17,310.00|Karnataka|No|18|12,000.00|0|1,080.00|1,080.00|0|Oct'26|10/11/2026|Yes|",
  ),
  bill(
    "29AADCS9042L1ZU|Sample Timber Depot|SD/2026/901|Regular|17/10/2026|17,310.00|Karnataka|No|5|3,000.00|0|75.00|75.00|0|Oct'26|10/11/2026|Yes|",
  ),
  bill(
    "33AAGCN2208J1ZP|Sample Hardware South|000417|Regular|11/10/2026|29,500.00|Karnataka|No|18|25,000.00|4,500.00|0|0|0|Oct'26|11/11/2026|Yes|",
  ),
  bill(
    "33AAGCN2208J1ZP|Sample Hardware South|000433|Regular|25/10/2026|4,720.00|Tamil Nadu|No|18|4,000.00|720.00|0|0|0|Oct'26|11/11/2026|No|POS and supplier state are same but recipient state is different",
  ),
  bill(
    "29AAHFG7713M1ZW|Sample Cartage|SC-71|Regular|28/10/2026|6,000.00|Karnataka|Yes|5|6,000.00|0|150.00|150.00|0|Oct'26|11/11/2026|Yes|",
  ),
];
const NOTES = [
  ["", "", "Credit note/Debit note details", "", "", "", "", "", "", "Tax Amount", "", "", "", ""],
  "GSTIN of supplier|Trade/Legal name|Note number|Note type|Note Supply type|Note date|Note Value (₹)|Place of supply|Taxable Value (₹)|Integrated Tax(₹)|Central Tax(₹)|State/UT Tax(₹)|Cess(₹)|ITC Availability".split(
    "|",
  ),
  bill(
    "29AADCS9042L1ZU|Sample Timber Depot|SDC/2026/31|Credit Note|Regular|21/10/2026|2,360.00|Karnataka|2,000.00|0|180.00|180.00|0|Yes",
  ),
];
const IMPORTS = [
  [
    "Icegate Reference Date",
    "Port Code",
    "Bill of Entry Details",
    "",
    "",
    "Amount of tax (₹)",
    "",
    "Amended (Yes)",
  ],
  ["", "", "Number", "Date", "Taxable Value", "Integrated Tax(₹)", "Cess(₹)", ""],
  bill("09/10/2026|INBLR4|4410926|08/10/2026|70,000.00|12,600.00|0|No"),
];

test("the portal's JSON and its workbook tell the same documents", () => {
  const fromJson = readFurnished(json, HEADS, 2);
  const fromSheets = readFurnishedSheets(
    [
      { name: "Read me", rows: [["How to read this statement"]] },
      { name: "B2B", rows: B2B },
      { name: "B2B-CDNR", rows: NOTES },
      { name: "IMPG", rows: IMPORTS },
    ],
    HEADS,
    2,
  );
  const plain = ({ rows }: typeof fromJson) =>
    rows
      .map(({ partyNumber, number, date, value, tax, taxes, ineligible }) => ({
        partyNumber,
        number,
        date,
        value,
        tax,
        taxes,
        eligible: ineligible === "",
      }))
      .sort((a, b) => (a.number < b.number ? -1 : 1));
  expect(fromSheets.problems).toEqual([]);
  expect(plain(fromSheets)).toEqual(plain(fromJson));
  expect(fromJson).toMatchObject({
    number: "29AAKCH4821P1ZX",
    periodEnd: "2026-10-31",
    drawnOn: "2026-11-14",
  });
  // Totals of the statement's own summary: available credit of the month and what is not available.
  const available = fromJson.rows.filter(({ ineligible }) => ineligible === "");
  const head = (levy: string) => available.reduce((sum, { taxes }) => sum + (taxes[levy] ?? 0), 0);
  expect([head("IGST"), head("CGST"), head("SGST")]).toEqual([
    450000 + 1260000,
    475500 + 15000 - 18000,
    475500 + 15000 - 18000,
  ]);
});
