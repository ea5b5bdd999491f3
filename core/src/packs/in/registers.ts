import type { ReturnRegister } from "../../model/returnRegister.ts";

/** GSTR-1 as a file, and its tables 12 and 13: lists, no boxes; without them it cannot be filed. From memory. */
export const registers: ReturnRegister[] = [
  {
    id: "gstr1",
    name: "GSTR-1 as a file for the portal",
    kind: "upload",
    commodities: "12",
    issued: "13",
    names: {
      registered: [
        ["SZW", "SEWP"],
        ["SZL", "SEWOP"],
        ["DE", "DE"],
        ["", "R"],
      ],
      unregistered: [
        ["EXW", "EXPWP"],
        ["EXL", "EXPWOP"],
        ["", "B2CL"],
      ],
      exported: [
        ["EXW", "WPAY"],
        ["", "WOPAY"],
      ],
    },
    source: "JSON of the offline utility, version GST3.2.3; from memory",
  },
  {
    id: "12",
    name: "Table 12, HSN-wise summary of outward supplies",
    kind: "commodities",
    lists: [
      {
        name: "B2B",
        boxes: [
          "g1.4A",
          "g1.4B",
          "g1.6B",
          "g1.6C",
          "g1.8A",
          "g1.8B",
          "g1.9B.cdnr",
          "g1.15.b2b",
          "g1.15.urp2b",
        ],
      },
      {
        name: "B2C",
        boxes: [
          "g1.5A",
          "g1.6A",
          "g1.7A1",
          "g1.7B1",
          "g1.8C",
          "g1.8D",
          "g1.9B.cdnur",
          "g1.15.b2c",
          "g1.15.urp2c",
        ],
      },
    ],
    levies: [
      { name: "Integrated tax", levies: ["IGST"] },
      { name: "Central tax", levies: ["CGST"] },
      { name: "State or Union territory tax", levies: ["SGST", "UTGST"] },
      { name: "Cess", levies: ["CESS"] },
    ],
    digits: { option: "turnover", values: { "upto-5-crore": 4, "above-5-crore": 6 } },
    services: "99",
    source: "N 78/2020-CT; two lists since May 2025; exports in the second list to be looked up",
  },
  {
    id: "13",
    name: "Table 13, documents issued",
    kind: "issued",
    natures: {
      "sales-invoice": "1 Invoices for outward supply",
      "cash-sale": "1 Invoices for outward supply",
      "terminal-summary": "1 Invoices for outward supply",
      "self-billed-bill": "2 Invoices for inward supply from unregistered person",
      "sales-credit-note": "5 Credit notes",
    },
    source: "GSTR-1, table 13, asked for since May 2025",
  },
];
