import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useFieldArray, useWatch } from "react-hook-form";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import { displayAmount } from "@fiscalon/core/money/amount";
import { scheduleBody } from "@fiscalon/contract/code";
import type { TouchedDocuments } from "@fiscalon/contract/views";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { plural } from "../../kit/format.ts";
import { DayField, TextField } from "../../kit/formFields.tsx";
import { Waiting } from "../../kit/Waiting.tsx";
import { StaysDeclared } from "./StaysDeclared.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** A row as it is typed: without an end where it holds on. */
type TypedRow = Omit<RateRow, "to"> & { to: string };
const BLANK_ROW: TypedRow = { from: "", to: "", rate: "", source: "" };

/** The rates of a schedule by date; before a change is kept it says which open documents it touches. */
export function ScheduleDialog({
  id,
  rows,
  digits,
  onClose,
}: {
  id: string | null;
  rows: readonly RateRow[];
  digits: number;
  onClose: () => void;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const dialog = useBodyForm({
    values: {
      name: id ?? "own.",
      rows: rows.length === 0 ? [BLANK_ROW] : rows.map((row) => ({ ...row, to: row.to ?? "" })),
    },
    schema: scheduleBody,
    body: (typed) => ({ rows: rowsOf(typed.rows) }),
    seen: seenOf(rows),
    send: (body, { name }, seen) => api.put("/clients/:id/schedules/:ref", [client?.id, name], body, seen),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  const { control } = dialog.form;
  const { fields, append, remove } = useFieldArray({ control, name: "rows" });
  const [name, typed] = useWatch({ control, name: ["name", "rows"] });
  const now = rowsOf(typed);
  const complete = now.every((row) => row.from !== "" && row.rate !== "");
  const { data: touched, isFetching } = useQuery({
    queryKey: keys.of(client?.id, "touched", name, now),
    queryFn: ({ signal }) =>
      api.ask("/clients/:id/schedules/:ref/touched", [client?.id, name], { rows: now }, signal),
    enabled: id !== null && complete && JSON.stringify(now) !== JSON.stringify(rows),
    retry: false,
  });
  return (
    <BodyDialog
      of={dialog}
      title={id ? packs.rateName(id) : "New schedule"}
      action="Save"
      wide
      onClose={onClose}
    >
      {id === null && <TextField name="name" label="Name" className="mb-3 max-w-[220px] font-mono" />}
      <div className="grid grid-cols-[130px_130px_110px_1fr_auto] items-start gap-x-3 gap-y-2">
        {fields.map((field, index) => (
          <div key={field.id} className="contents">
            <DayField name={`rows.${index}.from`} label="From" />
            <DayField name={`rows.${index}.to`} label="to" optional />
            <TextField name={`rows.${index}.rate`} label="Rate" inputMode="decimal" className="font-mono" />
            <TextField name={`rows.${index}.source`} label="Source" />
            <button
              type="button"
              className="word-link self-end pb-2"
              disabled={fields.length === 1}
              onClick={() => remove(index)}
            >
              Take out
            </button>
          </div>
        ))}
      </div>
      <button type="button" className="word-link mt-3" onClick={() => append(BLANK_ROW)}>
        Add a row
      </button>
      {isFetching && <Waiting what="the documents it touches" />}
      {touched && <TouchedNote touched={touched} digits={digits} />}
    </BodyDialog>
  );
}

function TouchedNote({ touched, digits }: { touched: TouchedDocuments; digits: number }) {
  const { count, declared, first } = touched;
  return (
    <div role="status" className="note-row mt-3">
      {count === 0
        ? "No open document is touched."
        : `${plural(count, "open document")} would be worked out anew.`}
      <ul className="mt-1 text-[12.5px]">
        {first.slice(0, 6).map((one) => (
          <li key={one.id}>
            {one.number}, {displayDate(one.date)}:{" "}
            <span className="font-mono">{displayAmount(one.gross, digits)}</span>
          </li>
        ))}
      </ul>
      <StaysDeclared documents={declared} />
    </div>
  );
}

function rowsOf(typed: readonly TypedRow[]): RateRow[] {
  return typed.map(({ from, to, rate, source }) => ({ from, to: to || null, rate, source }));
}
