import type { DocumentBody } from "@fiscalon/contract/document";
import type { ContactView, DocumentView } from "@fiscalon/contract/views";
import type { PlaceSetup } from "@fiscalon/core/facts/plainSetup";
import type { Party } from "@fiscalon/core/supply/circumstances";
import type {
  Discount,
  DocumentInput,
  DocumentKind,
  LineInput,
  PriceMode,
} from "@fiscalon/core/tax/documentInput";
import { today } from "../../kit/format.ts";

/** A line as it is being typed; every field is the text in its cell. */
export interface DraftLine {
  text: string;
  item: string;
  account: string;
  code: string;
  /** Empty while the code is proposed by itself. */
  codeTyped: boolean;
  codeReason: string;
  quantity: string;
  unitPrice: string;
  /** Empty where the price is as the rest of the document. */
  prices: "" | PriceMode;
  amount: string;
  discount: string;
  /** The tax from the paper; empty while it is calculated. */
  tax: string;
  /** The levy that tax is of, where the line bears another than most. */
  taxLevy: string;
  supply: "" | "goods" | "services";
  taxClass: string;
  /** What the code asks of the line besides its amount: a purchase price, a customs entry … */
  attributes: Record<string, string>;
}

/** What the computation reads of the set-up and of other documents. */
export interface DraftAround {
  levy: string;
  places: readonly PlaceSetup[];
  /** The document a credit note corrects, where it is in the books. */
  original: { date: string; gross: number } | null;
}

export interface Draft {
  kind: DocumentKind;
  number: string;
  date: string;
  taxPoint: string;
  contact: ContactView | null;
  /** Id of the place; empty for the first one. */
  place: string;
  prices: PriceMode;
  /** Empty for the currency of the books. */
  currency: string;
  rate: string;
  rateSource: string;
  rateDate: string;
  /** Account the money went through; empty for the usual bank. */
  paidThrough: string;
  /** Whether it was there before the books. */
  opening: boolean;
  discount: string;
  documentTax: string;
  note: string;
  corrects: string;
  /** Tax point of the document a credit note corrects, where it is not in the books. */
  originalDate: string;
  lines: DraftLine[];
}

export const BLANK_LINE: DraftLine = {
  text: "",
  item: "",
  account: "",
  code: "",
  codeTyped: false,
  codeReason: "",
  quantity: "",
  unitPrice: "",
  prices: "",
  amount: "",
  discount: "",
  tax: "",
  taxLevy: "",
  supply: "",
  taxClass: "",
  attributes: {},
};

export function blankDraft(kind: DocumentKind): Draft {
  return {
    kind,
    number: "",
    date: today(),
    taxPoint: "",
    contact: null,
    place: "",
    prices: "exclusive",
    currency: "",
    rate: "",
    rateSource: "",
    rateDate: "",
    paidThrough: "",
    opening: false,
    discount: "",
    documentTax: "",
    note: "",
    corrects: "",
    originalDate: "",
    lines: [BLANK_LINE, BLANK_LINE],
  };
}

export function isBlank(line: DraftLine): boolean {
  return [line.text, line.quantity, line.unitPrice, line.amount, line.tax].every(
    (cell) => cell.trim() === "",
  );
}

/** What is computed. `at` says which line of the draft each line of the input is. */
export function inputOf(
  draft: Draft,
  { levy, places, original }: DraftAround,
): { input: DocumentInput & { number: string }; at: number[] } {
  const at = draft.lines.flatMap((line, index) => (isBlank(line) ? [] : [index]));
  const site = placeOf(draft, places);
  const input = {
    ...typedInput(draft, at, levy),
    ...(site ? { site: { country: site.country, region: site.region } } : {}),
    ...(draft.contact ? { party: partyOf(draft.contact) } : {}),
    ...(original ? { originalDate: draft.originalDate || original.date, originalGross: original.gross } : {}),
  };
  return { input, at };
}

