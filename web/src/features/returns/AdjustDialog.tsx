import { useWatch } from "react-hook-form";
import { adjustmentBody } from "@fiscalon/contract/returns";
import type { ReturnView } from "@fiscalon/contract/returns";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { plainAmount } from "../../kit/format.ts";
import { ChoiceField, TextField } from "../../kit/formFields.tsx";
import { RETURN } from "./useReturn.ts";
import type { ReturnParts } from "./useReturn.ts";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** Adds an amount to a box of the return, with a reason and where the figure comes from. */
export function AdjustDialog({
  view,
  parts,
  onClose,
}: {
  view: ReturnView;
  parts: ReturnParts;
  onClose: () => void;
}) {
  const { client } = useScope();
  const boxes = view.boxes.filter((box) => box.kind !== "formula" && box.kind !== "taxed");
  const dialog = useBodyForm({
    values: {
      box: boxes[0]?.id ?? view.families[0]?.id ?? "",
      members: [] as string[],
      amount: "",
      reason: "",
      evidence: "",
    },
    schema: adjustmentBody,
    body: ({ members, box, ...typed }) => ({
      ...typed,
      box: members.reduce((id, member) => id.replace("*", member), box),
      amount: plainAmount(typed.amount),
    }),
    send: (body) => api.post(`${RETURN}/adjustments`, parts, body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  const chosen = useWatch({ control: dialog.form.control, name: "box" });
  const family = view.families.find(({ id }) => id === chosen);
  const stars = chosen.split("*").length - 1;
  return (
    <BodyDialog
      of={dialog}
      title="Adjust a box"
      action="Adjust"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <ChoiceField className="col-span-2" name="box" label="Box">
        {boxes.map((box) => (
          <option key={box.id} value={box.id}>
            {box.id} {box.short}
          </option>
        ))}
        {view.families.map(({ id, short }) => (
          <option key={id} value={id}>
            {short}, of a member to choose
          </option>
        ))}
      </ChoiceField>
      {family &&
        Array.from({ length: stars }, (_, index) => (
          <ChoiceField
            key={`${family.id} ${index}`}
            name={`members.${index}`}
            label={index === 0 ? "Member" : "Sent or supplied from"}
          >
            <option value="">choose</option>
            {family.members.map((member) => (
              <option key={member} value={member}>
                {member}
              </option>
            ))}
          </ChoiceField>
        ))}
      <TextField
        className="col-span-2"
        name="amount"
        label="Amount to add, minus to take off"
        inputMode="decimal"
      />
      <TextField className="col-span-2" name="reason" label="Reason" />
      <TextField
        className="col-span-2"
        name="evidence"
        label="Evidence"
        placeholder="where the figure comes from"
      />
    </BodyDialog>
  );
}
