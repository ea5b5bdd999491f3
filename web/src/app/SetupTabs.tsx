import clsx from "clsx";
import { NavLink } from "react-router";
import { useScope } from "./scope.ts";
import { screensIn } from "./screens.ts";

/** The screens of Set up; they stand in the place of the ribbon, because Set up knows no period. */
export function SetupTabs() {
  const { path } = useScope();
  return (
    <nav aria-label="Set up" className="flex h-[78px] shrink-0 gap-6 border-b border-base-300 px-6">
      {screensIn("setup").map(({ path: to, tab }) => (
        <NavLink
          key={to}
          to={path(to)}
          className={({ isActive }) =>
            clsx(
              "flex items-center border-b-[3px] pt-[3px] font-semibold",
              isActive ? "border-primary" : "quiet border-transparent hover:text-base-content",
            )
          }
        >
          {tab}
        </NavLink>
      ))}
    </nav>
  );
}
