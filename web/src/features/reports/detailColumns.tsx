import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { DetailRow } from "@fiscalon/contract/reports";
import { Figure } from "../../kit/Figure.tsx";
import { NumberLink } from "../../kit/NumberLink.tsx";
import type { Column } from "../../kit/useGridTable.ts";

const FIGURES = [
  ["net", "Net"],
  ["tax", "Tax"],
  ["recoverable", "Deducted"],
] as const;

/** The columns of the lines that were counted. */
export function detailColumns(
  digits: number,
  levyName: (levy: string) => string,
  pathOf: (document: number) => string,
): Column<DetailRow>[] {
  return [
    { id: "taxPoint", head: "Tax point", width: DATE_WIDTH, cell: (row) => displayDate(row.taxPoint) },
    {
      id: "number",
      head: "Number",
      width: 104,
      always: true,
      cell: (row) => <NumberLink to={pathOf(row.document)}>{row.number}</NumberLink>,
    },
    { id: "party", head: "Party", width: 110, grow: 1, cell: (row) => row.party },
    { id: "text", head: "Text", width: 120, grow: 1.2, cell: (row) => row.text },
    { id: "levy", head: "Levy", width: 70, cell: (row) => levyName(row.levy) },
    {
      id: "code",
      head: "Code",
      width: 66,
      cell: (row) => <span className="font-mono text-[12px]">{row.code}</span>,
    },
    { id: "rate", head: "Rate", width: 70, cell: (row) => (row.rate === null ? "–" : `${row.rate} %`) },
    ...FIGURES.map(([key, head]): Column<DetailRow> => ({
      id: key,
      head,
      width: 100,
      amount: true,
      cell: (row) => (
        <Figure
          amount={row[key]}
          digits={digits}
          of={row[key] === 0 ? null : `line/${row.document}/${row.line}`}
          label={`${row.number} line ${row.line}`}
          dash
        />
      ),
    })),
  ];
}
