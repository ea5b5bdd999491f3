import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { LateView, SettlementView } from "@fiscalon/contract/settlement";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";

/** What being late costs as things stand today, each charge with its arithmetic, and what was recorded of it. */
export function LateCharges({
  view: { lateCharges },
  canRecord,
  onRecord,
}: {
  view: SettlementView;
  /** Whether a charge can be recorded: only against a return that is filed. */
  canRecord: boolean;
  onRecord: (kind: LateView["kind"], amount: number) => void;
}) {
  const { minorDigits: digits } = useScope();
  const { proposed, recorded } = lateCharges;
  if (proposed.length === 0) return null;
  return (
    <section aria-label="For being late" className="mb-6">
      <h2 className="mb-1">
        For being late
        <span className="quiet ml-2 font-normal">
          as of today; what the authority charges decides
          {recorded > 0 && `; recorded: ${displayAmount(recorded, digits)}`}
        </span>
      </h2>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Charge</th>
            <th>In time until</th>
            <th className="num">So far</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {proposed.map((one) => (
            <tr key={one.id}>
              <td>
                {one.name}
                <span className="quiet block text-[12.5px]">
                  {one.says} ({one.source})
                </span>
                {one.doubt && <span className="block text-[12.5px] text-warning">▲ {one.doubt}</span>}
              </td>
              <td className="whitespace-nowrap">{displayDate(one.since)}</td>
              <td className="num">
                <Figure
                  amount={one.amount}
                  digits={digits}
                  of={{
                    ref: `late/${one.id}`,
                    title: one.name,
                    amount: one.amount,
                    digits,
                    words: [`${one.says} (${one.source}).`],
                    parts: [],
                    arithmetic: one.arithmetic,
                  }}
                  label={one.name}
                />
              </td>
              <td className="whitespace-nowrap">
                {canRecord ? (
                  <button type="button" className="word-link" onClick={() => onRecord(one.kind, one.amount)}>
                    Record
                  </button>
                ) : (
                  <span className="quiet">not filed yet</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
