import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { SeriesView } from "@fiscalon/contract/series";
import { expectRefusal } from "./support/refused.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let base: string;
beforeAll(async () => {
  server = await startServer();
});
beforeEach(async () => {
  ({ base } = await newClient(server));
});
afterAll(() => server.close());

const post = async (number?: string, kind = "sales-invoice") =>
  server.ok<{ id: number; input: { number: string } }>(
    "POST",
    `${base}/documents`,
    document(kind, "2026-05-11", [{ amount: "1.00", code: "S20" }], number === undefined ? {} : { number }),
  );
const given = async (...args: Parameters<typeof post>) => (await post(...args)).input.number;
const series = async (kind = "sales-invoice") => {
  const all = await server.ok<SeriesView[]>("GET", `${base}/series`);
  return at(
    all.filter((one) => one.kind === kind),
    0,
  );
};
const named = (prefix: string, digits = 4) =>
  server.ok("PUT", `${base}/series/sales-invoice`, { prefix, digits });

describe("numbers of our own", () => {
  test("begin at one, go on by one, and each kind has its own", async () => {
    const first = await given();
    expect(first).toMatch(/0001$/);
    expect([await given(), await given()].map((number) => Number(number.slice(-4)))).toEqual([2, 3]);
    expect(Number((await given(undefined, "sales-credit-note")).slice(-4))).toBe(1);
    expect((await series()).used).toBe(3);
  });

  test("go on behind one that was typed, and tell what it left out", async () => {
    await named("SI-");
    await given();
    await given("SI-0005");
    expect(await given()).toBe("SI-0006");
    expect(await series()).toMatchObject({
      next: "SI-0007",
      used: 3,
      missing: ["SI-0002", "SI-0003", "SI-0004"],
      missingCount: 3,
    });
    expect(await given("SI-0003")).toBe("SI-0003");
    expect(await series()).toMatchObject({ next: "SI-0007", missing: ["SI-0002", "SI-0004"] });
  });

  test("a number taken out is not given again", async () => {
    await named("SI-");
    await post();
    const { id } = await post();
    await server.ok("POST", `${base}/documents/${id}/void`, { reason: "never happened" });
    expect(await given()).toBe("SI-0003");
    expect((await series()).missingCount).toBe(0);
  });

  test("a new beginning of the year starts at one; the old one goes on where it stood", async () => {
    await named("2026/", 3);
    expect([await given(), await given()]).toEqual(["2026/001", "2026/002"]);
    await named("2027/", 5);
    expect([await given(), await given()]).toEqual(["2027/00001", "2027/00002"]);
    await named("2026/", 3);
    expect(await given()).toBe("2026/003");
  });

  test("grow beyond their digits without losing their order", async () => {
    await named("", 2);
    await given("99");
    expect([await given(), await given()]).toEqual(["100", "101"]);
    expect(await series()).toMatchObject({ next: "102", missingCount: 0 });
  });

  test.each(["SI-12a", "SI-12-3", "si-0009", "X0009", "SI-99999999999999999999", "SI-"])(
    "%s is no number of the series, and does not move it",
    async (foreign) => {
      await named("SI-");
      await given();
      await given(foreign);
      expect(await given()).toBe("SI-0002");
      expect((await series()).missingCount).toBe(0);
    },
  );

  test("a correction keeps the number of what it corrects", async () => {
    const { id, input } = await post();
    const corrected = await server.ok<{ input: { number: string } }>(
      "PUT",
      `${base}/documents/${id}`,
      document("sales-invoice", "2026-05-11", [{ amount: "2.00", code: "S20" }]),
    );
    expect(corrected.input.number).toBe(input.number);
    expect((await series()).used).toBe(1);
  });

  test("two with one number are refused, but not of two kinds", async () => {
    await post("SI-7");
    const twin = document("sales-invoice", "2026-05-12", [{ amount: "1.00", code: "S20" }], {
      number: "SI-7",
    });
    expectRefusal(
      await server.call("POST", `${base}/documents`, twin),
      "document/duplicate-number",
      "number",
    );
    expect(await given("SI-7", "sales-credit-note")).toBe("SI-7");
  });

  test("what carries the number of somebody else has none of ours", async () => {
    const bill = document("purchase-bill", "2026-05-11", [{ amount: "1.00", code: "S20" }]);
    expectRefusal(await server.call("POST", `${base}/documents`, bill), "document/no-number", "number");
  });

  test.each([
    [{ prefix: "SI 1", digits: 4 }, "prefix"],
    [{ prefix: "x".repeat(17), digits: 4 }, "prefix"],
    [{ prefix: "SI-", digits: 0 }, "digits"],
    [{ prefix: "SI-", digits: 40 }, "digits"],
  ])("a series %j is refused", async (body, field) => {
    expectRefusal(await server.call("PUT", `${base}/series/sales-invoice`, body), "request/invalid", field);
  });
});
