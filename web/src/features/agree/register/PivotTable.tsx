import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { SheetView } from "@fiscalon/contract/registerSheets";
import { api } from "../../../api/client.ts";
import { keys } from "../../../api/keys.ts";
import { ErrorNote } from "../../../kit/ErrorNote.tsx";
import { SelectField } from "../../../kit/Field.tsx";
import { FindInput } from "../../../kit/FindInput.tsx";
import { plural } from "../../../kit/format.ts";

interface Opened {
  row: string | null;
  column: string | null;
}

const PAGE = 100;

/** The register put together by what is chosen; every figure opens the rows it is made of. */
export function PivotTable({ clientId, view }: { clientId: number | undefined; view: SheetView }) {
  const { id, columns, mapping, digits } = view;
  const [ask, setAsk] = useState({
    rows: mapping.date === null ? `c${mapping.party ?? 0}` : `m${mapping.date}`,
    columns: mapping.tax === null ? "" : "tax",
    figure: "accounts",
    search: "",
  });
  const [opened, setOpened] = useState<Opened | null>(null);
  const { data: pivot, error } = useQuery({
    queryKey: keys.of(clientId, "registers", "pivot", id, ask, mapping),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/register-sheets/:sheet/pivot", [clientId, id], ask, signal),
    placeholderData: (before) => before,
  });
  const set = (change: Partial<typeof ask>) => {
    setAsk({ ...ask, ...change });
    setOpened(null);
  };
  const dimensions = columns.flatMap(({ at, name, kind }) =>
    kind === "date"
      ? [
          [`m${at}`, `${name}, by month`],
          [`c${at}`, name],
        ]
      : kind === "text"
        ? [[`c${at}`, name]]
        : [],
  );
  const choices = [...(mapping.tax === null ? [] : [["tax", "Tax there or not"]]), ...dimensions];
  const figures = columns.filter(({ kind }) => kind === "amount");
  return (
    <section className="mt-8">
      <h2 className="mb-2">The register by</h2>
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <SelectField label="Rows" value={ask.rows} onChange={({ target }) => set({ rows: target.value })}>
          {choices.map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Columns"
          value={ask.columns}
          onChange={({ target }) => set({ columns: target.value })}
        >
          <option value="">none</option>
          {choices.map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Figure"
          value={ask.figure}
          onChange={({ target }) => set({ figure: target.value })}
        >
          <option value="accounts">Value in the accounts</option>
          <option value="returns">Value on the return</option>
          {figures.map(({ at, name }) => (
            <option key={at} value={`c${at}`}>
              {name}
            </option>
          ))}
        </SelectField>
        <FindInput
          label="Only rows with"
          placeholder="Any text"
          value={ask.search}
          onChange={(search) => set({ search })}
        />
      </div>
      <ErrorNote error={error} />
      {pivot && (
        <div className="overflow-x-auto">
          <table className="sheet-table">
            <thead>
              <tr>
                <th>{choices.find(([value]) => value === ask.rows)?.[1]}</th>
                {ask.columns !== "" &&
                  pivot.columns.map((column) => (
                    <th key={column} className="num">
                      {column || "blank"}
                    </th>
                  ))}
                <th className="num">All</th>
                <th className="num">Rows</th>
              </tr>
            </thead>
            <tbody>
              {pivot.rows.map(({ key, amounts, total, count }) => (
                <tr key={key}>
                  <td>{key || "blank"}</td>
                  {ask.columns !== "" &&
                    amounts.map((amount, at) => (
                      <td key={pivot.columns[at]} className="num">
                        {amount === null ? (
                          "–"
                        ) : (
                          <Cell
                            amount={displayAmount(amount, digits)}
                            label={`${key || "blank"}, ${pivot.columns[at] || "blank"}`}
                            onOpen={() => setOpened({ row: key, column: pivot.columns[at] ?? null })}
                          />
                        )}
                      </td>
                    ))}
                  <td className="num">
                    <Cell
                      amount={displayAmount(total, digits)}
                      label={key || "blank"}
                      onOpen={() => setOpened({ row: key, column: null })}
                    />
                  </td>
                  <td className="num">{count}</td>
                </tr>
              ))}
              <tr className="font-semibold">
                <td>{pivot.of > pivot.rows.length ? `All ${pivot.of}` : "All"}</td>
                {ask.columns !== "" &&
                  pivot.totals.map((total, at) => (
                    <td key={pivot.columns[at]} className="num">
                      {displayAmount(total, digits)}
                    </td>
                  ))}
                <td className="num">{displayAmount(pivot.total, digits)}</td>
                <td className="num">{view.rows}</td>
              </tr>
            </tbody>
          </table>
        </div>
      )}
      {opened && <RowsBehind clientId={clientId} view={view} ask={ask} opened={opened} />}
    </section>
  );
}

function Cell({ amount, label, onOpen }: { amount: string; label: string; onOpen: () => void }) {
  return (
    <button type="button" className="figure" aria-label={`${label}: ${amount}, open rows`} onClick={onOpen}>
      {amount}
    </button>
  );
}

function RowsBehind({
  clientId,
  view: { id, columns, digits },
  ask,
  opened,
}: {
  clientId: number | undefined;
  view: SheetView;
  ask: { rows: string; columns: string; figure: string; search: string };
  opened: Opened;
}) {
  const [limit, setLimit] = useState(PAGE);
  const query = {
    ...ask,
    ...(opened.row === null ? {} : { row: opened.row }),
    ...(opened.column === null ? {} : { column: opened.column }),
    limit: Math.min(limit, 500),
  };
  const { data: page, error } = useQuery({
    queryKey: keys.of(clientId, "registers", "rows", id, query),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/register-sheets/:sheet/rows", [clientId, id], query, signal),
    placeholderData: (before) => before,
  });
  return (
    <div className="mt-4 overflow-x-auto" role="region" aria-label="Rows behind the figure">
      <h3 className="mb-1 font-semibold">
        {[opened.row, opened.column]
          .filter((key) => key !== null)
          .map((key) => key || "blank")
          .join(", ")}
        {page && <span className="quiet ml-2">{plural(page.total, "row")}</span>}
      </h3>
      <ErrorNote error={error} />
      {page && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th className="num">Row</th>
              {columns.map(({ at, name, kind }) => (
                <th key={at} className={kind === "amount" ? "num" : ""}>
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {page.rows.map(({ no, cells }) => (
              <tr key={no}>
                <td className="num">{no}</td>
                {columns.map(({ at, kind }) => {
                  const cell = cells[at] ?? null;
                  return (
                    <td key={at} className={kind === "amount" ? "num" : ""}>
                      {cell === null
                        ? ""
                        : typeof cell === "number"
                          ? displayAmount(cell, digits)
                          : kind === "date" && /^\d{4}-\d{2}-\d{2}$/.test(cell)
                            ? displayDate(cell)
                            : cell}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {page && page.total > page.rows.length && limit < 500 && (
        <button type="button" className="word-link mt-1" onClick={() => setLimit(limit + PAGE)}>
          More rows
        </button>
      )}
    </div>
  );
}
