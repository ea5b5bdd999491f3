import type { DocumentBody } from "@fiscalon/contract/document";
import type { ContactView, DocumentView, ItemView, OriginalView } from "@fiscalon/contract/views";
import type { PlaceSetup, Party } from "@fiscalon/core/model/party";
import type {
  Discount,
  DocumentInput,
  LineInput,
  PriceMode,
  RecordedRate,
} from "@fiscalon/core/model/document";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { CodeQuestion } from "@fiscalon/core/model/pricedDocument";
import type { BegunDocument } from "../../app/begunDocument.ts";
import { plainAmount, today } from "../../kit/format.ts";

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
  /** What must be said before a code can be proposed. */
  asks: CodeQuestion | null;
  /** The tax from the paper as one figure; empty while it is calculated. */
  tax: string;
  /** The levy that figure is of; empty where it is everything the line is charged. */
  taxOf: string;
  /** The tax from the paper by levy, where it tells them apart. */
  taxes: Record<string, string>;
  supply: "" | "goods" | "services";
  taxClass: string;
  /** What the code asks of the line besides its amount: a purchase price, a customs entry … */
  attributes: Record<string, string>;
}

/** What the computation reads of the set-up and of other documents. */
export interface DraftAround {
  places: readonly PlaceSetup[];
  items: readonly ItemView[];
  /** The document a credit note corrects, where it is in the books. */
  original: OriginalView | null;
  /** Rates the document bears whatever the schedules say by now. */
  recordedRates: readonly RecordedRate[] | undefined;
}

export interface Draft {
  kind: DocumentKind;
  number: string;
  date: string;
  taxPoint: string;
  due: string;
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
  /** Why the tax of a purchase is not deducted yet; empty where it is. */
  creditHold: string;
  discount: string;
  /** The tax of the whole paper as one figure, the levy it is of, or the figures by levy. */
  tax: string;
  taxOf: string;
  taxes: Record<string, string>;
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
  asks: null,
  tax: "",
  taxOf: "",
  taxes: {},
  supply: "",
  taxClass: "",
  attributes: {},
};

/** A new document of which another screen knows something. */
export function begunDraft(kind: DocumentKind, { lines, ...known }: BegunDocument): Draft {
  return { ...blankDraft(kind), ...known, lines: lines.map((line) => ({ ...BLANK_LINE, ...line })) };
}

export function blankDraft(kind: DocumentKind): Draft {
  return {
    kind,
    number: "",
    date: today(),
    taxPoint: "",
    due: "",
    contact: null,
    place: "",
    prices: "exclusive",
    currency: "",
    rate: "",
    rateSource: "",
    rateDate: "",
    paidThrough: "",
    opening: false,
    creditHold: "",
    discount: "",
    tax: "",
    taxOf: "",
    taxes: {},
    note: "",
    corrects: "",
    originalDate: "",
    lines: [BLANK_LINE, BLANK_LINE],
  };
}

export function isBlank(line: DraftLine): boolean {
  return [
    line.text,
    line.quantity,
    line.unitPrice,
    line.amount,
    line.tax,
    ...Object.values(line.taxes),
  ].every((cell) => cell.trim() === "");
}

/** What is computed. `at` says which line of the draft each line of the input is. */
export function inputOf(
  draft: Draft,
  around: DraftAround,
): { input: DocumentInput & { number: string }; at: number[] } {
  const at = draft.lines.flatMap((line, index) => (isBlank(line) ? [] : [index]));
  return { input: { ...typedInput(draft, at), ...surroundings(draft, around) }, at };
}

/** What is sent: only what was typed; the server looks place, contact, items and corrected document up itself. */
export function bodyOf(draft: Draft): DocumentBody {
  const at = draft.lines.flatMap((line, index) => (isBlank(line) ? [] : [index]));
  return {
    ...typedInput(draft, at),
    contact: draft.contact?.id ?? null,
    place: draft.place === "" ? null : Number(draft.place),
    note: draft.note,
  };
}

