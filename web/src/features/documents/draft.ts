import type { DocumentBody } from "@fiscalon/contract/document";
import type { ContactView, DocumentView } from "@fiscalon/contract/views";
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
  amount: string;
  discount: string;
  /** The tax from the paper; empty while it is calculated. */
  tax: string;
  taxDocument: string;
}

export interface Draft {
  kind: DocumentKind;
  number: string;
  date: string;
  taxPoint: string;
  contact: ContactView | null;
  prices: PriceMode;
  discount: string;
  documentTax: string;
  note: string;
  corrects: string;
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
  amount: "",
  discount: "",
  tax: "",
  taxDocument: "",
};

export function blankDraft(kind: DocumentKind): Draft {
  return {
    kind,
    number: "",
    date: today(),
    taxPoint: "",
    contact: null,
    prices: "exclusive",
    discount: "",
    documentTax: "",
    note: "",
    corrects: "",
    lines: [BLANK_LINE, BLANK_LINE],
  };
}

export function isBlank(line: DraftLine): boolean {
  return [line.text, line.quantity, line.unitPrice, line.amount, line.tax].every(
    (cell) => cell.trim() === "",
  );
}

/** What is computed and posted. `at` says which line of the draft each line of the input is. */
export function inputOf(
  draft: Draft,
  levy: string,
): { input: DocumentInput & { number: string }; at: number[] } {
  const at = draft.lines.flatMap((line, index) => (isBlank(line) ? [] : [index]));
  const lines = at.map((index) => lineInput(draft.lines[index] ?? BLANK_LINE, levy));
  const input = {
    kind: draft.kind,
    number: draft.number.trim(),
    date: draft.date,
    ...(draft.taxPoint === "" ? {} : { taxPoint: draft.taxPoint }),
    prices: draft.prices,
    ...(draft.discount.trim() === "" ? {} : { discount: discountOf(draft.discount) }),
    ...(draft.documentTax.trim() === "" ? {} : { typedTax: { [levy]: number(draft.documentTax) } }),
    lines,
  };
  return { input, at };
}

export function bodyOf(draft: Draft, levy: string): DocumentBody {
  return {
    ...inputOf(draft, levy).input,
    contact: draft.contact?.id ?? null,
    note: draft.note,
    ...(draft.corrects === "" ? {} : { corrects: draft.corrects }),
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
    ["amount", onlyTax ? "0" : number(line.amount)],
    ["code", line.code],
    ["codeReason", line.code === "" ? "" : line.codeTyped ? "typed" : line.codeReason],
  ];
  return {
    ...Object.fromEntries(optional.filter(([, value]) => value !== "")),
    ...(line.discount.trim() === "" ? {} : { discount: discountOf(line.discount) }),
    ...(line.tax.trim() === "" ? {} : { typedTax: { [levy]: number(line.tax) } }),
    ...(line.taxDocument.trim() === "" ? {} : { attributes: { document: line.taxDocument.trim() } }),
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
  const { input } = document;
  return {
    kind: input.kind,
    number: input.number,
    date: input.date,
    taxPoint: input.taxPoint ?? "",
    contact: document.contact,
    prices: input.prices,
    discount: discountText(input.discount),
    documentTax: input.typedTax?.[levy] ?? "",
    note: input.note,
    corrects: input.corrects ?? "",
    lines: input.lines.map((line) => ({
      text: line.text ?? "",
      item: line.item ?? "",
      account: line.account ?? "",
      code: line.code ?? "",
      codeTyped: true,
      codeReason: line.codeReason ?? "",
      quantity: line.quantity ?? "",
      unitPrice: line.unitPrice ?? "",
      amount: line.amount ?? "",
      discount: discountText(line.discount),
      tax: line.typedTax?.[levy] ?? "",
      taxDocument: line.attributes?.["document"] ?? "",
    })),
  };
}

function discountText(discount: Discount | undefined): string {
  if (!discount) return "";
  return discount.percent === undefined ? (discount.amount ?? "") : `${discount.percent}%`;
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
  };
}

const key = (clientId: number, kind: DocumentKind) => `fiscalon.draft.${clientId}.${kind}`;

export function keptDraft(clientId: number, kind: DocumentKind): Draft | null {
  const kept = localStorage.getItem(key(clientId, kind));
  return kept === null ? null : (JSON.parse(kept) as Draft);
}

/** Keeps what is typed in this browser, so that leaving the page loses nothing; null forgets it. */
export function keepDraft(clientId: number, kind: DocumentKind, draft: Draft | null): void {
  if (draft === null) localStorage.removeItem(key(clientId, kind));
  else localStorage.setItem(key(clientId, kind), JSON.stringify(draft));
}
