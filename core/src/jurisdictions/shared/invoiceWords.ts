import type { Treatment } from "../../tax/taxCode.ts";

/** What a sales document of a place must call itself and say, by the law of that place. */
export interface InvoiceWords {
  invoice: string;
  creditNote: string;
  /** Sentences by treatment of a line; they stand once on the document. */
  statements: Partial<Record<Treatment, string>>;
  /** Whether tax in another currency is also told in that of the place. */
  taxInHomeCurrency: boolean;
  source: string;
}

const EU_STATEMENTS: InvoiceWords["statements"] = {
  "reverse-charge-supplier": "Reverse charge: the customer accounts for the tax.",
  "intra-union": "Exempt intra-Community supply (Directive 2006/112/EC, art. 138).",
  export: "Exempt export (Directive 2006/112/EC, art. 146).",
  margin: "Margin scheme: second-hand goods.",
};

/** By pack. Places not listed use plain words. All from memory; the sources are where to verify. */
const WORDS: Readonly<Record<string, InvoiceWords>> = {
  gb: {
    invoice: "Invoice",
    creditNote: "Credit note",
    statements: {
      "reverse-charge-supplier": "Reverse charge: customer to pay the VAT to HMRC.",
      margin: "This invoice is for a second-hand margin scheme supply.",
      "intra-union": "Intra-Community supply.",
    },
    taxInHomeCurrency: true,
    source: "VAT Regulations 1995 reg. 14; VAT Notice 700 s.16; VAT Notice 718",
  },
  ie: {
    invoice: "Invoice",
    creditNote: "Credit note",
    statements: EU_STATEMENTS,
    taxInHomeCurrency: true,
    source: "VAT Regulations 2010 reg. 20",
  },
  "eu-de": {
    invoice: "Rechnung (invoice)",
    creditNote: "Rechnungskorrektur (credit note)",
    statements: {
      "reverse-charge-supplier": "Steuerschuldnerschaft des Leistungsempfängers.",
      "intra-union": "Steuerfreie innergemeinschaftliche Lieferung.",
      export: "Steuerfreie Ausfuhrlieferung.",
      margin: "Gebrauchtgegenstände/Sonderregelung.",
    },
    taxInHomeCurrency: true,
    source: "UStG §14 Abs. 4, §14a",
  },
  ca: {
    invoice: "Invoice",
    creditNote: "Credit note",
    statements: {},
    taxInHomeCurrency: false,
    source: "Input Tax Credit Information (GST/HST) Regulations s.3",
  },
  au: {
    invoice: "Tax invoice",
    creditNote: "Adjustment note",
    statements: {},
    taxInHomeCurrency: true,
    source: "GST Act 1999 s.29-70, s.29-75",
  },
  nz: {
    invoice: "Tax invoice (taxable supply information)",
    creditNote: "Supply correction information",
    statements: {},
    taxInHomeCurrency: true,
    source: "GST Act 1985 s.19E to s.19N",
  },
  sg: {
    invoice: "Tax invoice",
    creditNote: "Credit note",
    statements: {
      margin: "Sale of second-hand goods under the Gross Margin Scheme; no input tax can be claimed.",
    },
    taxInHomeCurrency: true,
    source: "GST (General) Regulations reg. 11",
  },
  in: {
    invoice: "Tax invoice",
    creditNote: "Credit note",
    statements: {
      export: "Supply meant for export.",
      "reverse-charge-supplier": "Tax is payable on reverse charge by the recipient.",
    },
    taxInHomeCurrency: true,
    source: "CGST Rules 2017 r.46, r.53",
  },
  ae: {
    invoice: "Tax invoice",
    creditNote: "Tax credit note",
    statements: { "reverse-charge-supplier": "The recipient accounts for the tax under the reverse charge." },
    taxInHomeCurrency: true,
    source: "VAT Executive Regulations art. 59, 60",
  },
  za: {
    invoice: "Tax invoice",
    creditNote: "Credit note",
    statements: {},
    taxInHomeCurrency: true,
    source: "VAT Act 89 of 1991 s.20, s.21",
  },
};

const PLAIN: InvoiceWords = {
  invoice: "Invoice",
  creditNote: "Credit note",
  statements: EU_STATEMENTS,
  taxInHomeCurrency: false,
  source: "common practice, no source",
};

/** The words of a pack's sales documents. */
export function invoiceWords(packId: string): InvoiceWords {
  return WORDS[packId] ?? PLAIN;
}