/** What the computation reads beside what is typed. */
export function surroundings(draft: Draft, { places, items, original, recordedRates }: DraftAround) {
  const site = placeOf(draft, places);
  return {
    ...(site ? { site } : {}),
    ...(draft.contact ? { party: partyOf(draft.contact) } : {}),
    items: Object.fromEntries(items.map(({ ref, ...item }) => [ref, item])),
    ...(original ? { originalDate: draft.originalDate || original.date, originalGross: original.gross } : {}),
    ...(recordedRates ? { recordedRates } : {}),
  };
}

function typedInput(draft: Draft, at: readonly number[]) {
  return {
    kind: draft.kind,
    number: draft.number.trim(),
    date: draft.date,
    ...(draft.taxPoint === "" ? {} : { taxPoint: draft.taxPoint }),
    ...(draft.due === "" ? {} : { due: draft.due }),
    prices: draft.prices,
    ...(draft.currency === "" ? {} : { currency: draft.currency }),
    ...(draft.currency === "" || draft.rate.trim() === ""
      ? {}
      : {
          exchange: {
            rate: plainAmount(draft.rate),
            ...(draft.rateSource.trim() === "" ? {} : { source: draft.rateSource.trim() }),
            ...(draft.rateDate === "" ? {} : { date: draft.rateDate }),
          },
        }),
    ...(draft.paidThrough === "" ? {} : { paidThrough: draft.paidThrough }),
    ...(draft.opening ? { opening: true } : {}),
    ...(draft.creditHold === "" ? {} : { creditHold: draft.creditHold }),
    ...(draft.discount.trim() === "" ? {} : { discount: discountOf(draft.discount) }),
    ...typedTaxes(draft),
    ...(draft.corrects.trim() === "" ? {} : { corrects: draft.corrects.trim() }),
    ...(draft.originalDate === "" ? {} : { originalDate: draft.originalDate }),
    lines: at.map((index) => lineInput(draft.lines[index] ?? BLANK_LINE)),
  };
}

/** The place a document is of: the chosen one, or the first. */
export function placeOf(draft: Draft, places: readonly PlaceSetup[]): PlaceSetup | undefined {
  return places.find(({ id }) => String(id) === draft.place) ?? places[0];
}

/** A contact as far as tax depends on it. */
export function partyOf(contact: ContactView): Party {
  const { name, country, region, registered, taxNumber, standing, saleCode, purchaseCode } = contact;
  const values = Object.entries(standing).map(([levy, one]) => [
    levy,
    typeof one === "string" ? one : one.value,
  ]);
  return {
    name,
    country,
    region,
    registered,
    taxNumber,
    saleCode,
    purchaseCode,
    standing: Object.fromEntries(values) as Record<string, string>,
  };
}

/** A line as the computation takes it. */
export function lineInput(line: DraftLine): LineInput {
  const taxes = typedTaxes(line);
  const onlyTax = line.amount.trim() === "" && line.quantity.trim() === "" && Object.keys(taxes).length > 0;
  const optional: [keyof LineInput, string][] = [
    ["text", line.text.trim()],
    ["item", line.item],
    ["account", line.account],
    ["quantity", plainAmount(line.quantity)],
    ["unitPrice", plainAmount(line.unitPrice)],
    ["prices", line.prices],
    ["amount", onlyTax ? "0" : plainAmount(line.amount)],
    ["code", line.code],
    ["codeReason", line.code === "" ? "" : line.codeReason || "typed"],
    ["supply", line.supply],
    ["taxClass", line.taxClass],
  ];
  const attributes = Object.entries(line.attributes)
    .map(([name, value]) => [name, value.trim()] as const)
    .filter(([, value]) => value !== "");
  return {
    ...Object.fromEntries(optional.filter(([, value]) => value !== "")),
    ...(line.discount.trim() === "" ? {} : { discount: discountOf(line.discount) }),
    ...taxes,
    ...(attributes.length === 0 ? {} : { attributes: Object.fromEntries(attributes) }),
  };
}

