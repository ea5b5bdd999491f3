import { ScreenLinks } from "./ScreenLinks.tsx";

/** The views of the ledger. */
export function LedgerNav() {
  return (
    <ScreenLinks
      label="Ledger"
      group="ledger"
      first={{ path: "books/ledger", tab: "Trial balance" }}
      className="mb-3 flex gap-4"
    />
  );
}
