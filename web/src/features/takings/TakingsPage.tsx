import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Dispatch, SetStateAction } from "react";
import { Link } from "react-router";
import { textAt } from "@fiscalon/core/at";
import { addMonths, endOfMonth, weekday } from "@fiscalon/core/calendar/date";
import { MONTHS } from "@fiscalon/core/calendar/months";
import type { TakingsDay, TakingsDayBody, TakingsReading, TakingsSheet } from "@fiscalon/contract/takings";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { BooksNav } from "../../app/BooksNav.tsx";
import { useScope } from "../../app/scope.ts";
import { useSells } from "../../app/useKept.ts";
import { usePlainSetup } from "../../app/records.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { SelectField } from "../../kit/Field.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { FileButton } from "../../kit/FileButton.tsx";
import { plainAmount, plural, today } from "../../kit/format.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";

/** How many months back can be chosen. */
const MONTHS_BACK = 24;
const SUNDAY = 0;

/** The takings of a retailer, day by day of a month: typed or read from a file, kept as a cash sale a day. */
export function TakingsPage() {
  const sells = useSells();
  const [month, setMonth] = useState(`${today().slice(0, 8)}01`);
  const [typed, setTyped] = useState<Typed>({});
  const [seen, setSeen] = useState<Seen>({});
  if (!sells) {
    return (
      <Sheet title="Takings" actions={<BooksNav />}>
        <EmptyState title="No retail scheme is in force">
          A takings sheet belongs to one. It is joined in Set up, Places &amp; registrations.
        </EmptyState>
      </Sheet>
    );
  }
  return (
    <Month month={month} onMonth={setMonth} typed={typed} onType={setTyped} seen={seen} onSee={setSeen} />
  );
}

type ByDay<T> = Readonly<Record<string, Readonly<Record<string, T>>>>;
type Typed = ByDay<string>;
/** What a cell held when typing in it began; minor units. */
type Seen = ByDay<number>;

