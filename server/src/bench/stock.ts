import type { Writing } from "../base/work.ts";
import { postDocuments } from "../books/documents/postDocuments.ts";
import type { NewDocument } from "../books/documents/newDocument.ts";
import { loadSetup } from "../books/loadSetup.ts";
import { insertPiece } from "../books/stock/insertPiece.ts";
import { piecePage } from "../features/stock/piecePage.ts";
import type { BenchRow } from "./report.ts";
import { benchBooks } from "./benchBooks.ts";
import { inMs, timesOf } from "./report.ts";

const PIECES = 20_000;

/** The first page of a stock book of 20,000 pieces, two thirds of them sold, beside one plain sum over its sale lines. */
export async function stockBench(dataDir: string): Promise<BenchRow[]> {
  const { work, clientId, end } = await benchBooks(dataDir, "Pieces", fillStock);
  const setup = await loadSetup(work, clientId);
  const plain = await timesOf(7, () =>
    work.rows(
      `SELECT sum(l.gross) FROM lines l JOIN documents d ON d.id = l.document_id
       WHERE d.client_id = $1 AND d.state = 'posted' AND l.attributes ->> '$.piece' IS NOT NULL`,
      [clientId],
    ),
  );
  const ask = { search: "", state: "" as const, from: "", to: "", offset: 0, limit: 100, descending: false };
  const page = await timesOf(7, () => piecePage(work, setup, ask));
  await end();
  return [
    {
      what: "first page, states and sums of a stock book of 20,000 pieces",
      ours: inMs(page),
      reference: `plain SQL sum of the sales ${inMs(plain)}`,
      ratio: page.median / plain.median,
    },
  ];
}

async function fillStock(work: Writing, id: number): Promise<void> {
  for (let no = 1; no <= PIECES; no += 1) await insertPiece(work, id, piece(no));
  const setup = await loadSetup(work, id);
  const sold = Array.from({ length: PIECES }, (_, at) => at + 1).filter((no) => no % 3 !== 0);
  for (let from = 0; from < sold.length; from += 5000)
    await postDocuments(work, setup, sold.slice(from, from + 5000).map(sale));
}

function piece(no: number) {
  return {
    no,
    name: `Piece ${no}`,
    identifier: `M-${no}`,
    kind: "goods",
    boughtOn: "2026-01-10",
    price: 10_000 + (no % 700) * 100,
    purchaseNumber: `PM-${no}`,
    seller: "A seller",
    sellerAddress: no % 50 === 0 ? "" : "A street",
    document: null,
    line: null,
    offReason: null,
    note: "",
  };
}

function sale(no: number): NewDocument {
  const cost = (10_000 + (no % 700) * 100) / 100;
  return {
    input: {
      kind: "sales-invoice",
      number: `S${no}`,
      date: `2026-0${4 + (no % 3)}-${10 + (no % 19)}`,
      prices: "inclusive",
      lines: [
        {
          text: `Piece ${no}`,
          amount: (cost * 1.3).toFixed(2),
          code: "MGS",
          supply: "goods",
          attributes: { piece: String(no), cost: cost.toFixed(2) },
        },
      ],
    },
    contact: null,
    place: null,
  };
}
