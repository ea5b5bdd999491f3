/** What is fetched of a client and kept under a key. */
export type ClientQuery =
  | "audit"
  | "balances"
  | "bank"
  | "bridge"
  | "capital-items"
  | "changes"
  | "clock"
  | "codes"
  | "collection"
  | "contacts"
  | "control"
  | "document"
  | "documents"
  | "find"
  | "held-credit"
  | "import"
  | "imports"
  | "items"
  | "ledger"
  | "methods"
  | "open-items"
  | "original"
  | "payment"
  | "payments"
  | "piece"
  | "pieces"
  | "periods"
  | "positions"
  | "registers"
  | "return"
  | "scheme-effect"
  | "series"
  | "settlement"
  | "setup"
  | "statements"
  | "stations"
  | "takings"
  | "tax-details"
  | "tax-summary"
  | "templates"
  | "terminals"
  | "unpaid"
  | "touched"
  | "trail"
  | "trial-balance";

/**
 * The keys under which answers of the server are kept. Whatever is of a client begins with the client, so that a
 * change to its books makes all of it stale at once.
 */
export const keys = {
  clients: ["clients"],
  copies: ["copies"],
  jobs: ["jobs"],
  jurisdictions: ["jurisdictions"],
  law: ["law"],
  jurisdiction: (ref: string | undefined) => ["jurisdictions", ref],
  positionWith: ["position with what is typed"],
  ownJurisdictions: ["jurisdictions", "own"],
  packs: (countries: readonly string[]) => ["packs", ...countries],
  client: (client: number | undefined) => ["client", client],
  of: (client: number | undefined, what: ClientQuery, ...which: unknown[]) => [
    "client",
    client,
    what,
    ...which,
  ],
};
