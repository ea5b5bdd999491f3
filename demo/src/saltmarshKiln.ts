import { keptOfSaltmarsh } from "./keptDocuments.ts";
import { BRIDGE_ACCOUNTS, bridgeDocuments, namedCauses } from "./saltmarshBridge.ts";
import { addDays, daysIn } from "./quarters.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

/** An invented VAT number that passes the check digits: 7 digits, and the two that fit them. */
export function inventedVatNumber(seven: string): string {
  const weights = [8, 7, 6, 5, 4, 3, 2];
  const sum = weights.reduce((total, weight, index) => total + weight * Number(seven[index]), 0);
  return seven + String((97 - (sum % 97)) % 97).padStart(2, "0");
}

const CUSTOMERS: [string, string, string, string | null][] = [
  ["c1", "Harbour Lane Gallery", "GB", inventedVatNumber("3018842")],
  ["c2", "Tidewrack Gifts", "GB", inventedVatNumber("3124470")],
  ["c3", "Penmarrow House Hotel", "GB", inventedVatNumber("2907316")],
  ["c4", "Quayside Tableware", "GB", inventedVatNumber("3340095")],
  ["c5", "Gull & Grain Bookshop", "GB", null],
  ["c6", "Atelier Brisecaille", "FR", "FR83404833048"],
  ["c7", "Kerngrove Keramik", "DE", null],
  ["c8", "Longshore Interiors", "US", null],
];
const SUPPLIERS: [string, string, string, string | null, boolean | null][] = [
  ["s1", "Claybank Minerals", "GB", inventedVatNumber("2750048"), true],
  ["s2", "Fennimore Gas & Power", "GB", inventedVatNumber("2866159"), true],
  ["s3", "Estuary Packaging", "GB", inventedVatNumber("3051777"), true],
  ["s4", "Larchmont Couriers", "GB", inventedVatNumber("2981264"), true],
  ["s5", "Nightjar Hosting", "IE", null, null],
  ["s6", "Ochre & Oxide GmbH", "DE", null, null],
  ["s7", "The Mariner's Table", "GB", inventedVatNumber("3100582"), true],
  ["s8", "Dovetail Joinery", "GB", null, false],
  ["s9", "Calder & Wren Accountants", "GB", inventedVatNumber("2653901"), true],
  ["s10", "Polwithen Print", "GB", inventedVatNumber("2718830"), true],
];
const POTS = [
  "Stoneware bowls",
  "Salt-glazed jugs",
  "Tide plates",
  "Espresso cups",
  "Planters, large",
  "Glaze tests, boxed",
  "Serving dishes",
];

type Line = Record<string, unknown>;
type Document = Record<string, unknown> & { date: string };

/** The quarter whose income differs from the return for reasons of its own. */
const BRIDGED = 2;

/** The books of Saltmarsh Kiln Ltd: a pottery studio and shop, with its deliberate faults (demo/README.md). */
export function saltmarshKiln(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_611);
  const bridged = quarters[BRIDGED];
  const documents = [
    ...quarters.flatMap((quarter, index) => quarterDocuments(quarter, index, random)),
    ...(bridged ? bridgeDocuments(bridged) : []),
  ]
    .filter((document) => document.date <= today)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
  return {
    format: "fiscalon-book",
    version: 1,
    client: { name: "Saltmarsh Kiln Ltd", country: "GB" },
    places: [{ id: "p1", name: "Falmouth studio", country: "GB" }],
    registrations: [
      {
        id: "r1",
        pack: "gb",
        number: inventedVatNumber("2048861"),
        from: quarters[0]?.from,
        frequency: "quarterly",
        anchor: quarters[0]?.to,
        rounding: { level: "line", mode: "half-up" },
      },
    ],
    accounts: [
      { code: "4050", name: "Booklets", type: "income", usualCode: "Z" },
      { code: "5100", name: "Clay and glazes", type: "expense" },
      ...BRIDGE_ACCOUNTS,
    ],
    items: [
      {
        id: "i1",
        name: "Stoneware bowl",
        unitPrice: "24.50",
        supply: "goods",
        saleCode: "S20",
        saleAccount: "4000",
      },
      {
        id: "i2",
        name: "Glazing handbook",
        unitPrice: "14.00",
        supply: "goods",
        saleCode: "Z",
        saleAccount: "4050",
      },
      {
        id: "i3",
        name: "Studio class, half a day",
        unitPrice: "65.00",
        supply: "services",
        saleCode: "S20",
        saleAccount: "4000",
      },
    ],
    templates: keptOfSaltmarsh(today),
    contacts: [
      ...CUSTOMERS.map(([id, name, country, taxNumber]) => ({
        id,
        name,
        country,
        taxNumber,
        registered: taxNumber === null ? null : true,
      })),
      ...SUPPLIERS.map(([id, name, country, taxNumber, registered]) => ({
        id,
        name,
        country,
        taxNumber,
        registered,
        ...(country === "GB" ? {} : { purchaseCode: id === "s6" ? "PVA20" : "RCS" }),
      })),
    ],
    documents,
    namedCauses: namedCauses(documents),
  };
}

