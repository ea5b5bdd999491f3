import { at } from "@fiscalon/core/at";
import { document, newClient } from "./testServer.ts";
import type { TestServer } from "./testServer.ts";

export const LINE = { amount: "100.00", code: "S20" };
export const RECEIPT = { kind: "receipt", date: "2026-02-20", amount: "60.00" };

/** Books of two parties: an invoice half paid, a bill, a journal. */
export async function smallBooks(server: TestServer) {
  const { base, registration } = await newClient(server);
  const made = async (path: string, body: object) =>
    (await server.ok<{ id: number }>("POST", `${base}/${path}`, body)).id;
  const reed = await made("contacts", { name: "Reed & Co", country: "GB" });
  const oxbow = await made("contacts", { name: "Oxbow", country: "GB" });
  const invoice = await made(
    "documents",
    document("sales-invoice", "2026-02-03", [LINE], { contact: reed, number: "SI-1" }),
  );
  const bill = await made(
    "documents",
    document("purchase-bill", "2026-02-04", [{ ...LINE, account: "5000" }], {
      contact: oxbow,
      number: "B-1",
    }),
  );
  await made(
    "documents",
    document("journal", "2026-02-05", [
      { amount: "5.00", account: "6000" },
      { amount: "-5.00", account: "1000" },
    ]),
  );
  const receipt = await made("payments", {
    ...RECEIPT,
    contact: reed,
    allocations: [{ document: invoice, amount: "60.00" }],
  });
  return {
    base,
    registration,
    reed,
    oxbow,
    invoice,
    bill,
    receipt,
    /** The journal entry that moved so much on the bank account. */
    entryOf: async (amount: number): Promise<number> => {
      const { rows } = await server.ok<{ rows: { entry: number; amount: number }[] }>(
        "GET",
        `${base}/ledger/1000?from=2026-01-01&to=2026-12-31`,
      );
      return at(
        rows.filter((row) => row.amount === amount),
        0,
      ).entry;
    },
    /** What the books hold, to see that a refusal leaves it as it was. */
    state: async () => [
      await server.ok("GET", `${base}/documents?limit=100`),
      await server.ok("GET", `${base}/payments?limit=100`),
      await server.ok("GET", `${base}/trial-balance?from=2026-01-01&to=2026-12-31`),
    ],
  };
}
