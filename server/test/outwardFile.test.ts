import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, test } from "vitest";
import type { RegisterView } from "@fiscalon/contract/registers";
import { periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const OCTOBER = "2026-10-31";
const HOME = "29";

// A file of the offline utility's schema, GSTR-1, version GST3.2.3; from memory. The documents below are those it lists.
const SAMPLE = JSON.parse(readFileSync(new URL("samples/gstr1.json", import.meta.url), "utf8")) as Record<
  string,
  unknown
>;

/** Of what goes to a zone without payment the rate may be nought or that of the goods, registers.md 3.6: here it is nought. */
function zonesAtNought(section: unknown): unknown {
  const invoices = section as { inv?: { inv_typ: string; itms: { itm_det: { rt: number } }[] }[] }[];
  if (!Array.isArray(section)) return section;
  for (const { inv_typ, itms } of invoices.flatMap(({ inv = [] }) => inv))
    if (inv_typ === "SEWOP") for (const { itm_det } of itms) itm_det.rt = 0;
  return section;
}

/** The sample without what is filled in on the portal: shipping bills. */
function withoutShippingBills(exports: unknown): unknown {
  const drop = new Set(["sbpcode", "sbnum", "sbdt"]);
  return JSON.parse(JSON.stringify(exports, (key, value: unknown) => (drop.has(key) ? undefined : value)));
}

test("GSTR-1 as the portal takes it: the same sections as the published shape, with the mark of reverse charge", async () => {
  const books = await periodBooks(server, {
    pack: "in",
    country: "IN",
    region: HOME,
    frequency: "monthly",
    anchor: "2026-10-31",
    number: "29AAKCH4821P1ZX",
  });
  const party = async (state: string | null, taxNumber = "", country = "IN") => {
    const { id } = await server.ok<{ id: number }>("POST", `${books.base}/contacts`, {
      name: `Party ${taxNumber || state || country}`,
      country,
      region: state,
      registered: taxNumber !== "",
      taxNumber,
    });
    return id;
  };
  const mill = await party("29", "29AAFCM1177Q1ZS");
  const valley = await party("27", "27AABCV5539R1ZJ");
  const zone = await party("27", "27AAECT6610K1Z6");
  const [here, chennai, kochi] = [await party("29"), await party("33"), await party("32")];
  const abroad = await party(null, "", "SG");
  type Line = [code: string, amount: string];
  const post = (
    number: string,
    day: string,
    contact: number,
    lines: Line[],
    more: Record<string, unknown> = {},
  ) =>
    server.ok("POST", `${books.base}/documents`, {
      kind: "sales-invoice",
      prices: "exclusive",
      number,
      date: `2026-10-${day}`,
      contact,
      lines: lines.map(([code, amount]) => ({ code, amount })),
      ...more,
    });
  const note = { kind: "sales-credit-note" };
  await post("HL/26-27/0101", "05", mill, [["S18", "100000"]]);
  await post("HL/26-27/0103", "09", chennai, [["S18", "150000"]]);
  await post("HL/26-27/0104", "12", mill, [
    ["S18", "20000"],
    ["S5", "10000"],
  ]);
  await post("HL/26-27/0105", "14", abroad, [["EXL", "80000"]]);
  await post("HL/26-27/0106", "16", valley, [["S18", "50000"]]);
  await post("HL/26-27/0107", "18", zone, [["SZL", "40000"]]);
  await post("HL/26-27/0108", "19", abroad, [["EXW18", "30000"]]);
  await post("HL/26-27/0109", "20", mill, [["SRC5", "8000"]]);
  await post("EX-1", "21", mill, [["EX", "2000"]]);
  await post("B-1", "06", here, [
    ["S18", "60000"],
    ["NIL", "3000"],
    ["EX", "4500"],
  ]);
  await post("B-2", "07", here, [
    ["S5", "12000"],
    ["NG", "700"],
  ]);
  await post("B-3", "08", kochi, [["S18", "25000"]]);
  await post("HC/26-27/0007", "22", mill, [["S18", "5000"]], { ...note, corrects: "HL/26-27/0101" });
  await post("HC/26-27/0008", "24", chennai, [["S18", "10000"]], { ...note, corrects: "HL/26-27/0103" });
  await post("HR-1", "25", here, [["ADV18", "11800"]], { prices: "inclusive" });
  await post("HR-2", "26", valley, [["ADV18", "5900"]], { ...note, prices: "inclusive" });
  await post("OP-1", "27", mill, [["ECO5", "900"]]);

  const path = `${books.registration}/returns/${OCTOBER}/registers`;
  const file = await server.ok<Record<string, unknown>>("GET", `${path}/gstr1`);
  for (const section of ["gstin", "fp", "version", "b2b", "b2cl", "cdnr", "cdnur", "nil", "at", "txpd"])
    expect([section, file[section]]).toEqual([section, zonesAtNought(SAMPLE[section])]);
  const inAnyOrder = (rows: unknown) => [...(rows as object[])].map((row) => JSON.stringify(row)).sort();
  expect(inAnyOrder(file["b2cs"])).toEqual(inAnyOrder(SAMPLE["b2cs"]));
  expect(inAnyOrder(file["exp"])).toEqual(inAnyOrder(withoutShippingBills(SAMPLE["exp"])));
  const views = await server.ok<RegisterView[]>("GET", path);
  const view = views.find(({ id }) => id === "gstr1");
  expect(view).toMatchObject({
    format: "json",
    missing: "Not in the file, to be typed on the portal: table 14b.",
  });
  const boxes = await books.boxes(OCTOBER);
  for (const [table, , value] of view?.rows ?? [])
    if (/^[45679]/.test(String(table))) expect(boxes[`g1.${table}.txval`]).toBe(String(Number(value) / 100));
});
