/**
 * Every screen there is: the one list from which router, navigation, palette and picture script are made.
 * - `path`: below `/c/:clientId/` for screens of a client, below `/` for those of the practice; `:kind`, `:end` … are filled in.
 * - `group`: the row of links it stands in, where it stands in one; `tab` is its short name there.
 * - `only`: offered only where the client keeps a stock book, collects tax from customers, or is on a retail scheme.
 * - `find`: its name in the palette; screens without one are reached from others.
 * - `lights`: the path whose link is lit while it is open, where that is another one.
 */
export interface Screen {
  path: string;
  of: "practice" | "client";
  group: "setup" | "books" | "ledger" | "agree" | null;
  tab?: string;
  find?: string;
  lights?: string;
  only?: "stock-book" | "collection" | "retail";
}

export const SCREENS = [
  { path: "", of: "practice", group: null, find: "Clients" },
  { path: "clients/new", of: "practice", group: null, find: "New client" },
  { path: "jurisdictions", of: "practice", group: null, find: "Jurisdictions" },
  { path: "jurisdictions/:ref", of: "practice", group: null },
  { path: "copies", of: "practice", group: null, find: "Copies of the practice" },
  {
    path: "setup/places",
    of: "client",
    group: "setup",
    tab: "Places & registrations",
    find: "Places & registrations",
  },
  {
    path: "setup/methods",
    of: "client",
    group: "setup",
    tab: "Methods",
    find: "Methods: what each scheme would have come to",
  },
  { path: "setup/codes", of: "client", group: "setup", tab: "Codes", find: "Codes and code bench" },
  { path: "setup/rules", of: "client", group: "setup", tab: "Supply rules", find: "Supply rules and tester" },
  { path: "setup/rates", of: "client", group: "setup", tab: "Rates", find: "Rates by date" },
  { path: "setup/law", of: "client", group: "setup", tab: "Law", find: "Law: what to look up, corrections" },
  { path: "setup/accounts", of: "client", group: "setup", tab: "Accounts", find: "Accounts" },
  { path: "setup/contacts", of: "client", group: "setup", tab: "Contacts", find: "Contacts" },
  { path: "setup/items", of: "client", group: "setup", tab: "Items", find: "Items" },
  { path: "setup/series", of: "client", group: "setup", tab: "Number series", find: "Number series" },
  { path: "books/documents", of: "client", group: "books", tab: "Documents", find: "Documents" },
  { path: "books/documents/new/:kind", of: "client", group: null, lights: "books/documents" },
  { path: "books/documents/:documentId", of: "client", group: null, lights: "books/documents" },
  {
    path: "books/payments",
    of: "client",
    group: "books",
    tab: "Payments",
    find: "Payments, receipts and open items",
  },
  { path: "books/payments/new/:kind", of: "client", group: null, lights: "books/payments" },
  {
    path: "books/payments/new/:kind/:contactId/:documentId",
    of: "client",
    group: null,
    lights: "books/payments",
  },
  { path: "books/payments/:paymentId", of: "client", group: null, lights: "books/payments" },
  {
    path: "books/stock",
    of: "client",
    group: "books",
    tab: "Stock book",
    find: "Stock book: pieces on the margin scheme",
    only: "stock-book",
  },
  { path: "books/stock/:no", of: "client", group: null, lights: "books/stock" },
  {
    path: "books/collected",
    of: "client",
    group: "books",
    tab: "Collected at source",
    find: "Collected at source: customers above the yearly sum",
    only: "collection",
  },
  { path: "books/collected/:contactId", of: "client", group: null, lights: "books/collected" },
  {
    path: "books/takings",
    of: "client",
    group: "books",
    tab: "Takings",
    find: "Takings: what a shop took, day by day",
    only: "retail",
  },
  { path: "books/bank", of: "client", group: "books", tab: "Bank", find: "Bank: statements and matching" },
  { path: "books/terminals", of: "client", group: "books", tab: "Terminals", find: "Card terminals" },
  {
    path: "books/templates",
    of: "client",
    group: "books",
    tab: "Templates",
    find: "Templates and recurring documents",
  },
  { path: "books/import", of: "client", group: "books", tab: "Import", find: "Import files" },
  { path: "books/import/:importId", of: "client", group: null, lights: "books/import" },
  { path: "books/ledger", of: "client", group: "books", tab: "Ledger", find: "Trial balance and ledger" },
  { path: "books/ledger/:account", of: "client", group: null, lights: "books/ledger" },
  {
    path: "books/statements",
    of: "client",
    group: "ledger",
    tab: "Profit and loss, balance sheet",
    find: "Profit and loss, balance sheet",
    lights: "books/ledger",
  },
  {
    path: "books/capital",
    of: "client",
    group: "ledger",
    tab: "Capital items",
    find: "Capital items: tax that follows their use over years",
    lights: "books/ledger",
  },
  {
    path: "books/export",
    of: "client",
    group: "ledger",
    tab: "Export",
    find: "Export everything",
    lights: "books/ledger",
  },
  {
    path: "books/reports",
    of: "client",
    group: "books",
    tab: "Tax reports",
    find: "Tax reports: summary, by code, details",
  },
  { path: "books/audit", of: "client", group: "books", tab: "Audit trail", find: "Audit trail" },
  { path: "agree", of: "client", group: "agree", tab: "All", find: "Agree: every agreement of the period" },
  {
    path: "agree/control",
    of: "client",
    group: "agree",
    tab: "Control accounts",
    find: "Agree: control accounts",
  },
  { path: "agree/turnover", of: "client", group: "agree", tab: "Turnover", find: "Agree: turnover bridge" },
  {
    path: "agree/purchases",
    of: "client",
    group: "agree",
    tab: "Purchases",
    find: "Agree: purchases bridge",
  },
  {
    path: "agree/balances",
    of: "client",
    group: "agree",
    tab: "Balances",
    find: "Agree: debtors, creditors, bank",
  },
  {
    path: "agree/statements",
    of: "client",
    group: "agree",
    tab: "Statements",
    find: "Agree: statements of suppliers, customers, the authority",
  },
  { path: "agree/statements/:statementId", of: "client", group: null, lights: "agree/statements" },
  {
    path: "agree/register",
    of: "client",
    group: "agree",
    tab: "Register",
    find: "Agree: a register alone, without posting",
  },
  { path: "agree/register/:sheetId", of: "client", group: null, lights: "agree/register" },
  {
    path: "agree/year",
    of: "client",
    group: "agree",
    tab: "Year",
    find: "Agree: year roll-up, returns against the ledger by box",
  },
  {
    path: "agree/held",
    of: "client",
    group: "agree",
    tab: "Not yet deducted",
    find: "Agree: input tax not yet deducted",
  },
  {
    path: "agree/unpaid",
    of: "client",
    group: "agree",
    tab: "Unpaid too long",
    find: "Agree: unpaid too long, bad debts",
  },
  { path: "return", of: "client", group: null, find: "Return" },
  { path: "return/:end", of: "client", group: null, lights: "return" },
  { path: "settle", of: "client", group: null, find: "Settle" },
] as const satisfies readonly Screen[];

export type ScreenPath = (typeof SCREENS)[number]["path"];

/** The screens of a row of links, in order. */
export function screensIn(group: Screen["group"]): Screen[] {
  return (SCREENS as readonly Screen[]).filter((screen) => screen.group === group);
}
