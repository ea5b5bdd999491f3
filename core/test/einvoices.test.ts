import { InvoiceService, invoiceSchema } from "@e-invoice-eu/core";
import type { Invoice } from "@e-invoice-eu/core";
import { XMLParser } from "fast-xml-parser";
import { describe, expect, test } from "vitest";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { checkTotals } from "@fiscalon/core/formats/einvoice/checkTotals";
import { documentOf } from "@fiscalon/core/incoming/eInvoiceDocument";
import type { EInvoice } from "@fiscalon/core/formats/einvoice/eInvoice";
import { invoiceOf } from "@fiscalon/core/formats/einvoice/invoiceOf";
import { readUbl } from "@fiscalon/core/formats/einvoice/readUbl";
import { writeUbl } from "@fiscalon/core/formats/einvoice/writeUbl";
import { readXml } from "@fiscalon/core/formats/xml/readXml";
import { doc, setupOf } from "./support/books.ts";

const seller = {
  name: "Juniper Lane & Söhne <Bäckerei>",
  taxNumber: "IE6388047V",
  country: "IE",
  region: "",
};
const buyer = { name: "Hotel Kerngrove", taxNumber: "DE136695976", country: "DE", region: "" };
const setup = setupOf("ie");

function sent(document: ReturnType<typeof doc>): EInvoice {
  const own = { number: "SI-0042", ...document };
  const { printed } = documentEffect(own, setup);
  return invoiceOf(own, printed, { seller, buyer }, "EUR", 2);
}

const CASES: [string, ReturnType<typeof doc>][] = [
  [
    "three rates",
    doc("sales-invoice", [
      ["S23", "100.00"],
      ["R13", "33.33"],
      ["Z", "12.50"],
    ]),
  ],
  [
    "prices with tax, an awkward quantity",
    doc("sales-invoice", ["S23", "69.93"], {
      prices: "inclusive",
      line: { quantity: "7", unitPrice: "9.99" },
    }),
  ],
  [
    "a discount over the document",
    doc(
      "sales-invoice",
      [
        ["S23", "80.00"],
        ["Z", "20.05"],
      ],
      { discount: { percent: "3.5" } },
    ),
  ],
  [
    "a line that takes off",
    doc("sales-invoice", [
      ["S23", "80.00"],
      ["S23", "-12.34"],
    ]),
  ],
  [
    "many lines whose rounding adds up",
    doc(
      "sales-invoice",
      Array.from({ length: 60 }, () => ["S23", "0.37"] as [string, string]),
    ),
  ],
  ["to another member state", doc("sales-invoice", ["EUG", "500.00"])],
];

/** The internal model of the reference library mirrors UBL: elements by name, attributes as `name@attribute`. */
function asModel(value: unknown, schema: Record<string, unknown>): unknown {
  const {
    type,
    properties = {},
    items,
  } = schema as {
    type?: string;
    properties?: Record<string, Record<string, unknown>>;
    items?: Record<string, unknown>;
  };
  if (type === "array")
    return (Array.isArray(value) ? value : [value]).map((one) => asModel(one, items ?? {}));
  if (typeof value !== "object" || value === null) return value;
  const model: Record<string, unknown> = {};
  for (const [name, child] of Object.entries(value as Record<string, unknown>)) {
    if (name.startsWith("@")) continue;
    const own = properties[name] ?? {};
    const first = Array.isArray(child) ? child[0] : child;
    const isText = typeof first === "object" && first !== null && "#text" in first;
    model[name] = asModel(isText ? (first as Record<string, unknown>)["#text"] : child, own);
    if (isText)
      for (const [key, attribute] of Object.entries(first as Record<string, unknown>))
        if (key.startsWith("@")) model[`${name}@${key.slice(1)}`] = attribute;
  }
  return model;
}

/** The library asks for the electronic addresses its network needs; EN 16931 itself does not. */
function addEndpoint(model: Invoice, party: string): void {
  const root = model["ubl:Invoice"] as unknown as Record<string, { "cac:Party": Record<string, string> }>;
  Object.assign(root[party]?.["cac:Party"] ?? {}, {
    "cbc:EndpointID": "1",
    "cbc:EndpointID@schemeID": "9935",
  });
}

