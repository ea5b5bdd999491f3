import { afterAll, beforeAll, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { CapitalItemBody, CapitalItemView, CapitalItemsView } from "@fiscalon/contract/capitalItems";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { british, periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const item = (more: Partial<CapitalItemBody>): CapitalItemBody => ({
  name: "Building",
  kind: "other",
  firstUse: "2025-01-01",
  net: "9000000",
  taxes: { VAT: "0" },
  share: "100",
  yearEnds: 12,
  uses: {},
  ended: null,
  evidence: "",
  ...more,
});

async function books(country: Country, from = "2025-01-01") {
  const made = await periodBooks(server, country, from);
  const path = `${made.registration}/capital-items`;
  return {
    ...made,
    path,
    add: (body: CapitalItemBody) => server.ok<CapitalItemView>("POST", path, body),
    change: (no: number, body: CapitalItemBody) => server.call("PUT", `${path}/${no}`, body),
  };
}

const emirates: Country = {
  pack: "ae",
  country: "AE",
  region: "DU",
  frequency: "quarterly",
  anchor: "2026-03-31",
  number: "100294771500003",
};

// ae.md, section 14, example 9, and section 7.6: VAT ÷ years × change of the share, on the first return of the next year.
test("a building in the Emirates: a tenth of its tax a year by the change of its share, and the rest when it is sold", async () => {
  const made = await books(emirates);
  const building = item({
    kind: "building",
    firstUse: "2025-03-01",
    net: "8000000",
    taxes: { VAT: "400000" },
    share: "80",
    uses: { "2025-12-31": "60" },
  });
  const { no } = await made.add(building);
  // 400,000 / 10 × (60 − 80) %.
  const findings = async (end: string) => {
    const view = await server.ok<ReturnView>("GET", `${made.registration}/returns/${end}`);
    return view.findings.filter(({ check }) => check === "capital-share").map(({ text }) => text);
  };
  expect(await made.boxes("2026-03-31")).toMatchObject({ "9.j": "-8000" });
  expect(await findings("2026-03-31")).toEqual([]);
  expect(await findings("2027-03-31")).toEqual([
    "Capital item 1, Building: this return adjusts its use to 31 Dec 2026, and no share is typed. Type it under Books, Capital items; as long as it is missing nothing is adjusted.",
  ]);
  expect((await made.boxes("2025-12-31"))["9.j"]).toBeUndefined();
  const [paper] = await server.ok<SchemeView[]>("GET", `${made.registration}/returns/2026-03-31/schemes`);
  expect(paper?.steps.map(({ arithmetic }) => arithmetic)).toEqual(["400,000.00 × 1/10 × −20 % = −8,000.00"]);
  await made.seal("2026-03-31");
  await made.settle("2026-03-31");
  expect(await made.left("2026-03-31")).toBe(0);

  // What a sealed return holds cannot be changed under it.
  expectRefusal(
    await made.change(no, { ...building, uses: { "2025-12-31": "70" } }),
    "capital/sealed",
    undefined,
  );
  // Sold with tax in May: eight years are left after this one, which has its own use.
  const sold = { ...building, ended: { on: "2026-05-10", how: "taxed" } as const };
  expect((await made.change(no, sold)).status).toBe(200);
  expect(await made.boxes("2026-06-30")).toMatchObject({ "9.j": "64000" }); // 400,000 × 8/10 × 20 %
  await made.expectSameAfterBookFile();
});

// eu.md, section 7.8: tax 19,000 on a building, claimed in full, use of 40 %: 1,900 × −60 % = −1,140.00.
test("a building in Germany by calendar years and months, and a change too small to count", async () => {
  const made = await books({
    pack: "eu-de",
    country: "DE",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "DE271828000",
  });
  const building = item({
    kind: "immovable",
    firstUse: "2022-07-01",
    net: "100000",
    taxes: { VAT: "19000" },
    uses: { "2025-12-31": "40" },
  });
  const { no } = await made.add(building);
  expect(await made.boxes("2025-12-31")).toMatchObject({ "64": "-1140" });
  // 8 points, 152.00 a year: left alone (UStDV § 44(2)).
  await made.change(no, { ...building, uses: { "2025-12-31": "92" } });
  expect((await made.boxes("2025-12-31"))["64"]).toBeUndefined();
  // Sold without tax on 20 May 2025: five months of the year by its use, 85 of 120 months at nought; UStDV § 45.
  await made.change(no, {
    ...building,
    uses: { "2025-12-31": "40" },
    ended: { on: "2025-05-20", how: "exempt" },
  });
  expect(await made.boxes("2025-12-31")).toMatchObject({ "64": "-475" }); // 19,000 × 5/120 × −60 %
  expect(await made.boxes("2025-06-30")).toMatchObject({ "64": "-13458.33" }); // 19,000 × 85/120 × −100 %
  // Begun on the 20th: its first month is the next one (UStDV § 45, by analogy of its end).
  const late = await made.add(item({ kind: "other", firstUse: "2025-10-20", taxes: { VAT: "6000" } }));
  expect(late.until).toBe("2030-10-31");
});

// au.md, section 7.19: GST 2,000.00 claimed at 80 %; 65 % by the first June, 70 % by the next.
test("Division 129: the whole credit follows the use so far, each year that ends with June", async () => {
  const made = await books(
    { pack: "au", country: "AU", frequency: "quarterly", anchor: "2024-09-30", number: "51824753556" },
    "2023-07-01",
  );
  const machine = item({
    kind: "five",
    firstUse: "2024-02-01",
    net: "20000",
    taxes: { GST: "2000" },
    share: "80",
    yearEnds: 6,
  });
  // Bought in the quarter to March 2024: the first period that begins a year after it and ends with June is that of 2025.
  const { no, stretches } = await made.add(machine);
  expect(at(stretches, 0).to).toBe("2025-06-30");
  await made.change(no, { ...machine, uses: { "2025-06-30": "65", "2026-06-30": "70" } });
  expect(await made.boxes("2025-06-30")).toMatchObject({ "1A": "300" });
  expect(await made.boxes("2026-06-30")).toMatchObject({ "1B": "100" });
  await made.seal("2025-06-30");
  await made.settle("2025-06-30");
  expect(await made.left("2025-06-30")).toBe(0);
});

// in.md, section 14, E7: credit 90,000 / 60 = 1,500 a month × 0.25 = 375 reversed.
test("rule 43: a sixtieth of the credit a month by exempt turnover, head by head", async () => {
  const made = await books(
    {
      pack: "in",
      country: "IN",
      region: "KA",
      frequency: "monthly",
      anchor: "2026-01-31",
      number: "29AAPFM4417K1ZR",
    },
    "2026-01-01",
  );
  await made.add(
    item({ kind: "goods", firstUse: "2024-06-10", net: "1000000", taxes: { CGST: "90000", SGST: "90000" } }),
  );
  expect((await made.boxes("2026-02-28"))["4B1.cgst"]).toBeUndefined();
  await made.post(["sales-invoice", "S18", "1800000.00"], "2026-01-10");
  await made.post(["sales-invoice", "EX", "600000.00"], "2026-01-11");
  expect(await made.boxes("2026-01-31")).toMatchObject({ "4B1.cgst": "375", "4B1.sgst": "375" });
  await made.seal("2026-01-31");
  await made.settle("2026-01-31");
  expect(await made.left("2026-01-31")).toBe(0);
  // A month without turnover goes by the last one that had some.
  expect(await made.boxes("2026-02-28")).toMatchObject({ "4B1.cgst": "375", "4B1.sgst": "375" });
  await made.expectSameAfterBookFile();
  expectRefusal(
    await made.change(1, item({ kind: "goods", taxes: { CGST: "1" }, uses: { "2026-01-31": "5" } })),
    "capital/by-turnover",
    "uses",
  );
});

// ie.md, section 7.9: base tax ÷ 20 × (actual − initial), in the period after the interval; the first is twelve months.
test("twenty intervals of an Irish property, and the second return after a British one", async () => {
  const irish = await books(
    { pack: "ie", country: "IE", frequency: "two-monthly", anchor: "2026-02-28", number: "6388047V" },
    "2024-01-01",
  );
  const property = item({
    kind: "property",
    firstUse: "2024-04-01",
    taxes: { VAT: "230000" },
    uses: { "2025-03-31": "90", "2025-12-31": "75" },
  });
  const { stretches, until } = await irish.add(property);
  expect(stretches.map(({ to }) => to).slice(0, 2)).toEqual(["2025-03-31", "2025-12-31"]);
  expect(until).toBe("2043-12-31");
  // Less than nought of T2 stands in T1: 230,000 / 20 × −10 %, and × −25 %.
  expect(await irish.boxes("2025-06-30")).toMatchObject({ T1: "1150" });
  expect(await irish.boxes("2026-02-28")).toMatchObject({ T1: "2875" });
  // SI 1995/2518 reg. 115(6): 50,000 / 10 × 20 % on the second return after March; from memory.
  const british1 = await books(british(), "2024-01-01");
  await british1.add(
    item({
      kind: "land",
      firstUse: "2024-01-10",
      net: "250000",
      taxes: { VAT: "50000" },
      share: "60",
      yearEnds: 3,
      uses: { "2025-03-31": "80" },
    }),
  );
  expect((await british1.boxes("2025-06-30"))["4"]).toBeUndefined();
  expect(await british1.boxes("2025-09-30")).toMatchObject({ "4": "1000" });
});

test("what does not fit is refused, dear bills are named until an item names them, and the list prints", async () => {
  const made = await books(emirates);
  await made.post(["purchase-bill", "P5K", "6000000.00"], "2026-02-01");
  const view = () => server.ok<CapitalItemsView>("GET", made.path);
  const { findings } = await server.ok<ReturnView>("GET", `${made.registration}/returns/2026-03-31`);
  expect(findings.filter(({ check }) => check === "capital-unlisted")).toHaveLength(1);
  const bill = at((await view()).suggested, 0);
  expect(bill).toMatchObject({ net: 6_000_000_00, taxes: { VAT: 300_000_00 }, share: "100" });
  const { no } = await made.add(
    item({ firstUse: "2026-02-01", net: "6000000", taxes: { VAT: "300000" }, evidence: bill.number }),
  );
  expect((await view()).suggested).toEqual([]);
  const fails = async (body: Partial<CapitalItemBody>) => server.call("POST", made.path, item(body));
  expectRefusal(await fails({ kind: "ship" }), "capital/kind", "kind");
  expectRefusal(await fails({ taxes: { GST: "1" } }), "capital/levy", "taxes");
  expectRefusal(await fails({ net: "-1" }), "capital/amount", "net");
  expectRefusal(await fails({ net: "4999999.99" }), "capital/too-cheap", "net");
  expectRefusal(await fails({ ended: { on: "2024-01-01", how: "gone" } }), "capital/ended", "ended");
  expectRefusal(await fails({ uses: { "2025-11-30": "5" } }), "capital/uses", "uses");
  for (const format of ["csv", "xlsx", "pdf"])
    expect((await fetch(`${server.address}/api${made.path}/export?format=${format}`)).status).toBe(200);
  expect((await server.call("DELETE", `${made.path}/${no}`)).status).toBe(204);
  expect((await view()).items).toEqual([]);
  const canada = await books({
    pack: "ca",
    country: "CA",
    region: "ON",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "123456782RT0001",
  });
  expectRefusal(await server.call("GET", canada.path), "capital/no-rule", undefined);
});

// nz.md, section 14, example 11: a van with tax of 6,000.00, 80 % claimed; a year of 65 % use: 900.00 in box 9.
test("New Zealand: the taxable use of a van is compared once a year; a small change is left alone", async () => {
  const made = await books({
    pack: "nz",
    country: "NZ",
    frequency: "two-monthly",
    anchor: "2026-01-31",
    number: "49091850",
  });
  const van = {
    name: "Van",
    kind: "five",
    firstUse: "2025-02-10",
    net: "40000",
    taxes: { GST: "6000" },
    share: "80",
  };
  const uses = { "2026-03-31": "65", "2027-03-31": "64" };
  await made.add(item({ ...van, yearEnds: 3, uses }));
  expect(await made.boxes("2026-03-31")).toMatchObject({ "9": "900" });
  expect((await made.boxes("2027-03-31"))["13"]).toBeUndefined();
});

// Act (ZA) s.18(2) and (5): more than ten points. The figures are worked out here: 15,000.00 × (80 − 60) %.
test("South Africa: the use of capital goods by the year, from more than ten points on", async () => {
  const made = await books({
    pack: "za",
    country: "ZA",
    frequency: "two-monthly",
    anchor: "2026-02-28",
    number: "4440000000",
  });
  const press = {
    name: "Press",
    kind: "goods",
    firstUse: "2025-01-10",
    net: "100000",
    taxes: { VAT: "15000" },
  };
  await made.add(item({ ...press, share: "80", yearEnds: 2, uses: { "2026-02-28": "70" } }));
  expect(await made.boxes("2026-02-28")).toEqual({});
  const larger = { "2026-02-28": "60", "2027-02-28": "75" };
  expect((await made.change(1, item({ ...press, share: "80", yearEnds: 2, uses: larger }))).status).toBe(200);
  expect(await made.boxes("2026-02-28")).toMatchObject({ "12": "3000" });
  expect(await made.boxes("2027-02-28")).toMatchObject({ "16": "2250" });
});