function quarterDocuments(quarter: Quarter, index: number, random: Random): Document[] {
  const day = () => addDays(quarter.from, random.whole(0, daysIn(quarter) - 1));
  const q = index + 1;
  const sales = Array.from({ length: random.whole(58, 74) }, (_, n) =>
    sale(`SK-${q}${String(n + 1).padStart(3, "0")}`, day(), random),
  );
  const shop = Array.from({ length: 13 }, (_, week) => ({
    kind: "cash-sale",
    number: `TILL-${q}${String(week + 1).padStart(2, "0")}`,
    date: addDays(quarter.from, Math.min(week * 7 + 6, daysIn(quarter) - 1)),
    prices: "inclusive",
    lines: [
      { text: "Shop takings, pottery", amount: random.amount(380, 920), code: "S20", account: "4000" },
      { text: "Shop takings, booklets", amount: random.amount(20, 90), code: "Z", account: "4050" },
    ],
  }));
  const credits = [1, 2].map((n) => ({
    kind: "sales-credit-note",
    number: `SC-${String(2 * index + n).padStart(4, "0")}`,
    date: day(),
    contact: random.pick(["c1", "c2", "c4"]),
    prices: "exclusive",
    lines: [{ text: "Breakage in transit", amount: random.amount(18, 120), code: "S20", account: "4000" }],
  }));
  return [...sales, ...shop, ...credits, ...purchases(quarter, q, random), ...faults(quarter, index)];
}

function sale(number: string, date: string, random: Random): Document {
  const [contact, , country] = random.pick(CUSTOMERS);
  const abroad = country !== "GB";
  const lines: Line[] = [
    {
      text: random.pick(POTS),
      amount: random.amount(60, 940),
      code: abroad ? "XG" : "S20",
      account: abroad ? "4100" : "4000",
      supply: "goods",
    },
  ];
  if (contact === "c5" || random.next() < 0.12) {
    lines.push({
      text: "Glazing handbook",
      quantity: String(random.whole(2, 12)),
      unitPrice: "14.00",
      code: abroad ? "XG" : "Z",
      account: "4050",
      item: "i2",
    });
  }
  return { kind: "sales-invoice", number, date, contact, place: "p1", prices: "exclusive", lines };
}

