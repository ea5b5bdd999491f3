import { textAt } from "@fiscalon/core/at";
import clsx from "clsx";
import { useState } from "react";
import type { ImportBatch, ImportReport, ImportSettings } from "@fiscalon/contract/imports";
import { TABLES } from "@fiscalon/core/formats/tables/tableKinds";
import { useScope } from "../../app/scope.ts";
import { plural } from "../../kit/format.ts";

/** Rows that cannot be read: mend the cell in place, or leave the row out. */
export function ProblemList({
  batch,
  report,
  busy,
  onChange,
}: {
  batch: ImportBatch;
  report: ImportReport;
  busy: boolean;
  onChange: (settings: Partial<ImportSettings>) => void;
}) {
  const { client } = useScope();
  const [mended, setMended] = useState<Record<string, string>>({});
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set());
  const touched = Object.keys(mended).length > 0 || leftOut.size > 0;
  const key = (row: number, column: number) => `${row}:${column}`;
  const toggle = (row: number) => {
    const next = new Set(leftOut);
    if (!next.delete(row)) next.add(row);
    setLeftOut(next);
  };
  const apply = (rows: ReadonlySet<number>) => {
    const cells = Object.entries(mended).map(([at, value]) => {
      const [row = 0, column = 0] = at.split(":").map(Number);
      return { row, column, value };
    });
    const kept = batch.settings.mended.filter(
      (one) => !cells.some((cell) => cell.row === one.row && cell.column === one.column),
    );
    onChange({ mended: [...kept, ...cells], leftOut: [...new Set([...batch.settings.leftOut, ...rows])] });
  };
  return (
    <section aria-label="Rows to mend" className="mb-6">
      <div className="mb-1 flex items-center gap-4">
        <h2 className="text-error">{plural(report.problemCount, "row")} to mend before anything is posted</h2>
        {batch.rejected && (
          <a
            className="word-link ml-auto"
            href={`/api/clients/${client?.id}/imports/${batch.id}/rejected`}
            title="Mend them in a spreadsheet and drop the file again"
            download
          >
            Download these rows
          </a>
        )}
        <button
          type="button"
          className={clsx("word-link", !batch.rejected && "ml-auto")}
          disabled={busy}
          onClick={() => apply(new Set(report.problems.map((problem) => problem.row)))}
        >
          Leave all of them out
        </button>
        <button
          type="button"
          className="action main"
          disabled={!touched || busy}
          onClick={() => apply(leftOut)}
        >
          Check again
        </button>
      </div>
      <div className="max-h-[320px] overflow-y-auto">
        <table className="sheet-table">
          <thead className="sticky top-0 bg-base-100">
            <tr>
              <th className="num w-[60px]">Row</th>
              <th className="w-[130px]">Column</th>
              <th className="w-[170px]">Says, can be mended here</th>
              <th>What is wrong</th>
              <th className="w-[90px]">Leave out</th>
            </tr>
          </thead>
          <tbody>
            {report.problems.map((problem, index) => {
              const { row, column } = problem;
              const name = column === null ? "" : (batch.shape.columns[column]?.name ?? "");
              return (
                <tr key={`${row} ${column} ${index}`}>
                  <td className="num">{row}</td>
                  <td>{name || fieldName(batch, problem.field)}</td>
                  <td>
                    {column !== null && (
                      <input
                        className="entry !min-h-[26px] font-mono text-[13px]"
                        aria-label={`Row ${row}, ${name}`}
                        value={mended[key(row, column)] ?? problem.cells[column] ?? ""}
                        onChange={(event) => setMended({ ...mended, [key(row, column)]: event.target.value })}
                        onKeyDown={(event) => event.key === "Enter" && apply(leftOut)}
                      />
                    )}
                  </td>
                  <td>
                    {problem.message}
                    <span className="quiet block max-w-[420px] truncate text-[11.5px]">
                      {problem.cells.filter((cell) => cell.trim() !== "").join(" · ")}
                    </span>
                  </td>
                  <td>
                    <input
                      type="checkbox"
                      className="checkbox checkbox-sm"
                      aria-label={`Leave row ${row} out`}
                      checked={leftOut.has(row)}
                      onChange={() => toggle(row)}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function fieldName({ content }: ImportBatch, field: string | null): string {
  if (field === null || !(content in TABLES)) return "";
  const fields: Readonly<Record<string, string>> = TABLES[content as keyof typeof TABLES].fields;
  return textAt(fields, field);
}