function Month({
  month,
  onMonth,
  typed,
  onType,
  seen,
  onSee,
}: {
  month: string;
  onMonth: (month: string) => void;
  /** What is not kept yet, also of days of other months. */
  typed: Typed;
  onType: Dispatch<SetStateAction<Typed>>;
  seen: Seen;
  onSee: Dispatch<SetStateAction<Seen>>;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const accounts = (usePlainSetup()?.accounts ?? []).filter(({ role }) => role === "bank");
  const [chosen, setChosen] = useState<string | null>(null);
  const span = { from: month, to: endOfMonth(month) };
  const { data: sheet, error } = useQuery({
    queryKey: keys.of(client?.id, "takings", month),
    queryFn: ({ signal }) => api.get("/clients/:id/takings", [client?.id], span, signal),
    enabled: client !== undefined,
  });
  const account = chosen ?? (sheet?.account || accounts[0]?.code || "");
  const keep = useMutation({
    mutationFn: ({ days }: { days: TakingsDayBody[]; sent: Typed }) =>
      api.put("/clients/:id/takings", [client?.id], { account, days }),
    onSuccess: async (_kept, { sent }) => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      // What was typed or read meanwhile stays.
      onType((now) =>
        Object.fromEntries(Object.entries(now).filter(([day, amounts]) => amounts !== sent[day])),
      );
      onSee({});
    },
    onError: async () => {
      // What somebody else kept meanwhile is told; keeping it again is on purpose.
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onSee({});
    },
  });
  const read = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return api.post("/clients/:id/takings/read", [client?.id], form);
    },
    onSuccess: ({ days: told }: TakingsReading) => {
      onType(Object.fromEntries(told.map(({ date, amounts }) => [date, amounts])));
      if (told[0]) onMonth(`${told[0].date.slice(0, 8)}01`);
    },
  });
  const days = sheet ? changedDays(sheet, typed, seen) : [];
  return (
    <Sheet
      title="Takings"
      lead="What the shop took each day, with tax. Each day is a cash sale; the return works the tax out by the retail scheme."
      actions={<BooksNav />}
    >
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <SelectField
          label="Month"
          className="w-[170px]"
          value={month}
          onChange={({ target }) => onMonth(target.value)}
        >
          {months().map((one) => (
            <option key={one} value={one}>
              {monthName(one)}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Paid into"
          className="w-[220px]"
          value={account}
          onChange={({ target }) => setChosen(target.value)}
        >
          {accounts.map(({ code, name }) => (
            <option key={code} value={code}>
              {code} {name}
            </option>
          ))}
        </SelectField>
        <FileButton
          label="File of takings"
          accept=".csv,text/csv"
          busy={read.isPending}
          doing="Reading …"
          onFile={(file) => read.mutate(file)}
        >
          Read from CSV …
        </FileButton>
        <button
          type="button"
          className="btn btn-primary btn-sm ml-auto"
          disabled={keep.isPending || days.length === 0}
          onClick={() => keep.mutate({ days, sent: typed })}
        >
          {days.length === 0 ? "All kept" : `Keep ${plural(days.length, "day")}`}
        </button>
      </div>
      <ErrorNote error={error ?? keep.error ?? read.error} />
      {sheet && (
        <Days
          sheet={sheet}
          typed={typed}
          onType={({ date, amounts }, code, text) => {
            const held = { [code]: amountOf(amounts, code), ...seen[date] };
            onSee((now) => ({ ...now, [date]: held }));
            onType((now) => ({ ...now, [date]: { ...now[date], [code]: text } }));
          }}
        />
      )}
    </Sheet>
  );
}

function Days({
  sheet,
  typed,
  onType,
}: {
  sheet: TakingsSheet;
  typed: Typed;
  onType: (day: TakingsDay, code: string, text: string) => void;
}) {
  const { path } = useScope();
  const { codes, digits } = sheet;
  const total = (amountOf: (day: TakingsDay) => number) =>
    sheet.days.reduce((sum, day) => sum + amountOf(day), 0);
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>Day</th>
          {codes.map(({ code, name }) => (
            <th key={code} className="num" title={name}>
              {code}
            </th>
          ))}
          <th className="num">Other documents</th>
          <th>Kept as</th>
        </tr>
      </thead>
      <tbody>
        {sheet.days.map((day) => (
          <tr
            key={day.date}
            className={weekday(day.date) === SUNDAY ? "border-b border-base-content/30" : undefined}
          >
            <td className="whitespace-nowrap">{displayDate(day.date)}</td>
            {codes.map(({ code, name }) => (
              <td key={code} className="num">
                <input
                  className="input input-xs w-28 text-right font-mono"
                  aria-label={`${name}, ${displayDate(day.date)}`}
                  inputMode="decimal"
                  disabled={day.sealed !== null}
                  value={typed[day.date]?.[code] ?? shown(amountOf(day.amounts, code), digits)}
                  onChange={({ target }) => onType(day, code, target.value)}
                />
              </td>
            ))}
            <td className="num">{day.others === 0 ? "–" : displayAmount(day.others, digits)}</td>
            <td className="whitespace-nowrap">
              {day.document !== null && (
                <Link className="word-link" to={path(`books/documents/${day.document}`)}>
                  cash sale
                </Link>
              )}
              {day.sealed !== null && <span className="quiet"> sealed to {displayDate(day.sealed)}</span>}
            </td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr className="font-semibold">
          <td>Kept</td>
          {codes.map(({ code }) => (
            <td key={code} className="num">
              <Figure
                amount={total(({ amounts }) => amountOf(amounts, code))}
                digits={digits}
                dash
                of={trailOf(sheet, code)}
                label={`Takings ${code}`}
              />
            </td>
          ))}
          <td className="num">
            {displayAmount(
              total(({ others }) => others),
              digits,
            )}
          </td>
          <td />
        </tr>
      </tfoot>
    </table>
  );
}

/** The days a sum of a column is made of. */
function trailOf({ codes, days, digits }: TakingsSheet, code: string) {
  const parts = days.flatMap(({ date, amounts, document }) => {
    const amount = amountOf(amounts, code);
    return document === null || amount === 0
      ? []
      : [{ ref: `document/${document}`, label: displayDate(date), detail: "cash sale", amount }];
  });
  const amount = parts.reduce((sum, part) => sum + part.amount, 0);
  const name = codes.find((one) => one.code === code)?.name ?? code;
  return { ref: `takings/${code}`, title: name, amount, digits, words: [], parts, arithmetic: [] };
}

/** Days of which something differs from what is kept; those of other months as they were told. */
function changedDays({ days, codes, digits }: TakingsSheet, typed: Typed, seen: Seen): TakingsDayBody[] {
  return Object.entries(typed).flatMap(([date, own]) => {
    const day = days.find((one) => one.date === date);
    if (day?.sealed) return [];
    const told = codes.filter(({ code }) => {
      const amount = own[code];
      return (
        amount !== undefined &&
        (!day || plainAmount(amount) !== plainAmount(shown(amountOf(day.amounts, code), digits)))
      );
    });
    const amounts = Object.fromEntries(told.map(({ code }) => [code, plainAmount(textAt(own, code))]));
    const held = told.flatMap(({ code }): [string, number][] => {
      const before = seen[date]?.[code] ?? (day && amountOf(day.amounts, code));
      return before === undefined ? [] : [[code, before]];
    });
    return told.length === 0 ? [] : [{ date, amounts, seen: Object.fromEntries(held) }];
  });
}

function amountOf(amounts: Readonly<Record<string, number>>, code: string): number {
  return Object.entries(amounts)
    .filter(([of]) => of === code)
    .reduce((sum, [, amount]) => sum + amount, 0);
}

function shown(amount: number, digits: number): string {
  return amount === 0 ? "" : formatAmount(amount, digits);
}

function months(): string[] {
  const first = `${today().slice(0, 8)}01`;
  return Array.from({ length: MONTHS_BACK }, (_, index) => addMonths(first, 1 - index));
}

function monthName(month: string): string {
  return `${MONTHS[Number(month.slice(5, 7)) - 1]} ${month.slice(0, 4)}`;
}
