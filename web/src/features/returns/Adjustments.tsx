import { useState } from "react";
import type { ReturnView } from "@fiscalon/contract/returns";
import { useScope } from "../../app/scope.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { showMoment } from "../../kit/format.ts";

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

export function AdjustDialog({
  view,
  onClose,
  onSave,
}: {
  view: ReturnView;
  onClose: () => void;
  onSave: (body: { box: string; amount: string; reason: string; evidence: string }) => void;
}) {
  const boxes = view.boxes.filter((box) => box.kind === "sum");
  const [draft, setDraft] = useState({ box: boxes[0]?.id ?? "", amount: "", reason: "", evidence: "" });
  return (
    <FormDialog
      title="Adjust a box"
      action="Adjust"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
      onSubmit={() => onSave({ ...draft, amount: draft.amount.replaceAll(",", "").replace("−", "-") })}
    >
      <SelectField
        label="Box"
        value={draft.box}
        onChange={(event) => setDraft({ ...draft, box: event.target.value })}
      >
        {boxes.map((box) => (
          <option key={box.id} value={box.id}>
            {box.id} {box.short}
          </option>
        ))}
      </SelectField>
      <Field
        label="Amount to add, minus to take off"
        value={draft.amount}
        inputMode="decimal"
        pattern="[+\-−]?[\d,]+(\.\d+)?"
        onChange={(event) => setDraft({ ...draft, amount: event.target.value })}
        required
      />
      <Field
        className="col-span-2"
        label="Reason"
        value={draft.reason}
        minLength={3}
        onChange={(event) => setDraft({ ...draft, reason: event.target.value })}
        required
      />
      <Field
        className="col-span-2"
        label="Evidence"
        value={draft.evidence}
        placeholder="where the figure comes from"
        onChange={(event) => setDraft({ ...draft, evidence: event.target.value })}
      />
    </FormDialog>
  );
}
