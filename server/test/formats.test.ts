import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { AuditFile } from "@fiscalon/core/formats/auditfile/auditFile";
import { readAuditFile } from "@fiscalon/core/formats/auditfile/readAuditFile";
import { writeAuditFile } from "@fiscalon/core/formats/auditfile/writeAuditFile";
import { readXml } from "@fiscalon/core/formats/xml/readXml";
import { workbookOf } from "./support/workbook.ts";
import { balanceOf, droppedOn } from "./support/dropped.ts";
import type { Dropped } from "./support/dropped.ts";
import { newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const dropped = (...given: Dropped) => droppedOn(server, ...given);
const balance = (base: string, account: string) => balanceOf(server, base, account);

describe("tables of every kind, with dirt in them", () => {
  test("a journal as TSV: what does not balance or names no account is told by row, mended, posted once", async () => {
    const { base } = await newClient(server);
    const journal = [
      "Journal of June\t\t\t\t\t",
      "Entry No\tDate\tAccount\tDetails\tDebit\tCredit",
      "1\t03/06/2026\t6000\tRent\t500.00\t",
      "1\t03/06/2026\t1000\tRent\t\t500.00",
      "2\t04/06/2026\t6200\tStamps\t20.00\t",
      "2\t04/06/2026\t1000\tStamps\t\t19.00",
      "3\t05/06/2026\t9999\tNowhere\t1.00\t",
      "4\t31/06/2026\t6000\tNever\t1.00\t",
    ].join("\n");
    const first = await dropped(base, "journal.tsv", journal, "content=journal");
    expect(first.report.problems.map(({ row, field }) => [row, field])).toEqual([
      [6, "number"],
      [7, "account"],
      [8, "date"],
    ]);
    expect((await first.post()).error?.code).toBe("imports/problems");
    const rejected = await fetch(`${server.address}/api${first.path}/rejected`);
    const csv = await rejected.text();
    expect(csv).toContain("What is wrong");
    expect(csv.split("\r\n")).toHaveLength(4);
    await server.ok("PUT", `${first.path}/settings`, {
      leftOut: [7, 8],
      mended: [{ row: 6, column: 5, value: "20.00" }],
    });
    expect((await server.job(`${first.path}/post`)).state).toBe("done");
    expect([await balance(base, "6000"), await balance(base, "6200"), await balance(base, "1000")]).toEqual([
      500_00, 20_00, -520_00,
    ]);
  });

  test("a trial balance becomes opening balances, with the accounts the chart lacks; invoices open from before are paid", async () => {
    const { base } = await newClient(server);
    const table =
      "Code,Account name,Debit,Credit\n1000,Bank,1500.00,\n1155,Deposit with landlord,300.00,\n3000,Capital,,1700.00\nTotal,,1800.00,1700.00\n";
    const opened = await dropped(base, "tb.csv", table, "content=trial-balance", { date: "2025-12-31" });
    expect(opened.report).toMatchObject({ problemCount: 0, newAccounts: 1, fresh: 1 });
    expect((await opened.post()).state).toBe("done");
    expect([await balance(base, "1155"), await balance(base, "3900")]).toEqual([300_00, -100_00]);
    const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
      name: "Old customer",
      country: "GB",
    });
    const old = await server.ok<{ id: number; open: number }>("POST", `${base}/documents`, {
      kind: "sales-invoice",
      number: "2025-77",
      date: "2025-12-01",
      contact: contact.id,
      prices: "inclusive",
      opening: true,
      lines: [{ amount: "100.00", code: "S20" }],
    });
    expect([old.open, await balance(base, "3900"), await balance(base, "4000")]).toEqual([
      100_00, -200_00, 0,
    ]);
  });

  test("contacts and items as a workbook: codes checked, the same names skipped, undone again", async () => {
    const { base } = await newClient(server);
    const contacts = await workbookOf([
      ["Name", "Country", "VAT number"],
      ["Reed & Co", "GB", "GB980780684"],
      ["Café Ström", "se", ""],
      ["Nowhere", "Atlantis", ""],
    ]);
    const list = await dropped(base, "contacts.xlsx", contacts, "content=contacts", { leftOut: [4] });
    expect(list.report).toMatchObject({ newContacts: 2, problemCount: 0 });
    expect((await list.post()).state).toBe("done");
    const items = await workbookOf([
      ["Item", "Price", "Type", "Sales code"],
      ["Bowl", 12.5, "goods", "S20"],
      ["Course", 40, "service", "X99"],
    ]);
    const wrong = await dropped(base, "items.xlsx", items, "content=items");
    expect(wrong.report.problems.map(({ row, field }) => [row, field])).toEqual([[3, "saleCode"]]);
    await server.ok("PUT", `${wrong.path}/settings`, { mended: [{ row: 3, column: 3, value: "S20" }] });
    expect((await server.job(`${wrong.path}/post`)).state).toBe("done");
    const kept = await server.ok<{ rows: { ref: string; name: string }[] }>("GET", `${base}/items`);
    expect(kept).toMatchObject({
      total: 2,
      rows: [
        { name: "Bowl", unitPrice: "12.50", supply: "goods", saleCode: "S20" },
        { name: "Course", unitPrice: "40.00", supply: "services" },
      ],
    });
    const refs = kept.rows.map(({ ref }) => ref);
    expect(await server.ok("POST", `${base}/items/named`, { refs })).toEqual(kept.rows);
    expect(await server.ok("GET", `${base}/items?search=cour&sort=unitPrice`)).toMatchObject({ total: 1 });
    const again = await dropped(base, "contacts.xlsx", contacts, "content=contacts", { leftOut: [4] });
    expect(again.report).toMatchObject({ newContacts: 0 });
    expect((await server.job(`${list.path}/undo`)).state).toBe("done");
    expect(await server.ok("GET", `${base}/contacts`)).toEqual({ total: 0, rows: [] });
  });

  test("a register as a workbook reads like CSV, and the next file of the same shape is read the same way", async () => {
    const { base } = await newClient(server);
    const bytes = await workbookOf([
      ["Invoice No", "Date", "Customer", "Net", "VAT", "Gross"],
      ["W-1", new Date("2026-05-03T00:00:00Z"), "Reed & Co", 100, 20, 120],
      ["W-2", new Date("2026-05-04T00:00:00Z"), "Oxbow", 0.1 + 0.2, 0.06, 0.36],
      ["W-3", new Date("2026-05-05T00:00:00Z"), "Oxbow", 50, "", 50],
    ]);
    const { report, post } = await dropped(base, "sales.xlsx", bytes, "direction=sale", {
      codeForBlank: "Z",
    });
    expect(report).toMatchObject({ rows: 3, fresh: 3, problemCount: 0 });
    expect((await post()).state).toBe("done");
    const next = await dropped(
      base,
      "sales2.csv",
      "Invoice No,Date,Customer,Net,VAT,Gross\nW-9,06/05/2026,Oxbow,10.00,,10.00\n",
      "direction=sale",
    );
    expect(next.batch.settings.codeForBlank).toBe("Z");
  });
});

