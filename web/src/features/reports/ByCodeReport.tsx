import { ChevronDown, ChevronRight } from "lucide-react";
import { useState } from "react";
import type { SummaryRow } from "@fiscalon/contract/reports";
import { displayAmount } from "@fiscalon/core/money/amount";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { plural } from "../../kit/format.ts";
import { EmptyState } from "../../kit/Sheet.tsx";
import { DetailReport } from "./DetailReport.tsx";
import { useTaxSummary } from "./useTaxSummary.ts";
import type { Filter } from "./useTaxSummary.ts";

/** Every code with its sums; opened, it shows its lines. */
export function ByCodeReport({
  clientId,
  filter,
  chosen,
}: {
  clientId: number;
  filter: Filter;
  chosen: string;
}) {
  const { minorDigits } = useScope();
  const packs = usePacks();
  const { data: rows, error } = useTaxSummary(clientId, filter);
  const [open, setOpen] = useState<string | null>(chosen === "" ? null : chosen);
  if (error) return <ErrorNote error={error} />;
  if (rows?.length === 0) {
    return <EmptyState title="Nothing was counted in these days">Choose other days or filters.</EmptyState>;
  }
  const shown = (amount: number) => (amount === 0 ? "–" : displayAmount(amount, minorDigits));
  return (
    <ul>
      {byCode(rows ?? []).map((group) => {
        const key = keyOf(group);
        return (
          <li key={key} className="border-b border-base-300">
            <button
              type="button"
              aria-expanded={open === key}
              className="grid w-full cursor-pointer grid-cols-[20px_minmax(0,1fr)_90px_110px_110px_110px] items-center gap-x-3 py-2 text-left hover:bg-base-200"
              onClick={() => setOpen(open === key ? null : key)}
            >
              {open === key ? <ChevronDown size={15} aria-hidden /> : <ChevronRight size={15} aria-hidden />}
              <span>
                <span className="code-chip mr-2">{group.code}</span>
                {group.name}, {packs.levyName(group.levy)}, {group.direction}s
              </span>
              <span className="quiet text-right">{plural(group.lines, "line")}</span>
              {[group.net, group.tax, group.recoverable].map((amount, index) => (
                <span key={index} className="num">
                  {shown(amount)}
                </span>
              ))}
            </button>
            {open === key && (
              <div className="flex h-[330px] flex-col pb-3 pl-8">
                <DetailReport
                  clientId={clientId}
                  filter={{ ...filter, code: group.code, levy: group.levy, direction: group.direction }}
                />
              </div>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** How the page names a code of a levy and side when it opens one. */
export function keyOf({ levy, direction, code }: Pick<SummaryRow, "levy" | "direction" | "code">): string {
  return `${levy} ${direction} ${code}`;
}

/** The summary with the rates of a code put together. */
function byCode(rows: readonly SummaryRow[]): SummaryRow[] {
  const groups = new Map<string, SummaryRow>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    groups.set(
      keyOf(row),
      group
        ? {
            ...group,
            lines: group.lines + row.lines,
            net: group.net + row.net,
            tax: group.tax + row.tax,
            recoverable: group.recoverable + row.recoverable,
          }
        : row,
    );
  }
  return [...groups.values()];
}
