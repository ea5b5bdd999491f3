import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { Link } from "react-router";
import type { TerminalDay } from "@fiscalon/contract/terminals";
import { Figure } from "../../kit/Figure.tsx";
import type { Column } from "../../kit/useGridTable.ts";

const TAKINGS = [
  ["gross", "Taken", "Taken on"],
  ["refunds", "Refunds", "Refunds on"],
  ["surcharge", "Surcharge", "Surcharge on"],
  ["tips", "Tips", "Tips on"],
  ["fees", "Fees", "Fees of"],
] as const;

/** The columns of the trading days of a terminal; a figure opens the document it was posted with. */
export function dayColumns(digits: number, pathOf: (document: number) => string): Column<TerminalDay>[] {
  return [
    { id: "day", head: "Day", width: DATE_WIDTH, always: true, cell: ({ day }) => displayDate(day) },
    {
      id: "documents",
      head: "Documents",
      width: 200,
      grow: 1,
      cell: ({ documents }) => (
        <span className="flex gap-3">
          {documents.length === 0 && <span className="quiet">day not over, or codes missing</span>}
          {documents.map(({ id, kind }) => (
            <Link key={id} className="word-link" to={pathOf(id)}>
              {kind === "fee-bill" ? "fees" : "summary"}
            </Link>
          ))}
        </span>
      ),
    },
    { id: "count", head: "Count", width: 70, amount: true, cell: (row) => String(row.transactions) },
    ...TAKINGS.map(([key, head, label]): Column<TerminalDay> => ({
      id: key,
      head,
      width: 96,
      amount: true,
      cell: (row) => {
        const kind = key === "fees" ? "fee-bill" : "terminal-summary";
        const document = row.documents.find((one) => one.kind === kind);
        return (
          <Figure
            amount={row[key]}
            digits={digits}
            of={document ? `document/${document.id}` : null}
            label={`${label} ${row.day}`}
            dash={key !== "gross"}
          />
        );
      },
    })),
  ];
}
