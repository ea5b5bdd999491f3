import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { at, textAt } from "@fiscalon/core/at";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { displayAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import { rateDateOf } from "@fiscalon/core/model/document";
import type { PricedLine } from "@fiscalon/core/model/pricedDocument";
import { rateInForce } from "@fiscalon/core/tax/rateInForce";
import { schedulesAsRecorded } from "@fiscalon/core/tax/recordedRates";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import type { Work } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import { recordedEffects } from "../../books/documents/recordedEffects.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";
import { releaseParts } from "./paymentSteps.ts";
import { entryParts } from "./ledgerSteps.ts";
import type { TrailScope } from "./trailScope.ts";

/** A document: its lines, and the entry it made. */
export async function documentStep(
  { work, setup }: TrailScope,
  [id = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const document = await load({ work, setup }, id);
  const lines = await work.rows<{ no: number; text: string; gross: number; code: string | null }>(
    "SELECT no, text, gross, code FROM lines WHERE document_id = $1 ORDER BY no",
    [document.id],
  );
  return {
    ref,
    title: `${DOCUMENT_KINDS[document.input.kind].name} ${document.input.number}`,
    amount: document.gross,
    digits: setup.plain.digits,
    words: [
      ...(await origin(work, document, null)),
      document.state === "posted" ? "" : `This version is ${document.state}.`,
    ].filter(Boolean),
    parts: [
      ...lines.map((line): TrailPart => ({
        ref: `line/${document.id}/${line.no}`,
        label: `Line ${line.no}${line.text === "" ? "" : `: ${line.text}`}`,
        detail: line.code ?? "no code",
        amount: line.gross,
      })),
      ...(await entryParts(work, "e.document_id = $1 AND e.live = 1", [document.id])),
    ],
    arithmetic: [],
    open: { label: "Open document", path: `books/documents/${document.id}` },
  };
}

/** A line: the arithmetic of each levy, the rate with its source, where it lands, and the row it came from. */
export async function lineStep(
  { work, setup }: TrailScope,
  [id = "", no = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const document = await load({ work, setup }, id);
  const index = Number(no) - 1;
  const input = document.input.lines[index];
  if (!input) throw notFound("This line");
  const recorded = at(await recordedEffects(work, setup, [document]), 0);
  const { priced, printed } = recorded.effect;
  const schedules = schedulesAsRecorded(setup.effect, recorded.document.input.recordedRates);
  const line = at(priced.lines, index);
  const landings = await landingsOf(work, document.id, Number(no));
  const { digits } = setup.plain;
  const { taxes } = line;
  return {
    ref,
    title: `${document.input.number}, line ${no}${input.text ? `: ${input.text}` : ""}`,
    amount:
      taxes.length > 0 && taxes.some((tax) => tax.tax !== 0)
        ? taxes.reduce((sum, tax) => sum + tax.tax, 0)
        : line.net,
    digits,
    words: [
      ...(line.code
        ? [`${line.code.code}, ${line.code.name}: ${reasonOf(input.codeReason)}.`]
        : ["No tax code."]),
      ...taxes.flatMap((tax) => {
        const row = rateInForce(tax.component, schedules, rateDateOf(document.input, input));
        return row
          ? [
              `${tax.component.levy} ${row.rate}${tax.component.rate.kind === "percent" ? " %" : ""} ${row.from === row.to ? "on" : "since"} ${displayDate(row.from)} (${row.source}).`,
              ...(row.doubt === undefined ? [] : [`To be looked up: ${row.doubt}.`]),
            ]
          : [];
      }),
      ...(input.attributes?.["rateReason"] ? [`${input.attributes["rateReason"]}.`] : []),
      ...exchangeWords(document, at(printed.lines, index).net, line.net, setup),
      ...(input.typedReason ? [`The tax was typed: ${input.typedReason}.`] : []),
      ...(await origin(work, document, index)),
    ],
    parts: [
      ...(await releaseParts(work, document.id, Number(no))),
      {
        ref: `document/${document.id}`,
        label: `${DOCUMENT_KINDS[document.input.kind].name} ${document.input.number}`,
        detail: displayDate(document.input.date),
        amount: document.gross,
      },
      { ref: null, label: "Net", detail: "", amount: line.net },
      ...taxes.map((tax): TrailPart => ({
        ref: null,
        label: tax.component.levy,
        detail: landing(textAt(landings, tax.component.levy)),
        amount: tax.tax,
      })),
    ],
    arithmetic: arithmeticOf({ ...at(printed.lines, index), rounding: line.rounding }, document, setup),
    open: { label: "Open document", path: `books/documents/${document.id}` },
  };
}

/** The tax of a line written out, in the currency of its document. */
function arithmeticOf(line: PricedLine, { input }: StoredDocument, setup: TrailScope["setup"]): string[] {
  const digits = minorDigits(input.currency ?? setup.client.currency);
  return line.taxes.flatMap((_, index) => explainTax(line, index, digits));
}

function exchangeWords(
  { input }: StoredDocument,
  printed: number,
  net: number,
  { client, plain }: TrailScope["setup"],
): string[] {
  const { currency = client.currency, exchange } = input;
  if (currency === client.currency || !exchange) return [];
  const from = `${currency} ${displayAmount(printed, minorDigits(currency))}`;
  const origin = [exchange.source, exchange.date].filter(Boolean).join(", ");
  return [
    `${from} × ${exchange.rate} = ${client.currency} ${displayAmount(net, plain.digits)}${origin ? ` (${origin})` : ""}; each tax is exchanged by itself.`,
  ];
}

function reasonOf(reason: string | undefined): string {
  return reason === undefined || reason === "typed" ? "chosen by hand" : reason;
}

function landing(tags: string): string {
  return tags === ""
    ? "lands in no box"
    : `lands in ${tags
        .split(", ")
        .map((tag) => `box ${tag.split(" ")[0]}`)
        .join(", ")}`;
}

/** Where the facts of a line landed, by levy. */
async function landingsOf(
  work: Work,
  document: number,
  line: number,
): Promise<Readonly<Record<string, string>>> {
  const rows = await work.rows<{ levy: string; tags: string }>(
    "SELECT levy, tags FROM facts WHERE document_id = $1 AND line = $2 AND live = 1",
    [document, line],
  );
  return Object.fromEntries(rows.map(({ levy, tags }) => [levy, tags]));
}

async function load({ work, setup }: TrailScope, id: string): Promise<StoredDocument> {
  const [document] = await loadDocuments(work, "d.id = $1 AND d.client_id = $2", [
    Number(id),
    setup.client.id,
  ]);
  if (!document) throw notFound("This document");
  return document;
}

/** Who brought the document in, and from which row of which file. */
async function origin(work: Work, document: StoredDocument, line: number | null): Promise<string[]> {
  const row = await work.one<{ by: string; file: string | null; party: string | null }>(
    `SELECT p.name AS "by", i.file_name AS file, c.name AS party FROM documents d JOIN people p ON p.id = d.created_by
       LEFT JOIN imports i ON i.id = d.import_id LEFT JOIN contacts c ON c.id = d.contact_id WHERE d.id = $1`,
    [document.id],
  );
  const on = document.createdAt.slice(0, 10);
  const party = row.party ? [`${row.party}, ${displayDate(document.input.date)}.`] : [];
  if (!row.file) return [...party, `Entered by ${row.by}, ${displayDate(on)}.`];
  const sourceRow = document.sourceRows[line ?? 0];
  return [
    ...party,
    `Imported by ${row.by}, ${displayDate(on)}: ${sourceRow ? `row ${sourceRow} of ` : ""}${row.file}.`,
  ];
}