/** What is sent: only what was typed; the server looks place, contact and corrected document up itself. */
export function bodyOf(draft: Draft, levy: string): DocumentBody {
  const at = draft.lines.flatMap((line, index) => (isBlank(line) ? [] : [index]));
  return {
    ...typedInput(draft, at, levy),
    contact: draft.contact?.id ?? null,
    place: draft.place === "" ? null : Number(draft.place),
    note: draft.note,
  };
}

function typedInput(draft: Draft, at: readonly number[], levy: string) {
  return {
    kind: draft.kind,
    number: draft.number.trim(),
    date: draft.date,
    ...(draft.taxPoint === "" ? {} : { taxPoint: draft.taxPoint }),
    prices: draft.prices,
    ...(draft.currency === "" ? {} : { currency: draft.currency }),
    ...(draft.currency === "" || draft.rate.trim() === ""
      ? {}
      : {
          exchange: {
            rate: number(draft.rate),
            ...(draft.rateSource.trim() === "" ? {} : { source: draft.rateSource.trim() }),
            ...(draft.rateDate === "" ? {} : { date: draft.rateDate }),
          },
        }),
    ...(draft.paidThrough === "" ? {} : { paidThrough: draft.paidThrough }),
    ...(draft.opening ? { opening: true } : {}),
    ...(draft.discount.trim() === "" ? {} : { discount: discountOf(draft.discount) }),
    ...(draft.documentTax.trim() === "" ? {} : { typedTax: { [levy]: number(draft.documentTax) } }),
    ...(draft.corrects.trim() === "" ? {} : { corrects: draft.corrects.trim() }),
    ...(draft.originalDate === "" ? {} : { originalDate: draft.originalDate }),
    lines: at.map((index) => lineInput(draft.lines[index] ?? BLANK_LINE, levy)),
  };
}

/** The place a document is of: the chosen one, or the first. */
export function placeOf(draft: Draft, places: readonly PlaceSetup[]): PlaceSetup | undefined {
  return places.find(({ id }) => String(id) === draft.place) ?? places[0];
}

/** A contact as far as tax depends on it. */
export function partyOf({ country, region, registered, taxNumber, standing }: ContactView): Party {
  const values = Object.entries(standing).map(([levy, one]) => [
    levy,
    typeof one === "string" ? one : one.value,
  ]);
  return {
    country,
    region,
    registered,
    taxNumber,
    standing: Object.fromEntries(values) as Record<string, string>,
  };
}

function lineInput(line: DraftLine, levy: string): LineInput {
  const onlyTax = line.amount.trim() === "" && line.quantity.trim() === "" && line.tax.trim() !== "";
  const optional: [keyof LineInput, string][] = [
    ["text", line.text.trim()],
    ["item", line.item],
    ["account", line.account],
    ["quantity", number(line.quantity)],
    ["unitPrice", number(line.unitPrice)],
    ["prices", line.prices],
    ["amount", onlyTax ? "0" : number(line.amount)],
    ["code", line.code],
    ["codeReason", line.code === "" ? "" : line.codeTyped ? "typed" : line.codeReason],
    ["supply", line.supply],
    ["taxClass", line.taxClass],
  ];
  const attributes = Object.entries(line.attributes)
    .map(([name, value]) => [name, value.trim()] as const)
    .filter(([, value]) => value !== "");
  return {
    ...Object.fromEntries(optional.filter(([, value]) => value !== "")),
    ...(line.discount.trim() === "" ? {} : { discount: discountOf(line.discount) }),
    ...(line.tax.trim() === "" ? {} : { typedTax: { [line.taxLevy || levy]: number(line.tax) } }),
    ...(attributes.length === 0 ? {} : { attributes: Object.fromEntries(attributes) }),
  };
}

/** "5 %" or "5%" is a share, anything else an amount. */
function discountOf(text: string): Discount {
  const trimmed = number(text);
  return trimmed.endsWith("%") ? { percent: trimmed.slice(0, -1).trim() } : { amount: trimmed };
}

