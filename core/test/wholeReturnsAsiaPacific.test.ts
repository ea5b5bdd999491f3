import { expect, test } from "vitest";
import { bill, expense, billCredit, boxesOf, credit, sale } from "./support/books.ts";

/**
 * Whole returns. Each is derived from the rules named in the fact sheet of its jurisdiction, which were written from
 * memory of the law; the sums were worked out there by hand or script, apart from this code.
 */

test("Australia, activity statement with worksheet (GSTA, BAS guide; fact sheet 14)", () => {
  const september = { date: "2025-09-10" };
  const inclusive = { ...september, prices: "inclusive" as const };
  const june = { originalDate: "2025-06-12" };
  const boxes = boxesOf(
    "au",
    [
      sale(["S10", "40000.00"], september),
      sale(["S10", "8250.55"], inclusive),
      sale(["SX", "12500.40"], september),
      sale(["SF", "3999.95"], september),
      sale(["SI", "2600.00"], september),
      credit(["S10", "1100.00"], inclusive),
      credit(["S10", "550.00"], { ...inclusive, ...june }),
      bill(["P10", "21430.30"], september),
      bill(["C10", "9000.00"], september),
      bill(["PF", "1200.00"], september),
      bill(["PI", "440.00"], inclusive),
      bill(["P10", "1320.00", { recoverable: "75" }], inclusive),
      billCredit(["P10", "220.00"], { ...inclusive, ...june }),
    ],
    { end: "2025-09-30" },
    { W1: "30000", W2: "5612", T7: "1500", "7D": "1282.00" },
  );
  expect(boxes).toEqual({
    G1: "70250",
    G2: "12500",
    G3: "3999",
    G10: "9900",
    G11: "26533",
    W1: "30000",
    W2: "5612",
    W5: "5612",
    T7: "1500",
    "1A": "4670",
    "1B": "3183",
    "4": "5612",
    "5A": "1500",
    "7D": "1282",
    "8A": "11782",
    "8B": "4465",
    "9": "7317",
    G4: "2600",
    G5: "19099",
    G6: "51151",
    G7: "220",
    G8: "51371",
    G9: "4670",
    G12: "36433",
    G13: "440",
    G14: "1200",
    G15: "330",
    G16: "1970",
    G17: "34463",
    G18: "550",
    G19: "35013",
    G20: "3183",
  });
});

test("New Zealand, GST101A (GSTA; fact sheet 10)", () => {
  const inclusive = { prices: "inclusive" as const };
  expect(
    boxesOf(
      "nz",
      [
        sale(["S15", "92000"], inclusive),
        sale(["SZ", "14500"]),
        sale(["SE", "3200"]),
        credit(["S15", "1150"], inclusive),
        bill(["P15", "41400"], inclusive),
        expense(["P2", "2300"]),
        bill(["IM", "1842.15"]),
        bill(["A13", "45"]),
        sale(["A9", "75"]),
      ],
      { end: "2026-06-30" },
    ),
  ).toEqual({
    "5": "105350",
    "6": "14500",
    "7": "90850",
    "8": "11850",
    "9": "75",
    "10": "11925",
    "11": "43700",
    "12": "5700",
    "13": "1887.15",
    "14": "7587.15",
    "15": "4337.85",
  });
});

test("Singapore, F5 (GSTA; fact sheet 10)", () => {
  expect(
    boxesOf(
      "sg",
      [
        sale(["S", "180000"]),
        credit(["S", "1000"], { originalDate: "2023-08-01" }),
        sale(["Z", "60000"]),
        sale(["EN33", "2450"]),
        bill(["P", "70000"]),
        bill(["PZ", "4000"]),
        bill(["PI", "20000"]),
        bill(["PM", "30000"]),
        bill(["BL", "1500"]),
        bill(["BD", "450"]),
      ].map((one) => ({ ...one, date: "2026-08-11" })),
      { end: "2026-09-30" },
      { "13": "239000" },
    ),
  ).toEqual({
    "1": "179000",
    "2": "60000",
    "3": "2450",
    "4": "241450",
    "5": "124000",
    "6": "16120",
    "7": "8550",
    "8": "7570",
    "9": "30000",
    "11": "450",
    "13": "239000",
    "18": "7570",
    "20": "7570",
  });
});

