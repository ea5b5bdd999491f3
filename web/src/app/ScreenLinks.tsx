import clsx from "clsx";
import type { ReactNode } from "react";
import { Link, matchPath, useLocation } from "react-router";
import { useScope } from "./scope.ts";
import { useCollects, useKeepsStockBook, useSells } from "./useKept.ts";
import { SCREENS, screensIn } from "./screens.ts";
import type { Screen } from "./screens.ts";

/** A row of links to the screens of a group; the one that is open, or belongs to what is open, is lit. */
export function ScreenLinks({
  label,
  group,
  first,
  notes = {},
  className,
}: {
  label: string;
  group: Screen["group"];
  /** A screen of another group that stands before them. */
  first?: { path: string; tab: string };
  /** What stands small under a link, by its path. */
  notes?: Readonly<Record<string, ReactNode>>;
  className: string;
}) {
  const { path } = useScope();
  const { pathname } = useLocation();
  const here = (SCREENS as readonly Screen[]).find(
    (screen) => screen.of === "client" && matchPath(`/c/:clientId/${screen.path}`, pathname),
  );
  const where = { "stock-book": useKeepsStockBook(), collection: useCollects(), retail: useSells() };
  const offered = screensIn(group).filter(({ only }) => only === undefined || where[only]);
  const links = [...(first ? [first] : []), ...offered];
  const lit = links.some((link) => link.path === here?.path) ? here?.path : here?.lights;
  return (
    <nav aria-label={label} className={className}>
      {links.map(({ path: to, tab }) => (
        <Link
          key={to}
          to={path(to)}
          aria-current={lit === to ? "page" : undefined}
          className={clsx(
            "min-h-6 border-b-2 pt-0.5 pb-0.5",
            lit === to ? "border-primary" : "quiet border-transparent hover:text-base-content",
          )}
        >
          {tab}
          {notes[to] && <span className="block text-[12px] font-normal">{notes[to]}</span>}
        </Link>
      ))}
    </nav>
  );
}