function number(text: string): string {
  return text.trim().replaceAll(",", "").replaceAll("−", "-");
}

/** A posted document back in the form in which it can be typed on. */
export function draftOf(document: DocumentView, levy: string): Draft {
  const { input, place, contact, foreignGross } = document;
  const { currency: _base, ...rest } = input;
  return draftOfBody({ ...(foreignGross === null ? rest : input), place }, contact, levy);
}

/** A document as it is sent, in the form in which it can be typed on. */
export function draftOfBody(input: DocumentBody, contact: ContactView | null, levy: string): Draft {
  return {
    kind: input.kind,
    number: input.number ?? "",
    date: input.date,
    taxPoint: input.taxPoint ?? "",
    contact,
    place: input.place === null || input.place === undefined ? "" : String(input.place),
    prices: input.prices,
    currency: input.currency ?? "",
    rate: input.exchange?.rate ?? "",
    rateSource: input.exchange?.source ?? "",
    rateDate: input.exchange?.date ?? "",
    paidThrough: input.paidThrough ?? "",
    opening: input.opening ?? false,
    discount: discountText(input.discount),
    documentTax: input.typedTax?.[levy] ?? "",
    note: input.note ?? "",
    corrects: input.corrects ?? "",
    originalDate: input.originalDate ?? "",
    lines: input.lines.map((line) => ({
      text: line.text ?? "",
      item: line.item ?? "",
      account: line.account ?? "",
      code: line.code ?? "",
      codeTyped: true,
      codeReason: line.codeReason ?? "",
      quantity: line.quantity ?? "",
      unitPrice: line.unitPrice ?? "",
      prices: line.prices ?? "",
      amount: line.amount ?? "",
      discount: discountText(line.discount),
      ...typedTaxOf(line),
      supply: line.supply ?? "",
      taxClass: line.taxClass ?? "",
      attributes: line.attributes ?? {},
    })),
  };
}

function typedTaxOf({ typedTax = {} }: LineInput): { tax: string; taxLevy: string } {
  const [taxLevy = "", tax = ""] = Object.entries(typedTax)[0] ?? [];
  return { tax, taxLevy };
}

function discountText(discount: Discount | undefined): string {
  if (!discount) return "";
  return discount.percent === undefined ? (discount.amount ?? "") : `${discount.percent}%`;
}

/** A new document with the content of another. */
export function copyOf(document: DocumentView, levy: string): Draft {
  return {
    ...draftOf(document, levy),
    number: "",
    date: today(),
    taxPoint: "",
    corrects: "",
    originalDate: "",
  };
}

const CREDIT_OF: Partial<Record<DocumentKind, DocumentKind>> = {
  "sales-invoice": "sales-credit-note",
  "purchase-bill": "purchase-credit-note",
};

/** A credit note that mirrors a posted document, to be cut down to what is credited. */
export function creditNoteOf(document: DocumentView, levy: string): Draft | null {
  const kind = CREDIT_OF[document.input.kind];
  if (!kind) return null;
  return {
    ...draftOf(document, levy),
    kind,
    number: "",
    date: today(),
    taxPoint: "",
    corrects: document.input.number,
    originalDate: document.input.taxPoint ?? document.input.date,
  };
}

const key = (clientId: number, kind: DocumentKind) => `fiscalon.draft.${clientId}.${kind}`;

export function keptDraft(clientId: number, kind: DocumentKind): Draft | null {
  const text = localStorage.getItem(key(clientId, kind));
  if (text === null) return null;
  const kept = JSON.parse(text) as Draft;
  return { ...blankDraft(kind), ...kept, lines: kept.lines.map((line) => ({ ...BLANK_LINE, ...line })) };
}

/** Keeps what is typed in this browser, so that leaving the page loses nothing; null forgets it. */
export function keepDraft(clientId: number, kind: DocumentKind, draft: Draft | null): void {
  if (draft === null) localStorage.removeItem(key(clientId, kind));
  else localStorage.setItem(key(clientId, kind), JSON.stringify(draft));
}
