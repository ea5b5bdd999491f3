import { zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { writeAuditFile } from "@fiscalon/core/formats/auditfile/writeAuditFile";
import { writeCamt053 } from "@fiscalon/core/formats/bank/camt053";
import { writeUbl } from "@fiscalon/core/formats/einvoice/writeUbl";
import { workbookOf } from "./support/workbook.ts";
import { newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let base: string;
beforeAll(async () => {
  server = await startServer();
  ({ base } = await newClient(server));
});
afterAll(() => server.close());

type Answer = { error?: { code: string; message: string }; id?: number };

/** Drops a file, and when it is taken in, checks and posts it. Whatever comes of it is an answer in words. */
async function endured(name: string, content: string | Buffer, query: string): Promise<string> {
  const { status, body } = await server.upload(`${base}/imports?${query}`, name, content);
  const answer = body as Answer;
  if (status >= 500) throw new Error(`${name}: ${status}`);
  if (answer.error) return answer.error.code;
  const path = `${base}/imports/${answer.id}`;
  const check = await server.job(`${path}/check`);
  if (check.error) return check.error.code;
  const post = await server.job(`${path}/post`);
  if (post.error && post.error.code === "jobs/failed") throw new Error(`${name}: the work broke off`);
  return post.error?.code ?? "posted";
}

const INVOICE = writeUbl({
  credit: false,
  number: "E-1",
  date: "2026-05-01",
  taxPoint: null,
  due: null,
  currency: "GBP",
  note: "",
  corrects: "",
  seller: { name: "Claybank", taxNumber: "GB980780684", country: "GB", region: "" },
  buyer: { name: "Us", taxNumber: "", country: "GB", region: "" },
  lines: [
    {
      id: "1",
      name: "Clay",
      quantity: "2",
      unit: "C62",
      price: "50.00",
      per: "1",
      net: 100_00,
      category: "S",
      rate: "20",
    },
  ],
  allowances: [],
  taxes: [{ category: "S", rate: "20", taxable: 100_00, tax: 20_00, reason: "" }],
  totals: {
    lines: 100_00,
    allowances: 0,
    charges: 0,
    exclusive: 100_00,
    tax: 20_00,
    inclusive: 120_00,
    prepaid: 0,
    payable: 120_00,
  },
});
const AUDIT = writeAuditFile({
  country: "GB",
  currency: "GBP",
  made: "2026-07-01",
  company: { id: "", name: "Us", taxNumber: "", country: "GB" },
  from: "2026-04-01",
  to: "2026-06-30",
  accounts: [{ code: "4000", name: "Sales", type: "income", opening: 0, closing: 0 }],
  customers: [{ id: "1", name: "Oxbow", taxNumber: "", country: "GB" }],
  suppliers: [],
  taxes: [],
  transactions: [],
  sales: [
    {
      number: "A-1",
      date: "2026-05-01",
      taxPoint: null,
      party: "1",
      credit: false,
      annulled: false,
      lines: [
        {
          account: "4000",
          text: "Bowl",
          quantity: "1",
          net: 50_00,
          taxes: [{ levy: "VAT", code: "S20", percentage: "20", amount: 10_00 }],
        },
      ],
      net: 50_00,
      gross: 60_00,
    },
  ],
  purchases: [],
});
const STATEMENT = writeCamt053(
  {
    account: "GB00TEST",
    currency: "GBP",
    opening: 0,
    closing: 12_50,
    lines: [
      { id: "X1", date: "2026-05-02", amount: 12_50, party: "Oxbow", text: "Invoice 1", reference: "" },
    ],
  },
  "2026-05-03T06:00:00Z",
);
const REGISTER = "Invoice No,Date,Customer,Net,VAT,Gross\nH-1,03/05/2026,Oxbow,10.00,2.00,12.00\n";
const OFX = `OFXHEADER:100\nDATA:OFXSGML\n\n<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>GBP<BANKACCTFROM><ACCTID>1</BANKACCTFROM><BANKTRANLIST><STMTTRN><TRNTYPE>DEBIT<DTPOSTED>20260504<TRNAMT>-6.50<FITID>F1<NAME>Fee</STMTTRN></BANKTRANLIST></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`;

describe("hostile files are refused in words, and the server lives on", () => {
  test.each([
    [
      "an external entity",
      `<?xml version="1.0"?><!DOCTYPE Invoice [<!ENTITY x SYSTEM "file:///etc/passwd">]><Invoice><ID>&x;</ID></Invoice>`,
      "formats/xml-doctype",
    ],
    [
      "a billion laughs",
      `<?xml version="1.0"?><!DOCTYPE Invoice [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;">]><Invoice><ID>&b;</ID></Invoice>`,
      "formats/xml-doctype",
    ],
    [
      "a deep nest",
      `<Invoice>${"<a>".repeat(20_000)}${"</a>".repeat(20_000)}</Invoice>`,
      "formats/xml-depth",
    ],
    ["an unfinished document", INVOICE.slice(0, 600), "formats/xml-malformed"],
    ["a statement in the place of an invoice", STATEMENT, "imports/bank-statement"],
    ["a page", "<html><body>Sign in</body></html>", "imports/unknown-xml"],
  ])("%s", async (name, content, code) => {
    expect(await endured(`${name}.xml`, content, "direction=purchase")).toBe(code);
  });

  test("a workbook that unpacks to gigabytes, and one that lies about its size", async () => {
    const zeros = new Uint8Array(400 * 1024 * 1024);
    const bomb = Buffer.from(
      zipSync({ "xl/worksheets/sheet1.xml": zeros, "xl/worksheets/sheet2.xml": zeros }, { level: 9 }),
    );
    expect(bomb.length).toBeLessThan(2 * 1024 * 1024);
    expect(await endured("bomb.xlsx", bomb, "direction=sale")).toBe("imports/too-large");
    const liar = Buffer.from(bomb);
    const central = liar.lastIndexOf(Buffer.from("PK\u0001\u0002", "latin1"));
    liar.writeUInt32LE(10, central + 24);
    expect(await endured("liar.xlsx", liar, "direction=sale")).toBe("imports/workbook");
  }, 120_000);

  test("50 MB in one line, and more than may be sent", async () => {
    const long = Buffer.alloc(50 * 1024 * 1024, "a,");
    expect(await endured("long.csv", long, "direction=sale")).toMatch(/^formats\//);
    const quoted = Buffer.concat([
      Buffer.from(`${REGISTER}H-2,03/05/2026,"`),
      Buffer.alloc(20 * 1024 * 1024, "x"),
    ]);
    expect(await endured("open-quote.csv", quoted, "direction=sale")).toMatch(/^imports\/|^formats\//);
    const { status } = await server.upload(
      `${base}/imports?direction=sale`,
      "huge.csv",
      Buffer.alloc(61 * 1024 * 1024, "a\n"),
    );
    expect(status).toBe(413);
  }, 120_000);

  test("formulas in cells leave as text", async () => {
    const evil = `Invoice No,Date,Customer,Net,VAT,Gross\n=cmd|'/c calc'!A1,03/05/2026,"=HYPERLINK(""http://x"")",10.00,2.00,12.00\nF-2,nonsense,@SUM(A1),1.00,0.20,1.20\n`;
    const { body } = await server.upload(`${base}/imports?direction=sale`, "evil.csv", evil);
    await server.job(`${base}/imports/${body.id}/check`);
    const rejected = await (await fetch(`${server.address}/api${base}/imports/${body.id}/rejected`)).text();
    expect(rejected).toContain("'@SUM(A1)");
    await server.ok("PUT", `${base}/imports/${body.id}/settings`, { leftOut: [3] });
    await server.job(`${base}/imports/${body.id}/post`);
    const zip = await fetch(`${server.address}/api${base}/export/csv?from=2026-01-01&to=2026-12-31`);
    const { unzipSync } = await import("fflate");
    const files = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    const documents = Buffer.from(files["documents.csv"] ?? []).toString("utf8");
    expect(documents).toContain("'=cmd");
    expect(documents).not.toMatch(/(^|,)"?=/m);
  });

  test("a paper that is not what it says is refused; one that is is served without power", async () => {
    const { id } = await server.ok<{ id: number }>("POST", `${base}/documents`, {
      kind: "sales-invoice",
      date: "2026-05-01",
      lines: [{ amount: "1.00", code: "S20" }],
    });
    const path = `${base}/documents/${id}/attachments`;
    const html = await server.upload(path, "bill.pdf", "<html><script>alert(1)</script></html>");
    expect([html.status, html.body.error?.code]).toEqual([422, "attachments/type"]);
    const xml = await server.upload(
      path,
      "bill.xml",
      `<?xml version="1.0"?><x xmlns="http://www.w3.org/1999/xhtml"><script>1</script></x>`,
    );
    const [paper] = xml.body as unknown as { id: number }[];
    const served = await fetch(`${server.address}/api${base}/attachments/${paper?.id}`);
    expect(served.headers.get("content-type")).toContain("text/plain");
    expect(served.headers.get("content-security-policy")).toContain("default-src 'none'");
    expect(served.headers.get("x-content-type-options")).toBe("nosniff");
  });
});

/** A seeded source of chance, so that a failure can be had again. */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
}

/** Bytes turned, cut, doubled or put in: what transmission and editors do to files. */
function mutated(content: Buffer, next: () => number): Buffer {
  const copy = Buffer.from(content);
  const at = Math.floor(next() * copy.length);
  const length = 1 + Math.floor(next() * 40);
  switch (Math.floor(next() * 5)) {
    case 0:
      copy[at] = Math.floor(next() * 256);
      return copy;
    case 1:
      return Buffer.concat([copy.subarray(0, at), copy.subarray(at + length)]);
    case 2:
      return Buffer.concat([copy.subarray(0, at), copy.subarray(at, at + length), copy.subarray(at)]);
    case 3:
      return copy.subarray(0, at);
    default:
      return Buffer.concat([copy.subarray(0, at), Buffer.from(`"<&;,\u0000${length}`), copy.subarray(at)]);
  }
}

/** Of each file: as many as the suite has time for. */
const MUTATIONS = 120;

describe("mutations of valid files: each is refused or reported, nothing is half written", () => {
  const workbook = () =>
    workbookOf([
      ["Invoice No", "Date", "Customer", "Net", "VAT", "Gross"],
      ["M-1", "03/05/2026", "Oxbow", 10, 2, 12],
    ]);
  /** Recognising is where bytes are read; a sample of what is taken in is checked and posted too. */
  test.each([
    ["register.csv", async () => Buffer.from(REGISTER), "direction=sale"],
    ["invoice.xml", async () => Buffer.from(INVOICE), "direction=purchase"],
    ["audit.xml", async () => Buffer.from(AUDIT), "content=audit-file"],
    ["register.xlsx", workbook, "direction=sale"],
  ] as const)(
    `%s, ${MUTATIONS} times`,
    async (name, make, query) => {
      const fresh = await newClient(server);
      const content = await make();
      const next = chance(20_261_125);
      let taken = 0;
      for (let count = 0; count < MUTATIONS; count += 1) {
        const { status, body } = await server.upload(
          `${fresh.base}/imports?${query}`,
          name,
          mutated(content, next),
        );
        const { error, id } = body as Answer;
        expect(status, error?.message).toBeLessThan(500);
        if (error) expect(error.message.length).toBeGreaterThan(10);
        else if (taken++ % 12 === 0) {
          const check = await server.job(`${fresh.base}/imports/${id}/check`);
          expect(check.error?.code, JSON.stringify(check.error)).not.toBe("jobs/failed");
          const post = await server.job(`${fresh.base}/imports/${id}/post`);
          expect(post.error?.code).not.toBe("jobs/failed");
        }
      }
      const balance = await server.ok<{ closing: number }[]>(
        "GET",
        `${fresh.base}/trial-balance?from=1900-01-01&to=2999-12-31`,
      );
      expect(balance.reduce((sum, row) => sum + row.closing, 0)).toBe(0);
    },
    120_000,
  );

  test.each([
    ["statement.xml", STATEMENT],
    ["statement.ofx", OFX],
    ["statement.csv", "Date,Description,Amount\n03/05/2026,Fee,-6.50\n"],
  ])(
    `%s, ${MUTATIONS} times`,
    async (name, text) => {
      const fresh = await newClient(server);
      const path = `${fresh.base}/bank/1000/statements`;
      expect((await server.upload(path, name, text)).status).toBe(200);
      const next = chance(20_261_126);
      for (let count = 0; count < MUTATIONS; count += 1) {
        const { status, body } = await server.upload(path, name, mutated(Buffer.from(text), next));
        expect(status, JSON.stringify(body)).toBeLessThan(500);
      }
      const { rows } = await server.ok<{ rows: { date: string; amount: number }[] }>(
        "GET",
        `${fresh.base}/bank/1000/lines?limit=500`,
      );
      for (const { date, amount } of rows) {
        expect(date).toMatch(/^\d{4}-\d{2}-\d{2}$/);
        expect(Number.isSafeInteger(amount)).toBe(true);
      }
    },
    60_000,
  );
});
