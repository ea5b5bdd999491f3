import { Link } from "react-router";
import type { ReactNode } from "react";

/** The number of something in the books, as the way to it. */
export function NumberLink({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link to={to} className="block truncate font-mono text-[12.5px] font-semibold hover:text-primary">
      {children}
    </Link>
  );
}
