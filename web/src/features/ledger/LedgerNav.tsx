import clsx from "clsx";
import { NavLink } from "react-router";
import { useScope } from "../../app/scope.ts";

const VIEWS = [
  ["books/ledger", "Trial balance"],
  ["books/statements", "Profit and loss, balance sheet"],
  ["books/export", "Export"],
];

/** The views of the ledger. */
export function LedgerNav() {
  const { path } = useScope();
  return (
    <nav aria-label="Ledger" className="mb-3 flex gap-4">
      {VIEWS.map(([to = "", name]) => (
        <NavLink
          key={to}
          to={path(to)}
          end
          className={({ isActive }) =>
            clsx(
              "border-b-2",
              isActive ? "border-primary" : "quiet border-transparent hover:text-base-content",
            )
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
