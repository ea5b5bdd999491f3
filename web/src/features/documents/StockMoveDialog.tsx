import { useController, useFieldArray } from "react-hook-form";
import type { Direction } from "@fiscalon/core/model/taxCode";
import { stockMoveBody } from "@fiscalon/contract/stockMove";
import type { StockMoveBody } from "@fiscalon/contract/stockMove";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { useSetup } from "../../app/useSetup.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { Combo } from "../../kit/Combo.tsx";
import { today } from "../../kit/format.ts";
import { ChoiceField, DayField, TextField, useFieldError } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

const BLANK = { text: "", amount: "", saleCode: "", purchaseCode: "" };

/** Goods moved to a place that is registered apart: one dialog makes the supply and the purchase. */
export function StockMoveDialog({
  onClose,
  onMoved,
}: {
  onClose: () => void;
  onMoved: (sale: number) => void;
}) {
  const { client } = useScope();
  const places = (client?.places ?? []).filter(({ region }) =>
    client?.registrations.some((one) => one.region === region),
  );
  const [first, second] = places;
  const dialog = useBodyForm({
    values: {
      date: today(),
      number: "",
      from: String(first?.id ?? ""),
      to: String(second?.id ?? ""),
      lines: [BLANK],
    },
    schema: stockMoveBody,
    body: ({ from, to, lines, ...rest }): StockMoveBody => ({
      ...rest,
      from: Number(from),
      to: Number(to),
      lines: lines.map((line) => ({ ...line, amount: line.amount.replaceAll(",", "") })),
    }),
    send: (body) => api.post("/clients/:id/stock-moves", [client?.id], body),
    refresh: keys.client(client?.id),
    onSaved: ({ sale }) => onMoved(sale),
  });
  const { control } = dialog.form;
  const { fields, append, remove } = useFieldArray({ control, name: "lines" });
  return (
    <BodyDialog
      of={dialog}
      title="Move stock between registrations"
      action="Post both"
      wide
      onClose={onClose}
    >
      <p className="quiet mb-3">
        Between two registrations of one business this is a supply: an invoice of the one, a bill of the
        other, at the value typed here. Profit does not move.
      </p>
      <div className="grid grid-cols-[1fr_1fr_140px_140px] gap-x-3">
        <ChoiceField name="from" label="From">
          {places.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </ChoiceField>
        <ChoiceField name="to" label="to">
          {places.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </ChoiceField>
        <DayField name="date" label="Date" />
        <TextField name="number" label="Number" className="font-mono" />
      </div>
      {fields.map((field, index) => (
        <div key={field.id} className="mt-2 grid grid-cols-[1fr_120px_150px_150px_auto] items-start gap-x-3">
          <TextField name={`lines.${index}.text`} label="Goods" />
          <TextField
            name={`lines.${index}.amount`}
            label="Value"
            inputMode="decimal"
            className="text-right font-mono"
          />
          <CodeField name={`lines.${index}.saleCode`} label="Code of the supply" side="sale" />
          <CodeField name={`lines.${index}.purchaseCode`} label="Code of the purchase" side="purchase" />
          <button
            type="button"
            className="word-link self-end pb-2"
            disabled={fields.length === 1}
            onClick={() => remove(index)}
          >
            Take out
          </button>
        </div>
      ))}
      <button type="button" className="word-link mt-3" onClick={() => append(BLANK)}>
        Add a line
      </button>
    </BodyDialog>
  );
}

function CodeField({ name, label, side }: { name: string; label: string; side: Direction }) {
  const setup = useSetup();
  const { field } = useController({ name });
  const error = useFieldError(name, label);
  const choices = [...(setup?.effect.codes.values() ?? [])]
    .filter(({ direction }) => direction === side)
    .map((code) => ({ value: code.code, label: code.name }));
  return (
    <Combo
      label={label}
      value={String(field.value)}
      choices={choices}
      onChange={field.onChange}
      error={error}
      mono
    />
  );
}
