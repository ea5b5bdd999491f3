import type { ReturnView } from "@fiscalon/contract/returns";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";
import { showMoment } from "../../kit/format.ts";

/** What was added to boxes by hand, with its reason. */
export function Adjustments({
  view,
  editable,
  onRemove,
}: {
  view: ReturnView;
  editable: boolean;
  onRemove: (id: number) => void;
}) {
  const { minorDigits } = useScope();
  if (view.adjustments.length === 0) return null;
  return (
    <section aria-label="Adjustments" className="mt-5">
      <h2>Adjustments</h2>
      <table className="sheet-table">
        <tbody>
          {view.adjustments.map((one) => (
            <tr key={one.id}>
              <td className="w-[44px] font-bold text-secondary">{one.box}</td>
              <td>
                {one.reason}
                {one.evidence && <span className="quiet"> · {one.evidence}</span>}
                <span className="quiet block text-[12px]">
                  {one.by}, {showMoment(one.at)}
                </span>
              </td>
              <td className="num w-[130px]">
                <Figure
                  amount={one.amount}
                  digits={minorDigits}
                  of={`adjustment/${one.id}`}
                  label={`Adjustment of box ${one.box}`}
                />
              </td>
              <td className="w-[96px]">
                {editable && (
                  <button type="button" className="word-link" onClick={() => onRemove(one.id)}>
                    Take back
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
