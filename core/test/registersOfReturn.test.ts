import { describe, expect, test } from "vitest";
import { found } from "@fiscalon/core/at";
import { inPack } from "@fiscalon/core/packs/in/pack";
import { commoditySummary } from "@fiscalon/core/returns/commoditySummary";
import type { SoldFact } from "@fiscalon/core/returns/commoditySummary";
import { documentsIssued } from "@fiscalon/core/returns/documentsIssued";

describe("documents issued", () => {
  const numbers = (
    prefix: string,
    from: number,
    to: number,
    width: number,
    cancelled: readonly number[] = [],
  ) =>
    Array.from({ length: to - from + 1 }, (_, index) => ({
      nature: "invoices",
      number: prefix + String(from + index).padStart(width, "0"),
      cancelled: cancelled.includes(from + index),
    }));
  // Fact sheet IN, example E20.
  test("a series with three cancelled, and the notes beside it", () => {
    const notes = numbers("CN/", 1, 6, 2).map((one) => ({ ...one, nature: "notes" }));
    expect(documentsIssued([...numbers("A/", 1, 148, 4, [7, 90, 148]), ...notes])).toEqual([
      { nature: "invoices", from: "A/0001", to: "A/0148", total: 148, cancelled: 3, net: 145 },
      { nature: "notes", from: "CN/01", to: "CN/06", total: 6, cancelled: 0, net: 6 },
    ]);
  });
  test("a gap begins a new run, another series another row, and a number without digits stands alone", () => {
    const given = [...numbers("B-", 12, 13, 1), ...numbers("B-", 9, 10, 1), ...numbers("C", 1, 1, 3)];
    const odd = { nature: "invoices", number: "LAST", cancelled: true };
    expect(
      documentsIssued([...given, odd]).map(({ from, to, total, net }) => [from, to, total, net]),
    ).toEqual([
      ["B-9", "B-10", 2, 2],
      ["B-12", "B-13", 2, 2],
      ["C001", "C001", 1, 1],
      ["LAST", "LAST", 1, 0],
    ]);
  });
});

describe("India, table 12", () => {
  const register = found(inPack.registers ?? [], ({ kind }) => kind === "commodities", "table 12");
  if (register.kind !== "commodities") throw new Error("table 12 is another kind");
  let line = 0;
  const sold = (
    code: string,
    net: number,
    quantity: string,
    more: Partial<SoldFact> & { taxes: [levy: string, rate: string][] },
  ): SoldFact[] => {
    line += 1;
    const { taxes, ...rest } = more;
    return taxes.map(([levy, rate]) => ({
      document: 1,
      line,
      levy,
      rate,
      net,
      tax: Math.round((net * Number(rate)) / 100),
      credit: net < 0,
      tags: "g1.7A1.txval +n",
      code,
      text: "cloth",
      unit: "MTR",
      quantity,
      ...rest,
    }));
  };
  const LOCAL: [string, string][] = [
    ["CGST", "2.5"],
    ["SGST", "2.5"],
  ];
  const facts = [
    ...sold("52081190", 100000, "40", { taxes: LOCAL }),
    ...sold("52081210", 50000, "12.5", { taxes: LOCAL }),
    ...sold("52081190", -20000, "8", { taxes: LOCAL }),
    ...sold("52081190", 70000, "30", { taxes: [["IGST", "5"]], tags: "g1.4A.txval +n, 3.1a.txval +n" }),
    ...sold("998821", 30000, "1", { taxes: [["IGST", "18"]], tags: "g1.4A.txval +n" }),
    ...sold("", 9000, "1", { taxes: LOCAL, tags: "3.1a.txval +n" }),
  ];
  test("by list, code, unit and rate, notes taken off, services without a unit; what is in no table is not there", () => {
    expect(commoditySummary(register, 4, facts)).toEqual([
      {
        list: "B2B",
        code: "5208",
        text: "cloth",
        unit: "MTR",
        quantity: "30",
        rate: "5",
        value: 70000,
        taxes: [3500, 0, 0, 0],
      },
      {
        list: "B2B",
        code: "9988",
        text: "cloth",
        unit: "NA",
        quantity: "",
        rate: "18",
        value: 30000,
        taxes: [5400, 0, 0, 0],
      },
      {
        list: "B2C",
        code: "5208",
        text: "cloth",
        unit: "MTR",
        quantity: "44.5",
        rate: "5",
        value: 130000,
        taxes: [0, 3250, 3250, 0],
      },
    ]);
  });
  test("six digits tell more rows, with the same sums", () => {
    const rows = commoditySummary(register, 6, facts);
    expect(rows.map(({ code }) => code)).toEqual(["520811", "998821", "520811", "520812"]);
    expect(rows.reduce((sum, { value }) => sum + value, 0)).toBe(230000);
  });
});
