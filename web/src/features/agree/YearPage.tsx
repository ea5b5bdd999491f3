import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { YEAR_CAUSES } from "@fiscalon/core/agree/yearRollUp";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { YearBox, YearView } from "@fiscalon/contract/yearRollUp";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileLinks } from "../../kit/FileLinks.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { showDate } from "../../kit/format.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { Waiting } from "../../kit/Waiting.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";
import { SpanFields } from "./SpanFields.tsx";

const YEAR = "/clients/:id/registrations/:rid/year";

/** The returns of a year against its ledger, box by box, with every cause between the two. */
export function YearPage() {
  const { client, registration, period, periods } = useScope();
  const [chosen, setChosen] = useState<{ from: string; to: string } | null>(null);
  const past = periods.filter(({ state }) => state !== "ahead");
  const span = chosen ?? (period ? { from: yearBefore(past, period.to), to: period.to } : null);
  const { data: view, error } = useQuery({
    queryKey: keys.of(client?.id, "bridge", "year", registration?.id, span),
    queryFn: () => api.get(YEAR, [client?.id, registration?.id], { ...span }),
    enabled: registration !== undefined && span !== null,
  });
  if (!registration || !span)
    return (
      <Sheet title="Year" actions={<AgreeLinks />}>
        <EmptyState title="Nothing to add up yet">
          A year of returns is laid beside its ledger once there is a registration.
        </EmptyState>
      </Sheet>
    );
  const file = `/api${filled(YEAR, [client?.id, registration.id])}/file`;
  return (
    <Sheet
      title={`Year, ${showDate(span.from)} to ${showDate(span.to)}`}
      lead="A year adds its returns as they are filed. What its ledger says of each box, and why that is another figure."
      actions={<AgreeLinks />}
    >
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <SpanFields periods={past} span={span} onChange={setChosen} />
        <span className="ml-auto flex gap-4">
          <FileLinks href={file} query={{ ...span }} />
        </span>
      </div>
      <ErrorNote error={error} />
      {!view && !error && <Waiting what="the year" />}
      {view && <YearTable view={view} rid={registration.id} />}
    </Sheet>
  );
}

/** The first day of the period that begins a year ending on a day, or of the first there is. */
function yearBefore(periods: readonly { from: string; to: string }[], end: string): string {
  const begin = addMonths(addDays(end, 1), -12);
  const inside = periods.filter(({ from, to }) => from >= begin && to <= end);
  return (inside[0] ?? periods.at(-1))?.from ?? begin;
}

function YearTable({ view, rid }: { view: YearView; rid: number }) {
  const { boxes, digits, yearly } = view;
  const used = Object.entries(YEAR_CAUSES).filter(([id]) =>
    boxes.some(({ causes }) => causes.some((cause) => cause.id === id && cause.amount !== 0)),
  );
  return (
    <>
      <div className="overflow-x-auto">
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Box</th>
              <th className="num">Ledger of the year</th>
              {used.map(([id, name]) => (
                <th key={id} className="num max-w-[130px] !whitespace-normal">
                  {name}
                </th>
              ))}
              <th className="num">Declared</th>
              <th className="num">Left</th>
            </tr>
          </thead>
          <tbody>
            {boxes.map((box) => (
              <tr key={box.box}>
                <td className="!whitespace-normal">
                  <span className="num mr-2 font-semibold">{box.box}</span>
                  {box.title}
                </td>
                <td className="num">{displayAmount(box.ledger, digits)}</td>
                {used.map(([id]) => (
                  <td key={id} className="num">
                    {amountOf(box, id) === 0 ? "–" : displayAmount(amountOf(box, id), digits)}
                  </td>
                ))}
                <td className="num">
                  <Declared box={box} digits={digits} rid={rid} />
                </td>
                <td className={box.rest === 0 ? "num" : "num text-warning"}>
                  {displayAmount(box.rest, digits)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {yearly && (
        <section className="mt-6">
          <h2 className="mb-1">{yearly.form}, as the ledger of the year would fill it</h2>
          <table className="sheet-table">
            <tbody>
              {yearly.boxes.map(({ box, title, amount }) => (
                <tr key={box}>
                  <td>
                    <span className="num mr-2 font-semibold">{box}</span>
                    {title}
                  </td>
                  <td className="num">{displayAmount(amount, digits)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </>
  );
}

function amountOf({ causes }: YearBox, id: string): number {
  return causes.find((cause) => cause.id === id)?.amount ?? NOTHING;
}

/** A cause that is not there comes to nothing. */
const NOTHING = 0;

/** What the returns declare; it opens to each of them. */
function Declared({ box, digits, rid }: { box: YearBox; digits: number; rid: number }) {
  const title = `Box ${box.box}`;
  return (
    <Figure
      amount={box.declared}
      digits={digits}
      label={`${title} of the year`}
      of={{
        ref: `year/${rid}/${box.box}/${box.returns.at(-1)?.to ?? ""}`,
        title,
        amount: box.declared,
        digits,
        words: ["The returns of the year, as they are filed or would be."],
        parts: box.returns.map(({ to, state, amount }) => ({
          ref: `box/${rid}/${to}/${box.box}`,
          label: `Return to ${showDate(to)}`,
          amount,
          detail: state,
        })),
        arithmetic: [],
      }}
    />
  );
}
