import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { Lock } from "lucide-react";
import type { DocumentRow, DocumentSum } from "@fiscalon/contract/views";
import type { TrailStep } from "@fiscalon/contract/trail";
import type { SumRow } from "../../kit/DataTable.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { KIND_NAMES } from "../../kit/kinds.ts";
import { NumberLink } from "../../kit/NumberLink.tsx";
import type { Column } from "../../kit/useGridTable.ts";

const SIDES = { sale: "Sales", purchase: "Purchases" };
const FIGURES = ["net", "tax", "gross"] as const;

/** The columns of the grid of documents. */
export function documentColumns(digits: number, pathOf: (id: number) => string): Column<DocumentRow>[] {
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, sorts: true, cell: ({ date }) => displayDate(date) },
    { id: "kind", head: "Kind", width: 134, sorts: true, cell: ({ kind }) => KIND_NAMES[kind] },
    {
      id: "number",
      head: "Number",
      width: 146,
      sorts: true,
      always: true,
      cell: ({ id, number }) => <NumberLink to={pathOf(id)}>{number}</NumberLink>,
    },
    { id: "party", head: "Party", width: 98, grow: 1, sorts: true, cell: ({ party }) => party },
    {
      id: "codes",
      head: "Codes",
      width: 92,
      cell: ({ codes }) => <span className="font-mono text-[12px]">{codes}</span>,
    },
    ...FIGURES.map((key): Column<DocumentRow> => ({
      id: key,
      head: key.charAt(0).toUpperCase() + key.slice(1),
      width: key === "tax" ? 102 : 108,
      amount: true,
      sorts: true,
      cell: (row) => (
        <Figure
          amount={row[key]}
          digits={digits}
          of={`document/${row.id}`}
          label={`${key.charAt(0).toUpperCase()}${key.slice(1)} of ${row.number}`}
          dash={key === "tax"}
        />
      ),
    })),
    {
      id: "state",
      head: "",
      width: 40,
      cell: ({ late, locked }) => (
        <span className="quiet flex items-center gap-1 text-[11.5px]">
          {late && "late"}
          {locked && <Lock size={12} aria-label="on a sealed return" />}
        </span>
      ),
    },
  ];
}

/** What all documents of a side come to. */
export function documentSums(sums: readonly DocumentSum[], digits: number, code: string): SumRow[] {
  return sums.map((sum) => ({
    caption: `${SIDES[sum.side]}: ${plural(sum.count, "document")}, credit notes taken off${code === "" ? "" : `, lines with ${code}`}`,
    figures: Object.fromEntries(
      FIGURES.map((key) => [
        key,
        <Figure
          key={key}
          amount={sum[key]}
          digits={digits}
          of={sumStep(key, sum, digits, code)}
          label={`${SIDES[sum.side]}: sum of ${key}`}
        />,
      ]),
    ),
  }));
}

function sumStep(key: (typeof FIGURES)[number], sum: DocumentSum, digits: number, code: string): TrailStep {
  const what = code === "" ? `The ${key}` : `The ${key} of the lines with ${code}`;
  return {
    ref: `documents/${sum.side}/${code}/${key}/${sum.count}/${sum[key]}`,
    title: `${SIDES[sum.side]}: sum of ${key}`,
    amount: sum[key],
    digits,
    words: [
      `${what} of all ${plural(sum.count, "document")} of the list on this side; credit notes count negative. Open any row for its own trail.`,
    ],
    parts: [],
    arithmetic: [],
  };
}
