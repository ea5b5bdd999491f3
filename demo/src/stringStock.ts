import type { Document, Line } from "./bookMaker.ts";
import { addDays, daysIn } from "./quarters.ts";
import type { Quarter } from "./quarters.ts";
import type { Random } from "./random.ts";

const MAKERS = [
  "Bram Okkerse",
  "Idris Pell",
  "Tamsin Rourke",
  "Aldous Fenn",
  "Lowri Beck",
  "Cyprian Dale",
  "Ines Vaar",
];
const SORTS: readonly [name: string, from: number, to: number][] = [
  ["Violin", 320, 2900],
  ["Viola", 450, 2100],
  ["Cello", 900, 3400],
  ["Bow, silver mounted", 110, 640],
  ["Parlour guitar", 180, 980],
  ["Mandolin", 140, 620],
];
const SELLERS: readonly [name: string, address: string][] = [
  ["Hesper Lockwood", "4 Chapel Row, Todmorden"],
  ["Jarvis Pennock", "19 Quay Street, Whitby"],
  ["Orla Threadgold", "2 Mill Bank, Hebden"],
  ["Estate of M. Holm", "c/o Alder & Wick, Halifax"],
  ["Piers Oakshott", "The Old Forge, Ripponden"],
];

/** A piece of the stock book before it is written: its documents are found by their numbers. */
interface Piece {
  no: number;
  name: string;
  identifier: string;
  boughtOn: string;
  price: string;
  seller: string;
  sellerAddress: string;
  partOf?: number;
  isSet?: boolean;
  offReason?: string;
  /** Number of the bill. */
  bill?: string;
}

export const PIECES = 60;
/** The piece that was bought with tax on the bill, the one that lost money, the one whose seller's address is not known. */
const TAXED = 31;
const LOSS = 12;
const NO_ADDRESS = 44;
/** Pieces that go into the two sets. */
const SETS: readonly (readonly number[])[] = [
  [7, 9],
  [52, 55, 56],
];

/** Sixty instruments bought from private people, most of them sold again: the stock book and its documents. */
export function stringStock(
  quarters: readonly Quarter[],
  random: Random,
  today: string,
): { documents: Document[]; piecesOf: (documents: readonly Document[]) => object[] } {
  const days = quarters.reduce((sum, quarter) => sum + daysIn(quarter), 0);
  const first = quarters[0]?.from ?? today;
  const last = Math.min(days, Math.round((Date.parse(today) - Date.parse(first)) / 86_400_000)) - 12;
  const pieces: Piece[] = [];
  const documents: Document[] = [];
  for (let no = 1; no <= PIECES; no += 1) {
    const [sort, from, to] = random.pick(SORTS);
    const year = random.whole(1890, 2009);
    const [seller, sellerAddress] = random.pick(SELLERS);
    const piece: Piece = {
      no,
      name: `${sort}, ${random.pick(MAKERS)} ${year}`,
      identifier:
        random.next() < 0.2
          ? "no label"
          : `${sort.slice(0, 2).toUpperCase()}-${year % 100}-${random.whole(10, 99)}`,
      boughtOn: addDays(first, Math.round((last * (no - 1)) / PIECES)),
      price: `${random.whole(from, to)}.00`,
      seller: no === TAXED ? "Fiddlewood Supplies" : seller,
      sellerAddress: no === NO_ADDRESS ? "" : no === TAXED ? "Unit 3, Station Yard, Skipton" : sellerAddress,
      bill: no === TAXED ? "FS-20931" : `PM-${String(no).padStart(4, "0")}`,
      ...(no === TAXED ? { offReason: "tax stands on the bill" } : {}),
    };
    pieces.push(piece);
    documents.push(bill(piece));
  }
  SETS.forEach((parts, index) => {
    const no = PIECES + 1 + index;
    const own = pieces.filter((piece) => parts.includes(piece.no));
    for (const part of own) part.partOf = no;
    pieces.push({
      no,
      name: index === 0 ? "Violin with bow, in one case" : "Quartet pupils' set of three",
      identifier: "",
      boughtOn:
        own
          .map(({ boughtOn }) => boughtOn)
          .sort()
          .at(-1) ?? first,
      price: own.reduce((sum, { price }) => sum + Number(price), 0).toFixed(2),
      seller: "",
      sellerAddress: "",
      isSet: true,
    });
  });
  for (const piece of pieces) {
    const on = addDays(piece.boughtOn, random.whole(9, 140));
    const kept = piece.partOf !== undefined || piece.no === PIECES + 2 || random.next() < 0.12;
    if (on > today || (kept && piece.no !== LOSS && piece.no !== NO_ADDRESS && piece.no !== TAXED)) continue;
    documents.push(sale(piece, on, random));
  }
  const piecesOf = (sorted: readonly Document[]): object[] => pieces.map((piece) => written(piece, sorted));
  return { documents, piecesOf };
}

function bill({ no, name, price, boughtOn, bill: number = "", offReason }: Piece): Document {
  const taxed = offReason !== undefined;
  const line: Line = {
    text: `${String(no).padStart(4, "0")} ${name}`,
    amount: price,
    supply: "goods",
    ...(taxed ? { code: "S20", account: "1150" } : { code: "MGP" }),
  };
  return {
    kind: "purchase-bill",
    number,
    date: boughtOn,
    contact: taxed ? "s3" : "s1",
    prices: "exclusive",
    lines: [line],
  };
}

function sale({ no, name, price, offReason }: Piece, date: string, random: Random): Document {
  const factor = no === LOSS ? 0.88 : 1.14 + random.next() * 0.5;
  return {
    kind: "sales-invoice",
    number: `LS-${String(400 + no)}`,
    date,
    contact: random.pick(["c1", "c2", "c3"]),
    prices: "inclusive",
    lines: [
      {
        text: `${String(no).padStart(4, "0")} ${name}`,
        amount: (
          Math.round((Number(price) * (offReason === undefined ? factor : factor * 1.2)) / 5) * 5
        ).toFixed(2),
        code: offReason === undefined ? "MGS" : "S20",
        account: "4000",
        supply: "goods",
        attributes: { piece: String(no), cost: price },
      },
    ],
  };
}

function written({ bill: number, ...piece }: Piece, documents: readonly Document[]): object {
  const row = documents.findIndex(
    (document) => document.kind === "purchase-bill" && document.number === number,
  );
  return {
    kind: "goods",
    purchaseNumber: number ?? "",
    ...piece,
    ...(row < 0 ? {} : { bought: { document: `/documents/${row}`, line: 1 } }),
  };
}