describe("a sales document as an e-invoice", () => {
  test.each(CASES)(
    "%s: satisfies the calculation rules of EN 16931 and reads back the same",
    (_, document) => {
      const invoice = sent(document);
      expect(checkTotals(invoice, 2)).toEqual([]);
      expect(readUbl(readXml(writeUbl(invoice)))).toEqual(invoice);
      const { gross } = documentEffect(document, setup).priced;
      expect(invoice.totals.payable).toBe(gross);
    },
  );

  /** Outside check: @e-invoice-eu/core validates the model against its schema and writes the UBL itself. */
  test.each(CASES)(
    "%s: the reference library takes it, and what it writes reads back the same",
    async (_, document) => {
      const invoice = sent(document);
      const parser = new XMLParser({
        ignoreAttributes: false,
        attributeNamePrefix: "@",
        parseTagValue: false,
        parseAttributeValue: false,
        ignoreDeclaration: true,
      });
      const parsed = parser.parse(writeUbl(invoice)) as { Invoice: object };
      const root =
        (invoiceSchema as unknown as { properties: Record<string, Record<string, unknown>> }).properties[
          "ubl:Invoice"
        ] ?? {};
      const model = { "ubl:Invoice": asModel(parsed.Invoice, root) } as Invoice;
      for (const side of ["Supplier", "Customer"]) addEndpoint(model, `cac:Accounting${side}Party`);
      const quiet = {
        log: () => undefined,
        warn: () => undefined,
        error: () => undefined,
      } as unknown as Console;
      const written = await new InvoiceService(quiet).generate(model, { format: "UBL", lang: "en" });
      const again = readUbl(readXml(String(written)));
      expect(again).toEqual(invoice);
      expect(checkTotals(again, 2)).toEqual([]);
    },
  );

  test("what the format cannot tell is refused in words", () => {
    const twoLevies = doc("sales-invoice", ["BC", "100.00"], {
      party: { country: "CA", region: "BC", registered: null, taxNumber: null, standing: {} },
    });
    const canada = setupOf("ca", { levies: ["GST", "HST", "BCPST"] });
    const code = [...canada.codes.values()].find(
      (one) => one.components.filter(({ charged }) => charged === "charged").length > 1,
    );
    const own = { ...twoLevies, number: "1", lines: [{ amount: "100.00", code: code?.code ?? "" }] };
    const { printed } = documentEffect(own, canada);
    expect(() => invoiceOf(own, printed, { seller, buyer }, "CAD", 2)).toThrow(/tells one tax a line/);
    const bill = doc("purchase-bill", ["S23", "1.00"]);
    expect(() =>
      invoiceOf({ ...bill, number: "1" }, documentEffect(bill, setup).printed, { seller, buyer }, "EUR", 2),
    ).toThrow(/not sent/);
  });
});

describe("an e-invoice that comes in", () => {
  const bill = (change: (invoice: EInvoice) => EInvoice = (one) => one) =>
    change(sent(CASES[0]?.[1] ?? doc("sales-invoice", ["S23", "1.00"])));
  const reading = {
    direction: "purchase" as const,
    codes: setup.codes,
    schedules: setup.schedules,
    chosen: {},
    account: "5000",
    digits: 2,
    levy: "VAT",
  };

  test("becomes a bill with the codes of its categories and rates", () => {
    const document = documentOf(bill(), reading);
    expect([document.kind, document.number, document.currency]).toEqual(["purchase-bill", "SI-0042", "EUR"]);
    expect(document.lines.map(({ code }) => setup.codes.get(code ?? "")?.treatment)).toEqual([
      "standard",
      "reduced",
      "zero",
    ]);
    expect(documentEffect(document, setup).priced.gross).toBe(bill().totals.payable);
  });

  test.each([
    ["BR-CO-10", (one: EInvoice) => ({ ...one, totals: { ...one.totals, lines: one.totals.lines + 1 } })],
    ["BR-CO-14", (one: EInvoice) => ({ ...one, totals: { ...one.totals, tax: one.totals.tax - 1 } })],
    [
      "BR-CO-15",
      (one: EInvoice) => ({ ...one, totals: { ...one.totals, inclusive: one.totals.inclusive + 5 } }),
    ],
    ["BR-CO-16", (one: EInvoice) => ({ ...one, totals: { ...one.totals, payable: 1 } })],
    [
      "BR-CO-17",
      (one: EInvoice) => ({ ...one, taxes: one.taxes.map((row) => ({ ...row, tax: row.tax + 150 })) }),
    ],
    [
      "BR-S-08",
      (one: EInvoice) => ({
        ...one,
        taxes: one.taxes.map((row) => ({ ...row, taxable: row.taxable + 100 })),
      }),
    ],
    [
      "BR-Z-09",
      (one: EInvoice) => ({
        ...one,
        taxes: one.taxes.map((row) => (row.category === "Z" ? { ...row, tax: 1 } : row)),
      }),
    ],
  ])("whose figures break %s is told so", (rule, change) => {
    expect(checkTotals(bill(change), 2).map((one) => one.rule)).toContain(rule);
  });
});