/** Figures of the paper: by levy where they are told apart, otherwise of one levy or of all. */
function typedTaxes({ tax, taxOf, taxes }: Pick<DraftLine, "tax" | "taxOf" | "taxes">) {
  const told = Object.entries(taxes).filter(([, text]) => text.trim() !== "");
  if (told.length > 0)
    return { typedTax: Object.fromEntries(told.map(([levy, text]) => [levy, plainAmount(text)])) };
  if (tax.trim() === "") return {};
  return taxOf === "" ? { typedTotal: plainAmount(tax) } : { typedTax: { [taxOf]: plainAmount(tax) } };
}

/** "5 %" or "5%" is a share, anything else an amount. */
function discountOf(text: string): Discount {
  const trimmed = plainAmount(text);
  return trimmed.endsWith("%") ? { percent: trimmed.slice(0, -1).trim() } : { amount: trimmed };
}

/** A posted document back in the form in which it can be typed on. */
export function draftOf(document: DocumentView): Draft {
  const { input, place, contact, foreignGross } = document;
  const { currency: _base, ...rest } = input;
  return draftOfBody({ ...(foreignGross === null ? rest : input), place }, contact);
}

/** A document as it is sent, in the form in which it can be typed on. */
export function draftOfBody(input: DocumentBody, contact: ContactView | null): Draft {
  return {
    kind: input.kind,
    number: input.number ?? "",
    date: input.date,
    taxPoint: input.taxPoint ?? "",
    due: input.due ?? "",
    contact,
    place: input.place === null || input.place === undefined ? "" : String(input.place),
    prices: input.prices,
    currency: input.currency ?? "",
    rate: input.exchange?.rate ?? "",
    rateSource: input.exchange?.source ?? "",
    rateDate: input.exchange?.date ?? "",
    paidThrough: input.paidThrough ?? "",
    opening: input.opening ?? false,
    creditHold: input.creditHold ?? "",
    discount: discountText(input.discount),
    ...toldTaxes(input),
    note: input.note ?? "",
    corrects: input.corrects ?? "",
    originalDate: input.originalDate ?? "",
    lines: input.lines.map((line) => ({
      text: line.text ?? "",
      item: line.item ?? "",
      account: line.account ?? "",
      code: line.code ?? "",
      codeTyped: Boolean(line.code),
      asks: null,
      codeReason: line.codeReason ?? "",
      quantity: line.quantity ?? "",
      unitPrice: line.unitPrice ?? "",
      prices: line.prices ?? "",
      amount: line.amount ?? "",
      discount: discountText(line.discount),
      ...toldTaxes(line),
      supply: line.supply ?? "",
      taxClass: line.taxClass ?? "",
      attributes: line.attributes ?? {},
    })),
  };
}

function toldTaxes({ typedTax = {}, typedTotal = "" }: Pick<LineInput, "typedTax" | "typedTotal">) {
  const told = Object.entries(typedTax);
  if (told.length > 1) return { tax: "", taxOf: "", taxes: typedTax };
  const [[taxOf, tax] = ["", typedTotal]] = told;
  return { tax, taxOf, taxes: {} };
}

function discountText(discount: Discount | undefined): string {
  if (!discount) return "";
  return discount.percent === undefined ? (discount.amount ?? "") : `${discount.percent}%`;
}

/** A new document with the content of another. */
export function copyOf(document: DocumentView): Draft {
  return {
    ...draftOf(document),
    number: "",
    date: today(),
    taxPoint: "",
    due: "",
    corrects: "",
    originalDate: "",
  };
}

/** A credit note that mirrors a posted document, to be cut down to what is credited. */
export function creditNoteOf(document: DocumentView): Draft | null {
  const kind = kindOf(document.input.kind).creditedBy;
  if (!kind) return null;
  return {
    ...draftOf(document),
    kind,
    number: "",
    date: today(),
    taxPoint: "",
    due: "",
    corrects: document.input.number,
    originalDate: document.input.taxPoint ?? document.input.date,
  };
}
