import { afterAll, beforeAll, expect, test } from "vitest";
import { at, found } from "@fiscalon/core/at";
import type { AgreementLine } from "@fiscalon/contract/agreements";
import type { ReturnView } from "@fiscalon/contract/returns";
import { british, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const END = "2026-03-31";

// What a reviewer asks of workpapers: as they stood, and what moved them since. Common practice, no source.
test("a rest blocks sealing until it is accepted; sealing keeps the agreements, and what is written later is named", async () => {
  const books = await periodBooks(server, british());
  const invoice = await books.post(["sales-invoice", "S20", "1000.00"], "2026-01-10");
  await server.ok("POST", `${books.base}/documents`, {
    kind: "journal",
    date: "2026-02-01",
    prices: "exclusive",
    number: "By hand",
    contact: null,
    lines: [
      { account: "2200", amount: "-14.20", text: "Tax, out of nowhere" },
      { account: "3000", amount: "14.20", text: "Tax, out of nowhere" },
    ],
  });
  const agreements = `${books.registration}/agreements/${END}`;
  const line = async (id: string) =>
    found(await server.ok<AgreementLine[]>("GET", agreements), (one) => one.id === id, id);
  const rests = async () =>
    (await server.ok<ReturnView>("GET", `${books.registration}/returns/${END}`)).findings
      .filter(({ check }) => check === "agreement")
      .map(({ text }) => text);
  expect(await rests()).toEqual([expect.stringContaining("Control accounts: 14.20 is left")]);
  expectRefusal(
    await server.call("POST", `${books.registration}/returns/${END}/seal`),
    "returns/findings-open",
  );
  expectRefusal(await server.call("POST", agreements, { id: "control", note: "" }), "agree/rest", "note");
  await server.ok("POST", agreements, { id: "control", note: "put right in April" });
  expect(await rests()).toEqual([]);
  expectRefusal(
    await server.call("GET", `${agreements}/file?format=csv&sealed=true`),
    "agree/not-sealed",
    "sealed",
  );

  await books.seal(END);
  expect(await line("control")).toMatchObject({ state: "accepted", since: null });
  expect(await line("receivable")).toMatchObject({
    left: 1200_00,
    sealed: { left: 1200_00, right: 1200_00, rest: 0 },
    since: null,
  });
  const copy = await books.expectSameAfterBookFile();

  // Settling is our own act after it; money of a customer is not.
  await books.settle(END);
  expect(await line("control")).toMatchObject({ state: "accepted", changed: [] });
  await books.pay(invoice, "700.00", "2026-03-20");
  const moved = await line("receivable");
  expect([moved.left, moved.sealed?.left, moved.since?.total]).toEqual([500_00, 1200_00, 1]);
  expect(moved.since?.rows).toEqual([
    expect.objectContaining({ ref: expect.stringMatching(/^entry\//) as string, date: "2026-03-20" }),
  ]);
  const file = await fetch(`${server.address}/api${agreements}/file?format=csv&sealed=true`);
  const asSealed = await file.text();
  expect(asSealed).toContain("1200.00");
  expect(asSealed).not.toContain("500.00");
  expect(asSealed).toContain("put right in April");

  // In the copy of the books it was sealed as well, with the same papers; opened again it keeps none.
  const { registrations } = await server.ok<{ registrations: { id: number }[] }>(
    "GET",
    `/clients/${copy.id}/setup`,
  );
  const twin = `/clients/${copy.id}/registrations/${at(registrations, 0).id}`;
  await server.ok("POST", `${twin}/returns/${END}/reopen`);
  const open = await server.ok<AgreementLine[]>("GET", `${twin}/agreements/${END}`);
  expect(open.every(({ sealed }) => sealed === null)).toBe(true);
});