test("India, GSTR-3B of October 2025 with use of credit (CGST, IGST; fact sheet E17)", () => {
  const site = { country: "IN", region: "27" };
  const at = (region: string, registered: boolean) => ({
    date: "2025-10-11",
    party: { country: "IN", region, registered, taxNumber: null, standing: {} },
  });
  const abroad = {
    date: "2025-10-11",
    party: { country: "US", region: null, registered: false, taxNumber: null, standing: {} },
  };
  const boxes = boxesOf(
    "in",
    [
      sale(["S18", "200000"], at("27", true)),
      sale(["S18", "150000"], at("29", true)),
      sale(["S5", "52500"], { ...at("27", false), prices: "inclusive" }),
      sale(["S18", "120000"], at("24", false)),
      sale(["S5", "20000"], at("24", false)),
      sale(["EXL", "300000"], abroad),
      sale(["EX", "40000"], at("27", false)),
      credit(["S18", "10000"], at("27", true)),
      bill(["P18", "180000"], at("27", true)),
      bill(["P18", "100000"], at("24", true)),
      bill(["PB18", "30000"], at("27", true)),
      bill(["R5", "8000"], at("24", false)),
      bill(["RI18", "50000"], abroad),
      bill(["IG18", "111000"], abroad),
      bill(["PE", "12000"], at("27", false)),
      bill(["PG", "6000"], at("27", false)),
    ],
    { end: "2025-10-31", site },
  );
  const register = Object.fromEntries(Object.entries(boxes).filter(([id]) => id.startsWith("g1.")));
  expect(register).toEqual({
    "g1.4A.txval": "350000",
    "g1.4A.igst": "27000",
    "g1.4A.cgst": "18000",
    "g1.4A.sgst": "18000",
    "g1.5A.txval": "120000",
    "g1.5A.igst": "21600",
    "g1.6A.txval": "300000",
    "g1.7A1.txval": "50000",
    "g1.7A1.cgst": "1250",
    "g1.7A1.sgst": "1250",
    "g1.7B1.txval": "20000",
    "g1.7B1.igst": "1000",
    "g1.8D.exempt": "40000",
    "g1.9B.cdnr.txval": "-10000",
    "g1.9B.cdnr.cgst": "-900",
    "g1.9B.cdnr.sgst": "-900",
  });
  expect(boxes).toMatchObject({
    "3.1a.txval": "530000",
    "3.1a.igst": "49600",
    "3.1a.cgst": "18350",
    "3.1a.sgst": "18350",
    "3.1b.txval": "300000",
    "3.1c.txval": "40000",
    "3.1d.txval": "58000",
    "3.1d.igst": "9400",
    "3.2.unreg.24.txval": "140000",
    "3.2.unreg.24.igst": "22600",
    "4A1.igst": "19980",
    "4A2.igst": "9000",
    "4A3.igst": "400",
    "4A5.igst": "18000",
    "4A5.cgst": "18900",
    "4A5.sgst": "18900",
    "4B1.cgst": "2700",
    "4B1.sgst": "2700",
    "4C.igst": "47380",
    "4C.cgst": "16200",
    "4C.sgst": "16200",
    "5.r1.intra": "12000",
    "5.r2.intra": "6000",
    "6.1A.igst.payable": "49600",
    "6.1A.igst.itc.igst": "47380",
    "6.1A.igst.cash": "2220",
    "6.1A.cgst.cash": "2150",
    "6.1A.sgst.cash": "2150",
    "6.1B.igst.payable": "9400",
    cash: "15920",
  });
  expect(boxes["3.1d.cgst"]).toBeUndefined();
  expect(boxes["4B2.igst"]).toBeUndefined();
});

test("India, composition trader (CGST s.10; fact sheet E11)", () => {
  const site = { country: "IN", region: "27" };
  const registration = { options: { composition: "trader" } };
  const boxes = boxesOf("in", [sale(["CS", "1234567"]), sale(["CX", "100000"]), bill(["R5", "40000"])], {
    end: "2026-06-30",
    site,
    registration,
  });
  expect(boxes).toMatchObject({
    "cmp08.1.value": "1334567",
    "cmp08.1.cgst": "6172.84",
    "cmp08.2.value": "40000",
    "cmp08.2.cgst": "1000",
    "cmp08.3.cgst": "7172.84",
    "cmp08.5.cgst": "7173",
    "cmp08.5.sgst": "7173",
  });
});

test("India, two rates of state VAT on one invoice of 2012 (state VAT Acts; fact sheet E15)", () => {
  const registration = { levies: ["SVAT", "CST"] };
  const invoice = sale(
    [
      ["VL", "40000"],
      ["VH", "60000"],
    ],
    { date: "2012-05-11" },
  );
  expect(boxesOf("in", [invoice], { end: "2012-06-30", registration })).toEqual({
    V1: "40000",
    V2: "60000",
    V4: "2000",
    V5: "7500",
    V9: "9500",
    V10: "9500",
  });
});

test("Philippines, 2550Q with common input tax and what is carried over (NIRC s. 106 to 110; fact sheet PH, example c)", () => {
  const abroad = { party: { country: "US", region: null, registered: false, taxNumber: null, standing: {} } };
  const documents = [
    sale(["V12", "450000"]),
    sale(["VZ", "120000"]),
    sale(["VX", "30000"]),
    bill(["D12", "177000"]),
    bill(["D12M", "83000"]),
    bill(["NR12", "18000"], abroad),
    bill(["IM12", "40000"], abroad),
  ];
  const boxes = boxesOf("ph", documents, { end: "2026-06-30" }, { "38": "2150", "16": "3000" });
  expect(boxes).toEqual({
    "31A": "450000",
    "31B": "54000",
    "32A": "120000",
    "33A": "30000",
    "34A": "600000",
    "34B": "54000",
    "37": "54000",
    "38": "2150",
    "43": "2150",
    "44A": "260000",
    "44B": "31200",
    "45A": "18000",
    "45B": "2160",
    "46A": "40000",
    "46B": "4800",
    "50A": "318000",
    "50B": "38160",
    "51": "40310",
    common: "9960",
    "53": "498",
    "57": "498",
    "59": "498",
    "60": "39812",
    "61": "14188",
    "15": "14188",
    "16": "3000",
    "20": "3000",
    "21": "11188",
    "26": "11188",
  });
});
