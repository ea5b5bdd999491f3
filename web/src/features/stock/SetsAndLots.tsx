import { useFieldArray, useFormContext } from "react-hook-form";
import { joinBody, splitBody } from "@fiscalon/contract/stockBook";
import type { PieceView } from "@fiscalon/contract/stockBook";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { plainAmount, plural, today } from "../../kit/format.ts";
import { DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { pieceNo } from "./pieceWords.ts";

/** A lot becomes pieces of their own; the price goes to them by value. */
export function SplitDialog({ piece, onClose }: { piece: PieceView; onClose: () => void }) {
  const { client, minorDigits: digits } = useScope();
  const part = { name: piece.name, identifier: "", value: "" };
  const dialog = useBodyForm({
    values: { on: today(), parts: [part, { ...part }] },
    schema: splitBody,
    body: ({ on, parts }) => ({
      on,
      parts: parts.map(({ value, ...rest }) => ({ ...rest, value: plainAmount(value) || "0" })),
    }),
    send: (body) => api.post("/clients/:id/pieces/:no/split", [client?.id, piece.no], body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog of={dialog} title={`Split piece ${pieceNo(piece.no)}`} action="Split" wide onClose={onClose}>
      <p className="quiet mb-3">
        {displayAmount(piece.price ?? 0, digits)} is shared among the parts in proportion to what each is
        worth; what is left over goes to the largest.
      </p>
      <DayField name="on" label="On" className="w-[160px]" />
      <Parts part={part} />
    </BodyDialog>
  );
}

function Parts({ part }: { part: { name: string; identifier: string; value: string } }) {
  const { control } = useFormContext();
  const { fields, append, remove } = useFieldArray({ control, name: "parts" });
  return (
    <>
      {fields.map((field, index) => (
        <div key={field.id} className="mt-2 flex items-end gap-3">
          <TextField name={`parts.${index}.name`} label={`Part ${index + 1}`} className="flex-1" />
          <TextField name={`parts.${index}.identifier`} label="Mark" className="w-[130px]" />
          <TextField name={`parts.${index}.value`} label="Worth" inputMode="decimal" className="w-[110px]" />
          <button
            type="button"
            className="word-link pb-1.5"
            disabled={fields.length <= 2}
            onClick={() => remove(index)}
          >
            Remove
          </button>
        </div>
      ))}
      <button type="button" className="word-link mt-2" onClick={() => append(part)}>
        One more part
      </button>
    </>
  );
}

/** Several pieces that are sold as one. */
export function JoinDialog({
  nos,
  onClose,
  onSaved,
}: {
  nos: number[];
  onClose: () => void;
  onSaved: (piece: PieceView) => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { on: today(), name: "" },
    schema: joinBody,
    body: (typed) => ({ ...typed, pieces: nos }),
    send: (body) => api.post("/clients/:id/pieces/join", [client?.id], body),
    refresh: keys.client(client?.id),
    onSaved,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Join ${plural(nos.length, "piece")} into a set`}
      action="Join"
      onClose={onClose}
    >
      <p className="quiet mb-3">
        {nos.map(pieceNo).join(", ")}: sold in one price, with one margin over the sum of what they cost.
      </p>
      <div className="grid gap-3">
        <TextField name="name" label="What the set is called" />
        <DayField name="on" label="On" />
      </div>
    </BodyDialog>
  );
}
