import { keys } from "../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import clsx from "clsx";
import { Moon, PanelLeftClose, PanelLeftOpen, Sun, SunMoon } from "lucide-react";
import { useState } from "react";
import { Link, useLocation } from "react-router";
import { basisOn } from "@fiscalon/core/model/basis";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../api/client.ts";
import { plural, today } from "../kit/format.ts";
import { UnderWay } from "./UnderWay.tsx";
import { useScope } from "./scope.ts";
import { applyTheme, chosenTheme } from "./theme.ts";
import type { Theme } from "./theme.ts";

interface Station {
  name: string;
  to: string;
  match: RegExp;
  word: string;
  done: boolean;
  todo: boolean;
}

/** The left edge: client, the five stations in the order of work with their state, practice pages. */
export function Spine({ onFind }: { onFind: () => void }) {
  const { client, registration, path } = useScope();
  const { pathname } = useLocation();
  const stations = useStations();
  const [narrow, setNarrow] = useState(localStorage.getItem("fiscalon.spine") === "narrow");
  const toggle = () => {
    localStorage.setItem("fiscalon.spine", narrow ? "wide" : "narrow");
    setNarrow(!narrow);
  };
  return (
    <aside
      className={clsx(
        "no-print flex shrink-0 flex-col border-r border-base-300 bg-base-200 py-3",
        narrow ? "w-[56px] px-2" : "w-[196px] px-3.5",
      )}
    >
      <Link to="/" className="flex items-center gap-2 pb-3" aria-label="Fiscalon, all clients">
        <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden>
          <rect x="1" y="2" width="18" height="5" fill="currentColor" />
          <rect x="1" y="9" width="12" height="4" className="fill-primary" />
          <rect x="1" y="15" width="8" height="4" fill="currentColor" />
        </svg>
        {!narrow && <span className="text-[17px] font-bold">Fiscalon</span>}
      </Link>
      {client && !narrow && (
        <Link
          to="/"
          className="block border-y border-base-300 py-2.5 hover:text-primary"
          title="Change the client"
        >
          <span className="block leading-tight font-semibold">{client.name}</span>
          <span className="quiet text-[12px]">
            {[client.places[0]?.name, client.country, registration && basisOn(registration, today())]
              .filter(Boolean)
              .join(" · ")}
          </span>
        </Link>
      )}
      {client && (
        <nav aria-label="Stations" className="mt-3">
          <ol>
            {stations.map((station, index) => {
              const here = station.match.test(pathname);
              return (
                <li key={station.name}>
                  <Link
                    to={path(station.to)}
                    aria-current={here ? "page" : undefined}
                    className="flex items-center gap-2.5 rounded py-[7px] hover:text-primary"
                    title={station.name}
                  >
                    <span
                      aria-hidden
                      className={clsx(
                        "flex h-[19px] w-[19px] shrink-0 items-center justify-center rounded-full border text-[11px] font-bold",
                        here
                          ? "border-primary bg-primary text-primary-content"
                          : station.done
                            ? "border-success bg-success text-success-content"
                            : "border-secondary",
                      )}
                    >
                      {index + 1}
                    </span>
                    {!narrow && (
                      <>
                        <span className={clsx(here && "font-bold")}>{station.name}</span>
                        <span
                          className={clsx(
                            "ml-auto text-[11.5px]",
                            station.todo ? "font-semibold text-warning" : "quiet",
                          )}
                        >
                          {station.word}
                        </span>
                      </>
                    )}
                  </Link>
                </li>
              );
            })}
          </ol>
        </nav>
      )}
      <div className="mt-auto border-t border-base-300 pt-2">
        {!narrow && (
          <>
            <Link to="/" className="block py-1 hover:text-primary">
              Clients
            </Link>
            <Link to="/jurisdictions" className="block py-1 hover:text-primary">
              Jurisdictions
            </Link>
            <Link to="/copies" className="block py-1 hover:text-primary">
              Copies
            </Link>
            <button
              type="button"
              onClick={onFind}
              className="flex w-full cursor-pointer items-center gap-2 py-1 hover:text-primary"
            >
              <kbd className="kbd kbd-sm font-mono">Ctrl K</kbd> find anything
            </button>
          </>
        )}
        <UnderWay narrow={narrow} />
        <div className={clsx("flex gap-1 pt-1", narrow && "flex-col items-center")}>
          <ThemeButton />
          <button
            type="button"
            className="cursor-pointer rounded p-1 hover:bg-base-300"
            onClick={toggle}
            aria-label={narrow ? "Widen the spine" : "Narrow the spine"}
          >
            {narrow ? <PanelLeftOpen size={16} /> : <PanelLeftClose size={16} />}
          </button>
        </div>
      </div>
    </aside>
  );
}

const NEXT: Record<Theme, Theme> = { system: "paper", paper: "lamp", lamp: "system" };
const THEME_NAME: Record<Theme, string> = { system: "as the machine", paper: "light", lamp: "dark" };

function ThemeButton() {
  const [theme, setTheme] = useState(chosenTheme());
  const Icon = { system: SunMoon, paper: Sun, lamp: Moon }[theme];
  const change = () => {
    applyTheme(NEXT[theme]);
    setTheme(NEXT[theme]);
  };
  return (
    <button
      type="button"
      className="cursor-pointer rounded p-1 hover:bg-base-300"
      onClick={change}
      aria-label={`Theme: ${THEME_NAME[theme]}. Change`}
      title={`Theme: ${THEME_NAME[theme]}`}
    >
      <Icon size={16} />
    </button>
  );
}

/** The state of each station for the chosen period. */
function useStations(): Station[] {
  const { client, registration, period, minorDigits } = useScope();
  const enabled = registration !== undefined && period !== undefined && period.state !== "ahead";
  const { data: counts } = useQuery({
    queryKey: keys.of(client?.id, "stations", registration?.id, period?.to),
    queryFn: ({ signal }) =>
      api.get(
        "/clients/:id/registrations/:rid/stations/:period",
        [client?.id, registration?.id, period?.to],
        {},
        signal,
      ),
    enabled,
  });
  const open = counts?.findings ?? 0;
  const state = period?.state ?? "open";
  const settled = state === "settled";
  return [
    {
      name: "Set up",
      to: "setup/places",
      match: /\/setup\//,
      word: registration ? "complete" : "1 to do",
      done: registration !== undefined,
      todo: registration === undefined,
    },
    {
      name: "Books",
      to: "books/documents",
      match: /\/books\//,
      word: counts ? plural(counts.lines, "line") : "",
      done: counts !== undefined && counts.lines > 0,
      todo: false,
    },
    {
      name: "Agree",
      to: "agree",
      match: /\/agree/,
      word: counts ? `${displayAmount(counts.left, minorDigits)} left` : "",
      done: counts?.left === 0,
      todo: counts !== undefined && counts.left !== 0,
    },
    {
      name: "Return",
      to: "return",
      match: /\/return/,
      word: ["sealed", "filed", "settled"].includes(state)
        ? state === "sealed"
          ? "sealed"
          : "filed"
        : open > 0
          ? plural(open, "finding")
          : "",
      done: state === "filed" || settled,
      todo: open > 0,
    },
    {
      name: "Settle",
      to: "settle",
      match: /\/settle/,
      word: settled ? "settled" : state === "filed" ? "1 to do" : "",
      done: settled,
      todo: state === "filed",
    },
  ];
}
