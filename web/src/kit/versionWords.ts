import { CHECKS } from "@fiscalon/core/findings/catalogue";

const FIELDS: Readonly<Record<string, string>> = {
  fileHash: "fingerprint of the file",
  hash: "fingerprint",
  key: "what was found",
  receiptId: "number of the receipt",
  processingDate: "processed",
  confirmedBy: "confirmed by",
  formBundleNumber: "number of the bundle",
  alreadyThere: "already there",
  taxNumber: "tax number",
  taxPoint: "tax point",
  saleCode: "code on sales",
  purchaseCode: "code on purchases",
  usualCode: "usual code",
  unitPrice: "price of one",
  typedTax: "tax as printed",
  typedTotal: "tax as printed, in all",
  paidThrough: "paid from",
  periodEnd: "period to",
  bankAmount: "what the bank made of it",
  onAccount: "on account",
};

/** What a finding is about, by the key it is kept under: the check, and what it looked at. */
function titleOfCheck(key: string): string | undefined {
  const [check = ""] = key.split("/");
  return check in CHECKS ? CHECKS[check as keyof typeof CHECKS].title : undefined;
}

/** The path of a field in words: `lines[0].taxPoint` is "line 1, tax point". */
export function fieldWords(path: string): string {
  return path
    .split(".")
    .map((part) => {
      const [, name = part, index] = /^(\w+)\[(\d+)\]$/.exec(part) ?? [];
      const words = FIELDS[name] ?? name.replace(/([a-z])([A-Z])/g, "$1 $2").toLowerCase();
      return index === undefined ? words : `${words.replace(/s$/, "")} ${Number(index) + 1}`;
    })
    .join(", ");
}

/**
 * A value as the screens show it: what is kept by number by its name, dates in the locale's way, yes and no, long
 * fingerprints by their beginning.
 */
export function valueWords(
  path: string,
  value: string,
  names: Readonly<Record<string, string>>,
  date: (text: string) => string,
): string {
  const named = names[`${/(\w+)$/.exec(path)?.[1] ?? ""}/${value}`];
  if (named !== undefined) return named;
  const check = /(^|\.)key$/.test(path) ? titleOfCheck(value) : undefined;
  if (check !== undefined) return check;
  if (/^\d{4}-\d{2}-\d{2}(T[\d:.]+Z)?$/.test(value)) return date(value.slice(0, 10));
  if (/^[0-9a-f]{64}$/.test(value)) return `${value.slice(0, 12)}…`;
  return value === "true" ? "yes" : value === "false" ? "no" : value;
}
