import { displayDate } from "@fiscalon/core/calendar/displayDate";
import clsx from "clsx";
import { useEffect, useRef } from "react";
import type { RegistrationView } from "@fiscalon/contract/views";
import { displayAmount } from "@fiscalon/core/money/amount";
import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import { daysBetween } from "@fiscalon/core/calendar/date";
import { useScope } from "./scope.ts";
import { showPeriod, today } from "../kit/format.ts";
import { StateMark } from "../kit/stateMark.tsx";

/** Whether two registrations need their start to be told apart. */
function sameLevies(all: readonly RegistrationView[], one: RegistrationView): boolean {
  return all.some((r) => r.id !== one.id && r.levies.join() === one.levies.join());
}

/** The strip of filing periods; the chosen one scopes the screen. */
export function PeriodRibbon() {
  const { client, packs, registration, periods, period, choose, minorDigits } = useScope();
  const current = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const tile = current.current;
    const strip = tile?.parentElement?.parentElement;
    if (tile && strip)
      strip.scrollLeft = tile.offsetLeft - strip.offsetLeft - strip.clientWidth / 2 + tile.clientWidth / 2;
  }, [period?.to, periods.length]);
  if (!registration) return <NoRegistration />;
  return (
    <nav aria-label="Filing periods" className="no-print flex h-[78px] shrink-0 border-b border-base-300">
      <div className="flex w-[206px] shrink-0 flex-col justify-center border-r border-base-300 px-4">
        <label className="sr-only" htmlFor="registration">
          Registration
        </label>
        <select
          id="registration"
          className="w-full cursor-pointer truncate bg-transparent pr-6 font-semibold"
          value={registration.id}
          onChange={(event) => choose({ registration: Number(event.target.value) })}
        >
          {client?.registrations.map((r) => (
            <option key={r.id} value={r.id}>
              {packs.levyNames(r.levies)}{" "}
              {sameLevies(client.registrations, r) ? `from ${displayDate(r.from)}` : ""}
            </option>
          ))}
        </select>
        <span className="quiet truncate font-mono text-[11.5px]">
          {registration.number ?? "no number yet"}
        </span>
        <span className="quiet text-[11.5px]">{rhythmOn(registration, period?.to ?? today()).frequency}</span>
      </div>
      <ol className="flex overflow-x-auto">
        {periods.map((tile) => {
          const chosen = tile.to === period?.to;
          return (
            <li key={tile.to} className="shrink-0">
              <button
                ref={chosen ? current : null}
                type="button"
                aria-current={chosen ? "true" : undefined}
                onClick={() => choose({ period: tile.to })}
                className={clsx(
                  "flex h-full w-[126px] cursor-pointer flex-col justify-center border-r border-base-300 px-3 text-left",
                  chosen ? "border-b-[3px] border-b-primary bg-accent" : "hover:bg-base-200",
                )}
              >
                <span className="text-[12px]">{showPeriod(tile.from, tile.to)}</span>
                <span className="font-mono font-semibold tabular-nums">
                  {tile.net === 0 ? "–" : displayAmount(tile.net, minorDigits)}
                </span>
                <StateMark state={tile.state} suffix={dueSuffix(tile)} />
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

function dueSuffix({ state, due, to }: { state: string; due: string; to: string }): string {
  if (!["open", "in-review", "sealed"].includes(state) || to >= today()) return "";
  const days = daysBetween(today(), due);
  return days < 0 ? " · overdue" : ` · ${days} d`;
}

function NoRegistration() {
  const { client } = useScope();
  if (!client) return <div className="h-[78px] border-b border-base-300" />;
  return (
    <div className="no-print flex h-[78px] shrink-0 items-center border-b border-base-300 px-6">
      <p className="quiet">
        No registration yet: there are no filing periods, and documents are on no return.
      </p>
    </div>
  );
}