const AUDIT: AuditFile = {
  country: "GB",
  currency: "GBP",
  made: "2026-07-01",
  company: { id: "", name: "Reedbed Pottery Ltd", taxNumber: "980780684", country: "GB" },
  from: "2026-04-01",
  to: "2026-06-30",
  accounts: [
    { code: "1000", name: "Bank", type: "asset", opening: 1_000_00, closing: 1_000_00 },
    { code: "4711", name: "Kiln hire income", type: "income", opening: 0, closing: -100_00 },
  ],
  customers: [{ id: "C1", name: "Oxbow <Joinery> & Co", taxNumber: "GB980780684", country: "GB" }],
  suppliers: [{ id: "S1", name: "Claybank", taxNumber: "", country: "GB" }],
  taxes: [{ levy: "VAT", code: "S20", name: "Standard rate", percentage: "20" }],
  transactions: [
    {
      id: "GL-1",
      date: "2026-05-01",
      text: "Invoice SI-1",
      lines: [
        { account: "1000", text: "", amount: 120_00 },
        { account: "4711", text: "Kiln hire", amount: -100_00 },
        { account: "2200", text: "VAT", amount: -20_00 },
      ],
    },
  ],
  sales: [
    {
      number: "SI-1",
      date: "2026-05-01",
      taxPoint: "2026-05-02",
      party: "C1",
      credit: false,
      annulled: false,
      lines: [
        {
          account: "4711",
          text: "Kiln hire",
          quantity: "2",
          net: 100_00,
          taxes: [{ levy: "VAT", code: "S20", percentage: "20", amount: 20_00 }],
        },
      ],
      net: 100_00,
      gross: 120_00,
    },
  ],
  purchases: [
    {
      number: "CB-9",
      date: "2026-05-05",
      taxPoint: null,
      party: "S1",
      credit: true,
      annulled: false,
      lines: [
        {
          account: "5000",
          text: "Clay returned",
          quantity: "1",
          net: 10_03,
          taxes: [{ levy: "VAT", code: "", percentage: "20", amount: 2_00 }],
        },
      ],
      net: 10_03,
      gross: 12_03,
    },
  ],
};

describe("an audit file (OECD SAF-T)", () => {
  test("written and read again is the same", () => {
    expect(readAuditFile(readXml(writeAuditFile(AUDIT)))).toEqual(AUDIT);
  });

  test("brings accounts, parties and invoices, the tax as it states it", async () => {
    const { base, registration } = await newClient(server);
    const { report, post, batch } = await dropped(
      base,
      "audit.xml",
      writeAuditFile(AUDIT),
      "content=register",
    );
    expect(batch.content).toBe("audit-file");
    expect(report).toMatchObject({ fresh: 2, newAccounts: 1, newContacts: 2, problemCount: 0 });
    expect((await post()).state).toBe("done");
    const { boxes } = await server.ok<{ boxes: { id: string; exact: string }[] }>(
      "GET",
      `${registration}/returns?from=2026-04-01&to=2026-06-30`,
    );
    expect(["1", "4", "6", "7"].map((id) => boxes.find((box) => box.id === id)?.exact)).toEqual([
      "20.00",
      "-2.00",
      "100.00",
      "-10.03",
    ]);
    const again = await dropped(base, "audit.xml", writeAuditFile(AUDIT), "content=register");
    expect(again.report).toMatchObject({ fresh: 0, alreadyThere: 2 });
  });

  test("or its ledger as journals", async () => {
    const { base } = await newClient(server);
    const full = {
      ...AUDIT,
      accounts: [
        ...AUDIT.accounts,
        { code: "2200", name: "VAT", type: "liability" as const, opening: 0, closing: 0 },
      ],
    };
    const { post } = await dropped(base, "audit.xml", writeAuditFile(full), "content=register", {
      take: "ledger",
    });
    expect((await post()).state).toBe("done");
    expect([await balance(base, "1000"), await balance(base, "4711"), await balance(base, "2200")]).toEqual([
      120_00, -100_00, -20_00,
    ]);
  });
});