function purchases({ from, to }: Quarter, q: number, random: Random): Document[] {
  const bill = (contact: string, number: string, date: string, lines: Line[], more = {}): Document => ({
    kind: "purchase-bill",
    number,
    date,
    contact,
    place: "p1",
    prices: "exclusive",
    lines,
    ...more,
  });
  const months = [0, 30, 60].map((days) => addDays(from, days + random.whole(2, 20)));
  return [
    ...Array.from({ length: 9 }, (_, n) =>
      bill("s1", `CB-${8800 + q * 20 + n}`, addDays(from, random.whole(0, 85)), [
        {
          text: `Stoneware clay, ${random.whole(12, 60)} bags`,
          amount: random.amount(180, 620),
          code: "S20",
          account: "5100",
        },
      ]),
    ),
    ...months.map((date, n) =>
      bill("s2", `FG-${q}${n}471`, date, [
        { text: "Kiln gas and power", amount: random.amount(210, 460), code: "S20", account: "6100" },
      ]),
    ),
    ...Array.from({ length: 6 }, (_, n) =>
      bill("s3", `EP/${q}/${n + 11}`, addDays(from, random.whole(0, 85)), [
        { text: "Cartons and wadding", amount: random.amount(40, 190), code: "S20", account: "6200" },
      ]),
    ),
    ...months.map((date, n) =>
      bill("s5", `NH-${q}0${n}`, date, [
        { text: "Web shop and hosting", amount: "60.00", code: "RCS", account: "6250" },
      ]),
    ),
    bill("s6", `OO-${q}77`, addDays(from, 33), [
      {
        text: "Oxides and frits, postponed import VAT",
        amount: random.amount(900, 2600),
        code: "PVA20",
        account: "5100",
      },
    ]),
    bill("s8", `DJ-${q}5`, addDays(from, 41), [
      { text: "Drying racks, repair", amount: random.amount(90, 240), code: "NV", account: "6700" },
    ]),
    bill("s9", `CW-${q}12`, addDays(to, -20), [
      { text: "Bookkeeping for the quarter", amount: "480.00", code: "S20", account: "6400" },
    ]),
    bill("s10", `PP-${q}44`, addDays(from, 52), [
      { text: "Handbooks, 300 printed", amount: random.amount(700, 1150), code: "Z", account: "5000" },
    ]),
    {
      kind: "expense",
      number: `EXP-${q}1`,
      date: addDays(from, 24),
      prices: "inclusive",
      place: "p1",
      lines: [{ text: "Train to the craft fair", amount: random.amount(40, 96), code: "Z", account: "6500" }],
    },
  ];
}

/** What is wrong on purpose, mostly in the quarter that is due; demo/README.md lists it. */
function faults({ from, to }: Quarter, index: number): Document[] {
  if (index !== 4) return [];
  const base = { place: "p1", prices: "exclusive" };
  return [
    {
      ...base,
      kind: "purchase-bill",
      number: "MT-2291",
      date: addDays(from, 37),
      contact: "s7",
      lines: [{ text: "Dinner with gallery buyers", amount: "208.00", code: "S20", account: "6600" }],
    },
    {
      ...base,
      kind: "purchase-bill",
      number: "CB-8897",
      date: addDays(from, 60),
      contact: "s1",
      prices: "inclusive",
      lines: [
        {
          text: "Stoneware clay, 40 bags",
          amount: "576.75",
          code: "S20",
          account: "5100",
          typedTax: { VAT: "98.15" },
          typedReason: "as printed on the bill",
        },
      ],
    },
    {
      ...base,
      kind: "purchase-bill",
      number: "LC-55310",
      date: addDays(from, 46),
      contact: "s4",
      lines: [
        {
          text: "Import VAT paid by the courier",
          amount: "0.00",
          code: "S20",
          account: "5200",
          typedTax: { VAT: "318.40" },
        },
        { text: "Customs brokerage fee", amount: "25.00", code: "S20", account: "5200" },
      ],
    },
    {
      ...base,
      kind: "purchase-bill",
      number: "EP/5/99",
      date: addDays(from, 66),
      contact: "s3",
      lines: [{ text: "Pallet wrap", amount: "74.20", account: "6200" }],
    },
    {
      ...base,
      kind: "purchase-bill",
      number: "cb-8901 ",
      date: addDays(from, 21),
      contact: "s1",
      lines: [{ text: "Ball clay, 8 bags", amount: "143.60", code: "S20", account: "5100" }],
    },
    {
      ...base,
      kind: "purchase-bill",
      number: "CB-8902A",
      date: addDays(from, 21),
      contact: "s1",
      lines: [{ text: "Ball clay, 8 bags", amount: "143.60", code: "S20", account: "5100" }],
    },
    {
      kind: "journal",
      number: "J-0014",
      date: addDays(to, -2),
      prices: "exclusive",
      note: "moved by the client, no paper",
      lines: [
        { text: "VAT on staff mugs?", account: "2200", amount: "-14.20" },
        { text: "VAT on staff mugs?", account: "6200", amount: "14.20" },
      ],
    },
  ];
}
