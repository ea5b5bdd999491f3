import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { ImportBatch, ImportReport } from "@fiscalon/contract/imports";
import { displayAmount } from "@fiscalon/core/money/amount";
import { recordWord } from "./holds.ts";
import { plural } from "../../kit/format.ts";

/** What the file holds and what posting it does, in figures. */
export function ReportSummary({
  batch,
  report,
  digits,
}: {
  batch: ImportBatch;
  report: ImportReport;
  digits: number;
}) {
  const facts: [string, string][] = [
    [
      "Documents",
      `${plural(report.documents, "document")} from ${plural(report.rows, "row")}${report.creditNotes > 0 ? `, ${plural(report.creditNotes, "credit note")} among them` : ""}`,
    ],
    ["Dates", report.from && report.to ? `${displayDate(report.from)} to ${displayDate(report.to)}` : "–"],
    ["Net and tax", `${displayAmount(report.net, digits)} and ${displayAmount(report.tax, digits)}`],
    [
      "New to the books",
      batch.state === "posted"
        ? plural(batch.documents, recordWord(batch))
        : `${plural(report.fresh, recordWord(batch))}${report.alreadyThere > 0 ? `; ${plural(report.alreadyThere, "document")} already there, skipped` : ""}`,
    ],
    ...(report.newContacts > 0 ? [["New contacts", String(report.newContacts)] as [string, string]] : []),
    ...(report.newItems > 0 ? [["New items", String(report.newItems)] as [string, string]] : []),
    ...(report.newAccounts > 0
      ? [["New accounts", `${report.newAccounts}, which the chart lacks`] as [string, string]]
      : []),
    ...(report.late > 0
      ? [
          [
            "Late items",
            `${plural(report.late, "document")} dated in a sealed period; the next open one reports them`,
          ] as [string, string],
        ]
      : []),
    ...(report.unregistered > 0
      ? [
          ["On no return", `${plural(report.unregistered, "document")} that no registration covers`] as [
            string,
            string,
          ],
        ]
      : []),
  ];
  return (
    <section
      aria-label="What the file does"
      className="mb-5 grid grid-cols-[minmax(0,1fr)_minmax(300px,auto)] items-start gap-8"
    >
      <div>
        <dl className="grid grid-cols-[140px_1fr]">
          {facts.map(([term, value]) => (
            <div key={term} className="contents">
              <dt className="quiet border-b border-base-300 py-1.5">{term}</dt>
              <dd className="border-b border-base-300 py-1.5">{value}</dd>
            </div>
          ))}
        </dl>
        {report.notices.length > 0 && (
          <ul className="mt-2 space-y-0.5 text-[13px]">
            {report.notices.slice(0, 6).map((notice) => (
              <li key={`${notice.row} ${notice.message}`}>
                <span className="quiet">Row {notice.row}:</span> {notice.message}
              </li>
            ))}
            {report.notices.length > 6 && (
              <li className="quiet">and {report.notices.length - 6} more notices</li>
            )}
          </ul>
        )}
      </div>
      {report.codes.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Code</th>
              <th className="num">Lines</th>
              <th className="num">Net</th>
              <th className="num">Tax</th>
            </tr>
          </thead>
          <tbody>
            {report.codes.map((row) => (
              <tr key={row.code}>
                <td>
                  <span className="code-chip">{row.code || "none"}</span>
                </td>
                <td className="num">{row.lines.toLocaleString("en-GB")}</td>
                <td className="num">{displayAmount(row.net, digits)}</td>
                <td className="num">{displayAmount(row.tax, digits)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
