import { CHECKS } from "@fiscalon/core/findings/catalogue";
import type { AuditAction, AuditEntity, ChangeView } from "@fiscalon/contract/audit";

/** What the audit trail is about, by the name it is kept under. */
export const ENTITIES: Readonly<Record<AuditEntity, string>> = {
  document: "document",
  payment: "payment or receipt",
  "bank-line": "line of the bank",
  "bank-statement": "bank statement",
  "bank-account": "bank account",
  terminal: "card terminal",
  template: "template",
  import: "import",
  return: "return",
  adjustment: "adjustment",
  "late-item": "late item",
  finding: "finding",
  entry: "journal entry",
  "tax-payment": "payment of tax",
  contact: "contact",
  item: "item",
  "capital-item": "capital item",
  account: "account",
  code: "tax code",
  rules: "supply rules",
  schedule: "rates",
  place: "place",
  piece: "piece of the stock book",
  registration: "registration",
  series: "number series",
  statement: "statement of another",
  jurisdiction: "jurisdiction",
  law: "what is known of the law",
  client: "client",
};

const ACTIONS: Readonly<Record<AuditAction, string>> = {
  accept: "accepted",
  adjust: "adjusted",
  agree: "agreed the turnover of",
  answer: "said what it is of",
  archive: "archived",
  attach: "added a paper to",
  authorise: "authorised",
  change: "changed",
  connect: "connected",
  convert: "put into a file of its own",
  correct: "corrected",
  create: "created",
  decide: "decided of",
  default: "made usual",
  delete: "removed",
  detach: "took a paper off",
  drop: "dropped",
  explain: "explained",
  fetch: "fetched",
  file: "filed",
  "in-review": "began the review of",
  keep: "kept",
  match: "matched",
  name: "named the cause of a row of",
  open: "ended the review of",
  post: "posted",
  receive: "received",
  record: "recorded",
  remove: "removed",
  release: "released the credit of",
  reopen: "opened again",
  restore: "took out of the archive",
  seal: "sealed",
  settle: "settled",
  unaccept: "took back the acceptance of",
  undo: "undone",
  unmatch: "took back the match of",
  void: "taken out",
};

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

/** What was done: "matched line of the bank"; the name of a document says itself what it is. */
export function changeWords({
  action,
  entity,
  subject,
}: Pick<ChangeView, "action" | "entity" | "subject">): string {
  const done = ACTIONS[action];
  return entity === "document" && subject !== null ? done : `${done} ${ENTITIES[entity]}`;
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
