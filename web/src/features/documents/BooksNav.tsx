import clsx from "clsx";
import { NavLink, useLocation } from "react-router";
import { useScope } from "../../app/scope.ts";

const SCREENS = [
  ["books/documents", "Documents"],
  ["books/payments", "Payments"],
  ["books/bank", "Bank"],
  ["books/terminals", "Terminals"],
  ["books/kept", "Kept"],
  ["books/import", "Import"],
  ["books/ledger", "Ledger"],
  ["books/reports", "Tax reports"],
  ["books/changes", "Changes"],
];

/** The screens of Books. */
export function BooksNav() {
  const { path } = useScope();
  const inLedger = /\/books\/(statements|export)\b/.test(useLocation().pathname);
  return (
    <nav aria-label="Books" className="flex gap-5">
      {SCREENS.map(([to = "", name]) => (
        <NavLink
          key={to}
          to={path(to)}
          className={({ isActive }) =>
            clsx(
              "border-b-2 pb-0.5 font-semibold",
              isActive || (inLedger && to === "books/ledger")
                ? "border-primary"
                : "quiet border-transparent hover:text-base-content",
            )
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
