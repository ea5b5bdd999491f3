import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { addDays } from "@fiscalon/core/calendar/date";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { SelectField } from "../../kit/Field.tsx";
import { LedgerNav } from "../../app/LedgerNav.tsx";
import { useLedgerDates } from "../../app/useLedgerDates.ts";

/** The trial balance between two days; every figure opens its account. */
export function TrialBalancePage() {
  const { client, path, minorDigits: digits } = useScope();
  const dates = useLedgerDates();
  const [empty, setEmpty] = useState(false);
  const [levy, setLevy] = useState("");
  const levies = [...new Set(client?.registrations.flatMap(({ levies: own }) => own) ?? [])];
  const { data: rows, error } = useQuery({
    queryKey: keys.of(client?.id, "trial-balance", dates.from, dates.to, levy),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/trial-balance", [client?.id], { from: dates.from, to: dates.to, levy }, signal),
    enabled: client !== undefined,
  });
  const shown = rows?.filter((row) => empty || row.opening !== 0 || row.debit !== 0 || row.credit !== 0);
  const sum = (key: "opening" | "debit" | "credit" | "closing") =>
    shown?.reduce((total, row) => total + row[key], 0) ?? 0;
  const before = addDays(dates.from, -1);
  return (
    <Sheet
      title="Trial balance"
      aside={`${displayDate(dates.from)} to ${displayDate(dates.to)}, debit positive`}
      actions={<BooksNav />}
    >
      <LedgerNav />
      <div className="mb-2 flex items-end gap-4">
        <DateField label="From" value={dates.from} onChange={dates.setFrom} />
        <DateField label="To" value={dates.to} onChange={dates.setTo} />
        {levies.length > 0 && (
          <SelectField
            className="w-[170px]"
            label="Postings"
            value={levy}
            onChange={(event) => setLevy(event.target.value)}
          >
            <option value="">all</option>
            {levies.map((one) => (
              <option key={one} value={one}>
                of {one} only
              </option>
            ))}
          </SelectField>
        )}
        <label className="flex cursor-pointer items-center gap-1.5 pb-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={empty}
            onChange={(event) => setEmpty(event.target.checked)}
          />
          accounts without movement too
        </label>
      </div>
      <ErrorNote error={error} />
      <div className="shrink-0 overflow-x-auto">
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Account</th>
              <th>Name</th>
              <th className="num">Opening</th>
              <th className="num">Debit</th>
              <th className="num">Credit</th>
              <th className="num">Closing</th>
            </tr>
          </thead>
          <tbody>
            {shown?.map((row) => (
              <tr key={row.code}>
                <td className="font-mono">{row.code}</td>
                <td>
                  <Link className="font-semibold hover:text-primary" to={path(`books/ledger/${row.code}`)}>
                    {row.name}
                  </Link>
                </td>
                <td className="num">
                  <Figure
                    amount={row.opening}
                    digits={digits}
                    dash
                    of={row.opening === 0 ? null : `account/${row.code}/1900-01-01/${before}`}
                    label={`Opening of ${row.name}`}
                  />
                </td>
                <td className="num">
                  <Figure
                    amount={row.debit}
                    digits={digits}
                    dash
                    of={row.debit === 0 ? null : `account/${row.code}/${dates.from}/${dates.to}`}
                    label={`Debit of ${row.name}`}
                  />
                </td>
                <td className="num">
                  <Figure
                    amount={row.credit}
                    digits={digits}
                    dash
                    of={row.credit === 0 ? null : `account/${row.code}/${dates.from}/${dates.to}`}
                    label={`Credit of ${row.name}`}
                  />
                </td>
                <td className="num font-semibold">
                  <Figure
                    amount={row.closing}
                    digits={digits}
                    dash
                    of={`account/${row.code}/${dates.from}/${dates.to}`}
                    label={`Closing of ${row.name}`}
                  />
                </td>
              </tr>
            ))}
            {shown && (
              <tr className="total">
                <td colSpan={2}>
                  {levy !== ""
                    ? `Postings of ${levy}`
                    : sum("closing") === 0
                      ? "In balance"
                      : "Out of balance"}
                </td>
                {(["opening", "debit", "credit", "closing"] as const).map((key) => (
                  <td key={key} className="num">
                    <Figure amount={sum(key)} digits={digits} dash />
                  </td>
                ))}
              </tr>
            )}
          </tbody>
        </table>
      </div>
    </Sheet>
  );
}
